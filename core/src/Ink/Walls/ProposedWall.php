<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Geometry\Point;

/** A wall that a drawing's ink shows, waiting for somebody to accept it. */
final readonly class ProposedWall
{
    public const SURE = 0.6;
    /** Less sure than this nobody needs to look at it. */
    public const WORTH_A_LOOK = 0.1;

    /**
     * @param Point $from ends of the centre line, mm; where walls meet, centre lines end on each other
     * @param float $centreSigma standard deviation of the centre line across it, mm
     * @param float $thicknessSigma mm
     * @param float $confidence 0 to 1, as learnt from simulated sheets; how far it holds on others is told in docs/accuracy.md
     * @param string $filling solid, toned or empty: what is drawn between its faces
     * @param list<WallEvidence> $evidence what its confidence comes from, stretch by stretch between meetings
     */
    public function __construct(
        public Point $from,
        public Point $to,
        public float $thickness,
        public float $centreSigma,
        public float $thicknessSigma,
        public float $confidence,
        public string $filling,
        public array $evidence,
    ) {
    }

    /** Whether it is taken with the others; one that is not stands apart, to be looked at. */
    public function isSure(): bool
    {
        return $this->confidence >= self::SURE;
    }

    /** The same, to be looked at. */
    public function doubted(): self
    {
        $confidence = min($this->confidence, self::SURE - self::WORTH_A_LOOK);

        return new self(
            $this->from,
            $this->to,
            $this->thickness,
            $this->centreSigma,
            $this->thicknessSigma,
            $confidence,
            $this->filling,
            $this->evidence,
        );
    }

    public function length(): float
    {
        return $this->from->distanceTo($this->to);
    }
}
