<?php

declare(strict_types=1);

namespace Plinth\Core\Numerics;

/** The middle of some numbers. */
final class Median
{
    /**
     * @param array<array-key, float> $values
     *
     * @return float the middle one, or half way between both middle ones; 0 of none
     */
    public static function of(array $values): float
    {
        sort($values);
        $n = \count($values);

        return 0 === $n ? 0.0 : ($values[intdiv($n, 2)] + $values[intdiv($n - 1, 2)]) / 2.0;
    }

    /**
     * @param array<array-key, int|float> $values
     *
     * @return float one of the values, of two middle ones the greater; 0 of none
     */
    public static function upper(array $values): float
    {
        sort($values);

        return (float) ($values[intdiv(\count($values), 2)] ?? 0.0);
    }
}
