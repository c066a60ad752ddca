<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Geometry\Point;

/**
 * Room names among recognised words, with the areas written under them.
 */
final class RoomNames
{
    /** confidence, 0 to 1, that a name written along the page's side has at least: lines read as letters are many there */
    private const TURNED = 0.6;
    /** and any other; by trial on simulated sheets, as for the next two */
    private const SURE = 0.35;
    /** letters of a short name, and what it is read with at least */
    private const LONG = 4;
    private const SHORT_SURE = 0.7;
    /** the one usual name of two letters; and what is a unit, no name */
    private const SHORT = '/^W(\.?)C(?: \d+)?$/D';
    private const SQUARE_FEET = '/^(\d{1,3}(?:,\d{3})*(?:\.\d{1,2})?)\s*(?:sq\.?\s*(?:ft|feet)\.?|s\.?f\.?|ft\s*(?:²|2))$/ui';
    /** m², by the international foot of NIST SP 811 */
    private const SQUARE_FOOT = 0.3048 ** 2;
    private const UNIT = '/^SQ\.? ?(?:FT|M)?\.?$/D';

    /**
     * @param list<ReadWord> $level words of the upright picture
     * @param list<ReadWord> $turned words of the picture turned by a quarter
     *
     * @return list<ReadRoom>
     */
    public static function of(TextPicture $picture, array $level, array $turned): array
    {
        $names = [];
        $areas = [];
        foreach (ReadWord::inLines($level) as $text) {
            $box = self::box($picture->ofLevel(...), $text);
            if (null !== ($area = self::area($text->text))) {
                $areas[] = [$area, $box, $text->confidence];
            } elseif (null !== ($name = self::name($text))) {
                $names[] = [$name, $box, $text->confidence];
            }
        }
        foreach (ReadWord::inLines($turned) as $text) {
            if ($text->confidence > self::TURNED && null !== ($name = self::name($text))) {
                $names[] = [$name, self::box($picture->ofTurned(...), $text), $text->confidence];
            }
        }

        return self::rooms($names, $areas);
    }

    /**
     * @param callable(float, float): Point $at
     *
     * @return array{float, float, float, float} left, bottom, right, top, mm
     */
    private static function box(callable $at, ReadWord $text): array
    {
        $a = $at($text->left, $text->top);
        $b = $at($text->left + $text->width, $text->top + $text->height);

        return [min($a->x, $b->x), min($a->y, $b->y), max($a->x, $b->x), max($a->y, $b->y)];
    }

    /** @return float|null m² */
    private static function area(string $text): ?float
    {
        if (1 === preg_match(self::SQUARE_FEET, trim($text), $found)) {
            return (float) str_replace(',', '', $found[1]) * self::SQUARE_FOOT;
        }
        if (1 !== preg_match('/^(\d{1,4}(?:[.,]\d{1,2})?)\s*(?:m|sq\.?\s*m|M)\s*(?:²|2|\?|%|\*|\'|"|°)?$/u', trim($text), $found)) {
            return null;
        }

        return (float) str_replace(',', '.', $found[1]);
    }

    private static function name(ReadWord $text): ?string
    {
        $name = trim((string) preg_replace('/[^\p{L}\p{N}.&\/ -]+/u', '', $text->text), ' .-&/');
        $letters = (int) preg_match_all('/\p{L}/u', $name);
        // A number at its end counts as one.
        $others = mb_strlen((string) preg_replace('/[\p{L} .]+/u', '', (string) preg_replace('/ \d{1,3}$/D', '1', $name)));
        $name = mb_strtoupper($name);
        if ($letters <= 2.0 * $others || 1 === preg_match(self::UNIT, $name)) {
            return null;
        }
        if (1 === preg_match(self::SHORT, $name, $found)) {
            return $text->confidence > self::SURE ? $name.('.' === $found[1] ? '.' : '') : null;
        }
        // Of lines and hatching a recogniser makes short words, and few of them surely.
        $enough = $letters > self::LONG ? self::SURE : self::SHORT_SURE;

        return $letters > 2 && $text->confidence > $enough && !self::isOneLetter($name) ? $name : null;
    }

    private static function isOneLetter(string $name): bool
    {
        return 1 === \count(array_unique(mb_str_split((string) preg_replace('/[^\p{L}]/u', '', $name))));
    }

    /**
     * @param list<array{string, array{float, float, float, float}, float}> $names
     * @param list<array{float, array{float, float, float, float}, float}> $areas
     *
     * @return list<ReadRoom>
     */
    private static function rooms(array $names, array $areas): array
    {
        $rooms = [];
        foreach ($names as [$name, $box, $confidence]) {
            $area = null;
            $height = $box[3] - $box[1];
            $whole = $box;
            foreach ($areas as [$m2, $under, $certain]) {
                if (
                    abs(($under[0] + $under[2]) - ($box[0] + $box[2])) / 2.0 < max($box[2] - $box[0], $under[2] - $under[0])
                    && $under[3] < $box[1] + 0.5 * $height
                    && $box[1] - $under[3] < 2.5 * $height
                ) {
                    $area = $m2;
                    $whole = [min($box[0], $under[0]), $under[1], max($box[2], $under[2]), $box[3]];
                    $confidence = min(1.0, $confidence + 0.1 * $certain);
                    break;
                }
            }
            $rooms[] = new ReadRoom($name, $area, new Point(($box[0] + $box[2]) / 2.0, ($box[1] + $box[3]) / 2.0), $whole, $confidence);
        }

        return $rooms;
    }
}
