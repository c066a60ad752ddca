<?php

declare(strict_types=1);

namespace Plinth\Core\Roof\Internal;

/**
 * A corner of the wavefront, between the front that comes in and the one that goes out; where it is follows from both, and is never
 * added up.
 *
 * @internal
 */
final readonly class Corner
{
    /**
     * @param int $in number of a front, and $out
     * @param int $node where it was born
     * @param float $x m, where that is, and $y
     * @param float $born height, m
     * @param float $vx m for each m of height, and $vy
     * @param float $det of both fronts' directions; 0 where they run in one line
     * @param string $labelIn facet of the front that comes in while the corner lives, and $labelOut
     */
    public function __construct(
        public int $in,
        public int $out,
        public int $node,
        public float $x,
        public float $y,
        public float $born,
        public float $vx,
        public float $vy,
        public float $det,
        public string $labelIn,
        public string $labelOut,
    ) {
    }

    public function isReflex(): bool
    {
        return $this->det < 0.0;
    }
}
