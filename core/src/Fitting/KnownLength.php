<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** A true distance between two picks. Held out of the fit, it is a check length. */
final readonly class KnownLength
{
    /**
     * @param string $a id of the pick at one end
     * @param string $b id of the pick at the other
     * @param float $mm the true distance, > 0
     * @param float $sigmaMm its standard deviation, ≥ 0
     */
    public function __construct(
        public string $id,
        public string $a,
        public string $b,
        public float $mm,
        public float $sigmaMm,
        public Along $along = Along::Straight,
        public bool $heldOut = false,
    ) {
    }
}
