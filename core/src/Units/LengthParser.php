<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

use Brick\Math\BigDecimal;
use Brick\Math\BigRational;
use Plinth\Core\Units\Exception\UnreadableLength;
use Plinth\Core\Units\Internal\Quantity;
use Plinth\Core\Units\Internal\TypedNumber;

/**
 * Reads a length as people type it.
 *
 * Metric `3m`, `3,25 m`, `3250`, `3 250 mm`; imperial `11'7`, `11'-7 1/2"`, `11ft 7in`, `0.5'`; sums and products
 * `9'6 + 11' + 7'6`, `3 x 2400`, `2.4 m x 3`; counts of a module `31c - 1j`, `7u` where one is known. A bare number takes the unit
 * given. Any value is read: whether zero or a negative length is allowed is for the caller to say. What can be read two ways is
 * refused with both.
 *
 * All of it is rational arithmetic; only the result is rounded, once, to the nearest float.
 *
 * Rounding step of the result: the smallest part of the text's last figure. In a sum every part was written in the
 * same manner, so the smallest step among the parts counts for each, and n independent roundings give √n steps. A
 * product repeats one rounding, so its step is multiplied.
 *
 * Grammar: sum = [sign] product { sign product }; product = quantity [ ("x" | "×" | "*") quantity ], of which one is a count;
 * quantity = feet [ ["-"] inches ] | number [ unit ].
 */
final class LengthParser
{
    private const FRACTIONS = [
        '½' => '1/2', '¼' => '1/4', '¾' => '3/4', '⅓' => '1/3', '⅔' => '2/3', '⅛' => '1/8', '⅜' => '3/8', '⅝' => '5/8', '⅞' => '7/8',
    ];
    private const ALIKE = [
        '′' => "'", '’' => "'", '‘' => "'", '´' => "'", '″' => '"', '”' => '"', '“' => '"',
        '−' => '-', '–' => '-', '×' => 'x', '*' => 'x',
    ];
    private const LONGEST_MM = 1_000_000_000;
    private const MOST_CHARACTERS = 200;

    /** @var list<string> one character each; look-alikes replaced one for one, so that positions stay those of the text */
    private array $characters;
    private int $at = 0;

    private function __construct(string $text, private readonly LengthUnit $bareUnit, private readonly ?Module $module)
    {
        $this->characters = array_map(
            static fn (string $c): string => self::ALIKE[$c] ?? (1 === preg_match(
                '/^\s|[\x{00A0}\x{2009}\x{202F}]$/u',
                $c,
            ) ? ' ' : mb_strtolower($c)),
            mb_str_split(mb_scrub($text)),
        );
        if (\count($this->characters) > self::MOST_CHARACTERS) {
            throw UnreadableLength::tooLong(self::MOST_CHARACTERS);
        }
    }

    /**
     * @throws UnreadableLength with the position, when the text is no length
     */
    public static function parse(string $text, LengthUnit $bareUnit = LengthUnit::Millimetre, ?Module $module = null): Length
    {
        return (new self($text, $bareUnit, $module))->sum();
    }

    private function sum(): Length
    {
        $this->skipSpaces();
        if ($this->atEnd()) {
            throw UnreadableLength::becauseEmpty();
        }
        $sign = $this->takeAny('+-');
        $total = BigRational::zero();
        $steps = [];
        do {
            $part = $this->product();
            $total = '-' === $sign ? $total->minus($part->mm) : $total->plus($part->mm);
            $steps[] = $part->stepMm;
            $this->skipSpaces();
            $sign = $this->takeAny('+-');
        } while ('' !== $sign);
        if (!$this->atEnd()) {
            throw UnreadableLength::unexpectedAt($this->at, $this->peek());
        }

        return Length::ofMillimetres(self::bounded($total)->toFloat(), BigRational::min(...$steps)->toFloat() * sqrt(\count($steps)));
    }

    private function product(): Quantity
    {
        $first = $this->quantity();
        $this->skipSpaces();
        if ('' === $this->takeAny('x')) {
            return $this->settled($first);
        }
        $second = $this->quantity();
        [$count, $length] = self::isCount($first, $second) ? [$first, $second] : [$second, $first];
        if (null === $count->bare) {
            throw UnreadableLength::twoLengthsAt($second->at);
        }
        $product = $this->settled($length)->times($count->bare->value);
        self::bounded($product->mm);

        return $product;
    }

    /** Whether the first of two factors is the count: the one without a unit, the whole one, or else the smaller one. */
    private static function isCount(Quantity $first, Quantity $second): bool
    {
        [$a, $b] = [$first->bare, $second->bare];
        if (null === $a || null === $b) {
            return null !== $a;
        }

        return $a->isWhole() === $b->isWhole() ? $a->value->isLessThanOrEqualTo($b->value) : $a->isWhole();
    }

    private function quantity(): Quantity
    {
        $this->skipSpaces();
        $start = $this->at;
        $number = $this->tryNumber();
        if (null === $number) {
            throw UnreadableLength::expectedNumberAt($this->at, $this->peek());
        }
        $unitAt = $this->at;
        $each = $this->tryModule();
        if (null !== $each) {
            // Counted, so nothing was rounded.
            return Quantity::of(self::bounded($number->value->multipliedBy($each)), BigRational::zero(), $start);
        }
        $unit = $this->tryUnit();
        if (null === $unit) {
            $this->at = $unitAt;

            return Quantity::bare($number, $start);
        }
        $length = $this->sized($number, $unit, $start, true);
        $inches = LengthUnit::Foot === $unit ? $this->tryInches() : null;

        return null === $inches ? $length : Quantity::of($length->mm->plus($inches->mm), $inches->stepMm, $start);
    }

    /** A bare number takes the unit given. */
    private function settled(Quantity $quantity): Quantity
    {
        return null === $quantity->bare ? $quantity : $this->sized($quantity->bare, $this->bareUnit, $quantity->at, false);
    }

    private function sized(TypedNumber $number, LengthUnit $unit, int $start, bool $isWritten): Quantity
    {
        $number = $this->settleMarks($number, $unit, $start, $isWritten);
        // `36-1/2"` is the trade's way of writing inches; elsewhere the dash may as well take away.
        if (null !== $number->dashAt && !(LengthUnit::Inch === $unit && $this->bareUnit->isImperial())) {
            throw UnreadableLength::dashedFractionAt($number->dashAt);
        }

        return Quantity::of(
            self::bounded($number->value->multipliedBy($unit->exactly())),
            $number->step->multipliedBy($unit->exactly()),
            $start,
        );
    }

    private static function bounded(BigRational $mm): BigRational
    {
        return $mm->abs()->isLessThanOrEqualTo(self::LONGEST_MM) ? $mm : throw UnreadableLength::tooLarge();
    }

    /**
     * Inches after feet: `7`, `7"`, `7 1/2in`, joined by nothing, a space or a dash. A number that carries a unit of its
     * own other than inches belongs to the next term of the sum.
     */
    private function tryInches(): ?Quantity
    {
        $start = $this->at;
        $this->skipSpaces();
        $this->takeAny('-');
        $this->skipSpaces();
        $numberAt = $this->at;
        $number = $this->tryNumber();
        if (null === $number) {
            $this->at = $start;

            return null;
        }
        $afterNumber = $this->at;
        $unit = $this->tryUnit();
        if (null !== $unit && LengthUnit::Inch !== $unit) {
            $this->at = $start;

            return null;
        }
        if (null === $unit) {
            $this->at = $afterNumber;
        }
        if ($number->value->isGreaterThanOrEqualTo(12)) {
            throw UnreadableLength::inchesBeyondAFoot($numberAt, rtrim(rtrim(\sprintf('%.4f', $number->value->toFloat()), '0'), '.'));
        }
        $inch = LengthUnit::Inch->exactly();

        return Quantity::of($number->value->multipliedBy($inch), $number->step->multipliedBy($inch), $numberAt);
    }

    /**
     * A comma before exactly three digits is a thousands mark in millimetres and undecided in every other unit; a point before
     * exactly three digits is undecided in millimetres that nobody wrote.
     */
    private function settleMarks(TypedNumber $number, LengthUnit $unit, int $start, bool $isWritten): TypedNumber
    {
        $digits = $number->digits;
        if (
            LengthUnit::Millimetre === $unit
            && !$isWritten
            && 1 === preg_match('/^\d{1,3}\.\d{3}$/', $digits)
            && !$number->value->isZero()
        ) {
            throw UnreadableLength::ambiguousPointAt($start + (int) strpos($digits, '.'), $digits);
        }
        if (1 !== preg_match('/^[1-9]\d{0,2}(,\d{3})+(\.\d+)?$/', $digits)) {
            return $number;
        }
        if (LengthUnit::Millimetre === $unit || substr_count($digits, ',') > 1) {
            return TypedNumber::ofDigits(str_replace(',', '', $digits));
        }
        throw UnreadableLength::ambiguousCommaAt($start + (int) strpos($digits, ','), $digits, $unit->value);
    }

    /** A number with its fraction: `3`, `3.25`, `3 250`, `7 1/2`, `7½`, `1/2`. */
    private function tryNumber(): ?TypedNumber
    {
        $this->skipSpaces();
        $start = $this->at;
        $digits = $this->groups();
        $isPlain = 1 === preg_match('/^\d+$/', $digits);
        if ($isPlain && '/' === $this->peek()) {
            return $this->fraction('', $digits, null);
        }
        if ($isPlain && 1 === preg_match('/^( +|-)?(\d+)\//', $this->rest(), $m)) {
            $dashAt = str_starts_with($m[0], '-') ? $this->at : null;
            $this->at += \strlen($m[0]) - 1;

            return $this->fraction($digits, $m[2], $dashAt);
        }
        $mark = $this->at;
        $this->skipSpaces();
        if (isset(self::FRACTIONS[$this->peek()]) && ($isPlain || '' === $digits)) {
            [$n, $d] = explode('/', self::FRACTIONS[$this->peek()]);
            ++$this->at;

            return TypedNumber::ofFraction($digits, $n, $d);
        }
        $this->at = $mark;
        if ('' === $digits) {
            $this->at = $start;

            return null;
        }

        return TypedNumber::ofDigits($digits);
    }

    /** Digits with their marks, without the spaces that group them. */
    private function groups(): string
    {
        $digits = $this->digits();
        if ('' !== $digits) {
            // Groups of three digits after a space belong to the number, unless the group is a numerator.
            while (1 === preg_match('/^ (\d{3})(?![\d\/])/', $this->rest(), $m) && 1 === preg_match('/^\d{1,3}(\d{3})*$/', $digits)) {
                $digits .= $m[1];
                $this->at += 4;
            }
            while (1 === preg_match('/^,(\d{3})(?!\d)/', $this->rest(), $m)) {
                $digits .= ','.$m[1];
                $this->at += 4;
            }
        }
        if (1 === preg_match(str_contains($digits, ',') ? '/^(\.)(\d+)/' : '/^([.,])(\d+)/', $this->rest(), $m)) {
            $digits .= $m[1].$m[2];
            $this->at += 1 + \strlen($m[2]);
        } elseif ('' !== $digits && '.' === $this->peek()) {
            ++$this->at;
        }

        return $digits;
    }

    private function fraction(string $whole, string $numerator, ?int $dashAt): TypedNumber
    {
        ++$this->at; // the slash
        $denominatorAt = $this->at;
        $denominator = $this->digits();
        if ('' === $denominator) {
            throw UnreadableLength::expectedNumberAt($this->at, $this->peek());
        }
        if ('' === trim($denominator, '0')) {
            throw UnreadableLength::zeroDenominatorAt($denominatorAt);
        }

        return TypedNumber::ofFraction($whole, $numerator, $denominator, $dashAt);
    }

    /** What `31c` courses, `7u` units along, `1j` a joint count, mm. */
    private function tryModule(): ?BigRational
    {
        if (null === $this->module || 1 !== preg_match('/^ ?([cuj])(?![a-z])/', $this->rest(), $m)) {
            return null;
        }
        $each = match ($m[1]) {
            'c' => $this->module->courseMm,
            'u' => $this->module->unitMm,
            default => $this->module->jointMm,
        };
        if (null === $each) {
            throw UnreadableLength::moduleWithoutGauge($this->at, $m[1]);
        }
        $this->at += \strlen($m[0]);

        return BigDecimal::of(json_encode($each, \JSON_THROW_ON_ERROR))->toBigRational();
    }

    private function tryUnit(): ?LengthUnit
    {
        $this->skipSpaces();
        if (1 !== preg_match('/^(\'\'|"|\'|[a-z]+\.?)/', $this->rest(), $m)) {
            return null;
        }
        $unit = match (rtrim($m[1], '.')) {
            'mm' => LengthUnit::Millimetre,
            'cm' => LengthUnit::Centimetre,
            'm' => LengthUnit::Metre,
            'ft', 'foot', 'feet', "'" => LengthUnit::Foot,
            'in', 'inch', 'inches', '"', "''" => LengthUnit::Inch,
            'x' => null,
            'c', 'u', 'j' => throw UnreadableLength::moduleWithoutGauge($this->at, $m[1]),
            default => throw UnreadableLength::unexpectedAt($this->at, $m[1]),
        };
        if (null !== $unit) {
            $this->at += \strlen($m[1]);
        }

        return $unit;
    }

    private function digits(): string
    {
        preg_match('/^\d*/', $this->rest(), $m);
        $this->at += \strlen($m[0] ?? '');

        return $m[0] ?? '';
    }

    private function takeAny(string $set): string
    {
        $c = $this->peek();
        if ('' === $c || !str_contains($set, $c)) {
            return '';
        }
        ++$this->at;

        return $c;
    }

    private function skipSpaces(): void
    {
        while (' ' === $this->peek()) {
            ++$this->at;
        }
    }

    private function peek(): string
    {
        return $this->characters[$this->at] ?? '';
    }

    private function rest(): string
    {
        return implode('', \array_slice($this->characters, $this->at));
    }

    private function atEnd(): bool
    {
        return $this->at >= \count($this->characters);
    }
}
