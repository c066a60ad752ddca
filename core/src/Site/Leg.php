<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

use Plinth\Core\Units\Bearing;

/** One piece of a boundary, as it was measured. */
final readonly class Leg
{
    /**
     * @param float $mm horizontal length, > 0
     */
    public function __construct(public Bearing $bearing, public float $mm)
    {
    }

    /** @param float $degrees clockwise */
    public function turned(float $degrees): self
    {
        return new self($this->bearing->turned($degrees), $this->mm);
    }

    /** @return float mm to the east */
    public function departure(): float
    {
        return $this->mm * sin($this->bearing->radians());
    }

    /** @return float mm to the north */
    public function latitude(): float
    {
        return $this->mm * cos($this->bearing->radians());
    }
}
