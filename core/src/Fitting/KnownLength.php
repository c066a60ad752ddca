<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** A true distance between two picks, or from a line to a pick beside it. Held out of the fit, it is a check length. */
final readonly class KnownLength
{
    /**
     * @param string $a id of the pick at one end
     * @param string $b id of the pick at the other
     * @param float $mm the true distance as stated, > 0
     * @param float $sigmaMm its standard deviation, ≥ 0
     * @param string|null $c for Along::Across a second pick on the line through a, from which b lies off by the distance
     * @param float $allowanceMm by how much longer than the figure the distance between the picks is, because they lie on other lines of
     *                           the walls
     */
    public function __construct(
        public string $id,
        public string $a,
        public string $b,
        public float $mm,
        public float $sigmaMm,
        public Along $along = Along::Straight,
        public bool $heldOut = false,
        public ?string $c = null,
        public float $allowanceMm = 0.0,
    ) {
    }

    /** What the distance between the picks ought to be, mm. */
    public function betweenPicksMm(): float
    {
        return $this->mm + $this->allowanceMm;
    }

    /** As a check length, which the fit does without. */
    public function asCheck(): self
    {
        return new self($this->id, $this->a, $this->b, $this->mm, $this->sigmaMm, $this->along, true, $this->c, $this->allowanceMm);
    }

    public function stated(float $mm): self
    {
        return new self($this->id, $this->a, $this->b, $mm, $this->sigmaMm, $this->along, $this->heldOut, $this->c, $this->allowanceMm);
    }
}
