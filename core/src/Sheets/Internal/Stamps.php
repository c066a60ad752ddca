<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Sheets\InkText;

/**
 * Stamps of rooms: name over area, where they fit between the walls; smaller where they do not, and then with the area alone.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Taken
 */
final class Stamps
{
    /** Heights of name and area that are tried, mm; no name where it is 0. */
    private const SIZES = [[3.5, 2.5], [2.5, 2.5], [0.0, 2.5]];
    private const LEADING_MM = 1.6;
    /** Places are tried on a grid so wide, mm of paper. */
    private const GRID_MM = 2.0;
    /** From walls and from other words, mm. */
    private const APART_MM = 0.6;

    /**
     * @param list<array{Ring, array{float, float}, string, string}> $rooms outline, a place well inside, name, area; mm of paper
     * @param list<Ring> $walls that no words may cross
     * @param list<Ring> $taken by other words
     *
     * @return list<InkText>
     */
    public static function in(array $rooms, array $walls, array $taken): array
    {
        $texts = [];
        foreach ($rooms as [$ring, $inside, $name, $area]) {
            foreach (self::SIZES as [$nameHeight, $areaHeight]) {
                $stamp = self::fitting($ring, $inside, '' === $name ? 0.0 : $nameHeight, $areaHeight, $name, $area, $walls, $taken);
                if ([] !== $stamp) {
                    foreach ($stamp as $text) {
                        $texts[] = $text;
                        $taken[] = $text->room();
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
     * @param list<Ring> $walls
     * @param list<Ring> $taken
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
        array $walls,
        array $taken,
    ): array {
        foreach (self::places($ring, $inside) as [$x, $y]) {
            $stamp = $nameHeight > 0.0 ? [
                new InkText($x, $y - self::LEADING_MM / 2.0, $name, $nameHeight, 'middle', bold: true),
                new InkText($x, $y + self::LEADING_MM / 2.0 + $areaHeight, $area, $areaHeight, 'middle'),
            ] : [new InkText($x, $y + $areaHeight / 2.0, $area, $areaHeight, 'middle')];
            $fits = true;
            foreach ($stamp as $text) {
                $room = $text->room();
                $fits = $fits
                    && Taken::isFree($room, $taken, self::APART_MM)
                    && self::isInside($room, $ring)
                    && self::isBeside($room, $walls);
            }
            if ($fits) {
                return $stamp;
            }
        }

        return [];
    }

    /**
     * @param Ring $ring
     * @param array{float, float} $inside
     *
     * @return list<array{float, float}> the given one first, then those of a grid, the nearest first
     */
    private static function places(array $ring, array $inside): array
    {
        [$x1, $y1, $x2, $y2] = Polygon::bounds($ring);
        $places = [];
        for ($x = $x1; $x <= $x2; $x += self::GRID_MM) {
            for ($y = $y1; $y <= $y2; $y += self::GRID_MM) {
                $places[] = [$x, $y];
            }
        }
        usort($places, static fn (array $a, array $b): int => hypot($a[0] - $inside[0], $a[1] - $inside[1])
            <=> hypot($b[0] - $inside[0], $b[1] - $inside[1]));

        return [$inside, ...\array_slice($places, 0, 600)];
    }

    /**
     * @param Ring $room
     * @param Ring $ring
     */
    private static function isInside(array $room, array $ring): bool
    {
        foreach ($room as $corner) {
            if (!Polygon::contains($ring, ...$corner)) {
                return false;
            }
        }

        return self::isBeside($room, [$ring]);
    }

    /**
     * Whether no line of rings comes across a room, or lies in it.
     *
     * @param Ring $room an upright box
     * @param list<Ring> $rings
     */
    private static function isBeside(array $room, array $rings): bool
    {
        [$x1, $y1, $x2, $y2] = Polygon::bounds($room);
        [$x1, $y1, $x2, $y2] = [$x1 - self::APART_MM, $y1 - self::APART_MM, $x2 + self::APART_MM, $y2 + self::APART_MM];
        foreach ($rings as $ring) {
            foreach ($ring as $i => [$ax, $ay]) {
                [$bx, $by] = $ring[($i + 1) % \count($ring)];
                if (max($ax, $bx) < $x1 || min($ax, $bx) > $x2 || max($ay, $by) < $y1 || min($ay, $by) > $y2) {
                    continue;
                }
                // All corners of the box lie on one side of a line that passes it by.
                $sides = array_map(
                    static fn (array $p): float => ($bx - $ax) * ($p[1] - $ay) - ($by - $ay) * ($p[0] - $ax),
                    [[$x1, $y1], [$x2, $y1], [$x2, $y2], [$x1, $y2]],
                );
                if (min($sides) <= 0.0 && max($sides) >= 0.0) {
                    return false;
                }
            }
        }

        return true;
    }
}
