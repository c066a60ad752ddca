<?php

declare(strict_types=1);

namespace Plinth\Server\SettingOut;

use Plinth\Server\Change\RowKinds;

final readonly class SettingOutRows implements RowKinds
{
    public function rows(): array
    {
        return [GridAxis::class, Column::class];
    }
}
