<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

use Plinth\Core\Units\Exception\UnreadableLength;

/** Spacings of a setting-out grid as they are typed: `5 x 6000`, `3600 + 2 x 7200 + 3600`. */
final readonly class Spacings
{
    private const MOST = 200;
    private const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ';

    /** @param list<float> $mm places of the axes, the first at 0 */
    private function __construct(public array $mm)
    {
    }

    /** @throws UnreadableLength when a part is no length, none is above zero, or there are too many */
    public static function parse(string $text, LengthUnit $bareUnit = LengthUnit::Millimetre): self
    {
        $places = [0.0];
        foreach (explode('+', str_replace(';', '+', $text)) as $part) {
            $part = trim($part);
            [$count, $length] = 1 === preg_match('/^(\d{1,3})\s*[x×*]\s*(.+)$/ui', $part, $m) ? [(int) $m[1], $m[2]] : [1, $part];
            $mm = LengthParser::parse($length, $bareUnit)->mm;
            if ($mm <= 0.0 || 0 === $count || $count + \count($places) > self::MOST) {
                throw UnreadableLength::noSpacing($part);
            }
            for ($k = 0; $k < $count; ++$k) {
                $places[] = end($places) + $mm;
            }
        }

        return new self($places);
    }

    /**
     * One label for each axis, counting on from the first: 1, 2, 3, A1, A2, or A, B, C … Z, AA, AB; I and O are left out, which look
     * like figures (common practice, no source).
     *
     * @return list<string>
     *
     * @throws UnreadableLength when the first one ends in neither a figure nor such a letter
     */
    public static function labels(string $first, int $count): array
    {
        $first = '' === $first ? 'A' : $first;
        if (1 === preg_match('/^(.*?)(\d{1,9})$/', $first, $m)) {
            return array_map(static fn (int $i): string => $m[1].((int) $m[2] + $i), range(0, $count - 1));
        }
        if (1 !== preg_match('/^(|.*[^A-Z])(['.self::LETTERS.']{1,4})$/s', strtoupper($first), $m)) {
            throw UnreadableLength::noLabel($first);
        }
        $start = array_reduce(
            str_split($m[2]),
            static fn (int $n, string $l): int => $n * \strlen(self::LETTERS) + (int) strpos(self::LETTERS, $l) + 1,
            0,
        );

        return array_map(static fn (int $i): string => $m[1].self::letters($start + $i), range(0, $count - 1));
    }

    /** @param int $n from 1: a number without a zero, whose figures are letters */
    private static function letters(int $n): string
    {
        $base = \strlen(self::LETTERS);
        $letters = '';
        while ($n > 0) {
            $letters = self::LETTERS[($n - 1) % $base].$letters;
            $n = intdiv($n - 1, $base);
        }

        return $letters;
    }
}
