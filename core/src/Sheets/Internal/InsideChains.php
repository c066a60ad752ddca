<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Sheets\ChainSide;
use Plinth\Core\Sheets\PlanOnPaper;

/**
 * Chains of dimensions through rooms: as few lines as go through every room once each way, with the walls between rooms told as well.
 *
 * @internal
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final class InsideChains
{
    /** Narrower than this is no room that anybody measures, mm. */
    private const NARROWEST_MM = 400.0;
    /** Rooms further apart than this are not of one chain, mm. */
    private const THICKEST_MM = 1000.0;
    /** A room is told by a line that crosses it where it is about as wide as anywhere. */
    private const WIDE = 0.9;
    /** Where in a room lines are tried, parts of it. */
    private const AT = [0.3, 0.7, 0.45, 0.8];
    /** Lines so near to each other are one, mm. */
    private const SAME_MM = 60.0;
    private const MOST_LINES = 60;
    /** Round words lines are left out for so much, mm of paper. */
    private const CLEAR_MM = 0.3;
    /** Room that a figure takes beside its line, mm of paper. */
    private const FIGURE_MM = [9.0, 3.7];

    /**
     * @param list<Region> $regions
     *
     * @return list<array{ChainSide, float, non-empty-list<array{float, string}>}> the side along which each runs, mm out, and its places
     */
    public static function through(array $regions, PlanOnPaper $paper, FreePaper $free): array
    {
        $chains = [];
        foreach ([ChainSide::Below, ChainSide::Left] as $side) {
            array_push($chains, ...self::along($side, $regions, $paper, $free));
        }

        return $chains;
    }

    /**
     * @param list<Region> $regions
     *
     * @return list<array{ChainSide, float, non-empty-list<array{float, string}>}>
     */
    private static function along(ChainSide $side, array $regions, PlanOnPaper $paper, FreePaper $free): array
    {
        [$rings, $reach, $lines] = [[], [], []];
        foreach ($regions as $i => $region) {
            $ring = array_map($side->of(...), $region->polygon);
            [$from, $low, $to, $high] = Polygon::bounds($ring);
            if ($to - $from < self::NARROWEST_MM || $high - $low < self::NARROWEST_MM) {
                continue;
            }
            $rings[$i] = $ring;
            $reach[$i] = [$low, $high];
            foreach (self::AT as $part) {
                $out = $low + $part * ($high - $low);
                $lines[(int) floor($out / self::SAME_MM)] ??= $out;
            }
        }
        ksort($lines);
        // What each line crosses, and how wide each room is where any of them crosses it.
        [$crossed, $widths, $names] = [[], [], array_keys($lines)];
        foreach ($reach as $i => [$low, $high]) {
            for ($at = self::after($low, $lines, $names); $at < \count($names) && $lines[$names[$at]] < $high; ++$at) {
                foreach (self::crossed($rings[$i], $lines[$names[$at]]) as [$from, $to]) {
                    if ($to - $from >= self::NARROWEST_MM) {
                        $crossed[$names[$at]][] = [$from, $to, $i];
                        $widths[$i] = max($widths[$i] ?? 0.0, $to - $from);
                    }
                }
            }
        }
        // The line that tells most of what is left, again and again. What a line tells becomes less, never more: looked at again is only
        // the one that told most when it was looked at last (Minoux 1978, from memory).
        $queue = new \SplPriorityQueue();
        $wide = [];
        foreach ($crossed as $k => $stretches) {
            $wide[$k] = array_values(array_filter(
                $stretches,
                static fn (array $s): bool => $s[1] - $s[0] >= self::WIDE * ($widths[$s[2]] ?? 0.0),
            ));
            $queue->insert($k, [\count($wide[$k]), -$k]);
        }
        $queue->setExtractFlags(\SplPriorityQueue::EXTR_BOTH);
        $left = $rings;
        [$chosen, $looked] = [[], []];
        while ([] !== $left && $queue->valid() && \count($chosen) < self::MOST_LINES) {
            /** @var array{data: int, priority: array{int, int}} $next */
            $next = $queue->extract();
            $k = $next['data'];
            $looked[$k] ??= array_values(array_filter(
                $wide[$k],
                static fn (array $s): bool => !self::isBlocked($side, $lines[$k], $s[0], $s[1], $paper, $free),
            ));
            $wanted = [];
            foreach ($looked[$k] as [, , $i]) {
                if (isset($left[$i])) {
                    $wanted[$i] = true;
                }
            }
            if (\count($wanted) < $next['priority'][0]) {
                if ([] !== $wanted) {
                    $queue->insert($k, [\count($wanted), -$k]);
                }
                continue;
            }
            // Where it would run through words it breaks off.
            $through = array_values(array_filter(
                $crossed[$k],
                static fn (array $s): bool => self::isBeside($side, $lines[$k], $s[0], $s[1], $paper, $free),
            ));
            array_push($chosen, ...self::chains($side, $lines[$k], $through, $wanted, $regions));
            $left = array_diff_key($left, $wanted);
        }

        return $chosen;
    }

    /** Whether the line runs through words in a room, or its figure would stand on something. */
    private static function isBlocked(ChainSide $side, float $out, float $from, float $to, PlanOnPaper $paper, FreePaper $free): bool
    {
        if (!self::isBeside($side, $out, $from, $to, $paper, $free)) {
            return true;
        }
        [$x, $y] = $paper->of($side->at(($from + $to) / 2.0, $out));
        [$half, $high] = [self::FIGURE_MM[0] / 2.0, self::FIGURE_MM[1]];

        return !$free->isFree(
            $side->isUpright() ? [[$x - $high, $y - $half], [$x, $y + $half]] : [[$x - $half, $y - $high], [$x + $half, $y]],
            0.1,
        );
    }

    private static function isBeside(ChainSide $side, float $out, float $from, float $to, PlanOnPaper $paper, FreePaper $free): bool
    {
        return $free->isBesideWords($paper->of($side->at($from, $out)), $paper->of($side->at($to, $out)), self::CLEAR_MM);
    }

    /**
     * From the first room that is wanted to the last, as far as rooms lie wall to wall.
     *
     * @param list<array{float, float, int}> $stretches
     * @param array<int, true> $wanted
     * @param list<Region> $regions
     *
     * @return list<array{ChainSide, float, non-empty-list<array{float, string}>}>
     */
    private static function chains(ChainSide $side, float $out, array $stretches, array $wanted, array $regions): array
    {
        usort($stretches, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $groups = [];
        foreach ($stretches as $stretch) {
            $last = \count($groups) - 1;
            $before = $last < 0 ? null : $groups[$last][\count($groups[$last]) - 1];
            if (null !== $before && $stretch[0] - $before[1] < self::THICKEST_MM && $stretch[0] > $before[1] - 1.0) {
                $groups[$last][] = $stretch;
            } else {
                $groups[] = [$stretch];
            }
        }
        $chains = [];
        foreach ($groups as $group) {
            $isWanted = array_keys(array_filter($group, static fn (array $s): bool => isset($wanted[$s[2]])));
            if ([] === $isWanted) {
                continue;
            }
            $places = [];
            foreach (\array_slice($group, $isWanted[0], $isWanted[\count($isWanted) - 1] - $isWanted[0] + 1) as [$from, $to, $i]) {
                // A divider has no thickness: one place for both rooms.
                $isSame = [] !== $places && abs($from - $places[\count($places) - 1][0]) < 1.0;
                $name = $regions[$i]->room->id ?? implode('+', $regions[$i]->walls);
                array_push($places, ...($isSame ? [] : [[$from, "$name<"]]), ...[[$to, "$name>"]]);
            }
            if ([] !== $places) {
                $chains[] = [$side, $out, $places];
            }
        }

        return $chains;
    }

    /**
     * @param array<int, float> $lines ascending
     * @param list<int> $names their keys
     *
     * @return int the place among them of the first that runs further out
     */
    private static function after(float $low, array $lines, array $names): int
    {
        [$from, $to] = [0, \count($names)];
        while ($from < $to) {
            $middle = intdiv($from + $to, 2);
            [$from, $to] = $lines[$names[$middle]] > $low ? [$from, $middle] : [$middle + 1, $to];
        }

        return $from;
    }

    /**
     * @param Ring $ring
     *
     * @return list<array{float, float}> from where to where a line runs inside
     */
    private static function crossed(array $ring, float $out): array
    {
        $cuts = [];
        [$c, $d] = $ring[\count($ring) - 1];
        foreach ($ring as [$a, $b]) {
            if ($b <= $out !== $d <= $out) {
                $cuts[] = $a + ($out - $b) / ($d - $b) * ($c - $a);
            }
            [$c, $d] = [$a, $b];
        }
        sort($cuts);
        $pairs = [];
        for ($k = 1; $k < \count($cuts); $k += 2) {
            $pairs[] = [$cuts[$k - 1], $cuts[$k]];
        }

        return $pairs;
    }
}
