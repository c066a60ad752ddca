<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

/** In what areas are shown and handed over. 1 ft = 304.8 mm, so 1 ft² = 0.092 903 04 m² exactly (NIST SP 811, appendix B). */
enum AreaUnit: string
{
    case SquareMetre = 'm2';
    case SquareFoot = 'ft2';

    private const SQUARE_FOOT_M2 = 0.09290304;

    /** What is usual where lengths are shown so. */
    public static function usualFor(DisplayUnit $lengths): self
    {
        return $lengths->bare()->isImperial() ? self::SquareFoot : self::SquareMetre;
    }

    /** To two places of a square metre, or one of a square foot: `12.34 m2`, `132.8 sq ft`. */
    public function written(float $m2): string
    {
        return match ($this) {
            self::SquareMetre => \sprintf('%.2f m2', $m2),
            self::SquareFoot => \sprintf('%.1f sq ft', $m2 / self::SQUARE_FOOT_M2),
        };
    }
}
