<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/** A point of the model plane: millimetres, x to the right, y up. */
final readonly class Point
{
    public function __construct(public float $x, public float $y)
    {
    }

    public function plus(float $dx, float $dy): self
    {
        return new self($this->x + $dx, $this->y + $dy);
    }

    public function distanceTo(self $other): float
    {
        return hypot($other->x - $this->x, $other->y - $this->y);
    }

    /** @return array{float, float} */
    public function toArray(): array
    {
        return [$this->x, $this->y];
    }
}
