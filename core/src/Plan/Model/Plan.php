<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

final readonly class Plan
{
    /** @param list<Storey> $storeys */
    public function __construct(public array $storeys)
    {
    }
}
