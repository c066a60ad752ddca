<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

use Plinth\Core\Units\Exception\UnreadableLength;

/**
 * Reads a length as people type it.
 *
 * Metric `3m`, `3,25 m`, `3250`, `3 250 mm`; imperial `11'7`, `11'-7 1/2"`, `11ft 7in`, `0.5'`; sums and products
 * `9'6 + 11' + 7'6`, `3 x 2400`; counts of a module `31c - 1j`, `7u` where one is known. A bare number takes the unit given. Any value is read: whether zero or a negative
 * length is allowed is for the caller to say.
 *
 * Rounding step of the result: the smallest part of the text's last figure. In a sum every part was written in the
 * same manner, so the smallest step among the parts counts for each, and n independent roundings give √n steps. A
 * product repeats one rounding, so its step is multiplied.
 *
 * Grammar: sum = [sign] product { sign product }; product = [ number ("x" | "×" | "*") ] quantity;
 * quantity = feet [ ["-"] inches ] | number [ unit ].
 */
final class LengthParser
{
    private const FRACTIONS = [
        '½' => [1, 2], '¼' => [1, 4], '¾' => [3, 4], '⅓' => [1, 3], '⅔' => [2, 3],
        '⅛' => [1, 8], '⅜' => [3, 8], '⅝' => [5, 8], '⅞' => [7, 8],
    ];
    private const PRIMES = ['′' => "'", '’' => "'", '‘' => "'", '´' => "'", '″' => '"', '”' => '"', '“' => '"', '−' => '-', '–' => '-', '×' => 'x', '*' => 'x'];
    private const LONGEST_MM = 1e9;

    /** @var list<string> one character each; look-alikes replaced one for one, so that positions stay those of the text */
    private array $characters;
    private int $at = 0;

    private function __construct(string $text, private readonly LengthUnit $bareUnit, private readonly ?Module $module)
    {
        $this->characters = array_map(
            static fn (string $c): string => self::PRIMES[$c] ?? (1 === preg_match('/^\s|[\x{00A0}\x{2009}\x{202F}]$/u', $c) ? ' ' : mb_strtolower($c)),
            mb_str_split(mb_scrub($text)),
        );
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
        $total = 0.0;
        $parts = [];
        do {
            $part = $this->product();
            $total += '-' === $sign ? -$part->mm : $part->mm;
            $parts[] = $part;
            $this->skipSpaces();
            $sign = $this->takeAny('+-');
        } while ('' !== $sign);
        if (!$this->atEnd()) {
            throw UnreadableLength::unexpectedAt($this->at, $this->peek());
        }
        if (abs($total) > self::LONGEST_MM) {
            throw UnreadableLength::tooLarge();
        }
        $step = 1 === \count($parts)
            ? $parts[0]->stepMm
            : min(array_map(static fn (Length $p): float => $p->stepMm, $parts)) * sqrt(\count($parts));

        return Length::ofMillimetres($total, $step);
    }

    private function product(): Length
    {
        $start = $this->at;
        $factor = $this->tryNumber();
        $this->skipSpaces();
        if (null !== $factor && '' !== $this->takeAny('x')) {
            $quantity = $this->quantity();

            return Length::ofMillimetres($factor[0] * $quantity->mm, $factor[0] * $quantity->stepMm);
        }
        $this->at = $start;

        return $this->quantity();
    }

    private function quantity(): Length
    {
        $this->skipSpaces();
        $start = $this->at;
        $number = $this->tryNumber();
        if (null === $number) {
            throw UnreadableLength::expectedNumberAt($this->at, $this->peek());
        }
        $unitAt = $this->at;
        $modules = $this->tryModule($number[0]);
        if (null !== $modules) {
            return $modules;
        }
        $unit = $this->tryUnit();
        if (null === $unit) {
            $this->at = $unitAt;
        }
        [$value, $step] = $this->settleComma($number, $unit ?? $this->bareUnit, $start);
        $size = ($unit ?? $this->bareUnit)->millimetres();
        $mm = $value * $size;
        $stepMm = $step * $size;
        if (LengthUnit::Foot === $unit && null !== ($inches = $this->tryInches())) {
            $mm += $inches[0] * LengthUnit::Inch->millimetres();
            $stepMm = $inches[1] * LengthUnit::Inch->millimetres();
        }

        return Length::ofMillimetres($mm, $stepMm);
    }

    /**
     * Inches after feet: `7`, `7"`, `7 1/2in`, joined by nothing, a space or a dash. A number that carries a unit of its
     * own other than inches belongs to the next term of the sum.
     *
     * @return array{float, float}|null value and step in inches
     */
    private function tryInches(): ?array
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
        if ($number[0] >= 12.0) {
            throw UnreadableLength::inchesBeyondAFoot($numberAt, rtrim(rtrim(\sprintf('%.4f', $number[0]), '0'), '.'));
        }

        return [$number[0], $number[1]];
    }

    /**
     * A comma before exactly three digits is a thousands mark in millimetres and undecided in every other unit.
     *
     * @param array{float, float, string} $number
     *
     * @return array{float, float}
     */
    private function settleComma(array $number, LengthUnit $unit, int $start): array
    {
        [$value, $step, $raw] = $number;
        if (1 !== preg_match('/^[1-9]\d{0,2}(,\d{3})+(\.\d+)?$/', $raw)) {
            return [$value, $step];
        }
        if (LengthUnit::Millimetre === $unit || substr_count($raw, ',') > 1) {
            $plain = str_replace(',', '', $raw);
            $decimals = self::decimals($plain);

            return [(float) $plain, 10.0 ** -$decimals];
        }
        throw UnreadableLength::ambiguousCommaAt($start + (int) strpos($raw, ','), $raw, $unit->value);
    }

    /**
     * A number with its fraction: `3`, `3.25`, `3 250`, `7 1/2`, `7½`, `1/2`.
     *
     * @return array{float, float, string}|null value, rounding step, the digits as typed without spaces
     */
    private function tryNumber(): ?array
    {
        $this->skipSpaces();
        $start = $this->at;
        $raw = $this->digits();
        if ('' !== $raw) {
            // Groups of three digits after a space belong to the number, unless the group is a numerator.
            while (1 === preg_match('/^ (\d{3})(?![\d\/])/', $this->rest(), $m) && 1 === preg_match('/^\d{1,3}(\d{3})*$/', $raw)) {
                $raw .= $m[1];
                $this->at += 4;
            }
            while (1 === preg_match('/^,(\d{3})(?!\d)/', $this->rest(), $m)) {
                $raw .= ','.$m[1];
                $this->at += 4;
            }
        }
        $hasComma = str_contains($raw, ',');
        if (1 === preg_match($hasComma ? '/^\.(\d+)/' : '/^[.,](\d+)/', $this->rest(), $m)) {
            $raw .= ($hasComma ? '.' : mb_substr($this->rest(), 0, 1)).$m[1];
            $this->at += 1 + \strlen($m[1]);
        } elseif ('' !== $raw && '.' === $this->peek()) {
            ++$this->at;
        }
        if (1 === preg_match('/^\d+$/', $raw) && '/' === $this->peek()) {
            return $this->fraction(0.0, $raw);
        }
        if ('' !== $raw && 1 === preg_match('/^\d+$/', $raw) && 1 === preg_match('/^( +|-)?(\d+)\//', $this->rest(), $m)) {
            $this->at += \strlen($m[0]) - 1;

            return $this->fraction((float) $raw, $m[2]);
        }
        $mark = $this->at;
        $this->skipSpaces();
        if (isset(self::FRACTIONS[$this->peek()])) {
            [$n, $d] = self::FRACTIONS[$this->peek()];
            ++$this->at;

            return [(float) $raw + $n / $d, 1.0 / $d, ''];
        }
        $this->at = $mark;
        if ('' === $raw) {
            $this->at = $start;

            return null;
        }
        $plain = str_replace(',', '.', $raw);
        $decimals = self::decimals($plain);

        return [(float) $plain, 10.0 ** -$decimals, $raw];
    }

    /** @return array{float, float, string} */
    private function fraction(float $whole, string $numerator): array
    {
        ++$this->at; // the slash
        $denominatorAt = $this->at;
        $denominator = $this->digits();
        if ('' === $denominator) {
            throw UnreadableLength::expectedNumberAt($this->at, $this->peek());
        }
        if (0.0 === (float) $denominator) {
            throw UnreadableLength::zeroDenominatorAt($denominatorAt);
        }

        return [$whole + (float) $numerator / (float) $denominator, 1.0 / (float) $denominator, ''];
    }

    /** `31c` courses, `7u` units along, `1j` a joint: counted, so nothing was rounded. */
    private function tryModule(float $count): ?Length
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

        return Length::ofMillimetres($count * $each, 0.0);
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

    private static function decimals(string $number): int
    {
        $point = strpos($number, '.');

        return false === $point ? 0 : \strlen($number) - $point - 1;
    }
}
