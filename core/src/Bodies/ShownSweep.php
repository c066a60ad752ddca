<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

use Plinth\Core\Bodies\Internal\Cut;

/**
 * A profile along its path as the plan of its storey shows it.
 *
 * @phpstan-import-type Ring from Cut
 */
final readonly class ShownSweep
{
    /**
     * @param list<Ring> $rings round what it covers of the plan, and holes in that
     * @param float $bottom mm of its lowest point above the storey's level
     */
    public function __construct(public string $id, public array $rings, public float $bottom)
    {
    }
}
