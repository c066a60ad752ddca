<?php

declare(strict_types=1);

namespace Plinth\Server\Finishes;

use Plinth\Server\Change\RowKinds;

final readonly class FinishRows implements RowKinds
{
    public function rows(): array
    {
        return [Finish::class, Surface::class];
    }
}
