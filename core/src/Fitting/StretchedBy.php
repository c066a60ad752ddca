<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelToMm;

/** Own factors as somebody typed them: only the mean scale and the turn are fitted. Parameters: logarithm of mean mm per unit, turn. */
final readonly class StretchedBy implements ShapeModel
{
    private float $stretch;

    /** @param float $ratio x's factor over y's, > 0 */
    public function __construct(float $ratio)
    {
        $this->stretch = 0.5 * log($ratio);
    }

    public function model(): Model
    {
        return Model::Stretched;
    }

    public function parameters(): array
    {
        return ['scale', 'turn'];
    }

    public function apply(array $parameters, float $u, float $v): array
    {
        return (new Stretched())->apply([$parameters[0], $parameters[1], $this->stretch], $u, $v);
    }

    public function start(float $mmPerUnit, float $turnRad): array
    {
        return [log($mmPerUnit), $turnRad];
    }

    public function priors(array $parameters): array
    {
        return [];
    }

    public function pixelToMm(array $parameters, PageFrame $frame, float $centreX, float $centreY): PixelToMm
    {
        return LinearMap::pixelToMm($this, $parameters, $frame, $centreX, $centreY);
    }
}
