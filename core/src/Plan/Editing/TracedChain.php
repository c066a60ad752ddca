<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Editing;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Wall;

/** Turns a chain of points traced along one line of a wall into the chain of its centre line. */
final class TracedChain
{
    /** Corners sharper than this keep the plain offset: their mitre would run off. */
    private const LEAST_SINE = 0.1;

    /**
     * @param list<Point> $points at least two, consecutive ones more than a millimetre apart
     * @param Line $line which line was traced, as seen along the chain
     * @param float $thickness mm, of every wall of the chain
     * @param bool $closed the last point joins the first, which is not repeated
     *
     * @return list<Point> as many points, on the centre line
     */
    public static function centreLine(array $points, Line $line, float $thickness, bool $closed): array
    {
        // The centre lies to the right of a traced left face, and to the left of a right one.
        $offset = match ($line) {
            Line::Centre => 0.0,
            Line::Left => -$thickness / 2.0,
            Line::Right => $thickness / 2.0,
        };
        $n = \count($points);
        $directions = [];
        for ($i = 0; $i < ($closed ? $n : $n - 1); ++$i) {
            $a = $points[$i];
            $b = $points[($i + 1) % $n];
            $length = $a->distanceTo($b);
            $directions[] = [($b->x - $a->x) / $length, ($b->y - $a->y) / $length];
        }
        $centre = [];
        foreach ($points as $i => $p) {
            $before = $directions[$i - 1] ?? ($closed ? $directions[$n - 1] : $directions[0]);
            $after = $directions[$i] ?? $directions[\count($directions) - 1];
            $sine = $before[0] * $after[1] - $before[1] * $after[0];
            $cosine = $before[0] * $after[0] + $before[1] * $after[1];
            // Intersection of both offset lines: p + n·offset + along·direction, with along = offset · (1 − cos) / sin.
            $along = abs($sine) < self::LEAST_SINE ? 0.0 : $offset * (1.0 - $cosine) / $sine;
            $centre[] = $p->plus(-$after[1] * $offset + $along * $after[0], $after[0] * $offset + $along * $after[1]);
        }

        return $centre;
    }

    /**
     * Moves a chain's end along its own direction onto another wall's centre line.
     *
     * @return Point the end, or the nearest point of the centre line when both run nearly the same way
     */
    public static function join(Point $before, Point $end, Wall $host): Point
    {
        [$from, $to] = [$host->from->toArray(), $host->to->toArray()];
        $meeting = Segment::meeting($before->toArray(), $end->toArray(), $from, $to, Tolerance::LANDING_SINE);
        $t = null === $meeting ? Segment::nearest($end->toArray(), $from, $to)[2] : max(0.0, min(1.0, $meeting[1]));

        return $host->from->towards($host->to, $t);
    }
}
