<?php

declare(strict_types=1);

namespace Plinth\Server\Stairs;

use Plinth\Server\Change\RowKinds;

final readonly class StairRows implements RowKinds
{
    public function rows(): array
    {
        return [Stair::class, StairLimit::class];
    }
}
