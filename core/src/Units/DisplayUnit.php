<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

/**
 * In what a project's sizes are shown and handed over. What was typed stays as it was typed.
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

    private function isFeetAndInches(): bool
    {
        return str_starts_with($this->value, 'ft-in/');
    }
}
