<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Wall;

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
     * @param float $rise of an arc over its chord, mm, positive to the left of from → to; 0 is straight
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
        public float $rise = 0.0,
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
            $this->rise,
        );
    }

    public function length(): float
    {
        return $this->wall('')->length();
    }

    /** As a wall of the plan. */
    public function wall(string $id): Wall
    {
        return new Wall($id, $this->from, $this->to, $this->thickness, rise: $this->rise);
    }
}
