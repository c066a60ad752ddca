<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Ink\Page\Chain;
use Plinth\Core\Ink\Page\Pen;
use Plinth\Core\Numerics\Median;

/**
 * Walls filled with strokes: a line along either face, and between them an ink that is even from face to face once it is taken over
 * whole periods of the hatching. Lines that run with the wall are not even, and single strokes across it do not come again.
 *
 * It is told block by block along the wall, so that a door or a window in it does not spoil what lies beside.
 *
 * @internal
 */
final class Hatching
{
    /** part of full ink that the thinnest pen at the widest pitch leaves, and what the closest hatching leaves */
    private const TONE = [0.05, 0.5];
    /** mm: thinner walls are not hatched, common practice, no source */
    private const THINNEST_MM = 80.0;
    /** the darkest line between the faces over the mean, and grey levels of grain besides */
    private const EVEN = [1.9, 12.0];
    /** part of full ink that a face's line has, and as a multiple of the filling's */
    private const RIM = [0.4, 1.35];
    /** It is looked at over about so much of a wall, mm. */
    private const SMOOTH_MM = 250.0;
    /** Strokes come again within so much, mm. */
    private const PERIOD_MM = 420.0;
    /** mm of a stretch that is told at all */
    private const LEAST_MM = 120.0;
    /** scan lines of a block */
    private const BLOCK = 5;
    /** grey levels squared: what varies less has no strokes */
    private const FLAT = 9.0;
    /** likeness that a period has at least, 0 to 1; below the second one the first stroke is over */
    private const ALIKE = [0.25, 0.1];

    /**
     * @param list<string> $lines scan lines across the wall
     * @param list<float> $inside mean ink between the faces, from the first scan line on
     *
     * @return list<array{int, int, float, float}> first scan line, the one after the last, tone, how wide the thinner face's line is, mm
     */
    public static function of(array $lines, Chain $low, Chain $high, int $from, int $to, float $cell, array $inside): array
    {
        $mean = [] === $inside ? 0.0 : array_sum($inside) / \count($inside) / 255.0;
        $apart = $high->height() - $low->height();
        $size = (int) round($apart) + 3;
        $pen = max(2, min((int) (0.3 * $size), (int) ceil(Pen::cells($cell))));
        if ($mean < self::TONE[0] || $mean >= self::TONE[1] || $apart * $cell < self::THINNEST_MM || $size - 2 * ($pen + 2) < 2) {
            return [];
        }
        $blocks = self::blocks($lines, $low, $from, $to, $size);
        $told = self::told($blocks, $size, $pen, self::span(self::period($inside, $cell), $cell));
        $found = [];
        for ($k = 0, $n = \count($told); $k < $n; ++$k) {
            $first = $k;
            $tones = $rims = [];
            // One block alone may miss: a stretch goes on over it.
            for (; $k < $n && (null !== $told[$k] || ([] !== $tones && null !== ($told[$k + 1] ?? null))); ++$k) {
                if (null !== $told[$k]) {
                    [$tones[], $rims[]] = $told[$k];
                }
            }
            if ([] !== $tones && ($k - $first) * self::BLOCK * $cell >= self::LEAST_MM) {
                $end = min($to, $from + $k * self::BLOCK);
                $found[] = [$from + $first * self::BLOCK, $end, 255.0 * array_sum($tones) / \count($tones), $cell * Median::of($rims)];
            }
        }

        return $found;
    }

    /** Scan lines to either side of a block that are taken together with it: whole periods. */
    private static function span(int $period, float $cell): int
    {
        $span = self::SMOOTH_MM / $cell;
        $span = $period > 0 ? max(1.0, round($span / $period)) * $period : $span;

        return max(2, (int) round(($span / self::BLOCK - 1.0) / 2.0));
    }

    /**
     * Ink by its height over the lower face, a few scan lines together.
     *
     * @param list<string> $lines
     *
     * @return list<list<int>>
     */
    private static function blocks(array $lines, Chain $low, int $from, int $to, int $size): array
    {
        $blocks = [];
        for ($i = $from; $i + self::BLOCK <= $to; $i += self::BLOCK) {
            $sums = array_fill(0, $size, 0);
            for ($k = $i; $k < $i + self::BLOCK; ++$k) {
                $bottom = (int) round($low->heightAt($k)) - 1;
                if ($bottom >= 0 && $bottom + $size <= \strlen($lines[$k])) {
                    for ($d = 0; $d < $size; ++$d) {
                        $sums[$d] += \ord($lines[$k][$bottom + $d]);
                    }
                }
            }
            $blocks[] = array_values($sums);
        }

        return $blocks;
    }

    /**
     * @param list<list<int>> $blocks
     *
     * @return list<array{float, float}|null> tone, and how wide the thinner face's line is in cells; null where it is not hatched
     */
    private static function told(array $blocks, int $size, int $pen, int $half): array
    {
        $n = \count($blocks);
        $sums = array_fill(0, $size, 0);
        [$first, $end] = [0, 0];
        $told = [];
        for ($k = 0; $k < $n; ++$k) {
            $from = max(0, min($k - $half, $n - 2 * $half - 1));
            $to = min($n, max($k + $half + 1, 2 * $half + 1));
            for (; $end < $to; ++$end) {
                foreach ($blocks[$end] as $d => $v) {
                    $sums[$d] += $v;
                }
            }
            for (; $first < $from; ++$first) {
                foreach ($blocks[$first] as $d => $v) {
                    $sums[$d] -= $v;
                }
            }
            $full = 255.0 * ($end - $first) * self::BLOCK;
            $told[] = self::one(array_map(static fn (int $v): float => $v / $full, array_values($sums)), $pen);
        }

        return $told;
    }

    /**
     * @param list<float> $ink from below the lower face to above the upper one, part of full ink
     *
     * @return array{float, float}|null
     */
    private static function one(array $ink, int $pen): ?array
    {
        $size = \count($ink);
        $inner = \array_slice($ink, $pen + 2, $size - 2 * $pen - 4);
        $mean = array_sum($inner) / max(1, \count($inner));
        if ($mean < self::TONE[0] || max([0.0, ...$inner]) > self::EVEN[0] * $mean + self::EVEN[1] / 255.0) {
            return null;
        }
        $rims = [];
        foreach ([\array_slice($ink, 0, $pen + 2), \array_slice($ink, $size - $pen - 2)] as $rim) {
            if (max([0.0, ...$rim]) < max(self::RIM[0], self::RIM[1] * $mean)) {
                return null;
            }
            // What the strokes themselves leave there is not the line's.
            $over = array_sum(array_map(static fn (float $v): float => max(0.0, $v - $mean), $rim));
            $rims[] = $over / (1.0 - min(0.6, $mean));
        }

        return [$mean, min($rims)];
    }

    /**
     * Scan lines after which what is inside comes again, by its likeness with itself; 0 where it does not.
     *
     * @param list<float> $inside
     */
    private static function period(array $inside, float $cell): int
    {
        $n = \count($inside);
        $mean = array_sum($inside) / max(1, $n);
        $off = array_map(static fn (float $v): float => $v - $mean, $inside);
        $power = array_sum(array_map(static fn (float $v): float => $v * $v, $off));
        if ($power <= self::FLAT * $n) {
            return 0;
        }
        [$best, $most, $isOver] = [0, self::ALIKE[0], false];
        for ($lag = 3, $last = min((int) (self::PERIOD_MM / $cell), intdiv($n, 2)); $lag <= $last; ++$lag) {
            $sum = 0.0;
            for ($i = 0, $end = $n - $lag; $i < $end; ++$i) {
                $sum += $off[$i] * $off[$i + $lag];
            }
            $alike = $sum / $power * $n / ($n - $lag);
            $isOver = $isOver || $alike < self::ALIKE[1];
            if ($isOver && $alike > $most) {
                [$best, $most] = [$lag, $alike + 0.05];
            }
        }

        return $best;
    }
}
