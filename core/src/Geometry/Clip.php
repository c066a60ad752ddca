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
        return Polygon::area(self::convex($ring, $convex));
    }

    /**
     * What of a ring lies in a convex one.
     *
     * @param list<array{float, float}> $ring
     * @param list<array{float, float}> $convex counter-clockwise
     *
     * @return list<array{float, float}> where the ring is not convex it may run back along itself
     */
    public static function convex(array $ring, array $convex): array
    {
        $n = \count($convex);
        foreach ($convex as $i => $from) {
            if (\count($ring) < 3) {
                return [];
            }
            $to = $convex[$i + 1 < $n ? $i + 1 : 0];
            $ring = self::leftOf($ring, $from, [$to[0] - $from[0], $to[1] - $from[1]]);
        }

        return $ring;
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
        [$x1, $y1, $x2, $y2] = $box;
        foreach ([
            [[$x1, $y1], [0.0, -1.0]],
            [[$x1, $y1], [1.0, 0.0]],
            [[$x2, $y2], [0.0, 1.0]],
            [[$x2, $y2], [-1.0, 0.0]],
        ] as [$point, $direction]) {
            $ring = self::leftOf($ring, $point, $direction);
        }

        return $ring;
    }

    /**
     * What of a ring lies to the left of a line.
     *
     * @param list<array{float, float}> $ring
     * @param array{float, float} $point of the line
     * @param array{float, float} $direction
     *
     * @return list<array{float, float}>
     */
    public static function leftOf(array $ring, array $point, array $direction): array
    {
        [$x, $y] = $point;
        [$dx, $dy] = $direction;
        $kept = [];
        $n = \count($ring);
        foreach ($ring as $k => $p) {
            $q = $ring[($k + 1) % $n];
            $s = $dx * ($p[1] - $y) - $dy * ($p[0] - $x);
            $t = $dx * ($q[1] - $y) - $dy * ($q[0] - $x);
            if ($s >= 0.0) {
                $kept[] = $p;
            }
            if (($s > 0.0 && $t < 0.0) || ($s < 0.0 && $t > 0.0)) {
                $part = $s / ($s - $t);
                $kept[] = [$p[0] + $part * ($q[0] - $p[0]), $p[1] + $part * ($q[1] - $p[1])];
            }
        }

        return $kept;
    }
}
