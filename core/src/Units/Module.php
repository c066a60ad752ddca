<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

/** The module of a building: what a course adds upward, a unit along, and the joint inside either. */
final readonly class Module
{
    /**
     * @param float|null $courseMm gauge: a brick or block with one joint, upward
     * @param float|null $unitMm a unit length with one joint, along
     */
    public function __construct(public ?float $courseMm, public ?float $unitMm, public float $jointMm)
    {
    }
}
