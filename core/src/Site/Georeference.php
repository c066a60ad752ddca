<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

/** How the plan lies in a projected reference: moved, turned and enlarged. */
final readonly class Georeference
{
    /**
     * @param string $reference its name, as the registry of references has it: `EPSG:25832`
     * @param float $east m, of the plan's zero
     * @param float $north m
     * @param float $height m of the project's zero
     * @param float $degrees of the plan's x axis, counter-clockwise from east
     * @param float $scale m of the reference for each m of the plan
     */
    public function __construct(
        public string $reference,
        public float $east,
        public float $north,
        public float $height = 0.0,
        public float $degrees = 0.0,
        public float $scale = 1.0,
    ) {
    }
}
