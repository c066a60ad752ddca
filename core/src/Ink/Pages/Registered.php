<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Geometry\PixelAffine;

/** How one scan of a sheet lies on another. */
final readonly class Registered
{
    /**
     * @param PixelAffine $map old page pixels → new page pixels
     * @param int $points places found in both
     * @param float $rmsPx root mean square of what is left at them, pixels of the old page
     */
    public function __construct(public PixelAffine $map, public int $points, public float $rmsPx, public float $greatestPx)
    {
    }
}
