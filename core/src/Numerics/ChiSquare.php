<?php

declare(strict_types=1);

namespace Plinth\Core\Numerics;

/**
 * Upper tail of the χ² distribution by the regularised incomplete gamma function: series below a + 1, continued
 * fraction above (Abramowitz & Stegun 6.5.29, 6.5.31; Lentz's method).
 */
final class ChiSquare
{
    /** Probability that a χ² value with $degrees ≥ 1 degrees of freedom exceeds $value ≥ 0. */
    public static function upperTail(float $value, int $degrees): float
    {
        $a = $degrees / 2.0;
        $x = $value / 2.0;
        if ($x <= 0.0) {
            return 1.0;
        }
        $factor = exp(-$x + $a * log($x) - self::logGamma($a));
        if ($x < $a + 1.0) {
            $term = 1.0 / $a;
            $sum = $term;
            for ($n = 1; $n < 1000 && abs($term) > 1e-16 * abs($sum); ++$n) {
                $term *= $x / ($a + $n);
                $sum += $term;
            }

            return 1.0 - $sum * $factor;
        }
        $b = $x + 1.0 - $a;
        $c = 1e300;
        $d = 1.0 / $b;
        $h = $d;
        for ($n = 1; $n < 1000; ++$n) {
            $an = -$n * ($n - $a);
            $b += 2.0;
            $d = 1.0 / ($an * $d + $b);
            $c = $b + $an / $c;
            $h *= $d * $c;
            if (abs($d * $c - 1.0) < 1e-15) {
                break;
            }
        }

        return $factor * $h;
    }

    /** ln Γ(a) for a = ½, 1, 1½ … exactly by recurrence. */
    private static function logGamma(float $a): float
    {
        $sum = 0.0;
        while ($a > 1.0) {
            $a -= 1.0;
            $sum += log($a);
        }

        return $sum + (0.5 === $a ? 0.5 * log(\M_PI) : 0.0);
    }
}
