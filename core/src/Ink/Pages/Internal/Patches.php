<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages\Internal;

use Plinth\Core\Geometry\PixelAffine;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\PageInk;

/**
 * Small places with corners in them, and where they lie on another page.
 *
 * @internal
 */
final class Patches
{
    /** places looked for across the page: each part of it has its say */
    private const COLUMNS = 14;
    /** places looked for down the page */
    private const ROWS = 10;
    /** correlation, 0 to 1: a place that looks less like the old one is not it; by trial (RegistrationTest) */
    private const LEAST_LIKENESS = 0.7;

    /**
     * One place in each cell of a grid: where the grey values change most in every direction (the lesser eigenvalue of
     * the structure tensor, after Shi and Tomasi; from memory).
     *
     * @return list<PixelPoint>
     */
    public static function spots(GreyRaster $raster): array
    {
        $spots = [];
        $half = 7;
        $w = $raster->width;
        $h = $raster->height;
        for ($row = 0; $row < self::ROWS; ++$row) {
            for ($column = 0; $column < self::COLUMNS; ++$column) {
                $best = 400.0; // below it there is nothing but paper and noise
                $at = null;
                for ($y = intdiv($row * $h, self::ROWS) + $half; $y < intdiv(($row + 1) * $h, self::ROWS); $y += $half) {
                    for ($x = intdiv($column * $w, self::COLUMNS) + $half; $x < intdiv(($column + 1) * $w, self::COLUMNS); $x += $half) {
                        if (
                            $x > 2 * $half
                            && $y > 2 * $half
                            && $x < $w - 2 * $half
                            && $y < $h - 2 * $half
                            && ($corner = self::cornerness($raster, $x, $y, $half)) > $best
                        ) {
                            $best = $corner;
                            $at = new PixelPoint($x, $y);
                        }
                    }
                }
                if (null !== $at) {
                    $spots[] = $at;
                }
            }
        }

        return $spots;
    }

    /**
     * @param list<PixelPoint> $spots whole pixels of the old page
     * @param PixelAffine $guess old → new
     * @param int $half half the side of a place, px
     * @param int $reach how far the guess may be off, px of the old page
     *
     * @return list<array{PixelPoint, PixelPoint}> where a place is and where it was found, in old and new pixels
     */
    public static function matched(PageInk $old, PageInk $new, array $spots, PixelAffine $guess, int $half, int $reach): array
    {
        $pairs = [];
        $side = 2 * $half + 1;
        foreach ($spots as $spot) {
            $x = (int) $spot->x;
            $y = (int) $spot->y;
            $template = $old->window($x - $half, $y - $half, $side, $side);
            if ($template->width !== $side || $template->height !== $side) {
                continue;
            }
            $wide = self::resampled($new, $guess, $x, $y, $half + $reach);
            $found = null === $wide ? null : self::bestShift(array_values((array) unpack('C*', $template->bytes)), $side, $wide, $reach);
            if (null !== $found) {
                $centre = new PixelPoint($x + 0.5, $y + 0.5);
                $pairs[] = [$centre, $guess->of(new PixelPoint($centre->x + $found[0], $centre->y + $found[1]))];
            }
        }

        return $pairs;
    }

    private static function cornerness(GreyRaster $raster, int $cx, int $cy, int $half): float
    {
        $w = $raster->width;
        $bytes = $raster->bytes;
        [$xx, $xy, $yy] = [0, 0, 0];
        for ($y = $cy - $half; $y <= $cy + $half; $y += 2) {
            $i = $y * $w + $cx - $half;
            for ($x = -$half; $x <= $half; $x += 2, $i += 2) {
                $gx = \ord($bytes[$i + 1]) - \ord($bytes[$i - 1]);
                $gy = \ord($bytes[$i + $w]) - \ord($bytes[$i - $w]);
                $xx += $gx * $gx;
                $xy += $gx * $gy;
                $yy += $gy * $gy;
            }
        }

        return ($xx + $yy - hypot($xx - $yy, 2 * $xy)) / ($half + 1) ** 2;
    }

    /**
     * The new page as it lies under a square of the old one.
     *
     * @return list<float>|null row by row, (2·half + 1)²; null where the square leaves the new page
     */
    private static function resampled(PageInk $new, PixelAffine $guess, int $cx, int $cy, int $half): ?array
    {
        $xs = [];
        $ys = [];
        foreach ([[-1, -1], [1, -1], [1, 1], [-1, 1]] as [$u, $v]) {
            $corner = $guess->of(new PixelPoint($cx + 0.5 + $u * $half, $cy + 0.5 + $v * $half));
            $xs[] = $corner->x;
            $ys[] = $corner->y;
        }
        $left = (int) floor(min($xs)) - 2;
        $top = (int) floor(min($ys)) - 2;
        $width = (int) ceil(max($xs)) + 2 - $left;
        $height = (int) ceil(max($ys)) + 2 - $top;
        if ($left < 0 || $top < 0 || $width * $height > 1_000_000) {
            return null;
        }
        $window = $new->window($left, $top, $width, $height);
        if ($window->width !== $width || $window->height !== $height) {
            return null;
        }
        $bytes = $window->bytes;
        $out = [];
        for ($y = -$half; $y <= $half; ++$y) {
            $at = $guess->of(new PixelPoint($cx + 0.5 - $half, $cy + 0.5 + $y));
            $u = $at->x - $left - 0.5;
            $v = $at->y - $top - 0.5;
            for ($x = -$half; $x <= $half; ++$x, $u += $guess->a, $v += $guess->d) {
                $iu = (int) $u;
                $iv = (int) $v;
                $fu = $u - $iu;
                $i = $iv * $width + $iu;
                $upper = \ord($bytes[$i]) * (1.0 - $fu) + \ord($bytes[$i + 1]) * $fu;
                $lower = \ord($bytes[$i + $width]) * (1.0 - $fu) + \ord($bytes[$i + $width + 1]) * $fu;
                $out[] = $upper + ($lower - $upper) * ($v - $iv);
            }
        }

        return $out;
    }

    /**
     * @param list<mixed> $template bytes, side × side
     * @param list<float> $wide (side + 2·reach)²
     *
     * @return array{float, float}|null shift of the best likeness with a parabola through its neighbours, or none good enough
     */
    private static function bestShift(array $template, int $side, array $wide, int $reach): ?array
    {
        $n = $side * $side;
        $t = [];
        $mean = array_sum($template) / $n;
        $norm = 0.0;
        foreach ($template as $value) {
            $t[] = $d = (\is_int($value) ? $value : 0) - $mean;
            $norm += $d * $d;
        }
        if ($norm <= 0.0) {
            return null;
        }
        $across = $side + 2 * $reach;
        $shifts = 2 * $reach + 1;
        $scores = [];
        $best = -1.0;
        $at = 0;
        for ($dy = 0; $dy < $shifts; ++$dy) {
            for ($dx = 0; $dx < $shifts; ++$dx) {
                [$sum, $squares, $product, $k] = [0.0, 0.0, 0.0, 0];
                for ($y = 0; $y < $side; ++$y) {
                    $i = ($y + $dy) * $across + $dx;
                    for ($x = 0; $x < $side; ++$x) {
                        $value = $wide[$i++];
                        $sum += $value;
                        $squares += $value * $value;
                        $product += $value * $t[$k++];
                    }
                }
                $variance = $squares - $sum * $sum / $n;
                $scores[] = $score = $variance > 0.0 ? $product / sqrt($variance * $norm) : -1.0;
                if ($score > $best) {
                    $best = $score;
                    $at = \count($scores) - 1;
                }
            }
        }
        $y = intdiv($at, $shifts);
        $x = $at % $shifts;
        if ($best < self::LEAST_LIKENESS || 0 === $x || 0 === $y || $shifts - 1 === $x || $shifts - 1 === $y) {
            return null;
        }
        $top = static fn (float $before, float $here, float $after): float => ($before - $after) / (2.0 * min(
            -1e-9,
            $before - 2.0 * $here + $after,
        ));

        return [
            $x - $reach + $top($scores[$at - 1], $best, $scores[$at + 1]),
            $y - $reach + $top($scores[$at - $shifts], $best, $scores[$at + $shifts]),
        ];
    }
}
