<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Editing;

use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Editing\Exception\UnusableEdit;
use Plinth\Core\Plan\Model\Wall;

/** Splits, joins, turns round, ends and copies walls; openings keep their place in the building. */
final class Rework
{
    /**
     * Where a wall is cut, and the rises of its two parts.
     *
     * @return array{at: Point, first: float, second: float}
     *
     * @throws UnusableEdit
     */
    public static function split(Wall $wall, float $along): array
    {
        if ($along <= Wall::JOIN_MM || $along >= $wall->length() - Wall::JOIN_MM) {
            throw UnusableEdit::offWall();
        }
        $at = $wall->at($along);
        $arc = $wall->arc();
        if (null === $arc) {
            return ['at' => $at, 'first' => 0.0, 'second' => 0.0];
        }
        $part = $along / $wall->length();

        return [
            'at' => $at,
            'first' => Arc::riseThrough($wall->from, $arc->at($part / 2.0), $at),
            'second' => Arc::riseThrough($at, $arc->at((1.0 + $part) / 2.0), $wall->to),
        ];
    }

    /** Offset of an opening once its wall runs the other way. */
    public static function reversedOffset(Wall $wall, float $offset, float $width): float
    {
        return $wall->length() - $offset - $width;
    }

    /**
     * The end of a wall drawn on, or taken back, to another's line.
     *
     * @param bool $atStart whether its start is the end concerned
     *
     * @throws UnusableEdit
     */
    public static function endAt(Wall $wall, bool $atStart, Wall $host): Point
    {
        if (null !== $wall->arc() || null !== $host->arc()) {
            throw UnusableEdit::curved();
        }
        [$start, $end] = $atStart ? [$wall->to, $wall->from] : [$wall->from, $wall->to];
        $meet = Shift::landing($start, $end, $host->from, $host->to) ?? throw UnusableEdit::neverMeet();
        // Beyond its own other end it would turn round.
        if (
            ($meet->x - $start->x) * ($end->x - $start->x) + ($meet->y - $start->y) * ($end->y - $start->y) <= 0.0
            || $meet->distanceTo($start) <= Wall::JOIN_MM
        ) {
            throw UnusableEdit::wouldVanish('This wall');
        }

        return $meet;
    }

    /** Whether a point of its line lies before a straight wall's start (true), beyond its end (false), or on it (null). */
    public static function endShortOf(Wall $wall, Point $on): ?bool
    {
        $length = $wall->length();
        [$dx, $dy] = [$wall->to->x - $wall->from->x, $wall->to->y - $wall->from->y];
        $along = (($on->x - $wall->from->x) * $dx + ($on->y - $wall->from->y) * $dy) / $length;

        return $along < -Wall::JOIN_MM ? true : ($along > $length + Wall::JOIN_MM ? false : null);
    }

    /**
     * A wall beside another.
     *
     * @param float $left mm between their centre lines, to the left of from → to
     *
     * @return array{from: Point, to: Point, rise: float}
     *
     * @throws UnusableEdit
     */
    public static function beside(Wall $wall, float $left): array
    {
        $arc = $wall->arc();
        if (null !== $arc && $arc->radius - ($arc->sweep > 0.0 ? $left : -$left) <= Wall::JOIN_MM) {
            throw UnusableEdit::wouldVanish('The copy');
        }
        $from = $wall->at(0.0, $left);
        $to = $wall->at($wall->length(), $left);

        return ['from' => $from, 'to' => $to, 'rise' => null === $arc ? 0.0 : Arc::riseThrough($from, $arc->at(0.5, $left), $to)];
    }

    /**
     * The rise of the wall that two become; 0 where they go straight on.
     *
     * @param Wall $first ends where the second starts
     *
     * @throws UnusableEdit
     */
    public static function joined(Wall $first, Wall $second): float
    {
        $a = $first->arc();
        $b = $second->arc();
        if (null === $a && null === $b) {
            $ux = $first->to->x - $first->from->x;
            $uy = $first->to->y - $first->from->y;
            $vx = $second->to->x - $second->from->x;
            $vy = $second->to->y - $second->from->y;
            $isStraight = abs($ux * $vy - $uy * $vx) < Tolerance::STRAIGHT_SINE * hypot($ux, $uy) * hypot($vx, $vy)
                && $ux * $vx + $uy * $vy > 0.0;

            return $isStraight ? 0.0 : throw UnusableEdit::onlyStraightOn();
        }
        if (
            null === $a
            || null === $b
            || $a->centre->distanceTo($b->centre) > 1.0
            || $a->sweep * $b->sweep < 0.0
            || abs($a->sweep + $b->sweep) > 1.99 * \M_PI
        ) {
            throw UnusableEdit::onlyStraightOn();
        }

        // Over half a turn the arc's middle lies beyond the centre; its rise says so.
        return Arc::riseThrough($first->from, $first->to, $second->to);
    }
}
