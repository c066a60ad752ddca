<?php

declare(strict_types=1);

namespace Plinth\Core\Units\Internal;

use Brick\Math\BigDecimal;
use Brick\Math\BigRational;

/** A number as it was typed, exactly; its step is the smallest part that was written. */
final readonly class TypedNumber
{
    /**
     * @param string $digits as typed, without spaces; empty where there is a fraction
     * @param int|null $dashAt where a dash joins a whole number and a fraction, as in `7-1/2`
     */
    private function __construct(public BigRational $value, public BigRational $step, public string $digits, public ?int $dashAt)
    {
    }

    /** @param string $digits `3250`, `3.25`, `3,25`, `1,250.5`, `1,250,000` */
    public static function ofDigits(string $digits): self
    {
        $marksThousands = substr_count($digits, ',') > 1 || str_contains($digits, '.');
        $decimal = BigDecimal::of(str_replace(',', $marksThousands ? '' : '.', $digits));

        return new self($decimal->toBigRational(), BigDecimal::ofUnscaledValue(1, $decimal->getScale())->toBigRational(), $digits, null);
    }

    public static function ofFraction(string $whole, string $numerator, string $denominator, ?int $dashAt = null): self
    {
        return new self(
            BigRational::of("$numerator/$denominator")->plus('' === $whole ? 0 : $whole),
            BigRational::of("1/$denominator"),
            '',
            $dashAt,
        );
    }

    public function isWhole(): bool
    {
        return '' !== $this->digits && $this->value->getDenominator()->isEqualTo(1);
    }
}
