<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** Two picks on a line whose direction in the model is known, modulo half a turn. */
final readonly class GridPick
{
    /** @param float $directionRad counter-clockwise from +x: 0 for x, π/2 for y */
    public function __construct(public string $id, public string $a, public string $b, public float $directionRad)
    {
    }

    /** @param float $bearingDegrees clockwise from north, north being +y */
    public static function directionOfBearing(float $bearingDegrees): float
    {
        return deg2rad(90.0 - $bearingDegrees);
    }
}
