<?php

declare(strict_types=1);

namespace Plinth\Server\Building;

use Plinth\Server\Change\RowKinds;

final readonly class BuildingRows implements RowKinds
{
    public function rows(): array
    {
        return [SavedView::class];
    }
}
