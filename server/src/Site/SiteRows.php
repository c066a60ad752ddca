<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Plinth\Server\Change\RowKinds;

final readonly class SiteRows implements RowKinds
{
    public function rows(): array
    {
        return [Boundary::class, BoundaryLeg::class, MapPoint::class];
    }
}
