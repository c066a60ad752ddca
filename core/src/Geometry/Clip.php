<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/** Clips rings by convex ones (Sutherland and Hodgman, 1974). */
final class Clip
{
    /**
     * Area of a ring that lies inside a convex one. Where the ring is not convex the clipped one may run back along
     * itself; its signed area is that of the parts all the same.
     *
     * @param list<array{float, float}> $ring
     * @param list<array{float, float}> $convex counter-clockwise
     *
     * @return float signed as the ring
     */
    public static function area(array $ring, array $convex): float
    {
        foreach ($convex as $i => [$ax, $ay]) {
            [$bx, $by] = $convex[($i + 1) % \count($convex)];
            $clipped = [];
            $n = \count($ring);
            foreach ($ring as $k => $p) {
                $q = $ring[($k + 1) % $n];
                // Twice the area with the edge: positive to its left.
                $s = ($bx - $ax) * ($p[1] - $ay) - ($by - $ay) * ($p[0] - $ax);
                $t = ($bx - $ax) * ($q[1] - $ay) - ($by - $ay) * ($q[0] - $ax);
                if ($s >= 0.0) {
                    $clipped[] = $p;
                }
                if (($s > 0.0 && $t < 0.0) || ($s < 0.0 && $t > 0.0)) {
                    $part = $s / ($s - $t);
                    $clipped[] = [$p[0] + $part * ($q[0] - $p[0]), $p[1] + $part * ($q[1] - $p[1])];
                }
            }
            $ring = $clipped;
        }

        return Polygon::area($ring);
    }

    /**
     * What of a convex ring lies in an upright box.
     *
     * @param list<array{float, float}> $ring
     * @param array{float, float, float, float} $box xmin, ymin, xmax, ymax
     *
     * @return list<array{float, float}> fewer than three points where nothing does
     */
    public static function box(array $ring, array $box): array
    {
        foreach ([[0, 1.0, $box[0]], [1, 1.0, $box[1]], [0, -1.0, $box[2]], [1, -1.0, $box[3]]] as [$axis, $sign, $limit]) {
            $kept = [];
            $n = \count($ring);
            foreach ($ring as $k => $p) {
                $q = $ring[($k + 1) % $n];
                [$s, $t] = [$sign * ($p[$axis] - $limit), $sign * ($q[$axis] - $limit)];
                if ($s >= 0.0) {
                    $kept[] = $p;
                }
                if (($s > 0.0 && $t < 0.0) || ($s < 0.0 && $t > 0.0)) {
                    $at = [$p[0] + $s / ($s - $t) * ($q[0] - $p[0]), $p[1] + $s / ($s - $t) * ($q[1] - $p[1])];
                    $at[$axis] = $limit;
                    $kept[] = $at;
                }
            }
            $ring = $kept;
        }

        return $ring;
    }
}
