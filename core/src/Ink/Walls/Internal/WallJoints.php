<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Segment;

/**
 * Where walls join.
 *
 * @internal
 */
final class WallJoints
{
    /** mm beyond both faces that an end is drawn on to join; by trial (bench ink) */
    private const TO_JOIN = 130.0;
    /** An end is drawn on to what is at least so likely a wall, or as likely as its own. */
    private const LIKELY = 0.6;

    /**
     * Ends moved to where centre lines meet: at a corner both, at a T the one that ends there.
     *
     * @param list<WallLine> $lines
     *
     * @return list<WallLine>
     */
    public static function of(array $lines): array
    {
        $joined = [];
        foreach ($lines as $i => $line) {
            $ends = [];
            foreach ([$line->from, $line->to] as $end) {
                $best = $end;
                $nearest = \INF;
                foreach ($lines as $k => $other) {
                    // What is hardly a wall holds no likely one back.
                    if ($i === $k || $other->confidence < min(self::LIKELY, $line->confidence) || $line->isParallelTo($other)) {
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
