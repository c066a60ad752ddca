<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/** A point of a page: pixels from its top-left corner as shown upright, y down, pixel centres at integer + 0.5. */
final readonly class PixelPoint
{
    public function __construct(public float $x, public float $y)
    {
    }

    public function distanceTo(self $other): float
    {
        return hypot($other->x - $this->x, $other->y - $this->y);
    }
}
