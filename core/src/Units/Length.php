<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

/**
 * A length as it was typed: its value, and the rounding step that its text shows.
 *
 * `4.20 m` was written to a centimetre, so its step is 10 mm; `11'7` has a step of one inch. A figure rounded to a step
 * q carries an error of standard deviation q/√12 (uniform over the step).
 */
final readonly class Length
{
    private function __construct(public float $mm, public float $stepMm)
    {
    }

    public static function ofMillimetres(float $mm, float $stepMm = 0.0): self
    {
        return new self($mm, $stepMm);
    }

    /**
     * A computed length in a message: millimetres, with a narrow no-break space before the unit, by which whoever shows it knows it and may
     * write it in another unit. Below 10 mm to a tenth.
     */
    public static function told(float $mm, ?int $decimals = null): string
    {
        return number_format($mm, $decimals ?? (abs($mm) < 10.0 ? 1 : 0), '.', '')."\u{202F}mm";
    }

    /** @return float standard deviation of the rounding, mm */
    public function roundingSigmaMm(): float
    {
        return $this->stepMm / sqrt(12.0);
    }
}
