<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\Segment;
use Plinth\Core\Geometry\Tolerance;

/**
 * Which stretches of wall lie on a way round: a stretch that lies on none bounds no room. It is evidence and no rule, for a wall may be
 * missing from the round.
 *
 * @internal
 */
final class Cycles
{
    /** mm: ends and meetings within this are one */
    private const ONE_MM = 160.0;
    /** mm beyond their faces that lines still meet */
    private const MEET_MM = 130.0;

    /**
     * @param list<WallLine> $lines
     *
     * @return list<list<array{float, float, bool}>> by line: stretches between its meetings, mm, and whether they lie on a way round
     */
    public static function stretches(array $lines): array
    {
        $places = [];
        $edges = [];
        $found = [];
        foreach ($lines as $i => $line) {
            [$ux, $uy] = $line->direction();
            $found[$i] = [];
            $before = null;
            foreach (self::meetings($line, $lines) as $at) {
                if (null !== $before && $at - $before[0] < self::ONE_MM) {
                    continue;
                }
                $place = self::place($places, $line->from->x + $at * $ux, $line->from->y + $at * $uy);
                if (null !== $before) {
                    $edges[] = [$before[1], $place, $i, $before[0], $at];
                }
                $before = [$at, $place];
            }
        }
        $bridges = self::bridges($edges, \count($places));
        foreach ($edges as $e => [, , $i, $from, $to]) {
            $found[$i][] = [$from, $to, !isset($bridges[$e])];
        }

        return array_values($found);
    }

    /**
     * @param list<array{float, float}> $places
     */
    private static function place(array &$places, float $x, float $y): int
    {
        foreach ($places as $k => [$px, $py]) {
            if (hypot($px - $x, $py - $y) < self::ONE_MM) {
                return $k;
            }
        }
        $places[] = [$x, $y];

        return \count($places) - 1;
    }

    /**
     * @param list<WallLine> $lines
     *
     * @return list<float> mm from its beginning, ascending, both its ends among them
     */
    private static function meetings(WallLine $line, array $lines): array
    {
        $length = $line->length();
        [$ux, $uy] = $line->direction();
        $meetings = [0.0, $length];
        foreach ($lines as $other) {
            if ($other === $line) {
                continue;
            }
            $slack = ($line->thickness + $other->thickness) / 2.0 + self::MEET_MM;
            $meeting = Segment::meeting(
                $line->from->toArray(),
                $line->to->toArray(),
                $other->from->toArray(),
                $other->to->toArray(),
                Tolerance::LANDING_SINE,
            );
            if (null === $meeting) {
                foreach ([$other->from, $other->to] as $end) {
                    if ($line->distance($end) < $slack) {
                        $meetings[] = max(0.0, min($length, ($end->x - $line->from->x) * $ux + ($end->y - $line->from->y) * $uy));
                    }
                }
                continue;
            }
            [$along, $alongOther] = [$meeting[0] * $length, $meeting[1] * $other->length()];
            if ($along > -$slack && $along < $length + $slack && $alongOther > -$slack && $alongOther < $other->length() + $slack) {
                $meetings[] = max(0.0, min($length, $along));
            }
        }
        sort($meetings);

        return $meetings;
    }

    /**
     * Edges that lie on no way round: nothing beyond them reaches back before them (Tarjan 1974, from memory). Walked without recursion,
     * for a drawing may have thousands in a row.
     *
     * @param list<array{int, int, int, float, float}> $edges two places each
     *
     * @return array<int, true> by edge
     */
    private static function bridges(array $edges, int $places): array
    {
        $next = array_fill(0, max(1, $places), []);
        foreach ($edges as $e => [$a, $b]) {
            $next[$a][] = [$b, $e];
            $next[$b][] = [$a, $e];
        }
        [$order, $reaches, $bridges, $count] = [[], [], [], 0];
        foreach (array_keys($next) as $root) {
            $stack = isset($order[$root]) ? [] : [[$root, -1, 0]];
            while ([] !== $stack) {
                $top = \count($stack) - 1;
                [$place, $by, $k] = $stack[$top];
                if (0 === $k) {
                    $order[$place] = $reaches[$place] = $count++;
                }
                if (!isset($next[$place][$k])) {
                    array_pop($stack);
                    if ($top > 0) {
                        $above = $stack[$top - 1][0];
                        $reaches[$above] = min($reaches[$above], $reaches[$place]);
                        if ($reaches[$place] > $order[$above]) {
                            $bridges[$by] = true;
                        }
                    }
                    continue;
                }
                ++$stack[$top][2];
                [$other, $e] = $next[$place][$k];
                if ($e !== $by && isset($order[$other])) {
                    $reaches[$place] = min($reaches[$place], $order[$other]);
                } elseif ($e !== $by) {
                    $stack[] = [$other, $e, 0];
                }
            }
        }

        return $bridges;
    }
}
