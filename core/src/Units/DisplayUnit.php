<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

/**
 * In what a project's sizes are shown and handed over. What was typed stays as it was typed.
 *
 * 1 ft = 304.8 mm, so 1 ft² = 0.092 903 04 m² exactly (NIST SP 811, appendix B).
 */
enum DisplayUnit: string
{
    case Millimetre = 'mm';
    case Centimetre = 'cm';
    case Metre = 'm';
    case Foot = 'ft';
    case Inch = 'in';
    case FeetAndHalves = 'ft-in/2';
    case FeetAndQuarters = 'ft-in/4';
    case FeetAndEighths = 'ft-in/8';
    case FeetAndSixteenths = 'ft-in/16';
    case FeetAndThirtySeconds = 'ft-in/32';
    case FeetAndSixtyFourths = 'ft-in/64';

    private const SQUARE_FOOT_M2 = 0.09290304;

    /** What is usual where bare numbers mean this. */
    public static function usualFor(LengthUnit $bare): self
    {
        return LengthUnit::Foot === $bare ? self::FeetAndSixteenths : self::from($bare->value);
    }

    /** What a bare number means in a project that is shown so. */
    public function bare(): LengthUnit
    {
        return $this->isFeetAndInches() ? LengthUnit::Foot : LengthUnit::from($this->value);
    }

    /** The unit of coordinates in files: feet and inches are drawn in inches. */
    public function drawn(): LengthUnit
    {
        return $this->isFeetAndInches() ? LengthUnit::Inch : LengthUnit::from($this->value);
    }

    public function format(): LengthFormat
    {
        return $this->isFeetAndInches()
            ? LengthFormat::feetAndInches((int) substr($this->value, 6))
            : LengthFormat::decimal(LengthUnit::from($this->value), match ($this) {
                self::Millimetre => 0,
                self::Centimetre => 1,
                self::Inch => 2,
                default => 3,
            });
    }

    /** An area to two places of a square metre, or one of a square foot: `12.34 m2`, `132.8 sq ft`. */
    public function area(float $m2): string
    {
        return $this->bare()->isImperial() ? \sprintf('%.1f sq ft', $m2 / self::SQUARE_FOOT_M2) : \sprintf('%.2f m2', $m2);
    }

    private function isFeetAndInches(): bool
    {
        return str_starts_with($this->value, 'ft-in/');
    }
}
