<?php

declare(strict_types=1);

namespace Plinth\Core\Numerics;

/** A condition that says nothing new: it is a sum of earlier ones. */
final readonly class Dependence
{
    /**
     * @param array<int, float> $shares how much of each earlier condition it is the sum of, by their numbers
     * @param float $by what it asks for less what the earlier ones leave it
     */
    public function __construct(public array $shares, public float $by)
    {
    }
}
