<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

/**
 * Prints a length in one of the project's ways of writing. Rounding happens here and nowhere before.
 *
 * Whatever it prints, LengthParser reads back to the format's own precision (half a step).
 */
final readonly class LengthFormat
{
    private function __construct(private LengthUnit $unit, private int $decimals, private int $denominator)
    {
    }

    /** Metric or decimal imperial: `4 375 mm`, `4.375 m`, `14.35 ft`. */
    public static function decimal(LengthUnit $unit, int $decimals): self
    {
        return new self($unit, max(0, $decimals), 0);
    }

    /** Feet, inches and a fraction to 1/denominator inch: `11'-7 1/2"`. */
    public static function feetAndInches(int $denominator = 16): self
    {
        return new self(LengthUnit::Foot, 0, max(1, $denominator));
    }

    public function stepMm(): float
    {
        return 0 === $this->denominator
            ? 10.0 ** -$this->decimals * $this->unit->millimetres()
            : LengthUnit::Inch->millimetres() / $this->denominator;
    }

    /** As it stands on a drawing, which says once in what it is measured: `4375`, `4.375`, `11'-7 1/2"`. */
    public function figure(float $mm): string
    {
        return 0 === $this->denominator
            ? number_format($mm / $this->unit->millimetres(), $this->decimals, '.', '')
            : $this->print($mm);
    }

    public function print(float $mm): string
    {
        if (0 === $this->denominator) {
            return number_format($mm / $this->unit->millimetres(), $this->decimals, '.', ' ').' '.$this->unit->value;
        }
        $parts = (int) round(abs($mm) / LengthUnit::Inch->millimetres() * $this->denominator);
        $sign = $mm < 0 && $parts > 0 ? '-' : '';
        $inches = intdiv($parts, $this->denominator);
        $numerator = $parts % $this->denominator;
        $common = self::greatestCommonDivisor($numerator, $this->denominator);
        $fraction = 0 === $numerator ? '' : \sprintf(' %d/%d', intdiv($numerator, $common), intdiv($this->denominator, $common));
        $feet = intdiv($inches, 12);

        // A negative `-1'-6"` would read as one sign for the feet only, so the parts carry it alike.
        return '' === $sign
            ? \sprintf('%d\'-%d%s"', $feet, $inches % 12, $fraction)
            : \sprintf('-%d%s"', $inches, $fraction);
    }

    private static function greatestCommonDivisor(int $a, int $b): int
    {
        return 0 === $b ? max(1, $a) : self::greatestCommonDivisor($b, $a % $b);
    }
}
