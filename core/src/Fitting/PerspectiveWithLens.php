<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\Lens;
use Plinth\Core\Geometry\PixelToMm;

/** A homography of what a lens has bent by one term (Lens). Parameters: those of Perspective, and k by the page's unit. */
final readonly class PerspectiveWithLens implements ShapeModel
{
    /** No lens bends more than this. */
    private const MOST_K = 0.1;

    private Perspective $plain;

    public function __construct(?Focal $focal = null)
    {
        $this->plain = new Perspective($focal);
    }

    public function model(): Model
    {
        return Model::Perspective;
    }

    public function parameters(): array
    {
        return [...$this->plain->parameters(), 'lens'];
    }

    public function apply(array $parameters, float $u, float $v): array
    {
        $w = 1.0 + $parameters[6] * ($u * $u + $v * $v);

        return $this->plain->apply($parameters, $u / $w, $v / $w);
    }

    public function start(float $mmPerUnit, float $turnRad): array
    {
        return [...$this->plain->start($mmPerUnit, $turnRad), 0.0];
    }

    public function priors(array $parameters): array
    {
        return $this->plain->priors($parameters) + [6 => self::MOST_K];
    }

    public function pixelToMm(array $parameters, PageFrame $frame, float $centreX, float $centreY): PixelToMm
    {
        return PixelToMm::ofMatrix(
            $this->plain->pixelToMm($parameters, $frame, $centreX, $centreY)->matrix(),
            new Lens($parameters[6] / $frame->unitPx ** 2, $frame->centre),
        );
    }
}
