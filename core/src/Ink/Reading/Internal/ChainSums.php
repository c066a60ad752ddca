<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * Figures in a row against the figure over all of them: what adds up is read right, and where it does not, another reading of one of them
 * that makes it add up is the right one.
 *
 * @internal
 */
final class ChainSums
{
    /** parts of the lettering's height by which ends that are one lie apart, along the line; and across it those of one line */
    private const ONE = 0.6;
    /** parts in a row at most */
    private const MOST = 30;
    /** last places by which each figure may be rounded: half of one, and a little */
    private const ROUNDED = 0.51;
    /** standard deviations by which the other reading may be off what it stands beside */
    private const AGREES = 4.0;

    /**
     * @param list<array{Way, float}> $agreed the likeliest first, and by how many standard deviations each is off the others
     * @param callable(Way): float $off standard deviations by which a way is off
     *
     * @return list<array{Way, float, bool|null}> as they are read then, and whether their sums add up; null where they are in none
     */
    public static function checked(array $agreed, FigureMapping $mapping, callable $off): array
    {
        $spans = array_map(static fn (array $one): array => self::span($one[0], $mapping), $agreed);
        $adds = [];
        foreach (self::chains($spans) as [$whole, $parts]) {
            $members = [$whole, ...$parts];
            [$left, $rounded] = self::left($agreed, $whole, $parts);
            if (abs($left) > $rounded) {
                $other = self::other($agreed, $whole, $parts, $left, $rounded, $off);
                if (null === $other) {
                    foreach ($members as $i) {
                        $adds[$i] ??= false;
                    }
                    continue;
                }
                [$i, $way] = $other;
                $agreed[$i] = [$way, $off($way)];
            }
            foreach ($members as $i) {
                $adds[$i] = true;
            }
        }

        return array_map(static fn (array $one, int $i): array => [...$one, $adds[$i] ?? null], $agreed, array_keys($agreed));
    }

    /**
     * By how much a figure is more than its parts, and by how much rounding explains, mm.
     *
     * @param list<array{Way, float}> $agreed
     * @param list<int> $parts
     *
     * @return array{float, float}
     */
    private static function left(array $agreed, int $whole, array $parts): array
    {
        $reading = $agreed[$whole][0]->reading;
        [$left, $step] = [$reading->mm, $reading->stepMm];
        foreach ($parts as $i) {
            $left -= $agreed[$i][0]->reading->mm;
            $step += $agreed[$i][0]->reading->stepMm;
        }

        return [$left, self::ROUNDED * $step];
    }

    /**
     * The likeliest other reading of one of them with which they add up.
     *
     * @param list<array{Way, float}> $agreed
     * @param list<int> $parts
     * @param callable(Way): float $off
     *
     * @return array{int, Way}|null which of them, and how it is read then
     */
    private static function other(array $agreed, int $whole, array $parts, float $left, float $rounded, callable $off): ?array
    {
        [$best, $most] = [null, -\INF];
        foreach ([$whole, ...$parts] as $i) {
            $way = $agreed[$i][0];
            $wanted = $way->reading->mm + ($i === $whole ? -$left : $left);
            foreach ($way->figure->readings as $reading) {
                $worse = $reading->likely - $way->reading->likely;
                if ($reading->kind !== $way->reading->kind || abs($reading->mm - $wanted) > $rounded || $worse <= $most) {
                    continue;
                }
                $other = new Way($way->of, $way->figure, $reading, $way->span, $way->ends, $way->likely + $worse);
                if (abs($off($other)) <= self::AGREES) {
                    [$best, $most] = [[$i, $other], $worse];
                }
            }
        }

        return $best;
    }

    /**
     * Every figure whose span is tiled by others on one line.
     *
     * @param list<array{int, float, float, float, float}> $spans
     *
     * @return iterable<array{int, non-empty-list<int>}>
     */
    private static function chains(array $spans): iterable
    {
        foreach ($spans as $whole => [$axis, $from, $to, , $near]) {
            $inside = [];
            foreach ($spans as $i => [$own, $a, $b, $across]) {
                if ($i !== $whole && $own === $axis && $a > $from - $near && $b < $to + $near && $b - $a < $to - $from - $near) {
                    $inside[] = [$i, $a, $b, $across];
                }
            }
            foreach ($inside as [$first, $a, $b, $across]) {
                if (abs($a - $from) > $near) {
                    continue;
                }
                [$parts, $end] = [[$first], $b];
                while (abs($end - $to) > $near && \count($parts) < self::MOST) {
                    $next = null;
                    foreach ($inside as [$i, $c, $d, $line]) {
                        if (abs($c - $end) <= $near && abs($line - $across) <= $near && $d > $end + $near) {
                            $next = [$i, $d];
                            break;
                        }
                    }
                    if (null === $next) {
                        continue 2;
                    }
                    [$parts[], $end] = $next;
                }
                if (\count($parts) > 1 && abs($end - $to) <= $near) {
                    yield [$whole, $parts];
                }
            }
        }
    }

    /** @return array{int, float, float, float, float} axis that it runs along, from, to and where across, and how near ends are one, mm */
    private static function span(Way $way, FigureMapping $mapping): array
    {
        [$x1, $y1, $x2, $y2] = $mapping->ends($way);
        $near = self::ONE * $way->figure->row->height() * hypot($x2 - $x1, $y2 - $y1) / max(1.0, $way->long);

        return abs($x2 - $x1) > abs($y2 - $y1)
            ? [0, min($x1, $x2), max($x1, $x2), ($y1 + $y2) / 2.0, $near]
            : [1, min($y1, $y2), max($y1, $y2), ($x1 + $x2) / 2.0, $near];
    }
}
