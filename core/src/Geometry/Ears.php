<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/**
 * Cuts faces into triangles, ear by ear (Meisters, 1975); holes are joined to the ring round them by bridges first (Eberly, 1998).
 *
 * @phpstan-type Places array<int, array{float, float}>
 */
final class Ears
{
    /**
     * @param non-empty-list<list<int>> $rings the outer one counter-clockwise, holes clockwise
     * @param Places $at
     *
     * @return list<array{int, int, int}>
     */
    public static function cut(array $rings, array $at): array
    {
        $ring = $rings[0];
        $holes = \array_slice($rings, 1);
        // From the right: what a bridge runs to is there already.
        usort($holes, static fn (array $a, array $b): int => self::right($b, $at) <=> self::right($a, $at));
        foreach ($holes as $n => $hole) {
            $ring = self::bridged($ring, $hole, \array_slice($holes, $n), $at);
        }

        if (3 === \count($ring)) {
            return [$ring];
        }
        $bends = self::bends($ring, $at);

        return [] === $bends ? self::strip($ring) : self::ears($ring, $bends, $at);
    }

    /**
     * @param list<int> $ring
     * @param Places $at
     *
     * @return list<int> corners at which it does not turn to the left
     */
    private static function bends(array $ring, array $at): array
    {
        $n = \count($ring);
        $bends = [];
        [$a, $b] = [$at[$ring[$n - 2]], $at[$ring[$n - 1]]];
        foreach ($ring as $i => $v) {
            $c = $at[$v];
            if (!self::isCorner($a, $b, $c)) {
                $bends[] = $ring[$i > 0 ? $i - 1 : $n - 1];
            }
            [$a, $b] = [$b, $c];
        }

        return $bends;
    }

    /**
     * A ring that turns to the left everywhere, to and fro across it.
     *
     * @param list<int> $ring
     *
     * @return list<array{int, int, int}>
     */
    private static function strip(array $ring): array
    {
        $triangles = [];
        for ($i = 0, $k = \count($ring) - 1; $k - $i > 1;) {
            $triangles[] = [$ring[$i], $ring[$i + 1], $ring[$k]];
            ++$i;
            if ($k - $i > 1) {
                $triangles[] = [$ring[$i], $ring[$k - 1], $ring[$k]];
                --$k;
            }
        }

        return $triangles;
    }

    /**
     * @param list<int> $ring
     * @param Places $at
     */
    private static function right(array $ring, array $at): float
    {
        return max(-\INF, ...array_map(static fn (int $v): float => $at[$v][0], $ring));
    }

    /**
     * From the hole's rightmost corner to the nearest one that it sees.
     *
     * @param list<int> $ring
     * @param list<int> $hole
     * @param list<list<int>> $holes that are not joined yet, with this one
     * @param Places $at
     *
     * @return list<int>
     */
    private static function bridged(array $ring, array $hole, array $holes, array $at): array
    {
        $start = 0;
        foreach ($hole as $i => $v) {
            if ($at[$v][0] > $at[$hole[$start]][0]) {
                $start = $i;
            }
        }
        $from = $at[$hole[$start]];
        $near = [];
        foreach ($ring as $i => $v) {
            $near[$i] = hypot($at[$v][0] - $from[0], $at[$v][1] - $from[1]);
        }
        asort($near);
        foreach (array_keys($near) as $i) {
            if (self::isWithin($from, $ring, $i, $at) && self::sees($from, $at[$ring[$i]], [$ring, ...$holes], $at)) {
                $turned = [...\array_slice($hole, $start), ...\array_slice($hole, 0, $start)];

                return [...\array_slice($ring, 0, $i + 1), ...$turned, $turned[0], ...\array_slice($ring, $i)];
            }
        }

        return $ring;
    }

    /**
     * Whether a place lies within the corner of a ring, or a bridge to it would leave on the other side.
     *
     * @param array{float, float} $from
     * @param list<int> $ring
     * @param Places $at
     */
    private static function isWithin(array $from, array $ring, int $i, array $at): bool
    {
        $n = \count($ring);
        $to = $at[$ring[$i]];
        [$before, $after] = [$at[$ring[($i + $n - 1) % $n]], $at[$ring[($i + 1) % $n]]];
        $isLeft = self::cross($before, $to, $from) > 0.0;
        $isRight = self::cross($to, $after, $from) > 0.0;

        return self::cross($before, $to, $after) < 0.0 ? $isLeft || $isRight : $isLeft && $isRight;
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     * @param list<list<int>> $rings
     * @param Places $at
     */
    private static function sees(array $from, array $to, array $rings, array $at): bool
    {
        foreach ($rings as $ring) {
            foreach ($ring as $k => $v) {
                [$a, $b] = [$at[$v], $at[$ring[$k + 1 < \count($ring) ? $k + 1 : 0]]];
                if ($a === $to || $b === $to || $a === $from || $b === $from) {
                    continue;
                }
                if (
                    self::cross($from, $to, $a) > 0.0 !== self::cross($from, $to, $b) > 0.0
                    && self::cross($a, $b, $from) > 0.0 !== self::cross($a, $b, $to) > 0.0
                ) {
                    return false;
                }
            }
        }

        return true;
    }

    /**
     * @param list<int> $ring
     * @param list<int> $bends what alone can lie within an ear: a corner that turns to the left does so as long as it is there
     * @param Places $at
     *
     * @return list<array{int, int, int}>
     */
    private static function ears(array $ring, array $bends, array $at): array
    {
        $triangles = [];
        $i = 0;
        $missed = 0;
        while (\count($ring) > 3) {
            $n = \count($ring);
            $i %= $n;
            [$a, $b, $c] = [$ring[($i + $n - 1) % $n], $ring[$i], $ring[($i + 1) % $n]];
            // Once round without an ear, whatever is not turned over will do.
            $isEar = self::isCorner($at[$a], $at[$b], $at[$c]) && ($missed > $n || self::isClear($a, $b, $c, $bends, $at));
            if ($isEar || $missed > 2 * $n) {
                if ($isEar) {
                    $triangles[] = [$a, $b, $c];
                }
                array_splice($ring, $i, 1);
                $missed = 0;
                // The next ear beside it, not upon it: fans of needles are not wanted.
                ++$i;
            } else {
                ++$i;
                ++$missed;
            }
        }
        if (self::cross($at[$ring[0]], $at[$ring[1]], $at[$ring[2]]) > 0.0) {
            $triangles[] = [$ring[0], $ring[1], $ring[2]];
        }

        return $triangles;
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     * @param array{float, float} $c
     */
    private static function isCorner(array $a, array $b, array $c): bool
    {
        $size = max(abs($b[0] - $a[0]), abs($b[1] - $a[1])) * max(abs($c[0] - $b[0]), abs($c[1] - $b[1]));

        return self::cross($a, $b, $c) > 1e-9 * $size;
    }

    /**
     * @param list<int> $bends
     * @param Places $at
     */
    private static function isClear(int $a, int $b, int $c, array $bends, array $at): bool
    {
        [$p, $q, $r] = [$at[$a], $at[$b], $at[$c]];
        [$left, $right] = [min($p[0], $q[0], $r[0]), max($p[0], $q[0], $r[0])];
        [$low, $high] = [min($p[1], $q[1], $r[1]), max($p[1], $q[1], $r[1])];
        foreach ($bends as $v) {
            $s = $at[$v];
            // Most lie elsewhere.
            if ($s[0] < $left || $s[0] > $right || $s[1] < $low || $s[1] > $high) {
                continue;
            }
            if (
                $v !== $a && $v !== $b && $v !== $c
                && $s !== $p && $s !== $q && $s !== $r
                && self::cross($p, $q, $s) >= 0.0
                && self::cross($q, $r, $s) >= 0.0
                && self::cross($r, $p, $s) >= 0.0
            ) {
                return false;
            }
        }

        return true;
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     * @param array{float, float} $c
     */
    private static function cross(array $a, array $b, array $c): float
    {
        return ($b[0] - $a[0]) * ($c[1] - $a[1]) - ($b[1] - $a[1]) * ($c[0] - $a[0]);
    }
}
