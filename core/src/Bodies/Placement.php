<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

/** Where a form stands that is made about its own zero: moved there, and turned about the upright. */
final readonly class Placement
{
    /** @param float $cos of the turn, counter-clockwise, and its sine */
    public function __construct(public float $x, public float $y, public float $z, public float $cos, public float $sin)
    {
    }

    /**
     * @param array{float, float, float} $p
     *
     * @return array{float, float, float}
     */
    public function of(array $p): array
    {
        return [
            $this->x + $this->cos * $p[0] - $this->sin * $p[1],
            $this->y + $this->sin * $p[0] + $this->cos * $p[1],
            $this->z + $p[2],
        ];
    }

    /**
     * Where in the form a place lies.
     *
     * @param array{float, float, float} $p
     *
     * @return array{float, float, float}
     */
    public function from(array $p): array
    {
        [$x, $y] = [$p[0] - $this->x, $p[1] - $this->y];

        return [$this->cos * $x + $this->sin * $y, $this->cos * $y - $this->sin * $x, $p[2] - $this->z];
    }
}
