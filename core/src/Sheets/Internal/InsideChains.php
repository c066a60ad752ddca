<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Sheets\ChainSide;
use Plinth\Core\Sheets\InkText;
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
    private const AT = [0.3, 0.7, 0.4, 0.6, 0.2, 0.8, 0.5];
    private const MOST_LINES = 60;

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
        $rings = [];
        $widths = [];
        $lines = [];
        foreach ($regions as $i => $region) {
            $rings[$i] = array_map($side->of(...), $region->polygon);
            $out = array_column($rings[$i], 1);
            [$low, $high] = [min($out), max($out)];
            $along = array_column($rings[$i], 0);
            if (max($along) - min($along) < self::NARROWEST_MM || $high - $low < self::NARROWEST_MM) {
                unset($rings[$i]);
                continue;
            }
            foreach (self::AT as $part) {
                $lines[] = $low + $part * ($high - $low);
            }
        }
        // What each line crosses, and how wide each room is where any of them crosses it.
        $crossed = [];
        foreach ($lines as $k => $out) {
            foreach ($rings as $i => $ring) {
                foreach (self::crossed($ring, $out) as [$from, $to]) {
                    if ($to - $from >= self::NARROWEST_MM) {
                        $crossed[$k][] = [$from, $to, $i, self::isBlocked($side, $lines[$k], $from, $to, $paper, $free)];
                        $widths[$i] = max($widths[$i] ?? 0.0, $to - $from);
                    }
                }
            }
        }
        $left = $rings;
        $chosen = [];
        while ([] !== $left && \count($chosen) < self::MOST_LINES) {
            $best = null;
            $most = 0;
            foreach ($crossed as $k => $stretches) {
                $count = 0;
                foreach ($stretches as [$from, $to, $i, $isBlocked]) {
                    $count += isset($left[$i]) && !$isBlocked && $to - $from >= self::WIDE * $widths[$i] ? 1 : 0;
                }
                if ($count > $most) {
                    [$best, $most] = [$k, $count];
                }
            }
            if (null === $best) {
                break;
            }
            $wanted = [];
            foreach ($crossed[$best] as [$from, $to, $i, $isBlocked]) {
                if (isset($left[$i]) && !$isBlocked && $to - $from >= self::WIDE * $widths[$i]) {
                    $wanted[$i] = true;
                }
            }
            array_push($chosen, ...self::chains($side, $lines[$best], $crossed[$best], $wanted, $regions));
            $left = array_diff_key($left, $wanted);
            unset($crossed[$best]);
        }

        return $chosen;
    }

    /** Whether the figure of a room would stand on other words there. */
    private static function isBlocked(ChainSide $side, float $out, float $from, float $to, PlanOnPaper $paper, FreePaper $free): bool
    {
        [$x, $y] = $paper->of($side->at(($from + $to) / 2.0, $out));
        $room = new InkText($x, $y - 0.9, '00000', 2.5, 'middle', $side->isUpright() ? 90.0 : 0.0);

        return !$free->isFree($room->room(), 0.1);
    }

    /**
     * From the first room that is wanted to the last, as far as rooms lie wall to wall.
     *
     * @param list<array{float, float, int, bool}> $stretches
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
     * @param Ring $ring
     *
     * @return list<array{float, float}> from where to where a line runs inside
     */
    private static function crossed(array $ring, float $out): array
    {
        $cuts = [];
        foreach ($ring as $i => [$a, $b]) {
            [$c, $d] = $ring[($i + 1) % \count($ring)];
            if ($b <= $out !== $d <= $out) {
                $cuts[] = $a + ($out - $b) / ($d - $b) * ($c - $a);
            }
        }
        sort($cuts);

        return array_values(array_filter(array_chunk($cuts, 2), static fn (array $pair): bool => 2 === \count($pair)));
    }
}
