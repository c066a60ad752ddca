<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelToMm;

/**
 * What a fit may do to the picture. Works in normalised page coordinates: origin at the page's centre, y up, unit =
 * half the page's diagonal, so that parameters are of order one.
 */
interface ShapeModel
{
    public function model(): Model;

    /** @return list<string> what each parameter is; `scale` and `turn` are held at the start when nothing determines them */
    public function parameters(): array;

    /**
     * @param list<float> $parameters in the order of parameters()
     *
     * @return array{float, float} where the normalised point goes, mm relative to where the page's centre goes
     */
    public function apply(array $parameters, float $u, float $v): array;

    /** @return list<float> parameters that reproduce the start as nearly as the model can */
    public function start(float $mmPerUnit, float $turnRad): array;

    /**
     * @param list<float> $parameters as they are: what is known of some may hang on others
     *
     * @return array<int, float> parameters known beforehand to lie near zero: their standard deviations by index
     */
    public function priors(array $parameters): array;

    /** @param list<float> $parameters */
    public function pixelToMm(array $parameters, PageFrame $frame, float $centreX, float $centreY): PixelToMm;
}
