<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

/**
 * A unit in which a length is typed. The factors are exact: 1 in = 25.4 mm, 1 ft = 304.8 mm (NIST SP 811, appendix B).
 */
enum LengthUnit: string
{
    case Millimetre = 'mm';
    case Centimetre = 'cm';
    case Metre = 'm';
    case Foot = 'ft';
    case Inch = 'in';

    public function millimetres(): float
    {
        return match ($this) {
            self::Millimetre => 1.0,
            self::Centimetre => 10.0,
            self::Metre => 1000.0,
            self::Foot => 304.8,
            self::Inch => 25.4,
        };
    }

    public function isImperial(): bool
    {
        return self::Foot === $this || self::Inch === $this;
    }
}
