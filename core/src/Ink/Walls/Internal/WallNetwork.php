<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Numerics\DisjointSets;

/**
 * Which of all wall lines make a building, and how they join.
 *
 * @internal
 */
final class WallNetwork
{
    /** mm, as for what is found in one direction */
    private const LEAST_LENGTH = 320.0;
    /** A wall is so much longer than thick. */
    private const SLENDER = 1.6;
    /** A wall that nothing meets is shown for at least so long, mm; one with one end met, and one in an odd direction. */
    private const ALONE = 2500.0;
    /** mm; by trial (bench ink) */
    private const HALF_MET = 700.0;
    /** mm; by trial (bench ink) */
    private const ODD = 600.0;
    /** Walls of nearly one thickness have at least this part of their usual tone. */
    private const SAME_TONE = 0.72;
    /** part of the thickness by which two walls of one build-up are drawn differently */
    private const SAME_THICKNESS = 0.25;
    /** mm beyond both faces that an end is drawn on to join; by trial (bench ink) */
    private const TO_JOIN = 130.0;

    /**
     * @param list<WallLine> $lines
     *
     * @return list<WallLine>
     */
    public static function of(array $lines): array
    {
        $lines = array_values(
            array_filter(
                $lines,
                static fn (WallLine $w): bool => $w->length() >= max(
                    $w->isOdd ? self::ODD : self::LEAST_LENGTH,
                    self::SLENDER * $w->thickness,
                ),
            ),
        );
        $lines = self::ofOneTone($lines);
        usort($lines, static fn (WallLine $a, WallLine $b): int => [$a->isOdd, $b->seen()] <=> [$b->isOdd, $a->seen()]);
        $kept = [];
        foreach ($lines as $line) {
            foreach ($kept as $other) {
                if ($line->overlap($other) > 0.3 && ($line->isOdd || $line->seen() < $other->seen())) {
                    continue 2;
                }
            }
            $kept[] = $line;
        }

        return self::met(self::largest($kept));
    }

    /**
     * A drawing fills walls of one thickness alike: what is filled with much less is something else.
     *
     * @param list<WallLine> $lines
     *
     * @return list<WallLine>
     */
    private static function ofOneTone(array $lines): array
    {
        return array_values(array_filter($lines, static function (WallLine $w) use ($lines): bool {
            if (Filling::Toned !== $w->filling) {
                return true;
            }
            $like = array_values(
                array_filter(
                    $lines,
                    static fn (WallLine $o): bool => abs($o->thickness - $w->thickness) <= self::SAME_THICKNESS * $w->thickness,
                ),
            );
            usort($like, static fn (WallLine $a, WallLine $b): int => $a->tone <=> $b->tone);
            $half = array_sum(array_map(static fn (WallLine $o): float => $o->seen(), $like)) / 2.0;
            foreach ($like as $o) {
                $half -= $o->seen();
                if ($half <= 0.0) {
                    return $w->tone >= self::SAME_TONE * $o->tone;
                }
            }

            return true;
        }));
    }

    /**
     * Without those that the page itself did not show.
     *
     * @param list<WallLine> $lines
     *
     * @return list<WallLine>
     */
    public static function without(array $lines): array
    {
        $lines = array_values(
            array_filter($lines, static fn (WallLine $w): bool => null !== $w->probe || (!$w->isOdd && $w->seen() > 1500.0)),
        );

        return self::met($lines);
    }

    /**
     * Length of walls by how many of their ends are met.
     *
     * @param list<WallLine> $lines
     */
    public static function worth(array $lines): float
    {
        $sum = 0.0;
        foreach ($lines as $line) {
            $sum += $line->seen() * 0.5 * (($line->isMet($line->from, $lines) ? 1 : 0) + ($line->isMet($line->to, $lines) ? 1 : 0));
        }

        return $sum;
    }

    /**
     * The largest group of lines that touch: others are dimension lines and furniture.
     *
     * @param list<WallLine> $lines
     *
     * @return list<WallLine>
     */
    private static function largest(array $lines): array
    {
        $sets = new DisjointSets();
        foreach ($lines as $i => $line) {
            for ($k = 0; $k < $i; ++$k) {
                if ($sets->root($i) !== $sets->root($k) && $line->touches($lines[$k])) {
                    $sets->unite($i, $k);
                }
            }
        }
        $groups = [];
        foreach ($lines as $i => $line) {
            $groups[$sets->root($i)][] = $line;
        }
        usort($groups, static fn (array $a, array $b): int => self::seen($b) <=> self::seen($a));

        return $groups[0] ?? [];
    }

    /** @param list<WallLine> $lines */
    private static function seen(array $lines): float
    {
        return array_sum(array_map(static fn (WallLine $w): float => $w->seen(), $lines));
    }

    /**
     * @param list<WallLine> $lines
     *
     * @return list<WallLine>
     */
    private static function met(array $lines): array
    {
        do {
            $count = \count($lines);
            $metEnds = static fn (WallLine $w): int => ($w->isMet($w->from, $lines) ? 1 : 0) + ($w->isMet($w->to, $lines) ? 1 : 0);
            $lines = array_values(array_filter($lines, static fn (WallLine $w): bool => match ($metEnds($w)) {
                0 => $w->seen() > self::ALONE && !$w->isOdd,
                1 => $w->seen() > ($w->isOdd ? 2.0 : 1.0) * self::HALF_MET,
                default => true,
            }));
        } while (\count($lines) < $count);

        return $lines;
    }

    /**
     * Ends moved to where centre lines meet: at a corner both, at a T the one that ends there.
     *
     * @param list<WallLine> $lines
     *
     * @return list<WallLine>
     */
    public static function joined(array $lines): array
    {
        $joined = [];
        foreach ($lines as $i => $line) {
            $ends = [];
            foreach ([$line->from, $line->to] as $end) {
                $best = $end;
                $nearest = \INF;
                foreach ($lines as $k => $other) {
                    if ($i === $k || $line->isParallelTo($other)) {
                        continue;
                    }
                    $meeting = self::meeting($line, $other);
                    $off = $meeting->distanceTo($end);
                    [$ux, $uy] = $line->direction();
                    [$vx, $vy] = $other->direction();
                    $sine = abs($ux * $vy - $uy * $vx);
                    $cosine = sqrt(max(0.0, 1.0 - $sine * $sine));
                    $reach = ($other->thickness + $line->thickness * $cosine) / 2.0 / $sine + self::TO_JOIN;
                    if ($off <= $reach && $off < $nearest && $other->distance($meeting) <= $line->thickness / 2.0 / $sine + self::TO_JOIN) {
                        [$best, $nearest] = [$meeting, $off];
                    }
                }
                $ends[] = $best;
            }
            if ($ends[0]->distanceTo($ends[1]) > 150.0) {
                $joined[] = $line->between($ends[0], $ends[1]);
            }
        }

        return $joined;
    }

    /** Where two centre lines cross, beyond their ends too. */
    private static function meeting(WallLine $a, WallLine $b): Point
    {
        [$t] = Segment::meeting($a->from->toArray(), $a->to->toArray(), $b->from->toArray(), $b->to->toArray(), 0.0) ?? [0.0];

        return $a->from->towards($a->to, $t);
    }
}
