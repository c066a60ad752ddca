<?php

declare(strict_types=1);

namespace Plinth\Server\Http;

/** Who may use an action. Every action says so; one that does not is answered to nobody. */
#[\Attribute(\Attribute::TARGET_METHOD)]
final readonly class Needs
{
    /** @param bool $inBin whether it is for projects in the bin as well */
    public function __construct(public Who $who, public bool $inBin = false)
    {
    }
}
