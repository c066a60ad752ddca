<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Geometry\Point;

/** A wall that a drawing's ink shows, waiting for somebody to accept it. */
final readonly class ProposedWall
{
    /**
     * @param Point $from ends of the centre line, mm; where walls meet, centre lines end on each other
     * @param float $centreSigma standard deviation of the centre line across it, mm
     * @param float $thicknessSigma mm
     * @param float $confidence 0 to 1: how much of it shows both faces, how evenly it is filled, how many of its ends meet others
     * @param string $filling solid, toned or empty: what is drawn between its faces
     */
    public function __construct(
        public Point $from,
        public Point $to,
        public float $thickness,
        public float $centreSigma,
        public float $thicknessSigma,
        public float $confidence,
        public string $filling,
    ) {
    }

    public function length(): float
    {
        return $this->from->distanceTo($this->to);
    }
}
