<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

final readonly class Plan
{
    /**
     * @param list<Storey> $storeys
     * @param list<Finish> $finishes that surfaces of any storey have
     * @param list<StairLimit> $stairLimits that its author has set, one for each measure at most
     * @param array<string, string> $numbers that doors, windows and openings were given, by id
     * @param array<string, string> $buildUps names of what walls are built of, by id of the wall
     */
    public function __construct(
        public array $storeys,
        public array $finishes = [],
        public array $stairLimits = [],
        public array $numbers = [],
        public array $buildUps = [],
        public FireSafety $fire = new FireSafety(),
    ) {
    }
}
