<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Ink\Page\Chain;
use Plinth\Core\Ink\Page\Chains;
use Plinth\Core\Ink\Page\Pen;
use Plinth\Core\Ink\Page\Stroke;
use Plinth\Core\Numerics\Median;

/**
 * Stretches of wall in scan lines across one direction.
 *
 * @internal
 */
final class Strips
{
    /** Walls are no thinner and no thicker than this, mm: common practice, no source. */
    public const THICKNESS_MM = [55.0, 650.0];
    /** mm: a shorter edge is a letter's or a tick's */
    private const LEAST_EDGE_MM = 110.0;
    /** mm: a shorter strip is no piece of wall */
    private const LEAST_MM = 160.0;
    /** mm: so long an edge is a face, though it is weak */
    private const LONG_MM = 600.0;
    /** what of full ink the inside of a solid wall has, and what an empty one has at most */
    private const SOLID = 0.72;
    /** part of full ink: a tone, as of hatching */
    private const TONED = 0.25;
    /** part of full ink that an empty wall has at most: grain and what shines through */
    private const EMPTY = 0.16;
    /** Hatching is looked at over this much of a wall, mm. */
    private const SMOOTH_MM = 250.0;
    /** what tells two fillings apart, 0 to 255 */
    private const TWO_TONES = 32.0;

    /**
     * @param list<string> $lines scan lines across the direction
     * @param float $along where the first scan line begins, mm
     * @param float $across where the first cell of a scan line begins, mm
     * @param float $cell mm
     * @param int $level what is ink, 0 to 255
     *
     * @return list<Strip>
     */
    public static function in(array $lines, float $along, float $across, float $cell, int $level, bool $plumb): array
    {
        [$up, $down] = Chains::in($lines, $level, max(1.3, 14.0 / $cell), max(4, (int) (self::LEAST_EDGE_MM / $cell)));
        usort($down, static fn (Chain $a, Chain $b): int => $a->height() <=> $b->height());
        $pen = Pen::cells($cell);
        $strips = [];
        $strokes = [];
        foreach ($up as $a) {
            foreach ($down as $b) {
                $apart = $b->height() - $a->height();
                if ($apart <= 0.3 || min($a->last, $b->last) - max($a->first, $b->first) < self::LEAST_EDGE_MM / $cell) {
                    continue;
                }
                if ($apart > self::THICKNESS_MM[1] / $cell) {
                    break;
                }
                $from = max($a->first, $b->first);
                $to = min($a->last, $b->last) + 1;
                $low = static fn (float $i): float => $a->heightAt($i);
                $high = static fn (float $i): float => $b->heightAt($i);
                $inside = self::inside($lines, $from, $to, $low, $high, min(3.5, 0.3 * $apart));
                if ($apart <= $pen && ([] === $inside || Median::upper($inside) > $level)) {
                    $strokes[] = new Stroke($from, $to, $a, $b);
                }
                if ($apart < self::THICKNESS_MM[0] / $cell) {
                    continue;
                }
                foreach (Hatching::of($lines, $a, $b, $from, $to, $cell, $inside) as [$i0, $i1, $tone, $rim]) {
                    $strips[] = new Strip(
                        $along + $i0 * $cell,
                        $along + $i1 * $cell,
                        $across + ($a->height() + $b->height()) / 2.0 * $cell,
                        $apart * $cell,
                        Filling::Toned,
                        $plumb,
                        [[$along + $i0 * $cell, $along + $i1 * $cell]],
                        $tone,
                        rim: $rim,
                        even: min($a->even(), $b->even()),
                    );
                }
                foreach (self::stretches($inside, $from, $cell) as [$i0, $i1, $tone, $wear]) {
                    if ($tone >= self::TONED * 255) {
                        $strips[] = new Strip(
                            $along + $i0 * $cell,
                            $along + $i1 * $cell,
                            $across + ($a->height() + $b->height()) / 2.0 * $cell,
                            $apart * $cell,
                            $tone >= self::SOLID * 255 ? Filling::Solid : Filling::Toned,
                            $plumb,
                            [[$along + $i0 * $cell, $along + $i1 * $cell]],
                            $tone,
                            null,
                            $wear,
                            even: min($a->even(), $b->even()),
                        );
                    }
                }
            }
        }
        usort($strokes, static fn (Stroke $a, Stroke $b): int => $a->height() <=> $b->height());
        foreach ($strokes as $k => $a) {
            for ($m = $k + 1; $m < \count($strokes); ++$m) {
                $b = $strokes[$m];
                $apart = $b->height() - $a->height();
                if ($apart > self::THICKNESS_MM[1] / $cell) {
                    break;
                }
                $from = max($a->from, $b->from);
                $to = min($a->to, $b->to);
                if ($apart < self::THICKNESS_MM[0] / $cell || ($to - $from) * $cell < self::LEAST_MM) {
                    continue;
                }
                $inside = self::inside(
                    $lines,
                    $from,
                    $to,
                    static fn (float $i): float => $a->upper->heightAt($i),
                    static fn (float $i): float => $b->lower->heightAt($i),
                    min(1.6, 0.3 * ($b->lower->height() - $a->upper->height())),
                );
                foreach (self::stretches($inside, $from, $cell) as [$i0, $i1, $tone, $wear]) {
                    $strips[] = new Strip(
                        $along + $i0 * $cell,
                        $along + $i1 * $cell,
                        $across + ($a->height() + $b->height()) / 2.0 * $cell,
                        $apart * $cell,
                        $tone > self::EMPTY * 255 ? Filling::Toned : Filling::Empty,
                        $plumb,
                        [[$along + $i0 * $cell, $along + $i1 * $cell]],
                        $tone,
                        min(self::pen($lines, $a, $i0, $i1, $cell), self::pen($lines, $b, $i0, $i1, $cell)),
                        $wear,
                        even: min($a->even(), $b->even()),
                    );
                }
            }
        }

        return $strips;
    }

    /**
     * By how much the long edges run off the raster, radians, counter-clockwise: those that are nearer to it than to a direction that was
     * looked at before, for a house has more of them than its wing.
     *
     * @param list<string> $columns from left to right
     * @param list<string> $rows from the bottom up
     * @param list<float> $others radians from the raster to each direction that was looked at before
     */
    public static function slope(array $columns, array $rows, float $cell, int $level, array $others): float
    {
        $slopes = [];
        foreach ([[$columns, 1.0], [$rows, -1.0]] as [$lines, $sign]) {
            foreach (Chains::in($lines, $level, max(2.0, 14.0 / $cell), (int) (self::LONG_MM / $cell)) as $chains) {
                foreach ($chains as $chain) {
                    $slope = $sign * $chain->slope();
                    if ([] === array_filter($others, static fn (float $other): bool => abs(atan($slope) - $other) < abs(atan($slope)))) {
                        $slopes[] = [$slope, $chain->count];
                    }
                }
            }
        }
        usort($slopes, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $half = array_sum(array_column($slopes, 1)) / 2.0;
        foreach ($slopes as [$slope, $weight]) {
            $half -= $weight;
            if ($half <= 0.0) {
                return atan($slope);
            }
        }

        return 0.0;
    }

    /**
     * Mean values between two heights, scan line by scan line.
     *
     * @param list<string> $lines
     * @param callable(float): float $low
     * @param callable(float): float $high
     *
     * @return list<float> none where there is no room between them
     */
    private static function inside(array $lines, int $from, int $to, callable $low, callable $high, float $margin): array
    {
        $means = [];
        for ($i = $from; $i < $to; ++$i) {
            $y0 = max(0, (int) round($low($i) + $margin));
            $line = $lines[$i] ?? '';
            $y1 = min(\strlen($line), (int) round($high($i) - $margin));
            if ($y1 <= $y0) {
                return [];
            }
            $sum = 0;
            for ($y = $y0; $y < $y1; ++$y) {
                $sum += \ord($line[$y]);
            }
            $means[] = $sum / ($y1 - $y0);
        }

        return $means;
    }

    /**
     * How wide a line is by its ink, mm.
     *
     * @param list<string> $lines
     */
    private static function pen(array $lines, Stroke $stroke, int $from, int $to, float $cell): float
    {
        $sums = [];
        $looks = min(16, $to - $from);
        for ($k = 0; $k < $looks; ++$k) {
            $i = (int) ($from + ($to - $from) * ($k + 0.5) / $looks);
            $line = $lines[$i];
            $y1 = min(\strlen($line) - 1, (int) ceil($stroke->upper->heightAt($i) + 1.0));
            $sum = 0;
            for ($y = max(0, (int) floor($stroke->lower->heightAt($i) - 1.0)); $y <= $y1; ++$y) {
                $sum += \ord($line[$y]);
            }
            $sums[] = $sum;
        }

        return Median::upper($sums) * $cell / 255.0;
    }

    /**
     * Cut where what is between two faces changes: windows have more lines in them than an empty wall, and less than a filled one.
     *
     * @param list<float> $inside
     *
     * @return list<array{int, int, float, float}> first scan line, the one after the last, tone, part that is toned otherwise
     */
    private static function stretches(array $inside, int $first, float $cell): array
    {
        $n = \count($inside);
        $least = (int) ceil(self::LEAST_MM / $cell);
        if ($n < $least) {
            return [];
        }
        $half = max(2, (int) (self::SMOOTH_MM / 2.0 / $cell));
        $sums = [0.0];
        foreach ($inside as $v) {
            $sums[] = end($sums) + $v;
        }
        $smooth = [];
        for ($i = 0; $i < $n; ++$i) {
            [$a, $b] = [max(0, $i - $half), min($n, $i + $half + 1)];
            $smooth[] = ($sums[$b] - $sums[$a]) / ($b - $a);
        }
        $sorted = $smooth;
        sort($sorted);
        [$low, $high] = [$sorted[(int) (0.1 * ($n - 1))], $sorted[(int) (0.9 * ($n - 1))]];
        $cuts = [0, $n];
        if ($high - $low > self::TWO_TONES) {
            $middle = ($low + $high) / 2.0;
            $cuts = [0];
            for ($i = 1; $i < $n; ++$i) {
                if (($smooth[$i] > $middle) !== ($smooth[$i - 1] > $middle)) {
                    $cuts[] = $i;
                }
            }
            $cuts[] = $n;
        }
        $found = [];
        for ($k = 1; $k < \count($cuts); ++$k) {
            [$a, $b] = [$cuts[$k - 1], $cuts[$k]];
            if ($b - $a < $least) {
                continue;
            }
            $part = \array_slice($inside, $a, $b - $a);
            $tone = Median::upper($part);
            $mean = array_sum($part) / \count($part);
            $tone = $tone > self::EMPTY * 255 ? $mean : $tone;
            $other = \count(
                array_filter(\array_slice($smooth, $a, $b - $a), static fn (float $v): bool => abs($v - $tone) > self::TWO_TONES),
            );
            $found[] = [$first + $a, $first + $b, $tone, $other / ($b - $a)];
        }

        return $found;
    }
}
