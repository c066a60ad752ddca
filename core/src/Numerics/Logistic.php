<?php

declare(strict_types=1);

namespace Plinth\Core\Numerics;

/** How likely something is by weighed evidence: the logistic function of its weighed sum (Cox 1958, from memory). */
final class Logistic
{
    /**
     * @param array<string, float> $weights by name; the one without a name counts always
     * @param array<string, float> $values by name
     *
     * @return float 0 to 1
     */
    public static function of(array $weights, array $values): float
    {
        $sum = $weights[''] ?? 0.0;
        foreach ($values as $name => $value) {
            $sum += ($weights[$name] ?? 0.0) * $value;
        }

        return 1.0 / (1.0 + exp(-max(-30.0, min(30.0, $sum))));
    }
}
