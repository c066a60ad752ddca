<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/** One scale and one turn. Parameters: logarithm of mm per unit, turn in radians. */
final readonly class Similar implements ShapeModel
{
    public function model(): Model
    {
        return Model::Similar;
    }

    public function parameters(): array
    {
        return ['scale', 'turn'];
    }

    public function apply(array $parameters, float $u, float $v): array
    {
        $s = exp($parameters[0]);
        $cos = cos($parameters[1]);
        $sin = sin($parameters[1]);

        return [$s * ($cos * $u - $sin * $v), $s * ($sin * $u + $cos * $v)];
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
        return PixelToMm::similar(exp($parameters[0]) / $frame->unitPx, $parameters[1], $frame->centre, new Point($centreX, $centreY));
    }
}
