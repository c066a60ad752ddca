<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Server\Change\RowKinds;

final readonly class ProjectRows implements RowKinds
{
    public function rows(): array
    {
        return [Project::class, Storey::class, Side::class];
    }
}
