<?php

declare(strict_types=1);

namespace Plinth\Core\Drafting;

/** What fills a closed shape. */
enum Fill: string
{
    case None = 'none';
    case Solid = 'solid';
    /** lines that rise to the right by 45° */
    case Hatched = 'hatched';
    case Crossed = 'cross-hatched';

    /** @return list<float> directions of its lines, degrees from x */
    public function directions(): array
    {
        return match ($this) {
            self::None, self::Solid => [],
            self::Hatched => [45.0],
            self::Crossed => [45.0, 135.0],
        };
    }
}
