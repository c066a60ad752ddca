<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Plinth\Server\Change\RowKinds;

final readonly class SheetRows implements RowKinds
{
    public function rows(): array
    {
        return [PrintSheet::class, SheetView::class, ViewMark::class];
    }
}
