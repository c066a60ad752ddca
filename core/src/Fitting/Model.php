<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** What a fit may do to the picture, each containing the one before. */
enum Model: string
{
    case Similar = 'similar';
    case Stretched = 'stretched';
    case Sheared = 'sheared';
    case Perspective = 'perspective';

    public function shape(): ShapeModel
    {
        return match ($this) {
            self::Similar => new Similar(),
            self::Stretched => new Stretched(),
            self::Sheared => new Sheared(),
            self::Perspective => new Perspective(),
        };
    }

    /** @return list<self> those that contain it, up to the largest asked for */
    public function larger(self $largest): array
    {
        $all = self::cases();

        return \array_slice(
            $all,
            (int) array_search($this, $all, true) + 1,
            max(0, (int) array_search($largest, $all, true) - (int) array_search($this, $all, true)),
        );
    }
}
