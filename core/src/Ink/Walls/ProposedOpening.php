<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Plan\Model\OpeningKind;

/** An opening that the ink shows in a proposed wall. */
final readonly class ProposedOpening
{
    public const SURE = 0.4;

    /**
     * @param int $wall index of the wall among the proposals
     * @param float $offset from the wall's beginning to the near jamb, mm
     * @param float $sigma standard deviation of either jamb, mm
     * @param float $confidence 0 to 1, as learnt from simulated sheets; how far it holds on others is told in docs/accuracy.md
     * @param string|null $leafAt jamb at which the leaf is drawn: near or far
     * @param string|null $leafSide side of the wall, seen from its beginning: left or right
     */
    public function __construct(
        public int $wall,
        public OpeningKind $kind,
        public float $offset,
        public float $width,
        public float $sigma,
        public float $confidence,
        public OpeningEvidence $evidence,
        public ?string $leafAt = null,
        public ?string $leafSide = null,
    ) {
    }

    /** The same in a wall of another number. */
    public function of(int $wall): self
    {
        return new self(
            $wall,
            $this->kind,
            $this->offset,
            $this->width,
            $this->sigma,
            $this->confidence,
            $this->evidence,
            $this->leafAt,
            $this->leafSide,
        );
    }

    /** Whether it is taken with its wall. */
    public function isSure(): bool
    {
        return $this->confidence >= self::SURE;
    }
}
