<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** What the drawing says of its own scale, with the size of its paper or the scan's resolution. */
final readonly class StatedScale
{
    /** Copiers and screens keep no scale: common practice, no source. */
    public const SIGMA_PART = 0.01;

    /**
     * @param float $mmPerPixel of the building, > 0
     * @param float $sigmaPart its standard deviation as a part of it
     */
    public function __construct(public float $mmPerPixel, public float $sigmaPart = self::SIGMA_PART)
    {
    }
}
