<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

use Plinth\Core\Units\Exception\UnreadableLength;

/** Spacings of a setting-out grid as they are typed: `5 x 6000`, `3600 + 2 x 7200 + 3600`. */
final readonly class Spacings
{
    private const MOST = 200;

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
     * One label for each axis, counting on from the first: 1, 2, 3 or A, B, C; I and O are left out, which look like figures (common
     * practice, no source).
     *
     * @return list<string>
     */
    public static function labels(string $first, int $count): array
    {
        $labels = [];
        if (1 === preg_match('/^(.*?)(\d+)$/', $first, $m)) {
            for ($i = 0; $i < $count; ++$i) {
                $labels[] = $m[1].((int) $m[2] + $i);
            }

            return $labels;
        }
        $letters = array_values(array_filter(range('A', 'Z'), static fn (string $l): bool => 'I' !== $l && 'O' !== $l));
        $start = (int) array_search(strtoupper('' === $first ? 'A' : $first), $letters, true);
        for ($i = $start; $i < $start + $count; ++$i) {
            $labels[] = ($i >= \count($letters) ? $letters[intdiv($i, \count($letters)) - 1] : '').$letters[$i % \count($letters)];
        }

        return $labels;
    }
}
