<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/** A point of the model plane: millimetres, x to the right, y up. */
final readonly class Point
{
    /** National grids end before a thousand kilometres, and doubles keep a tenth of a micrometre there. */
    public const FURTHEST_MM = 1e9;

    public function __construct(public float $x, public float $y)
    {
    }

    public function plus(float $dx, float $dy): self
    {
        return new self($this->x + $dx, $this->y + $dy);
    }

    /** So great a part of the way to another, beyond either too. */
    public function towards(self $other, float $part): self
    {
        return new self($this->x + $part * ($other->x - $this->x), $this->y + $part * ($other->y - $this->y));
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
