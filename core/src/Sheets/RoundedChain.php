<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/**
 * A chain of dimensions as it is written: each place is rounded, and figures are what lies between rounded places. So the parts add up to
 * whatever they are parts of, and none is off by as much as one step.
 */
final class RoundedChain
{
    /**
     * @param list<float> $places mm along the chain, from its beginning
     * @param float $step mm to which figures are written
     *
     * @return list<float> mm between each and the next, in whole steps
     */
    public static function of(array $places, float $step): array
    {
        $parts = [];
        $begin = $places[0] ?? 0.0;
        $before = 0.0;
        foreach (\array_slice($places, 1) as $place) {
            $rounded = round(($place - $begin) / $step) * $step;
            $parts[] = $rounded - $before;
            $before = $rounded;
        }

        return $parts;
    }
}
