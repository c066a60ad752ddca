<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling;

/** Figures that cannot all hold: one against the chain of others between the same walls. */
final readonly class Contradiction
{
    /**
     * @param string $figure that closes the ring and gives way
     * @param list<string> $chain the figures it stands against
     * @param float $byMm the figure less the chain
     * @param string $culprit the one among all of them that the tracing speaks against most
     */
    public function __construct(public string $figure, public array $chain, public float $byMm, public string $culprit)
    {
    }
}
