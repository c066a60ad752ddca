<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Walls;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;

/** Two rooms drawn from exact truth, walls solid, as two lines or hatched, nine samples to a pixel. */
final class DrawnWalls
{
    public const MM = 10.0;
    private const FINE = 3;

    /** Centre lines and thickness: an outer ring 6.2 × 4.2 m and a partition with a gap of 900 from 2000 to 2900. */
    public const WALLS = [
        [0, 0, 6200, 0, 240], [6200, 0, 6200, 4200, 240], [6200, 4200, 0, 4200, 240], [0, 4200, 0, 0, 240],
        [2600, 0, 2600, 4200, 100],
    ];
    public const GAP = [4, 2000.0, 900.0];

    public static function map(): PixelToMm
    {
        return PixelToMm::similar(self::MM, 0.0, new PixelPoint(60.0, 480.0), new Point(0.0, 0.0));
    }

    public static function raster(string $style, bool $lightOnDark = false): GreyRaster
    {
        [$w, $h] = [740, 540];
        $bytes = '';
        for ($y = 0; $y < $h; ++$y) {
            for ($x = 0; $x < $w; ++$x) {
                $ink = 0;
                for ($i = 0; $i < self::FINE ** 2; ++$i) {
                    $p = self::map()->toMm(
                        new PixelPoint($x + ($i % self::FINE + 0.5) / self::FINE, $y + (intdiv($i, self::FINE) + 0.5) / self::FINE),
                    );
                    $ink += self::isInk($p->x, $p->y, $style) ? 1 : 0;
                }
                $grain = ($x * 7919 + $y * 104729) % 7 - 3;
                $grey = (int) round(238 - 190 * $ink / self::FINE ** 2) + $grain;
                $bytes .= \chr($lightOnDark ? 255 - $grey : $grey);
            }
        }

        return new GreyRaster($w, $h, $bytes);
    }

    /**
     * The same on a sheet with a frame, photographed on a dark table: 60 px of table, 40 of margin, two lines as far apart as
     * a thin wall's.
     */
    public static function onATable(string $style): GreyRaster
    {
        $drawn = self::raster($style);
        [$w, $h] = [$drawn->width + 240, $drawn->height + 240];
        $bytes = '';
        for ($y = 0; $y < $h; ++$y) {
            for ($x = 0; $x < $w; ++$x) {
                $in = min($x, $y, $w - 1 - $x, $h - 1 - $y);
                $isDrawn = $x >= 120 && $y >= 120 && $x < $w - 120 && $y < $h - 120;
                $bytes .= match (true) {
                    $in < 60 => \chr(95 + ($x * 31 + $y * 17) % 9),
                    ($in >= 100 && $in < 103) || ($in >= 110 && $in < 113) => \chr(50),
                    default => $isDrawn ? $drawn->bytes[($y - 120) * $drawn->width + $x - 120] : \chr(235 + ($x * 7 + $y * 13) % 7),
                };
            }
        }

        return new GreyRaster($w, $h, $bytes);
    }

    /**
     * Walls in any direction, solid, with square ends drawn on by half their thickness.
     *
     * @param list<array{float, float, float, float, float}> $walls ends and thickness, mm
     */
    public static function solid(array $walls, int $width, int $height, PixelToMm $map): GreyRaster
    {
        return self::inked(self::covered($walls, 0.0, $width, $height, $map), $width, $height);
    }

    /**
     * The same by their faces alone, two pixels wide, which are left out where walls meet.
     *
     * @param list<array{float, float, float, float, float}> $walls ends and thickness, mm
     */
    public static function lined(array $walls, int $width, int $height, PixelToMm $map): GreyRaster
    {
        $outside = self::covered($walls, 1.0, $width, $height, $map);
        $inside = self::covered($walls, -1.0, $width, $height, $map);
        $ink = array_map(static fn (float $out, float $in): float => $out - $in, $outside, $inside);

        return self::inked($ink, $width, $height);
    }

    /**
     * @param list<array{float, float, float, float, float}> $walls
     * @param float $more px that they reach further on every side
     *
     * @return array<int, float> part of each pixel that they cover
     */
    private static function covered(array $walls, float $more, int $width, int $height, PixelToMm $map): array
    {
        $mm = $map->mmPerPixelAt(new PixelPoint(0.0, 0.0));
        $ink = array_fill(0, $width * $height, 0.0);
        foreach ($walls as [$x1, $y1, $x2, $y2, $t]) {
            $length = hypot($x2 - $x1, $y2 - $y1);
            [$ux, $uy] = [($x2 - $x1) / $length, ($y2 - $y1) / $length];
            [$a, $b] = [$map->toPixel(new Point($x1, $y1)), $map->toPixel(new Point($x2, $y2))];
            [$left, $right] = [(int) (min($a->x, $b->x) - $t / $mm), (int) (max($a->x, $b->x) + $t / $mm)];
            for ($v = (int) (min($a->y, $b->y) - $t / $mm); $v < max($a->y, $b->y) + $t / $mm; ++$v) {
                for ($u = $left; $u < $right; ++$u) {
                    $p = $map->toMm(new PixelPoint($u + 0.5, $v + 0.5));
                    [$along, $off] = [($p->x - $x1) * $ux + ($p->y - $y1) * $uy, ($p->y - $y1) * $ux - ($p->x - $x1) * $uy];
                    $inside = min($t / 2.0 - abs($off), $along + $t / 2.0, $length + $t / 2.0 - $along);
                    $ink[$v * $width + $u] = max($ink[$v * $width + $u], min(1.0, max(0.0, $inside / $mm + $more + 0.5)));
                }
            }
        }

        return $ink;
    }

    /** @param array<int, float> $ink part of each pixel */
    private static function inked(array $ink, int $width, int $height): GreyRaster
    {
        return new GreyRaster($width, $height, implode('', array_map(static fn (float $part): string => \chr((int) round(238 - 190 * $part)), $ink)));
    }

    private static function isInk(float $x, float $y, string $style): bool
    {
        $body = self::isIn($x, $y, 0.0);
        if ('solid' === $style || !$body) {
            return 'solid' === $style ? $body : self::isIn($x, $y, 12.0);
        }
        // Strokes at 45°, 120 mm apart.
        $isStroke = 'hatched' === $style && fmod($x + $y + 10_000.0, 120.0 * \M_SQRT2) < 16.0 * \M_SQRT2;

        return $isStroke || !self::isIn($x, $y, -12.0);
    }

    private static function isIn(float $x, float $y, float $more): bool
    {
        foreach (self::WALLS as $k => [$x1, $y1, $x2, $y2, $t]) {
            $half = $t / 2.0 + $more;
            $isIn = $x >= min($x1, $x2) - $half
                && $x <= max($x1, $x2) + $half
                && $y >= min($y1, $y2) - $half
                && $y <= max($y1, $y2) + $half;
            $isGap = self::GAP[0] === $k && $y > self::GAP[1] - $more && $y < self::GAP[1] + self::GAP[2] + $more;
            if ($isIn && !$isGap) {
                return true;
            }
        }

        return false;
    }
}
