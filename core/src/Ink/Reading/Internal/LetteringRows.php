<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

use Plinth\Core\Ink\Page\Blob;
use Plinth\Core\Numerics\DisjointSets;
use Plinth\Core\Numerics\Median;

/**
 * Rows of letters among pieces of ink: pieces of one height that stand side by side on one line, with the small ones that belong to them.
 *
 * Measures are parts of the height of lettering; what has no source was tried on simulated sheets (bench figures).
 *
 * @internal
 */
final class LetteringRows
{
    /** how high letters are, and how wide; touching ones are one piece; what is longer in any direction is none */
    private const TALL = [0.72, 1.45];
    private const WIDE = [0.08, 6.0];
    private const LONGEST = 9.0;
    /** how wide points, commas, dashes and quotes are at most, and how many px they have at least */
    private const SMALL = 0.9;
    private const LEAST_INK = 2;
    /** how far two letters may stand apart, and over each other; how far their feet and heads may differ */
    private const GAP = 1.05;
    private const OVERLAP = 0.35;
    private const FEET = 0.28;
    private const HEADS = 0.34;
    /** gap at which two figures may stand side by side */
    private const PARTS = 0.5;
    /** gap before a point, a comma, a dash or a quote */
    private const SMALL_GAP = 0.62;
    /** how far these reach beyond the letters' heads and feet */
    private const SMALL_BEYOND = [0.3, 0.38];
    /** three letters on so long a row tell its slope where they keep to a line by so much, and it is no steeper than this */
    private const LONG = 2.0;
    private const STRAIGHT = 0.09;
    private const STEEPEST = 0.12;

    /**
     * @param list<Blob> $blobs pieces without lines
     * @param float $direction radians with y down
     * @param float $size height of lettering, px
     *
     * @return list<Lettering>
     */
    public static function in(array $blobs, float $direction, float $size): array
    {
        [$c, $s] = [cos($direction), sin($direction)];
        $tall = [];
        $small = [];
        foreach ($blobs as $blob) {
            $long = max($blob->box->width, $blob->box->height);
            if ($long > self::LONGEST * $size || $long <= self::WIDE[0] * $size) {
                continue;
            }
            $piece = $blob->extent($c, $s);
            [$wide, $high] = [$piece[1] - $piece[0] + 1.0, $piece[3] - $piece[2] + 1.0];
            if ($high > self::TALL[0] * $size) {
                if ($high < self::TALL[1] * $size && $wide < self::WIDE[1] * $size && $wide > self::WIDE[0] * $size) {
                    $tall[] = $piece;
                }
            } elseif ($wide < self::SMALL * $size && $blob->ink >= self::LEAST_INK) {
                $small[] = $piece;
            }
        }

        return self::rows($tall, $small, $direction, $size);
    }

    /**
     * @param list<array{float, float, float, float}> $tall u from and to, v from and to
     * @param list<array{float, float, float, float}> $small
     *
     * @return list<Lettering>
     */
    private static function rows(array $tall, array $small, float $direction, float $size): array
    {
        usort($tall, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $lanes = [];
        foreach ($tall as $i => $piece) {
            $lanes[(int) floor($piece[3] / $size)][] = $i;
        }
        $joined = new DisjointSets();
        $count = \count($tall);
        foreach ($tall as $i => [$from, $to, $head, $foot]) {
            foreach (self::lanes($lanes, $foot / $size) as $k) {
                if ($k <= $i) {
                    continue;
                }
                $gap = $tall[$k][0] - $to;
                if ($gap > self::GAP * $size) {
                    // Those of a lane come from left to right.
                    continue;
                }
                if (
                    $gap > -self::OVERLAP * $size
                    && abs($tall[$k][3] - $foot) < self::FEET * $size
                    && abs($tall[$k][2] - $head) < self::HEADS * $size
                ) {
                    $joined->unite($i, $k);
                }
            }
        }
        foreach ($small as $j => [$from, $to, $top, $bottom]) {
            foreach (self::lanes($lanes, $bottom / $size) as $i) {
                [$a, $b, $head, $foot] = $tall[$i];
                if (
                    max($from - $b, $a - $to) < self::SMALL_GAP * $size
                    && $top > $head - self::SMALL_BEYOND[0] * $size
                    && $bottom < $foot + self::SMALL_BEYOND[1] * $size
                ) {
                    $joined->unite($i, $count + $j);
                }
            }
        }
        $groups = [];
        foreach (array_keys($tall) as $i) {
            $groups[$joined->root($i)][0][] = $tall[$i];
        }
        foreach (array_keys($small) as $j) {
            $groups[$joined->root($count + $j)][1][] = $small[$j];
        }
        $rows = [];
        foreach ($groups as $group) {
            if (!isset($group[0])) {
                continue;
            }
            $rows[] = self::row($group[0], $group[1] ?? [], $direction, $size);
            $parts = self::parts($group[0], $group[1] ?? [], self::PARTS * $size);
            foreach (\count($parts) > 1 ? $parts : [] as [$high, $low]) {
                if ([] !== $high) {
                    $rows[] = self::row($high, $low, $direction, $size);
                }
            }
        }

        return $rows;
    }

    /**
     * A row may be one figure with a gap in it, or several side by side.
     *
     * @param list<array{float, float, float, float}> $tall
     * @param list<array{float, float, float, float}> $small
     *
     * @return list<array{list<array{float, float, float, float}>, list<array{float, float, float, float}>}>
     */
    private static function parts(array $tall, array $small, float $gap): array
    {
        $all = [...array_map(static fn (array $p): array => [$p, 0], $tall), ...array_map(static fn (array $p): array => [$p, 1], $small)];
        usort($all, static fn (array $a, array $b): int => $a[0][0] <=> $b[0][0]);
        $parts = [];
        $part = [[], []];
        $end = \INF;
        foreach ($all as [$piece, $kind]) {
            if ($piece[0] - $end > $gap) {
                $parts[] = $part;
                $part = [[], []];
                $end = -\INF;
            }
            $part[$kind][] = $piece;
            $end = \INF === $end ? $piece[1] : max($end, $piece[1]);
        }

        return [...$parts, $part];
    }

    /**
     * @param array<int, list<int>> $lanes
     *
     * @return iterable<int>
     */
    private static function lanes(array $lanes, float $at): iterable
    {
        for ($lane = (int) floor($at) - 1; $lane <= (int) floor($at) + 1; ++$lane) {
            yield from $lanes[$lane] ?? [];
        }
    }

    /**
     * @param non-empty-list<array{float, float, float, float}> $tall
     * @param list<array{float, float, float, float}> $small
     */
    private static function row(array $tall, array $small, float $direction, float $size): Lettering
    {
        $all = [...$tall, ...$small];
        [$from, $to] = [min(array_column($all, 0)), max(array_column($all, 1))];
        $slope = 0.0;
        if (\count($tall) >= 3 && $to - $from > self::LONG * $size) {
            $slope = self::slope(
                array_map(static fn (array $p): float => ($p[0] + $p[1]) / 2.0, $tall),
                array_map(static fn (array $p): float => ($p[2] + $p[3]) / 2.0, $tall),
                self::STRAIGHT * $size,
            );
        }

        return new Lettering(
            $direction,
            $from,
            $to,
            Median::of(array_column($tall, 2)),
            Median::of(array_column($tall, 3)),
            $slope,
            \count($all),
        );
    }

    /**
     * @param non-empty-list<float> $us
     * @param non-empty-list<float> $vs
     */
    private static function slope(array $us, array $vs, float $most): float
    {
        $n = \count($us);
        [$u0, $v0] = [array_sum($us) / $n, array_sum($vs) / $n];
        [$uu, $uv] = [1e-9, 0.0];
        foreach ($us as $k => $u) {
            $uu += ($u - $u0) ** 2;
            $uv += ($u - $u0) * ($vs[$k] - $v0);
        }
        $slope = $uv / $uu;
        $off = 0.0;
        foreach ($us as $k => $u) {
            $off += ($vs[$k] - $v0 - $slope * ($u - $u0)) ** 2;
        }

        return abs($slope) < self::STEEPEST && sqrt($off / $n) < $most ? $slope : 0.0;
    }
}
