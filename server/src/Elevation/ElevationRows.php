<?php

declare(strict_types=1);

namespace Plinth\Server\Elevation;

use Plinth\Server\Change\RowKinds;

final readonly class ElevationRows implements RowKinds
{
    public function rows(): array
    {
        return [Outline::class, OutlineCorner::class, StreetPart::class];
    }
}
