<?php

declare(strict_types=1);

namespace Plinth\Core\Roof\Internal;

use Plinth\Core\Geometry\Polygon;

/**
 * The arcs that a wavefront left behind put together into facets, and the check that these are a roof: each node on the planes that meet
 * in it, no ring that crosses itself, and slopes that cover the outline once.
 *
 * @internal
 *
 * @phpstan-type Facet array{front: int, isSlope: bool, nodes: list<int>}
 */
final class Facets
{
    /** m that a node may lie off its plane */
    private const OFF_PLANE = 1e-6;
    /** part of the outline's area by which the slopes' areas may miss it */
    private const AREA = 1e-9;
    /** m by which edges that only touch may seem to cross */
    private const TOUCH = 1e-7;

    /**
     * @return list<Facet>
     *
     * @throws Lost
     */
    public static function of(Wavefront $wave): array
    {
        $by = [];
        foreach ($wave->arcs as [$left, $right, $p, $q]) {
            [$p, $q] = [$wave->one($p), $wave->one($q)];
            if ($p === $q) {
                continue;
            }
            if (null !== $left) {
                $by[$left][] = [$p, $q];
            }
            $by[$right][] = [$q, $p];
        }
        $facets = [];
        foreach ($by as $label => $arcs) {
            [$front, $phase] = array_map(intval(...), explode(':', $label));
            foreach (self::rings($wave, $front, 1 === $phase, self::withoutPairs($arcs)) as $nodes) {
                $facets[] = ['front' => $front, 'isSlope' => 1 === $phase, 'nodes' => $nodes];
            }
        }

        return $facets;
    }

    /**
     * @param list<Facet> $facets
     * @param float $area of the outline, m²
     *
     * @throws Lost
     */
    public static function check(Wavefront $wave, array $facets, float $area): void
    {
        $covered = 0.0;
        foreach ($facets as ['front' => $f, 'isSlope' => $isSlope, 'nodes' => $nodes]) {
            $front = $wave->fronts[$f];
            foreach ($nodes as $n) {
                [$x, $y, $z] = $wave->nodes[$n];
                $level = $front->level + ($isSlope ? $front->slowness * ($z - $front->start) : 0.0);
                if (abs($level - $front->nx * $x - $front->ny * $y) > self::OFF_PLANE) {
                    throw Lost::unsound('A node lies off its plane.');
                }
            }
            $ring = self::flat($wave, $f, $isSlope, $nodes);
            $own = Polygon::area($ring);
            if ($own < -self::AREA && !self::isHole($wave, $facets, $f, $isSlope, $ring)) {
                throw Lost::unsound('A facet lies upside down.');
            }
            if (self::crossesItself($ring)) {
                throw Lost::unsound('A facet crosses itself.');
            }
            $covered += $isSlope ? $own : 0.0;
        }
        if (abs($covered - $area) > self::AREA * $area) {
            throw Lost::unsound('The slopes do not cover the outline.');
        }
    }

    /**
     * A facet that comes to touch itself goes along one line there and back: both go.
     *
     * @param list<array{int, int}> $arcs
     *
     * @return list<array{int, int}>
     */
    private static function withoutPairs(array $arcs): array
    {
        $kept = [];
        foreach ($arcs as [$p, $q]) {
            if (isset($kept["$q $p"]) && [] !== $kept["$q $p"]) {
                array_pop($kept["$q $p"]);
            } else {
                $kept["$p $q"][] = [$p, $q];
            }
        }

        return array_merge(...array_values($kept));
    }

    /**
     * @param list<array{int, int}> $arcs
     *
     * @return list<list<int>>
     */
    private static function rings(Wavefront $wave, int $front, bool $isSlope, array $arcs): array
    {
        $from = [];
        foreach ($arcs as $k => [$p]) {
            $from[$p][] = $k;
        }
        [$rings, $used] = [[], []];
        foreach (array_keys($arcs) as $start) {
            if (isset($used[$start])) {
                continue;
            }
            [$ring, $k] = [[], $start];
            do {
                $used[$k] = true;
                [$p, $q] = $arcs[$k];
                $ring[] = $p;
                $open = array_values(array_filter($from[$q] ?? [], static fn (int $n): bool => $n === $start || !isset($used[$n])));
                if ([] === $open) {
                    throw Lost::unsound('A facet is open.');
                }
                $k = 1 === \count($open) ? $open[0] : self::nextRight($wave, $front, $isSlope, $p, $q, $arcs, $open);
            } while ($k !== $start);
            $rings[] = $ring;
        }

        return $rings;
    }

    /**
     * Of several arcs that go on from a node the first clockwise from where the ring came from.
     *
     * @param list<array{int, int}> $arcs
     * @param non-empty-list<int> $open
     */
    private static function nextRight(Wavefront $wave, int $front, bool $isSlope, int $p, int $q, array $arcs, array $open): int
    {
        [$from, $at] = self::flat($wave, $front, $isSlope, [$p, $q]);
        $back = atan2($from[1] - $at[1], $from[0] - $at[0]);
        [$best, $least] = [$open[0], \INF];
        foreach ($open as $k) {
            [$to] = self::flat($wave, $front, $isSlope, [$arcs[$k][1]]);
            $turn = fmod($back - atan2($to[1] - $at[1], $to[0] - $at[0]) + 4.0 * \M_PI, 2.0 * \M_PI);
            $turn = $turn <= 1e-12 ? 2.0 * \M_PI : $turn;
            if ($turn < $least) {
                [$best, $least] = [$k, $turn];
            }
        }

        return $best;
    }

    /**
     * Its nodes in the plane: of a slope seen from above, of a wall from outside.
     *
     * @param list<int> $nodes
     *
     * @return list<array{float, float}>
     */
    private static function flat(Wavefront $wave, int $front, bool $isSlope, array $nodes): array
    {
        $f = $wave->fronts[$front];

        return array_map(static function (int $n) use ($wave, $f, $isSlope): array {
            [$x, $y, $z] = $wave->nodes[$n];

            return $isSlope ? [$x, $y] : [$x * $f->dx + $y * $f->dy, $z];
        }, $nodes);
    }

    /**
     * @param list<Facet> $facets
     * @param list<array{float, float}> $ring
     */
    private static function isHole(Wavefront $wave, array $facets, int $front, bool $isSlope, array $ring): bool
    {
        foreach ($facets as ['front' => $f, 'isSlope' => $s, 'nodes' => $nodes]) {
            if ($f !== $front || $s !== $isSlope) {
                continue;
            }
            $around = self::flat($wave, $f, $s, $nodes);
            $inside = array_filter($ring, static fn (array $p): bool => Polygon::contains($around, $p[0], $p[1]));
            if (Polygon::area($around) > 0.0 && 2 * \count($inside) >= \count($ring)) {
                return true;
            }
        }

        return false;
    }

    /** @param list<array{float, float}> $ring */
    private static function crossesItself(array $ring): bool
    {
        $n = \count($ring);
        for ($i = 0; $i < $n; ++$i) {
            [$a, $b] = [$ring[$i], $ring[($i + 1) % $n]];
            for ($j = $i + 2; $j < $n; ++$j) {
                [$c, $d] = [$ring[$j], $ring[($j + 1) % $n]];
                if ((0 !== $i || $n - 1 !== $j) && self::parts($a, $b, $c, $d) && self::parts($c, $d, $a, $b)) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * Whether two points lie on different sides of a line, well off it.
     *
     * @param array{float, float} $a
     * @param array{float, float} $b
     * @param array{float, float} $c
     * @param array{float, float} $d
     */
    private static function parts(array $a, array $b, array $c, array $d): bool
    {
        [$dx, $dy] = [$b[0] - $a[0], $b[1] - $a[1]];
        $length = hypot($dx, $dy);
        if ($length <= 0.0) {
            return false;
        }
        $off = static fn (float $x, float $y): float => ($dx * ($y - $a[1]) - $dy * ($x - $a[0])) / $length;
        [$one, $other] = [$off(...$c), $off(...$d)];

        return min($one, $other) < -self::TOUCH && max($one, $other) > self::TOUCH;
    }
}
