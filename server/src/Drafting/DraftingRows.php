<?php

declare(strict_types=1);

namespace Plinth\Server\Drafting;

use Plinth\Server\Change\RowKinds;

final readonly class DraftingRows implements RowKinds
{
    public function rows(): array
    {
        return [DrawnLine::class, Dimension::class, Sweep::class];
    }
}
