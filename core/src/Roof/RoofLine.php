<?php

declare(strict_types=1);

namespace Plinth\Core\Roof;

/** A line along which two facets of a roof meet, mm. */
final readonly class RoofLine
{
    /**
     * @param array{float, float, float} $from
     * @param array{float, float, float} $to
     */
    public function __construct(public RoofLineKind $kind, public array $from, public array $to)
    {
    }

    public function length(): float
    {
        return sqrt(($this->to[0] - $this->from[0]) ** 2 + ($this->to[1] - $this->from[1]) ** 2 + ($this->to[2] - $this->from[2]) ** 2);
    }
}
