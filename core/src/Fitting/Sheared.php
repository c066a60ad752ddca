<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelToMm;

/**
 * Any linear map: a copy that leans, or was stretched along the page while it lay turned. Parameters: those of Stretched, and by
 * how much x grows with y.
 */
final readonly class Sheared implements ShapeModel
{
    public function model(): Model
    {
        return Model::Sheared;
    }

    public function parameters(): array
    {
        return ['scale', 'turn', 'stretch', 'shear'];
    }

    public function apply(array $parameters, float $u, float $v): array
    {
        [$scale, $turn, $stretch, $shear] = $parameters;
        $x = cos($turn) * $u - sin($turn) * $v;
        $y = sin($turn) * $u + cos($turn) * $v;

        return [exp($scale + $stretch) * $x + exp($scale) * $shear * $y, exp($scale - $stretch) * $y];
    }

    public function start(float $mmPerUnit, float $turnRad): array
    {
        return [log($mmPerUnit), $turnRad, 0.0, 0.0];
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
