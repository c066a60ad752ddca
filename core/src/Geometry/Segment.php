<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/** Straight pieces between two points, mm. Touching counts as meeting. */
final class Segment
{
    /**
     * @param array{float, float} $p
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float, float} nearest point of ab to p, and its parameter 0…1 from a to b
     */
    public static function nearest(array $p, array $a, array $b): array
    {
        $dx = $b[0] - $a[0];
        $dy = $b[1] - $a[1];
        $length2 = $dx * $dx + $dy * $dy;
        $t = $length2 > 0.0 ? max(0.0, min(1.0, (($p[0] - $a[0]) * $dx + ($p[1] - $a[1]) * $dy) / $length2)) : 0.0;

        return [$a[0] + $t * $dx, $a[1] + $t * $dy, $t];
    }

    /**
     * Where two segments cross: parameters along each, or null when they are parallel or pass each other.
     *
     * @param array{float, float} $a
     * @param array{float, float} $b
     * @param array{float, float} $c
     * @param array{float, float} $d
     *
     * @return array{float, float}|null
     */
    public static function crossing(array $a, array $b, array $c, array $d): ?array
    {
        $meeting = self::meeting($a, $b, $c, $d);
        if (null === $meeting) {
            return null;
        }
        [$s, $t] = $meeting;

        return $s < 0.0 || $s > 1.0 || $t < 0.0 || $t > 1.0 ? null : $meeting;
    }

    /**
     * Where the lines through two pairs of points meet, also beyond them: parameters along each, 0 at its first point and 1 at its second.
     *
     * @param array{float, float} $a
     * @param array{float, float} $b
     * @param array{float, float} $c
     * @param array{float, float} $d
     * @param float $leastSine of the angle between them; null where it is flatter
     *
     * @return array{float, float}|null
     */
    public static function meeting(array $a, array $b, array $c, array $d, float $leastSine = Tolerance::PARALLEL_SINE): ?array
    {
        $ux = $b[0] - $a[0];
        $uy = $b[1] - $a[1];
        $vx = $d[0] - $c[0];
        $vy = $d[1] - $c[1];
        $cross = $ux * $vy - $uy * $vx;
        if (abs($cross) <= $leastSine * hypot($ux, $uy) * hypot($vx, $vy)) {
            return null;
        }
        $wx = $c[0] - $a[0];
        $wy = $c[1] - $a[1];

        return [($wx * $vy - $wy * $vx) / $cross, ($wx * $uy - $wy * $ux) / $cross];
    }

    /**
     * The shortest way between two convex rings that do not overlap.
     *
     * @param list<array{float, float}> $p
     * @param list<array{float, float}> $q
     *
     * @return array{array{float, float}, array{float, float}, float} the two points and their distance; distance 0 where the rings cross
     */
    public static function shortestWay(array $p, array $q): array
    {
        $best = [$p[0], $q[0], \INF];
        foreach ([[$p, $q, false], [$q, $p, true]] as [$from, $to, $swapped]) {
            foreach ($from as $i => $point) {
                foreach ($to as $j => $a) {
                    $b = $to[($j + 1) % \count($to)];
                    [$x, $y] = self::nearest($point, $a, $b);
                    $distance = hypot($x - $point[0], $y - $point[1]);
                    if ($distance < $best[2]) {
                        $best = $swapped ? [[$x, $y], $point, $distance] : [$point, [$x, $y], $distance];
                    }
                    if (null !== self::crossing($point, $from[($i + 1) % \count($from)], $a, $b)) {
                        return [$point, $point, 0.0];
                    }
                }
            }
        }

        return $best;
    }
}
