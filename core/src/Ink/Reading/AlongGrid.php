<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Geometry\Point;

/**
 * Which dimension lines of a drawing run with its grid: those in the direction, modulo a right angle, that most of their length has. A
 * wing's own dimensions run another way and say nothing of the grid.
 */
final class AlongGrid
{
    /** degrees that lines of one direction differ by where a photograph leans: by trial (bench figures) */
    private const SAME = 8.0;
    /** lines of each axis that square a drawing: two show as well whether it leans */
    private const SQUARING = 2;

    /**
     * @param list<array{Point, Point}> $spans ends of the lines as the drawing lies
     *
     * @return list<'x'|'y'|null> the axis that each runs along; null where it runs with neither
     */
    public static function of(array $spans): array
    {
        $lines = array_map(static fn (array $s): array => [
            rad2deg(atan2($s[1]->y - $s[0]->y, $s[1]->x - $s[0]->x)), $s[0]->distanceTo($s[1]),
        ], $spans);
        [$grid, $most] = [0.0, 0.0];
        foreach ($lines as [$degrees]) {
            $agree = 0.0;
            foreach ($lines as [$other, $length]) {
                $agree += abs(self::off($other, $degrees)) <= self::SAME ? $length : 0.0;
            }
            [$grid, $most] = $agree > $most ? [$degrees, $agree] : [$grid, $most];
        }

        return array_map(static fn (array $line): ?string => abs(self::off($line[0], $grid)) > self::SAME ? null : (
            abs(cos(deg2rad($line[0]))) > \M_SQRT1_2 ? 'x' : 'y'
        ), $lines);
    }

    /**
     * Which of them square a drawing: the longest of either axis.
     *
     * @param list<array{Point, Point}> $spans
     * @param list<'x'|'y'|null> $along as of() tells it
     *
     * @return list<bool>
     */
    public static function squaring(array $spans, array $along): array
    {
        $lengths = array_map(static fn (array $s): float => $s[0]->distanceTo($s[1]), $spans);
        arsort($lengths);
        $longest = array_keys($lengths);
        $squares = array_fill(0, \count($spans), false);
        foreach (['x', 'y'] as $axis) {
            foreach (\array_slice(array_filter($longest, static fn (int $i): bool => $axis === $along[$i]), 0, self::SQUARING) as $i) {
                $squares[$i] = true;
            }
        }

        return array_values($squares);
    }

    /** By how much one direction differs from another, modulo a right angle, −45° to 45°. */
    private static function off(float $degrees, float $from): float
    {
        return fmod($degrees - $from + 405.0, 90.0) - 45.0;
    }
}
