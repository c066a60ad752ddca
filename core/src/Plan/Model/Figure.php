<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** A figure that was decided: what shall be between faces or centre lines of two walls. */
final readonly class Figure
{
    /**
     * @param string $id of the figure
     * @param string $a wall from which it runs
     * @param float $mm what shall be between the two
     * @param float $toleranceMm by how much it may be off as it was written: half its last place
     */
    public function __construct(
        public string $id,
        public string $a,
        public Line $aSide,
        public string $b,
        public Line $bSide,
        public float $mm,
        public float $toleranceMm = 0.5,
    ) {
    }
}
