<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages\Internal;

use Plinth\Core\Geometry\PixelAffine;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\Paper;

/**
 * The rough lie of one page on another, from where their ink is: centre and spread give place and scale, the turn is
 * tried, and all four are then walked to the greatest likeness.
 *
 * @internal
 */
final class Coarse
{
    /** px, longer side of the reduced pages: a correlation at every shift stays cheap */
    private const SIDE = 200;
    /** correlation, 0 to 1: below it two pages are not of one drawing; by trial (RegistrationTest) */
    private const LEAST_LIKENESS = 0.3;
    /** degrees to either side that the newer page may be turned beyond a quarter; what a flat-bed scan leaves and more */
    private const SKEW_DEGREES = 6;

    public static function between(GreyRaster $old, Paper $oldPaper, GreyRaster $new, Paper $newPaper): ?PixelAffine
    {
        [$a, $aw, $ah, $af] = self::density($old, $oldPaper);
        [$b, $bw, $bh, $bf] = self::density($new, $newPaper);
        $first = self::moments($a, $aw);
        $second = self::moments($b, $bw);
        if (null === $first || null === $second) {
            return null;
        }
        $scale = $second[2] / $first[2];
        $best = [-1.0, [0.0, 0.0, 0.0, 0.0]];
        foreach ([0, 90, 180, 270] as $quarter) {
            for ($skew = -self::SKEW_DEGREES; $skew <= self::SKEW_DEGREES; ++$skew) {
                $try = [deg2rad($quarter + $skew), log($scale), $second[0], $second[1]];
                $likeness = self::likeness($a, $aw, $ah, $b, $bw, $bh, $first, $try);
                if ($likeness > $best[0]) {
                    $best = [$likeness, $try];
                }
            }
        }
        $steps = [0.01, 0.03, 3.0, 3.0];
        while ($steps[2] > 0.1) {
            $better = false;
            foreach ([0, 1, 2, 3] as $k) {
                foreach ([-1, 1] as $sign) {
                    $try = $best[1];
                    $try[$k] += $sign * $steps[$k];
                    $likeness = self::likeness($a, $aw, $ah, $b, $bw, $bh, $first, $try);
                    if ($likeness > $best[0]) {
                        $best = [$likeness, $try];
                        $better = true;
                    }
                }
            }
            if (!$better) {
                $steps = array_map(static fn (float $s): float => $s / 2.0, $steps);
            }
        }
        if ($best[0] < self::LEAST_LIKENESS) {
            return null;
        }
        [$turn, $log, $x, $y] = $best[1];

        return PixelAffine::similar(
            exp($log) * $bf / $af,
            $turn,
            new PixelPoint($first[0] * $af, $first[1] * $af),
            new PixelPoint($x * $bf, $y * $bf),
        );
    }

    /** @return array{list<int>, int, int, float} how much ink each cell holds, columns, rows, pixels per cell */
    private static function density(GreyRaster $raster, Paper $paper): array
    {
        $factor = (int) max(1, ceil(max($raster->width, $raster->height) / self::SIDE));
        $cells = ($paper->lightOnDark ? $raster->inverted() : $raster)->shrunk($factor);
        $out = [];
        $noise = (int) (0.04 * $paper->contrast);
        for ($y = 0; $y < $cells->height; ++$y) {
            for ($x = 0; $x < $cells->width; ++$x) {
                $out[] = max(0, $paper->at($x * $factor, $y * $factor) - \ord($cells->bytes[$y * $cells->width + $x]) - $noise);
            }
        }

        return [$out, $cells->width, $cells->height, (float) $factor];
    }

    /**
     * @param list<int> $density
     *
     * @return array{float, float, float}|null centre x and y, spread
     */
    private static function moments(array $density, int $width): ?array
    {
        [$sum, $sx, $sy, $sq] = [0.0, 0.0, 0.0, 0.0];
        foreach ($density as $i => $d) {
            if (0 !== $d) {
                $x = $i % $width + 0.5;
                $y = intdiv($i, $width) + 0.5;
                $sum += $d;
                $sx += $d * $x;
                $sy += $d * $y;
                $sq += $d * ($x * $x + $y * $y);
            }
        }
        if ($sum <= 0.0) {
            return null;
        }
        $variance = $sq / $sum - ($sx / $sum) ** 2 - ($sy / $sum) ** 2;

        return $variance > 0.0 ? [$sx / $sum, $sy / $sum, sqrt($variance)] : null;
    }

    /**
     * Correlation of the two ink maps where the first lies on the second, −1 to 1.
     *
     * @param list<int> $a
     * @param list<int> $b
     * @param array{float, float, float} $centre
     * @param array{float, float, float, float} $lie turn, log of the scale, place of the centre
     */
    private static function likeness(array $a, int $aw, int $ah, array $b, int $bw, int $bh, array $centre, array $lie): float
    {
        $c = exp($lie[1]) * cos($lie[0]);
        $s = exp($lie[1]) * sin($lie[0]);
        [$n, $sa, $sb, $saa, $sbb, $sab] = [0, 0.0, 0.0, 0.0, 0.0, 0.0];
        for ($y = 0; $y < $ah; ++$y) {
            $dy = $y + 0.5 - $centre[1];
            $u = $lie[2] + $c * (0.5 - $centre[0]) - $s * $dy;
            $v = $lie[3] + $s * (0.5 - $centre[0]) + $c * $dy;
            $i = $y * $aw;
            for ($x = 0; $x < $aw; ++$x, $u += $c, $v += $s) {
                $p = $a[$i++];
                $q = $u >= 0.0 && $v >= 0.0 && $u < $bw && $v < $bh ? $b[(int) $v * $bw + (int) $u] : 0;
                ++$n;
                $sa += $p;
                $sb += $q;
                $saa += $p * $p;
                $sbb += $q * $q;
                $sab += $p * $q;
            }
        }
        $va = $saa - $sa * $sa / $n;
        $vb = $sbb - $sb * $sb / $n;

        return $va > 0.0 && $vb > 0.0 ? ($sab - $sa * $sb / $n) / sqrt($va * $vb) : -1.0;
    }
}
