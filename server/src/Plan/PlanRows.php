<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Server\Change\RowKinds;

final readonly class PlanRows implements RowKinds
{
    public function rows(): array
    {
        return [
            BuildUp::class, Node::class, Wall::class, Opening::class, Room::class, Divider::class, Figure::class, Note::class,
            ListedRoom::class, Assurance::class,
        ];
    }
}
