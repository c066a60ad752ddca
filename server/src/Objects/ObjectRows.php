<?php

declare(strict_types=1);

namespace Plinth\Server\Objects;

use Plinth\Server\Change\RowKinds;

final readonly class ObjectRows implements RowKinds
{
    public function rows(): array
    {
        return [PlacedObject::class];
    }
}
