<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Geometry\Point;

/** A wall as the ink has it: its centre line between two places, mm, and how thick it is. */
final readonly class ProbedWall
{
    /**
     * @param float $centreSigma standard deviation of the centre line at its middle, across it, mm
     * @param float $thicknessSigma standard deviation of the thickness, mm
     * @param bool $isSolid its faces are the edges of solid ink; otherwise the middles of lines
     * @param float $support part of the looks along it that showed both faces, 0 to 1
     */
    public function __construct(
        public Point $from,
        public Point $to,
        public float $thickness,
        public float $centreSigma,
        public float $thicknessSigma,
        public bool $isSolid,
        public float $support,
    ) {
    }

    public function length(): float
    {
        return $this->from->distanceTo($this->to);
    }
}
