<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/**
 * How well a drawing was drawn is assumed until it has shown it: where the figures agree by better than a draughtsman's usual error, his
 * was smaller. The estimate weighs what is assumed as much as two figures that check each other (inverse χ² prior; Gelman et al.,
 * Bayesian Data Analysis, from memory).
 */
final class DraftingError
{
    private const ASSUMED = 2.0;
    private const LEAST_CHECKS = 3;

    /** @return float by which the assumed error is to be multiplied, at most 1: what is worse than assumed shows in the fit's own test */
    public static function factor(Fit $fit): float
    {
        $dof = $fit->degreesOfFreedom;

        return $dof < self::LEAST_CHECKS || $fit->s0 >= 1.0 ? 1.0 : sqrt((self::ASSUMED + $dof * $fit->s0 ** 2) / (self::ASSUMED + $dof));
    }
}
