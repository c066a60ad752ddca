<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** Lines that fill an area, told apart from each other without colour. */
enum Hatch: string
{
    case Rising = 'rising';
    case Falling = 'falling';
    case Crossed = 'crossed';
    case Upright = 'upright';
    case Level = 'level';
    case Squared = 'squared';
    case Dense = 'dense';
    case Wide = 'wide';

    /** @return non-empty-list<float> directions of its lines, degrees from x */
    public function directions(): array
    {
        return match ($this) {
            self::Rising, self::Dense => [45.0],
            self::Falling, self::Wide => [135.0],
            self::Crossed => [45.0, 135.0],
            self::Upright => [90.0],
            self::Level => [0.0],
            self::Squared => [0.0, 90.0],
        };
    }

    /** From line to line, mm of paper. */
    public function apartMm(): float
    {
        return match ($this) {
            self::Dense => 1.2,
            self::Wide => 6.0,
            self::Crossed, self::Squared => 4.0,
            default => 2.6,
        };
    }
}
