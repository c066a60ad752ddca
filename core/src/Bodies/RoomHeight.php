<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

/** How high a room is: from its floor up to what covers it. */
final readonly class RoomHeight
{
    /**
     * @param string $region key of the region
     * @param float $leastMm where it is lowest, and where it is highest
     * @param float $openMm2 of it that is open to the storey above
     * @param bool $isTyped whether the room says so itself; otherwise it follows from what lies over it
     * @param float $underStairsMm2 of it that lies under stairs
     * @param float $lowMm2 of that: lower than the project counts in full
     */
    public function __construct(
        public string $region,
        public float $leastMm,
        public float $mostMm,
        public float $openMm2,
        public bool $isTyped,
        public float $underStairsMm2 = 0.0,
        public float $lowMm2 = 0.0,
    ) {
    }
}
