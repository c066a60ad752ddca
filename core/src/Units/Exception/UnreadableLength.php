<?php

declare(strict_types=1);

namespace Plinth\Core\Units\Exception;

/** A text that is no length; `position` counts characters from 0 and points at the first one that could not be read. */
final class UnreadableLength extends \DomainException implements UnitsException
{
    private function __construct(string $message, private readonly int $position)
    {
        parent::__construct($message);
    }

    public static function noSpacing(string $part): self
    {
        return new self(\sprintf('“%s” is no spacing: write 5 x 6000, or 3600 + 2 x 7200; at most 200 axes.', $part), 0);
    }

    public static function noLabel(string $first): self
    {
        return new self(\sprintf('“%s” is no label to count on from: write 1, A or A1; I and O are left out.', $first), 0);
    }

    public static function noPair(string $text): self
    {
        return new self(\sprintf('“%s” is not two lengths: write 3.6 m x 4.2 m, or 0 0 for a point.', mb_strimwidth($text, 0, 60, '…')), 0);
    }

    public static function pairReadTwoWays(string $text): self
    {
        return new self(\sprintf(
            '“%s” can be read as two lengths in more than one way: put a semicolon between them.',
            mb_strimwidth($text, 0, 60, '…'),
        ), 0);
    }

    public static function becauseEmpty(): self
    {
        return new self('Nothing is typed: a length looks like 3.25 m, 3250 or 11\'7 1/2".', 0);
    }

    public static function expectedNumberAt(int $position, string $found): self
    {
        $what = '' === $found ? 'the text ends' : \sprintf('there is “%s”', $found);

        return new self(\sprintf('A number is expected at character %d, but %s.', $position + 1, $what), $position);
    }

    public static function unexpectedAt(int $position, string $found): self
    {
        return new self(
            \sprintf(
                '“%s” at character %d cannot be read as part of a length. Units are mm, cm, m, ft (\') and in (").',
                $found,
                $position + 1,
            ),
            $position,
        );
    }

    public static function zeroDenominatorAt(int $position): self
    {
        return new self(\sprintf('The fraction at character %d divides by zero.', $position + 1), $position);
    }

    public static function ambiguousCommaAt(int $position, string $number, string $unit): self
    {
        return new self(\sprintf(
            'The comma at character %d can be read two ways: %s %s or %s %s. Type a point, or leave the comma out.',
            $position + 1,
            str_replace(',', '.', $number),
            $unit,
            str_replace(',', '', $number),
            $unit,
        ), $position);
    }

    public static function ambiguousPointAt(int $position, string $number): self
    {
        return new self(\sprintf(
            'The point at character %d can be read two ways: %s mm or %s mm. Write the unit: %s mm, or %s m.',
            $position + 1, rtrim(rtrim($number, '0'), '.'), ltrim(str_replace('.', '', $number), '0'), $number, $number,
        ), $position);
    }

    public static function dashedFractionAt(int $position): self
    {
        return new self(\sprintf(
            'The dash at character %d can be read two ways: it joins the fraction to the number, or takes it away. '
            .'Put a space in its place, or spaces round it.',
            $position + 1,
        ), $position);
    }

    public static function twoLengthsAt(int $position): self
    {
        return new self(
            \sprintf(
                'Two lengths multiplied are an area: leave out the unit of the one that counts, at character %d or before.',
                $position + 1,
            ),
            $position,
        );
    }

    public static function tooLong(int $characters): self
    {
        return new self(\sprintf('This is longer than %d characters: no length is.', $characters), $characters);
    }

    public static function inchesBeyondAFoot(int $position, string $inches): self
    {
        return new self(
            \sprintf('%s inches at character %d is a foot or more: write it as feet and inches below 12.', $inches, $position + 1),
            $position,
        );
    }

    public static function moduleWithoutGauge(int $position, string $module): self
    {
        return new self(
            \sprintf(
                '“%s” at character %d counts courses, units or joints: say how large one is in Calibrate, under “a count”.',
                $module,
                $position + 1,
            ),
            $position,
        );
    }

    public static function tooLarge(): self
    {
        return new self('This is longer than 1000 km: no building is.', 0);
    }

    public function why(): string
    {
        return 'unreadable-length';
    }

    public function at(): string
    {
        return (string) $this->position;
    }
}
