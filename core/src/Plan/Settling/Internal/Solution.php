<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling\Internal;

use Plinth\Core\Numerics\Conditions;
use Plinth\Core\Plan\Settling\Contradiction;

/**
 * What an adjustment came to.
 *
 * @internal
 */
final readonly class Solution
{
    /**
     * @param list<Family> $families with the ways that were found
     * @param list<array{float, float}> $places of the nodes, from the middle, mm
     * @param list<Contradiction> $contradictions
     */
    public function __construct(
        public array $families,
        public array $places,
        public array $contradictions,
        private Unknowns $unknowns,
        private Conditions $conditions,
    ) {
    }

    /** @return list<array{float, float}> standard deviations of each node's x and y, mm */
    public function sigmas(): array
    {
        [$known, $sigmas] = [[], []];
        foreach ($this->places as $node => $place) {
            $unknowns = $this->unknowns->of($node);
            // Many nodes stand at the same two walls' places.
            $known[$unknowns[0]][$unknowns[1]] ??= $this->conditions->covariance($unknowns);
            $sigmas[] = array_map(sqrt(...), $this->unknowns->variancesOf($node, $place, $known[$unknowns[0]][$unknowns[1]]));
        }

        return $sigmas;
    }

    /** Standard deviation of a family's way, radians; its way is not known. */
    public function sigmaOf(int $family): float
    {
        return sqrt(max(0.0, $this->conditions->covariance([Unknowns::way($family)])[0][0]));
    }
}
