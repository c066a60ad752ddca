<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** What a fit may do to the picture, each containing the one before. */
enum Model: string
{
    case Similar = 'similar';
    case Stretched = 'stretched';
    case Sheared = 'sheared';

    public function shape(): ShapeModel
    {
        return match ($this) {
            self::Similar => new Similar(),
            self::Stretched => new Stretched(),
            self::Sheared => new Sheared(),
        };
    }

    /** @return list<self> */
    public function larger(): array
    {
        return match ($this) {
            self::Similar => [self::Stretched, self::Sheared],
            self::Stretched => [self::Sheared],
            self::Sheared => [],
        };
    }
}
