<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Plinth\Server\Change\RowKinds;

final readonly class SourceRows implements RowKinds
{
    public function rows(): array
    {
        return [Source::class, Page::class, Drawing::class];
    }
}
