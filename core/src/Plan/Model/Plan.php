<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

final readonly class Plan
{
    /**
     * @param list<Storey> $storeys
     * @param list<Finish> $finishes that surfaces of any storey have
     */
    public function __construct(public array $storeys, public array $finishes = [])
    {
    }
}
