<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelToMm;

/**
 * Own factors along the drawing's own x and y, the axes square, one turn: a copy that came out wider or narrower. Parameters:
 * logarithm of the mean mm per unit, turn, half the logarithm of x's factor over y's.
 */
final readonly class Stretched implements ShapeModel
{
    public function model(): Model
    {
        return Model::Stretched;
    }

    public function parameters(): array
    {
        return ['scale', 'turn', 'stretch'];
    }

    public function apply(array $parameters, float $u, float $v): array
    {
        [$scale, $turn, $stretch] = $parameters;
        $cos = cos($turn);
        $sin = sin($turn);

        return [exp($scale + $stretch) * ($cos * $u - $sin * $v), exp($scale - $stretch) * ($sin * $u + $cos * $v)];
    }

    public function start(float $mmPerUnit, float $turnRad): array
    {
        return [log($mmPerUnit), $turnRad, 0.0];
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
