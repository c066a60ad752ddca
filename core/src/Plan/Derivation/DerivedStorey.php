<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

use Plinth\Core\Plan\Network\Leak;

/** What follows from a storey's walls, openings and rooms. */
final readonly class DerivedStorey
{
    /**
     * @param list<BodyOutline> $outlines
     * @param list<Region> $regions named ones and the rest
     * @param array<string, WallShape> $walls by id
     * @param array<string, non-empty-list<array{float, float}>> $openings cut-out of each opening in plan, by id
     * @param list<Leak> $leaks
     * @param list<Finding> $findings
     * @param array{grossFloor: float, netFloor: float, structure: float} $areasMm2 gross floor area, net floor area and area of structural
     *                                                                              elements (ISO 9836)
     */
    public function __construct(
        public string $id,
        public array $outlines,
        public array $regions,
        public array $walls,
        public array $openings,
        public array $leaks,
        public array $findings,
        public array $areasMm2,
    ) {
    }
}
