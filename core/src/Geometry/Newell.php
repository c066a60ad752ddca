<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/** Which way a plane face looks, and how large it is (Newell's formula: Sutherland, Sproull and Schumacker, 1974). */
final class Newell
{
    /**
     * @param list<array{float, float, float}> $corners of a ring, taken about the first so that one far from the origin loses no digits
     *
     * @return array{float, float, float} to where the ring is seen counter-clockwise from, twice its area long
     */
    public static function normal(array $corners): array
    {
        [$nx, $ny, $nz] = [0.0, 0.0, 0.0];
        [$ox, $oy, $oz] = $corners[0] ?? [0.0, 0.0, 0.0];
        [$ax, $ay, $az] = [0.0, 0.0, 0.0];
        foreach ($corners as [$x, $y, $z]) {
            [$bx, $by, $bz] = [$x - $ox, $y - $oy, $z - $oz];
            $nx += $ay * $bz - $az * $by;
            $ny += $az * $bx - $ax * $bz;
            $nz += $ax * $by - $ay * $bx;
            [$ax, $ay, $az] = [$bx, $by, $bz];
        }

        return [$nx, $ny, $nz];
    }
}
