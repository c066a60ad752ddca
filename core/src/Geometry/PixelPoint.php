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

    /** The foot of the perpendicular from here on the line through two points. */
    public function footOn(self $a, self $b): self
    {
        [$dx, $dy] = [$b->x - $a->x, $b->y - $a->y];
        $t = (($this->x - $a->x) * $dx + ($this->y - $a->y) * $dy) / ($dx * $dx + $dy * $dy);

        return new self($a->x + $t * $dx, $a->y + $t * $dy);
    }

    /** @return array{float, float} */
    public function toArray(): array
    {
        return [$this->x, $this->y];
    }
}
