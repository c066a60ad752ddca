<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange;

use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Point;

/**
 * A line as a program has drawn it: x, y to x, y, the number of its pen, and how far it rises over its chord where it is an arc, to the
 * left of its way as x turns into y. A curve that is no arc is told by its two ends, each a line of no length.
 *
 * @phpstan-type Line array{0: float, 1: float, 2: float, 3: float, 4: int, 5?: float}
 */
final class ExactLine
{
    /** part of its radius by which a curve of the third degree may be off an arc that it stands for: at 90° it is off by 0.00027 */
    private const ROUND = 0.001;
    /** part by which the two factors of a map may differ that arcs stay arcs under it */
    private const SIMILAR = 1e-4;

    /**
     * The same elsewhere, of which nothing but places change.
     *
     * @param Line $line
     * @param callable(float, float): array{float, float} $of
     *
     * @return Line
     */
    public static function mapped(array $line, callable $of): array
    {
        [$x1, $y1, $x2, $y2, $pen] = $line;
        [$from, $to] = [$of($x1, $y1), $of($x2, $y2)];
        $rise = $line[5] ?? 0.0;
        if (0.0 === $rise || $from === $to) {
            return [...$from, ...$to, $pen];
        }
        $on = new Point(...$of(...self::middle($x1, $y1, $x2, $y2, $rise)));
        $rise = Arc::riseThrough(new Point(...$from), $on, new Point(...$to));

        return 0.0 === $rise ? [...$from, ...$to, $pen] : [...$from, ...$to, $pen, $rise];
    }

    /**
     * A curve of the third degree (ISO 32000-1, 8.5.2) between its ends.
     *
     * @param array{float, float} $from
     * @param array{float, float} $lead
     * @param array{float, float} $last
     * @param array{float, float} $to
     *
     * @return list<Line> of pen 0
     */
    public static function ofCurve(array $from, array $lead, array $last, array $to): array
    {
        $at = static function (float $t) use ($from, $lead, $last, $to): Point {
            $s = 1.0 - $t;
            [$a, $b, $c, $d] = [$s ** 3, 3.0 * $s * $s * $t, 3.0 * $s * $t * $t, $t ** 3];

            return new Point(
                $a * $from[0] + $b * $lead[0] + $c * $last[0] + $d * $to[0],
                $a * $from[1] + $b * $lead[1] + $c * $last[1] + $d * $to[1],
            );
        };
        [$start, $end] = [new Point(...$from), new Point(...$to)];
        $rise = $from === $to ? 0.0 : Arc::riseThrough($start, $at(0.5), $end);
        if (0.0 !== $rise) {
            $arc = new Arc($start, $end, $rise);
            $off = max(array_map(static fn (float $t): float => abs($at($t)->distanceTo($arc->centre) - $arc->radius), [0.25, 0.75]));
            if ($off <= self::ROUND * $arc->radius) {
                return [[...$from, ...$to, 0, $rise]];
            }
        }

        return self::ends($from, $to);
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     *
     * @return list<Line>
     */
    public static function ends(array $from, array $to): array
    {
        return [[...$from, ...$from, 0], [...$to, ...$to, 0]];
    }

    /**
     * Whether arcs stay arcs under x' = ax + cy, y' = bx + dy.
     */
    public static function keepsArcs(float $a, float $b, float $c, float $d): bool
    {
        $size = hypot($a, $b);

        return abs(hypot($c, $d) - $size) <= self::SIMILAR * $size && abs($a * $c + $b * $d) <= self::SIMILAR * $size * $size;
    }

    /** @return array{float, float} the middle of an arc */
    private static function middle(float $x1, float $y1, float $x2, float $y2, float $rise): array
    {
        $part = $rise / max(1e-12, hypot($x2 - $x1, $y2 - $y1));

        return [($x1 + $x2) / 2.0 - ($y2 - $y1) * $part, ($y1 + $y2) / 2.0 + ($x2 - $x1) * $part];
    }
}
