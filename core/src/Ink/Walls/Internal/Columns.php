<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Walls\ProposedColumn;

/**
 * Solid squares and rectangles that are no part of a solid wall.
 *
 * @internal
 */
final class Columns
{
    /** Columns are no narrower and no wider than this, mm: common practice, no source. */
    private const SIDE_MM = [150.0, 1000.0];
    /** length to width that a column has at most: common practice, no source */
    private const MOST_RATIO = 3.0;

    /**
     * @param list<Strip> $strips
     * @param list<WallLine> $walls
     *
     * @return list<ProposedColumn>
     */
    public static function of(array $strips, float $turn, array $walls): array
    {
        [$c, $s] = [cos($turn), sin($turn)];
        $found = [];
        foreach ($strips as $a) {
            if ($a->plumb || Filling::Solid !== $a->filling || !self::isSide($a->length()) || !self::isSide($a->thickness)) {
                continue;
            }
            foreach ($strips as $b) {
                // Seen both ways, it is as long one way as it is thick the other.
                if (
                    !$b->plumb
                    || Filling::Solid !== $b->filling
                    || abs($a->length() - $b->thickness) > 60.0
                    || abs($b->length() - $a->thickness) > 60.0
                    || abs(($a->from + $a->to) / 2.0 - $b->at) > 30.0
                    || abs(($b->from + $b->to) / 2.0 - $a->at) > 30.0
                ) {
                    continue;
                }
                if (max($a->thickness, $b->thickness) > self::MOST_RATIO * min($a->thickness, $b->thickness)) {
                    continue;
                }
                $centre = new Point($c * $b->at - $s * $a->at, $s * $b->at + $c * $a->at);
                foreach ($walls as $wall) {
                    if (Filling::Solid === $wall->filling && $wall->distance($centre) < $wall->thickness / 2.0 + 20.0) {
                        continue 2;
                    }
                }
                foreach ($found as $other) {
                    if ($other->centre->distanceTo($centre) < 100.0) {
                        continue 2;
                    }
                }
                $found[] = new ProposedColumn($centre, $b->thickness, $a->thickness, $turn, 0.85 * (1.0 - $a->wear) * (1.0 - $b->wear));
            }
        }

        return $found;
    }

    private static function isSide(float $mm): bool
    {
        return $mm >= self::SIDE_MM[0] && $mm <= self::SIDE_MM[1];
    }
}
