<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;

/**
 * Words that a page says itself, as where a program has written it, in place of those that a recogniser would read.
 *
 * A word is its text with the left, top, right and bottom of its box, px of the page.
 *
 * @phpstan-type Word array{string, float, float, float, float}
 */
final class DrawnWords
{
    /** There is nothing to be misread in them. */
    private const CONFIDENCE = 0.99;
    /** A word of several letters is written upward where its box is so many times higher than wide. */
    private const UPRIGHT = 1.5;

    /**
     * @param list<Word> $words
     *
     * @return array{list<ReadWord>, list<ReadWord>} on the level picture, and on the one that is turned by a quarter
     */
    public static function on(TextPicture $picture, PixelToMm $map, array $words): array
    {
        [$level, $turned] = [[], []];
        foreach ($words as [$text, $left, $top, $right, $bottom]) {
            $corners = array_map(
                static fn (array $c): PixelPoint => new PixelPoint(...$c),
                [[$left, $top], [$right, $top], [$right, $bottom], [$left, $bottom]],
            );
            $places = array_map($map->toMm(...), $corners);
            $word = self::word($text, array_map($picture->onLevel(...), $places));
            if (mb_strlen($text) > 1 && $word->height > self::UPRIGHT * $word->width) {
                $turned[] = self::word($text, array_map($picture->onTurned(...), $places));
            } else {
                $level[] = $word;
            }
        }

        return [$level, $turned];
    }

    /** @param non-empty-list<array{float, float}> $corners */
    private static function word(string $text, array $corners): ReadWord
    {
        [$xs, $ys] = [array_column($corners, 0), array_column($corners, 1)];

        return new ReadWord($text, self::CONFIDENCE, min($xs), min($ys), max($xs) - min($xs), max($ys) - min($ys));
    }
}
