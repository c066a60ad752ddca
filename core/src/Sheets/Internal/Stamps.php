<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PaperLetters;

/**
 * Stamps of rooms: name over area, where they fit between the walls; smaller where they do not, and then with the area alone.
 *
 * @internal
 *
 * @phpstan-import-type Ring from FreePaper
 */
final class Stamps
{
    /** Heights of name and area that are tried, mm; no name where it is 0. */
    private const SIZES = [[3.5, 2.5], [2.5, 2.5], [0.0, 2.5]];
    private const LEADING_MM = 1.6;
    /** Places are tried on a grid so wide, mm of paper. */
    private const GRID_MM = 2.0;
    private const MOST_EACH_WAY = 10;
    /** From walls and from other words, mm. */
    private const APART_MM = 0.6;

    /**
     * @param list<array{Ring, array{float, float}, string, string}> $rooms outline, a place well inside, name, area; mm of paper
     *
     * @return list<InkText>
     */
    public static function in(array $rooms, FreePaper $free): array
    {
        $texts = [];
        foreach ($rooms as [$ring, $inside, $name, $area]) {
            foreach (self::SIZES as [$nameHeight, $areaHeight]) {
                $stamp = self::fitting($ring, $inside, '' === $name ? 0.0 : $nameHeight, $areaHeight, $name, $area, $free);
                if ([] !== $stamp) {
                    foreach ($stamp as $text) {
                        $texts[] = $text;
                        $free->take($text->room());
                    }
                    break;
                }
            }
        }

        return $texts;
    }

    /**
     * @param Ring $ring
     * @param array{float, float} $inside
     *
     * @return list<InkText> none where there is no room
     */
    private static function fitting(
        array $ring,
        array $inside,
        float $nameHeight,
        float $areaHeight,
        string $name,
        string $area,
        FreePaper $free,
    ): array {
        $wide = max(
            $nameHeight > 0.0 ? PaperLetters::bold()->width($name, $nameHeight) : 0.0,
            PaperLetters::regular()->width($area, $areaHeight),
        );
        [$left, $top, $right, $bottom] = Polygon::bounds($ring);
        if ($wide > $right - $left || $nameHeight + $areaHeight > $bottom - $top) {
            return [];
        }
        // Both lines as one box, about the place that is tried.
        [$up, $down] = $nameHeight > 0.0
            ? [self::LEADING_MM / 2.0 + InkText::tall($nameHeight)[0], self::LEADING_MM / 2.0 + $areaHeight + InkText::tall($areaHeight)[1]]
            : [InkText::tall($areaHeight)[0] - $areaHeight / 2.0, $areaHeight / 2.0 + InkText::tall($areaHeight)[1]];
        foreach (self::places($ring, $inside) as [$x, $y]) {
            $room = [
                [$x - $wide / 2.0, $y - $up],
                [$x + $wide / 2.0, $y - $up],
                [$x + $wide / 2.0, $y + $down],
                [$x - $wide / 2.0, $y + $down],
            ];
            if ($free->isFree($room, self::APART_MM) && self::isInside($room, $ring)) {
                return $nameHeight > 0.0 ? [
                    new InkText($x, $y - self::LEADING_MM / 2.0, $name, $nameHeight, 'middle', bold: true),
                    new InkText($x, $y + self::LEADING_MM / 2.0 + $areaHeight, $area, $areaHeight, 'middle'),
                ] : [new InkText($x, $y + $areaHeight / 2.0, $area, $areaHeight, 'middle')];
            }
        }

        return [];
    }

    /**
     * @param Ring $ring
     * @param array{float, float} $inside
     *
     * @return iterable<array{float, float}> the given one first, then those of a grid, the nearest first
     */
    public static function places(array $ring, array $inside): iterable
    {
        yield $inside;
        [$x1, $y1, $x2, $y2] = Polygon::bounds($ring);
        $places = [];
        [$stepX, $stepY] = [max(self::GRID_MM, ($x2 - $x1) / self::MOST_EACH_WAY), max(self::GRID_MM, ($y2 - $y1) / self::MOST_EACH_WAY)];
        for ($x = $x1; $x <= $x2; $x += $stepX) {
            for ($y = $y1; $y <= $y2; $y += $stepY) {
                $places[] = [hypot($x - $inside[0], $y - $inside[1]), $x, $y];
            }
        }
        sort($places);
        foreach ($places as [, $x, $y]) {
            yield [$x, $y];
        }
    }

    /**
     * Whether words lie in a room, and no side of it comes across them.
     *
     * @param Ring $room an upright box
     * @param Ring $ring
     */
    public static function isInside(array $room, array $ring): bool
    {
        foreach ($room as $corner) {
            if (!Polygon::contains($ring, ...$corner)) {
                return false;
            }
        }
        [$x1, $y1, $x2, $y2] = Polygon::bounds($room);
        foreach ($ring as [$x, $y]) {
            if ($x > $x1 && $x < $x2 && $y > $y1 && $y < $y2) {
                return false;
            }
        }

        return true;
    }
}
