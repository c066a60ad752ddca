<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Server\Change\RowKinds;

final readonly class FitRows implements RowKinds
{
    public function rows(): array
    {
        return [
            DrawingFit::class, Pick::class, KnownLength::class, GridPick::class, Rectangle::class, ControlPoint::class,
            LevelMark::class,
        ];
    }
}
