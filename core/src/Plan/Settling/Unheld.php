<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling;

/** A decided figure that settling cannot hold, though no other contradicts it. */
final readonly class Unheld
{
    /** @param float $degrees by which its walls run apart */
    public function __construct(public string $figure, public Why $why, public float $degrees = 0.0)
    {
    }
}
