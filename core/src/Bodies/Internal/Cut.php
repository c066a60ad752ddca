<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;

/**
 * Cuts parts of the plan along lines.
 *
 * @internal
 *
 * @phpstan-import-type Shape from Overlay
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final class Cut
{
    /** What lies no further off a line lies on it, mm. */
    private const ON_MM = 1e-5;
    /** mm² that are no part */
    private const NOTHING_MM2 = 1e-3;

    /**
     * What lies on either side of a line; corners on it belong to both.
     *
     * @param Ring $ring simple, counter-clockwise
     * @param array{float, float} $on a point of the line
     * @param array{float, float} $along its direction
     *
     * @return array{list<Ring>, list<Ring>} to the left and to the right of it
     */
    public static function line(array $ring, array $on, array $along): array
    {
        $length = hypot(...$along);
        [$dx, $dy] = [$along[0] / $length, $along[1] / $length];
        $off = [];
        foreach ($ring as [$x, $y]) {
            $off[] = $dx * ($y - $on[1]) - $dy * ($x - $on[0]);
        }
        if (min($off) >= -self::ON_MM) {
            return [[$ring], []];
        }
        if (max($off) <= self::ON_MM) {
            return [[], [$ring]];
        }
        // All the way round, with what crosses the line put in; a corner on it counts to the left.
        [$points, $crossings] = [[], []];
        $n = \count($ring);
        foreach ($ring as $i => $p) {
            $k = $i + 1 < $n ? $i + 1 : 0;
            $points[] = [$p, $off[$i] >= -self::ON_MM ? 1 : -1];
            if ($off[$i] >= -self::ON_MM !== $off[$k] >= -self::ON_MM) {
                $q = $ring[$k];
                $at = match (true) {
                    abs($off[$i]) <= self::ON_MM => $p,
                    abs($off[$k]) <= self::ON_MM => $q,
                    default => self::part($p, $q, $off[$i] / ($off[$i] - $off[$k])),
                };
                $crossings[\count($points)] = $dx * ($at[0] - $on[0]) + $dy * ($at[1] - $on[1]);
                $points[] = [$at, 0];
            }
        }
        // Along the line, every second stretch between crossings lies inside.
        asort($crossings);
        $other = [];
        foreach (array_chunk(array_keys($crossings), 2) as $pair) {
            [$other[$pair[0]], $other[$pair[1] ?? $pair[0]]] = [$pair[1] ?? $pair[0], $pair[0]];
        }

        return [self::traced($points, $other, 1), self::traced($points, $other, -1)];
    }

    /**
     * @param list<array{array{float, float}, int}> $points of the ring with crossings, and on which side each lies
     * @param array<int, int> $other crossing → the one where the line goes back
     *
     * @return list<Ring>
     */
    private static function traced(array $points, array $other, int $side): array
    {
        $n = \count($points);
        $seen = [];
        $rings = [];
        foreach ($points as $start => [, $of]) {
            if ($of !== $side || isset($seen[$start])) {
                continue;
            }
            $ring = [];
            for ($i = $start; !isset($seen[$i]); $i = ($i + 1) % $n) {
                $seen[$i] = true;
                $ring[] = $points[$i][0];
                if (0 === $points[$i][1]) {
                    $i = $other[$i];
                    $ring[] = $points[$i][0];
                }
            }
            $ring = self::tidy($ring);
            if (\count($ring) > 2 && Polygon::area($ring) > self::NOTHING_MM2) {
                $rings[] = $ring;
            }
        }

        return $rings;
    }

    /**
     * Cuts rings along every line that passes through them, so that each part lies wholly on one side of each.
     *
     * @param list<Ring> $rings
     * @param list<array{array{float, float}, array{float, float}}> $lines
     *
     * @return list<Ring>
     */
    public static function along(array $rings, array $lines): array
    {
        foreach ($lines as [$p, $q]) {
            $parts = [];
            foreach ($rings as $ring) {
                if (self::passes($ring, $p, $q)) {
                    [$left, $right] = self::line($ring, $p, [$q[0] - $p[0], $q[1] - $p[1]]);
                    array_push($parts, ...$left, ...$right);
                } else {
                    $parts[] = $ring;
                }
            }
            $rings = $parts;
        }

        return $rings;
    }

    /**
     * Whether a ring lies beside others: it may touch them.
     *
     * @param Ring $ring
     * @param Ring $other
     */
    public static function isBeside(array $ring, array $other): bool
    {
        $p = $other[\count($other) - 1];
        foreach ($other as $q) {
            if (self::passes($ring, $p, $q)) {
                return false;
            }
            $p = $q;
        }

        return !Polygon::contains($ring, ...self::inside($other)) && !Polygon::contains($other, ...self::inside($ring));
    }

    /**
     * Whether a line between two points passes through the inside of a ring.
     *
     * @param Ring $ring
     * @param array{float, float} $p
     * @param array{float, float} $q
     */
    public static function passes(array $ring, array $p, array $q): bool
    {
        [$dx, $dy] = [$q[0] - $p[0], $q[1] - $p[1]];
        $length = hypot($dx, $dy);
        if ($length <= self::ON_MM) {
            return false;
        }
        $parts = [0.0, 1.0];
        $n = \count($ring);
        [$least, $most] = [\INF, -\INF];
        $off = [];
        foreach ($ring as [$x, $y]) {
            $off[] = $s = ($dx * ($y - $p[1]) - $dy * ($x - $p[0])) / $length;
            [$least, $most] = [min($least, $s), max($most, $s)];
        }
        if ($least >= -self::ON_MM || $most <= self::ON_MM) {
            return false;
        }
        foreach ($ring as $i => [$ax, $ay]) {
            $k = $i + 1 < $n ? $i + 1 : 0;
            if ($off[$i] >= 0.0 !== $off[$k] >= 0.0) {
                $t = $off[$i] / ($off[$i] - $off[$k]);
                [$x, $y] = [$ax + $t * ($ring[$k][0] - $ax), $ay + $t * ($ring[$k][1] - $ay)];
                $parts[] = max(0.0, min(1.0, (($x - $p[0]) * $dx + ($y - $p[1]) * $dy) / $length ** 2));
            }
        }
        sort($parts);
        foreach ($parts as $i => $to) {
            $from = $parts[$i - 1] ?? $to;
            if (($to - $from) * $length > self::ON_MM) {
                $middle = ($from + $to) / 2.0;
                if (Polygon::contains($ring, $p[0] + $middle * $dx, $p[1] + $middle * $dy)) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * A place well within a ring.
     *
     * @param Ring $ring
     *
     * @return array{float, float}
     */
    public static function inside(array $ring): array
    {
        [$x, $y] = [0.0, 0.0];
        foreach ($ring as [$px, $py]) {
            $x += $px;
            $y += $py;
        }
        $n = \count($ring);
        [$x, $y] = [$x / $n, $y / $n];
        // Of one that bends inward the middle may lie outside, or on its edge.
        if ($n > 3) {
            [$ax, $ay] = $ring[$n - 1];
            foreach ($ring as [$bx, $by]) {
                if (($bx - $ax) * ($y - $ay) - ($by - $ay) * ($x - $ax) < 1e-3 * hypot($bx - $ax, $by - $ay)) {
                    return Polygon::labelPoint($ring);
                }
                [$ax, $ay] = [$bx, $by];
            }
        }

        return [$x, $y];
    }

    /**
     * Parts without holes: cut through the middle of each.
     *
     * @param list<Shape> $shapes
     *
     * @return list<Ring>
     */
    public static function withoutHoles(array $shapes): array
    {
        $rings = [];
        foreach ($shapes as $shape) {
            if ([] === $shape['holes']) {
                $rings[] = $shape['outer'];
                continue;
            }
            [$x1, $y1, $x2, $y2] = Polygon::bounds($shape['outer']);
            [$left, , $right] = Polygon::bounds($shape['holes'][0]);
            $middle = ($left + $right) / 2.0;
            foreach ([[$x1 - 1.0, $middle], [$middle, $x2 + 1.0]] as [$from, $to]) {
                $half = [[$from, $y1 - 1.0], [$to, $y1 - 1.0], [$to, $y2 + 1.0], [$from, $y2 + 1.0]];
                array_push($rings, ...self::withoutHoles(self::both([$shape['outer'], ...$shape['holes']], [$half])));
            }
        }

        return $rings;
    }

    /**
     * What two sets of rings have in common.
     *
     * @param list<Ring> $rings
     * @param list<Ring> $others
     *
     * @return list<Shape>
     */
    public static function both(array $rings, array $others): array
    {
        return Overlay::parts([$rings, $others], static fn (array $w): bool => $w[0] > 0 && $w[1] > 0);
    }

    /**
     * @param array{float, float} $p
     * @param array{float, float} $q
     *
     * @return array{float, float}
     */
    private static function part(array $p, array $q, float $part): array
    {
        return [$p[0] + $part * ($q[0] - $p[0]), $p[1] + $part * ($q[1] - $p[1])];
    }

    /**
     * Without corners that follow themselves, and without spikes, where a ring runs back along itself.
     *
     * @param list<array{float, float}> $ring
     *
     * @return list<array{float, float}>
     */
    private static function tidy(array $ring): array
    {
        for ($i = 0; $i < ($n = \count($ring)) && $n > 2;) {
            [$a, $b, $c] = [$ring[($i + $n - 1) % $n], $ring[$i], $ring[($i + 1) % $n]];
            [$ux, $uy, $vx, $vy] = [$b[0] - $a[0], $b[1] - $a[1], $c[0] - $b[0], $c[1] - $b[1]];
            $isSame = abs($ux) <= self::ON_MM && abs($uy) <= self::ON_MM;
            $turnsBack = $ux * $vx + $uy * $vy < 0.0 && abs($ux * $vy - $uy * $vx) <= self::ON_MM * max(hypot($ux, $uy), hypot($vx, $vy));
            if ($isSame || $turnsBack) {
                array_splice($ring, $i, 1);
                $i = max(0, $i - 2);
            } else {
                ++$i;
            }
        }

        return $ring;
    }

    /**
     * @param Ring $ring
     *
     * @return list<non-empty-list<array{float, float}>> parts of it over which a plane lies lower than a height
     */
    public static function lower(array $ring, HeightPlane $plane, float $height): array
    {
        $parts = [$ring];
        if (!$plane->isLevel()) {
            $over = $plane->at(...$ring[0]) - $height;
            $steep = $plane->dx ** 2 + $plane->dy ** 2;
            $on = [$ring[0][0] - $over * $plane->dx / $steep, $ring[0][1] - $over * $plane->dy / $steep];
            $parts = array_merge(...self::line($ring, $on, [-$plane->dy, $plane->dx]));
        }

        return array_values(array_filter($parts, static fn (array $p): bool => $plane->at(...Polygon::labelPoint($p)) < $height));
    }
}
