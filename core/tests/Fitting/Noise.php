<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Fitting;

/** Seeded noise for simulations. */
final class Noise
{
    public static function seed(int $seed): void
    {
        mt_srand($seed);
    }

    public static function uniform(float $from, float $to): float
    {
        return $from + ($to - $from) * mt_rand() / mt_getrandmax();
    }

    /** Normal deviate by Box and Muller. */
    public static function normal(float $sigma): float
    {
        return $sigma * sqrt(-2.0 * log(self::uniform(1e-12, 1.0))) * cos(2.0 * \M_PI * self::uniform(0.0, 1.0));
    }
}
