<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

use Brick\Math\BigRational;

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
        return $this->exactly()->toFloat();
    }

    public function exactly(): BigRational
    {
        return match ($this) {
            self::Millimetre => BigRational::one(),
            self::Centimetre => BigRational::of(10),
            self::Metre => BigRational::of(1000),
            self::Foot => BigRational::ofFraction(1524, 5),
            self::Inch => BigRational::ofFraction(127, 5),
        };
    }

    public function isImperial(): bool
    {
        return self::Foot === $this || self::Inch === $this;
    }
}
