<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model\Internal;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Exception\UnusableValue;

/**
 * What every part of a plan holds itself to when it is made: numbers that are numbers, and no further off than doubles can tell.
 *
 * @internal
 */
final class Checked
{
    /** @throws UnusableValue unless every place lies within reach of the zero */
    public static function places(string $of, Point ...$places): void
    {
        foreach ($places as $place) {
            foreach ([$place->x, $place->y] as $mm) {
                if (!self::isWithin($mm, Point::FURTHEST_MM)) {
                    throw UnusableValue::outOfRange($of, $mm, \sprintf('within %d km of the zero', Point::FURTHEST_MM / 1e6));
                }
            }
        }
    }

    /** @throws UnusableValue unless a measure that may be left out is more than nothing, mm */
    public static function size(string $of, ?float $mm, float $most = Point::FURTHEST_MM): void
    {
        if (null !== $mm && (!self::isWithin($mm, $most) || $mm <= 0.0)) {
            throw UnusableValue::outOfRange($of, $mm, \sprintf('more than zero and at most %.0f mm', $most));
        }
    }

    /** @throws UnusableValue unless a distance to either side is within a bound, mm */
    public static function within(string $of, float $mm, float $most = Point::FURTHEST_MM): void
    {
        if (!self::isWithin($mm, $most)) {
            throw UnusableValue::outOfRange($of, $mm, \sprintf('between −%1$.0f and %1$.0f mm', $most));
        }
    }

    /** What is no number is asked for by name: a comparison with it is not told alike by all ways in which PHP compiles one. */
    private static function isWithin(float $mm, float $most): bool
    {
        return !is_nan($mm) && abs($mm) <= $most;
    }
}
