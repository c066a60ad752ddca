<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * Marks on a dimension line that say where it ends: lines across it, ticks, dots, arrows, walls.
 *
 * Everything is measured in the height S of the lettering. What has no source was tried on simulated sheets (bench figures).
 *
 * @internal
 */
final class DimensionMarks
{
    /** S: how far off the line its marks are looked for: beyond an arrow's or a dot's edge, and as far as a line across it reaches */
    private const BESIDE = [0.16, 0.58];
    /** ink of 0 to 1 on either side that makes a mark, and from which a place is full of ink */
    private const MARK = 0.24;
    private const FULL = 0.6;
    /** part of a mark's ink below which what is beside it belongs to its foot */
    private const FOOT = 0.5;
    /** S: how far a slanting mark runs along the line on either side of it */
    private const SLANTS = 0.24;
    /** S: marks are no nearer to each other */
    private const APART = 0.2;
    /** S: a line across so near to a wall's edge is that edge, a tick so near to a line across belongs to it */
    private const LINE = 0.3;
    private const TICK = 0.5;
    /** S: an arrow is no longer; its broad end has so much less ink beside the line than the mark that it points at */
    private const ARROW = 1.3;
    private const FAINT = 0.6;
    /** S: what is inked on both sides for longer is a wall that ends the line, not a mark */
    private const WALL = 0.4;
    /** S: a line's own end counts as a mark where there is none so near */
    private const OWN_END = 0.75;

    /**
     * Marks on a line: where something crosses it, where a wall ends it, and its own ends.
     *
     * @param non-empty-list<array{float, float, float}> $points
     *
     * @return list<array{float, bool}> place along it in steps, and whether it is no more than the line's own end
     */
    public static function on(LetteringInk $ink, array $points, float $s): array
    {
        $sides = [[], []];
        foreach ($points as [$x, $y, $along]) {
            [$c, $n] = [cos($along), sin($along)];
            foreach ([-1.0, 1.0] as $k => $side) {
                [$sum, $count] = [0.0, 0];
                for ($v = self::BESIDE[0] * $s; $v <= self::BESIDE[1] * $s; $v += 1.0) {
                    $sum += $ink->near($x - $n * $v * $side, $y + $c * $v * $side);
                    ++$count;
                }
                $sides[$k][] = $sum / (255.0 * max(1, $count));
            }
        }
        $marks = self::walls($sides, $s);
        $slant = max(1, (int) round(self::SLANTS * $s / DimensionLines::STEP));
        // Lines across run straight through; ticks slant to both sides of the place they mark.
        $straight = [];
        $slanted = [];
        $n = \count($points);
        for ($i = 0; $i < $n; ++$i) {
            $straight[$i] = min($sides[0][$i], $sides[1][$i]);
            $slanted[$i] = 0.0;
            for ($d = -$slant; $d <= $slant; ++$d) {
                $slanted[$i] = max($slanted[$i], min($sides[0][$i - $d] ?? 0.0, $sides[1][$i + $d] ?? 0.0));
            }
        }
        foreach (self::beside(self::peaks($straight, $s), $s) as $mark) {
            self::add($marks, $mark[0], self::LINE * $s);
        }
        foreach (self::peaks($slanted, $s) as $mark) {
            self::add($marks, $mark[0], self::TICK * $s);
        }
        foreach ([0.0, $n - 1.0] as $end) {
            if ([] === array_filter($marks, static fn (array $m): bool => abs($m[0] - $end) * DimensionLines::STEP < self::OWN_END * $s)) {
                $marks[] = [$end, true];
            }
        }
        sort($marks);

        return $marks;
    }

    /**
     * @param list<array{float, bool}> $marks
     */
    private static function add(array &$marks, float $at, float $apart): void
    {
        if ([] === array_filter($marks, static fn (array $m): bool => abs($m[0] - $at) * DimensionLines::STEP < $apart)) {
            $marks[] = [$at, false];
        }
    }

    /**
     * Where there is most ink beside a line, and more than a mark has at least.
     *
     * @param array<int, float> $ink step by step
     *
     * @return list<array{float, float}> place in steps, and how strong
     */
    private static function peaks(array $ink, float $s): array
    {
        $peaks = [];
        $n = \count($ink);
        $reach = max(1, (int) round(self::APART * $s / DimensionLines::STEP));
        for ($i = 0; $i < $n; ++$i) {
            $near = \array_slice($ink, max(0, $i - $reach), min($i, $reach) + $reach + 1);
            if ($ink[$i] < self::MARK || $ink[$i] < max([0.0, ...$near]) - 1e-9) {
                continue;
            }
            // The middle of the top.
            [$sum, $moment] = [0.0, 0.0];
            for ($j = max(0, $i - $reach); $j <= min($n - 1, $i + $reach); ++$j) {
                $weight = max(0.0, $ink[$j] - self::FOOT * $ink[$i]);
                $sum += $weight;
                $moment += $weight * $j;
            }
            $peaks[] = [$moment / max(1e-9, $sum), min(1.0, $ink[$i])];
            $i += $reach;
        }

        return $peaks;
    }

    /**
     * Without those that stand beside a far stronger one: the broad end of an arrow is no mark.
     *
     * @param list<array{float, float}> $peaks
     *
     * @return list<array{float, float}>
     */
    private static function beside(array $peaks, float $s): array
    {
        return array_values(array_filter($peaks, static fn (array $p): bool => [] === array_filter(
            $peaks,
            static fn (array $other): bool => abs($other[0] - $p[0]) * DimensionLines::STEP < self::ARROW * $s
                && $p[1] < self::FAINT * $other[1],
        )));
    }

    /**
     * Edges of stretches that are inked on both sides for longer than a mark is wide.
     *
     * @param array{list<float>, list<float>} $sides
     *
     * @return list<array{float, bool}>
     */
    private static function walls(array $sides, float $s): array
    {
        $marks = [];
        $n = \count($sides[0]);
        for ($i = 0; $i < $n; ++$i) {
            $j = $i;
            while ($j < $n && min($sides[0][$j], $sides[1][$j]) > self::FULL) {
                ++$j;
            }
            if (($j - $i) * DimensionLines::STEP > self::WALL * $s) {
                $marks[] = [$i - 0.5, false];
                $marks[] = [$j - 0.5, false];
            }
            $i = max($i, $j);
        }

        return $marks;
    }
}
