<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Facades\Internal;

use Plinth\Core\Ink\Page\AlignedInk;

/**
 * All that may be openings: two jambs beside each other with what ends both of them. Columns and lines count in cells of the raster.
 *
 * @internal
 */
final readonly class Candidates
{
    /** mm */
    private const WIDTHS = [300.0, 6500.0];
    private const LEAST_HEIGHT = 300.0;
    /** mm to either side of an edge that are held against each other: narrower than a frame; and of a pen to either side of its middle */
    private const BESIDE = 40.0;
    private const PEN = 10.0;
    /** mm to either side over which a jamb is averaged: several courses of bricks in all */
    private const COURSES = 120.0;
    /** mm by which a jamb may be missing */
    private const GAP = 80.0;
    /** by how much an edge stands out at least: of full ink, and in grey levels of a photograph; there also so many times what is usual */
    private const LEAST = [24, 7];
    private const USUAL = 4;
    /** part of the lines across an edge in which it shows, so that joints between bricks, which show in every other course, do not count */
    private const STEADY = 0.6;
    /** of all runs, those that show in the most lines: more are grain */
    private const MOST_RUNS = 500;
    /** part of the shorter run beside which the other one goes on */
    private const TOGETHER = 0.75;
    /** mm within which a level edge ends two jambs */
    private const NEAR_END = 90.0;
    /** Of the strongest edge there, part from which one is strong enough; and in terms of the least that shows. */
    private const STRONG = [0.3, 8.0];
    /** mm beyond either end over which jambs should not go on */
    private const BEYOND = 150.0;
    /** mm from one edge of a frame to the other */
    private const FRAMES = [35.0, 130.0];
    /** part of a level edge's strength in which it shows at a column, and mm over which it is then missing for good */
    private const SHOWS = 0.3;
    private const MISSING = 400.0;

    /**
     * @param list<JambRun> $runs
     * @param list<array<int, int>> $sums by column: how much level edges show up to it, by line
     */
    private function __construct(
        private AlignedInk $level,
        private bool $isPhotograph,
        private EdgeMap $upright,
        private EdgeMap $across,
        private array $runs,
        private array $sums,
        private int $least,
        private int $levelLeast,
    ) {
    }

    /**
     * @param callable(float): void $onProgress
     *
     * @return list<Candidate>
     */
    public static function in(AlignedInk $level, bool $isPhotograph, callable $onProgress): array
    {
        $cells = static fn (float $mm): int => max(1, (int) round($mm / $level->cell));
        $courses = $cells(self::COURSES);
        $upright = self::edges($level->rows, $isPhotograph, $cells);
        $onProgress(0.2);
        $floor = self::LEAST[$isPhotograph ? 1 : 0];
        $least = $isPhotograph ? max($floor, self::USUAL * $upright->usual()) : $floor;
        $peaks = $upright->along($courses)->peaks($least, 2);
        if ($isPhotograph) {
            $steady = $upright->clipped((int) ceil($least / self::STEADY))->along($courses);
            $peaks = array_map(static fn (array $of, array $line): array => array_filter(
                $of,
                static fn (int $i): bool => abs($line[$i]) >= $least,
                \ARRAY_FILTER_USE_KEY,
            ), $peaks, $steady->lines);
        }
        $onProgress(0.4);
        $runs = JambRun::in($peaks, $cells(self::GAP), $cells(self::LEAST_HEIGHT));
        $onProgress(0.5);
        $across = self::edges($level->columns(), $isPhotograph, $cells);
        $onProgress(0.7);
        $all = new self(
            $level,
            $isPhotograph,
            $upright,
            $across,
            \array_slice($runs, 0, self::MOST_RUNS),
            self::sums($across, \count($level->rows)),
            $least,
            max($floor, $across->along($courses)->usual()),
        );

        return $all->found($onProgress);
    }

    /**
     * @param list<string> $rows
     * @param callable(float): int $cells
     */
    private static function edges(array $rows, bool $isPhotograph, callable $cells): EdgeMap
    {
        return $isPhotograph
            ? EdgeMap::ofSteps($rows, $cells(self::BESIDE))
            : EdgeMap::ofStrokes($rows, $cells(self::PEN), $cells(self::BESIDE));
    }

    /** @return list<array<int, int>> */
    private static function sums(EdgeMap $across, int $rows): array
    {
        $sum = array_fill(0, $rows, 0);
        $sums = [$sum];
        foreach ($across->lines as $column) {
            foreach ($column as $j => $v) {
                $sum[$j] += $v;
            }
            $sums[] = $sum;
        }

        return $sums;
    }

    private function cells(float $mm): int
    {
        return max(1, (int) round($mm / $this->level->cell));
    }

    /**
     * @param callable(float): void $onProgress
     *
     * @return list<Candidate>
     */
    private function found(callable $onProgress): array
    {
        $found = [];
        [$narrowest, $widest] = [self::WIDTHS[0] / $this->level->cell, self::WIDTHS[1] / $this->level->cell];
        $lowest = self::LEAST_HEIGHT / $this->level->cell;
        foreach ($this->runs as $k => $a) {
            $onProgress(0.7 + 0.3 * $k / \count($this->runs));
            foreach ($this->runs as $b) {
                $width = $b->middle - $a->middle;
                if ($width < $narrowest || $width > $widest || ($this->isPhotograph && $a->sign === $b->sign)) {
                    continue;
                }
                $overlap = min($a->to, $b->to) - max($a->from, $b->from);
                if ($overlap < $lowest || $overlap < self::TOGETHER * min($a->to - $a->from, $b->to - $b->from)) {
                    continue;
                }
                $one = $this->between($a, $b);
                if (null !== $one) {
                    $found[] = $one;
                }
            }
        }

        return $found;
    }

    private function between(JambRun $a, JambRun $b): ?Candidate
    {
        [$l, $r] = [(int) round($a->middle), (int) round($b->middle)];
        $courses = $this->cells(self::COURSES);
        $from = max(0, min($a->from, $b->from) - $courses);
        $shows = $this->jambs($a, $b, $from, min(\count($this->level->rows) - 1, max($a->to, $b->to) + $courses));
        [$first, $last] = [max($a->from, $b->from) - $from, min($a->to, $b->to) - $from];
        $mean = array_sum(\array_slice($shows, $first, $last - $first + 1)) / max(1, $last - $first + 1);
        $least = max($this->least, $mean / 4.0);
        [$bottom, $top] = self::extent($shows, intdiv($first + $last, 2), $least);
        [$sill, $sillShows] = $this->ended($l, $r, $bottom + $from);
        [$head, $headShows] = $this->ended($l, $r, $top + $from + 1);
        $lowest = self::LEAST_HEIGHT / $this->level->cell;
        if ($top - $bottom < $lowest || $head - $sill < $lowest) {
            return null;
        }
        $jambs = array_filter(\array_slice($shows, max(0, $sill - $from), $head - $sill), static fn (int $v): bool => $v > $least);
        $reach = $this->cells(self::BEYOND);
        $beyond = array_filter(
            [...range($sill - $reach, $sill - 2), ...range($head + 2, $head + $reach)],
            static fn (int $j): bool => ($shows[$j - $from] ?? 0) > $least,
        );
        [$outside, $inside] = $this->frames($a, $b, $sill, $head);
        [$w, $h] = [($b->middle - $a->middle) * $this->level->cell, ($head - $sill) * $this->level->cell];

        return new Candidate(
            $this->level->left + $a->middle * $this->level->cell,
            $this->level->left + $b->middle * $this->level->cell,
            $this->level->bottom + $sill * $this->level->cell,
            $this->level->bottom + $head * $this->level->cell,
            [
                'jambs' => -log(1.05 - \count($jambs) / ($head - $sill)),
                'strength' => log(max(0.1, $mean / $this->least)),
                'sill' => log(0.2 + min(10.0, $sillShows / $this->levelLeast)),
                'head' => log(0.2 + min(10.0, $headShows / $this->levelLeast)),
                'beyond' => \count($beyond) / (2 * $reach),
                'ends' => min(1.0, (abs($sill - $bottom - $from) + abs($head - $top - $from)) * $this->level->cell / 100.0),
                'gap' => min(1.0, max($this->missing($l, $r, $sill), $this->missing($l, $r, $head)) * $this->level->cell / self::MISSING),
                'outside' => $outside / 2,
                'inside' => $inside / 2,
                'narrow' => max(0.0, log(600.0 / $w)),
                'wide' => max(0.0, log($w / 2000.0)),
                'low' => max(0.0, log(900.0 / $h)),
                'high' => max(0.0, log($h / 2200.0)),
            ],
            $this->isPhotograph,
        );
    }

    /** @return list<int> line by line, how strongly the weaker of both jambs shows there */
    private function jambs(JambRun $a, JambRun $b, int $from, int $to): array
    {
        [$l, $r] = [(int) round($a->middle), (int) round($b->middle)];
        $shows = [];
        for ($j = $from; $j <= max($from, $to); ++$j) {
            $line = $this->upright->lines[$j];
            $shows[] = min(
                max(0, $a->sign * ($line[$l - 1] ?? 0), $a->sign * ($line[$l] ?? 0), $a->sign * ($line[$l + 1] ?? 0)),
                max(0, $b->sign * ($line[$r - 1] ?? 0), $b->sign * ($line[$r] ?? 0), $b->sign * ($line[$r + 1] ?? 0)),
            );
        }

        return $shows;
    }

    /**
     * The stretch round a place whose values lie above a level by the most altogether.
     *
     * @param list<int> $values
     *
     * @return array{int, int}
     */
    private static function extent(array $values, int $at, float $level): array
    {
        $ends = [];
        foreach ([-1, 1] as $way) {
            [$sum, $best, $end] = [0.0, 0.0, $at];
            for ($j = $at; isset($values[$j]); $j += $way) {
                $sum += min($values[$j], 3.0 * $level) - $level;
                if ($sum > $best) {
                    [$best, $end] = [$sum, $j];
                }
            }
            $ends[] = $end;
        }

        return [$ends[0], $ends[1]];
    }

    /** @return array{int, float} of the level edges that are strong enough between two columns the one nearest to a line; its strength */
    private function ended(int $l, int $r, int $at): array
    {
        $near = $this->cells(self::NEAR_END);
        [$a, $b] = [$this->sums[$l + 2] ?? [], $this->sums[max($l + 3, $r - 1)] ?? []];
        $shows = [];
        for ($j = $at - $near - 1; $j <= $at + $near + 1; ++$j) {
            $shows[$j] = abs(($b[$j] ?? 0) - ($a[$j] ?? 0)) / max(1, $r - $l - 3);
        }
        $enough = min(self::STRONG[1] * $this->levelLeast, self::STRONG[0] * max(0.0, ...$shows));
        [$best, $most, $strength] = [$at, 0.0, 0.0];
        for ($j = $at - $near; $j <= $at + $near; ++$j) {
            if ($shows[$j] < $shows[$j - 1] || $shows[$j] < $shows[$j + 1]) {
                continue;
            }
            $counts = min($shows[$j], $enough) * exp(-4.0 * (($j - $at) / $near) ** 2);
            if ($counts > $most) {
                [$best, $most, $strength] = [$j, $counts, $shows[$j]];
            }
        }

        return [$best, $strength];
    }

    /** @return int cells of the longest stretch over which a level edge does not show between two columns */
    private function missing(int $l, int $r, int $at): int
    {
        $columns = \array_slice($this->across->lines, $l + 2, max(0, $r - $l - 3));
        $sum = array_sum(array_map(static fn (array $column): int => $column[$at] ?? 0, $columns));
        $sign = $sum < 0 ? -1 : 1;
        $least = self::SHOWS * abs($sum) / max(1, \count($columns));
        [$gap, $longest] = [0, 0];
        foreach ($columns as $column) {
            $here = max($sign * ($column[$at - 1] ?? 0), $sign * ($column[$at] ?? 0), $sign * ($column[$at + 1] ?? 0));
            $gap = $here < $least ? $gap + 1 : 0;
            $longest = max($longest, $gap);
        }

        return $longest;
    }

    /** @return array{int, int} at how many of the two jambs another edge runs a frame's width outside, and inside */
    private function frames(JambRun $a, JambRun $b, int $sill, int $head): array
    {
        [$near, $far] = [$this->cells(self::FRAMES[0]), $this->cells(self::FRAMES[1])];
        [$outside, $inside] = [0, 0];
        foreach ([[$a->middle, -1], [$b->middle, 1]] as [$x, $way]) {
            [$isOut, $isIn] = [0, 0];
            foreach ($this->runs as $run) {
                $off = $way * ($run->middle - $x);
                if (abs($off) >= $near && abs($off) <= $far && min($run->to, $head) - max($run->from, $sill) > 0.8 * ($head - $sill)) {
                    [$isOut, $isIn] = $off > 0 ? [1, $isIn] : [$isOut, 1];
                }
            }
            [$outside, $inside] = [$outside + $isOut, $inside + $isIn];
        }

        return [$outside, $inside];
    }
}
