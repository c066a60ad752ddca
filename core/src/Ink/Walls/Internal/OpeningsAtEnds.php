<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Picks\Gap;

/**
 * Walls that end at a door: what is left of them beyond it, a stub or nothing, is too short to be seen as a wall, and rooms on both sides
 * would be one. Where a door is drawn between a free end and the next wall, the wall goes on to that one.
 *
 * @internal
 */
final class OpeningsAtEnds
{
    /** mm from a free end to the next wall: doors are so wide, with a stub, and windows; common practice, no source */
    private const REACH_MM = [500.0, 1500.0, 3500.0];
    /** mm from the face of a wall that crosses to the beginning of the next piece, where both stand at one place */
    private const AT_ONE_PLACE_MM = 300.0;
    /** Pieces of one wall differ in thickness by less, part of it. */
    private const ALIKE = 0.2;
    /** mm of wall that may stand between the door and the next wall */
    private const STUBS_MM = [0.0, 50.0, 100.0, 150.0, 200.0, 300.0];
    /** mm that the next wall may lie off the line of this one, or end short of it */
    private const OFF_MM = 130.0;

    /**
     * @param list<WallLine> $walls
     *
     * @return list<WallLine>
     */
    public static function drawnOn(array $walls, PageInk $pageInk, PixelToMm $map): array
    {
        // One after the other: where two ends look at each other the second is met by then.
        foreach ($walls as $i => $wall) {
            [$from, $to] = array_map(
                static fn (array $ends): Point => $wall->isMet($ends[0], $walls)
                    ? $ends[0]
                    : self::beyond($wall, $ends[0], $ends[1], $walls, $pageInk, $map),
                [[$wall->from, $wall->to], [$wall->to, $wall->from]],
            );
            if ($from !== $wall->from || $to !== $wall->to) {
                $walls[$i] = $wall->between($from, $to);
            }
        }

        return $walls;
    }

    /**
     * Where a free end goes on to: the next wall over a door, the next piece of its own over a window, or where it is.
     *
     * @param list<WallLine> $walls
     */
    private static function beyond(WallLine $wall, Point $end, Point $other, array $walls, PageInk $pageInk, PixelToMm $map): Point
    {
        foreach (self::ahead($wall, $end, $other, $walls) as [$clear, $target, $isInLine]) {
            if (self::isOpening($wall, $other, $end, $clear, $target, $isInLine, $pageInk, $map)) {
                return $target;
            }
        }

        return $end;
    }

    /**
     * What a wall would come to beyond its end, the nearest first.
     *
     * @param list<WallLine> $walls
     *
     * @return list<array{float, Point, bool}> mm that are clear until there, where its centre line would end, whether that is in its line
     */
    private static function ahead(WallLine $wall, Point $end, Point $other, array $walls): array
    {
        $length = max(1.0, $other->distanceTo($end));
        [$ux, $uy] = [($end->x - $other->x) / $length, ($end->y - $other->y) / $length];
        $ahead = [];
        foreach ($walls as $next) {
            if ($next === $wall) {
                continue;
            }
            if ($wall->isParallelTo($next)) {
                $along = static fn (Point $at): float => ($at->x - $end->x) * $ux + ($at->y - $end->y) * $uy;
                $at = $along($next->from) < $along($next->to) ? $next->from : $next->to;
                $off = abs(($at->x - $end->x) * $uy - ($at->y - $end->y) * $ux);
                if ($off <= min(self::OFF_MM, 0.35 * ($wall->thickness + $next->thickness))) {
                    $unlike = abs($wall->thickness - $next->thickness) / max($wall->thickness, $next->thickness);
                    $ahead[] = [$along($at), $at, $unlike <= self::ALIKE];
                }
                continue;
            }
            $t = Segment::meeting($other->toArray(), $end->toArray(), $next->from->toArray(), $next->to->toArray(), 0.0)[0] ?? null;
            [$vx, $vy] = $next->direction();
            $half = $next->thickness / 2.0 / max(0.2, abs($ux * $vy - $uy * $vx));
            $meeting = null === $t ? null : $other->towards($end, $t);
            if (null !== $meeting && $next->distance($meeting) <= $wall->thickness / 2.0 + self::OFF_MM) {
                $ahead[] = [($meeting->x - $end->x) * $ux + ($meeting->y - $end->y) * $uy - $half, $meeting, false];
            }
        }
        // What stands in the way closes it: no window runs through a wall that crosses, unless that one stands where the next piece begins.
        $crossed = array_filter($ahead, static fn (array $a): bool => !$a[2] && $a[0] > -self::OFF_MM);
        $first = [] === $crossed ? \INF : min(array_column($crossed, 0));
        $ahead = array_filter($ahead, static fn (array $a): bool => !$a[2] || $a[0] < $first + self::AT_ONE_PLACE_MM);
        $ahead = array_filter($ahead, static fn (array $a): bool => $a[0] >= self::REACH_MM[0] && $a[0] <= self::REACH_MM[$a[2] ? 2 : 1]);
        usort($ahead, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return $ahead;
    }

    /**
     * Whether a door is drawn in what is clear, with a stub of wall beyond it, or to the next piece in line a window.
     */
    private static function isOpening(
        WallLine $wall,
        Point $other,
        Point $end,
        float $clear,
        Point $target,
        bool $isInLine,
        PageInk $pageInk,
        PixelToMm $map,
    ): bool {
        $near = $other->distanceTo($end);
        $gap = static fn (float $wide): Gap => Gap::between($pageInk, $map, $other, $target, $wall->thickness, $near, $near + $wide);
        foreach ($clear <= self::REACH_MM[1] ? self::STUBS_MM : [] as $stub) {
            if ($clear - $stub >= self::REACH_MM[0] && $gap($clear - $stub)->isDoor) {
                return true;
            }
        }

        return $isInLine && $gap($clear)->lined;
    }
}
