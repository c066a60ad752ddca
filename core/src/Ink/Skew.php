<?php

declare(strict_types=1);

namespace Plinth\Core\Ink;

use Plinth\Core\Ink\Internal\EdgePoints;

/**
 * How far a drawing is turned on its page: the direction of its dominant grid, modulo 90°.
 *
 * First a histogram of edge directions by Scharr's operator (central differences are off by degrees on thin strokes; Scharr
 * 2000, from memory), then the turn at which edge points fall together best when projected (greatest sum of squared counts),
 * and at last straight lines through the points of each long edge, averaged by how well each tells its own direction.
 */
final readonly class Skew
{
    private const SIDE = 1500;
    private const WINDOW_DEGREES = 3.3;
    private const LEAST_LINE_PX = 60;

    /**
     * @param float $degrees of the drawing's +x axis, counter-clockwise positive as seen, in (−45, 45]
     * @param float $confidence 0 (nothing runs anywhere) to 1 (all edges run with one grid)
     */
    private function __construct(public float $degrees, public float $confidence)
    {
    }

    /** @return self|null null when the page has no edges to speak of */
    public static function of(GreyRaster $page): ?self
    {
        $raster = $page->shrunk(max(1, intdiv(max($page->width, $page->height), self::SIDE)));
        $edges = EdgePoints::of($raster);
        if (null === $edges) {
            return null;
        }
        $coarse = $edges->dominantDegrees();
        [$across, $down] = $edges->near($coarse, self::WINDOW_DEGREES);
        if (\count($across) + \count($down) < self::LEAST_LINE_PX) {
            return null;
        }
        $best = self::sharpest($across, $down, $coarse);
        for ($round = 0; $round < 3; ++$round) {
            $better = self::byLines($across, $down, $best);
            if (null === $better) {
                break;
            }
            $best = $better;
        }
        // As the page is seen: image y runs down, so a line that falls to the right is turned clockwise.
        $degrees = fmod(-$best + 45.0 + 360.0, 90.0) - 45.0;

        return new self($degrees <= -45.0 ? $degrees + 90.0 : $degrees, $edges->share($coarse, self::WINDOW_DEGREES / 3));
    }

    /**
     * @param list<array{float, float}> $across points of edges that run nearly along the turned x
     * @param list<array{float, float}> $down those along the turned y
     */
    private static function sharpest(array $across, array $down, float $coarse): float
    {
        $best = $coarse;
        foreach ([[self::WINDOW_DEGREES, 0.15], [0.3, 0.03], [0.06, 0.01]] as [$reach, $step]) {
            $most = -1.0;
            $middle = $best;
            for ($d = -$reach; $d <= $reach + 1e-9; $d += $step) {
                $score = self::score($across, $middle + $d, false) + self::score($down, $middle + $d, true);
                if ($score > $most) {
                    $most = $score;
                    $best = $middle + $d;
                }
            }
        }

        return $best;
    }

    /** @param list<array{float, float}> $points */
    private static function score(array $points, float $degrees, bool $down): float
    {
        $c = cos(deg2rad($degrees));
        $s = sin(deg2rad($degrees));
        $counts = [];
        foreach ($points as [$x, $y]) {
            $bin = (int) (2.0 * ($down ? $c * $x + $s * $y : $c * $y - $s * $x) + 20_000.0);
            $counts[$bin] = ($counts[$bin] ?? 0) + 1;
        }
        $sum = 0.0;
        foreach ($counts as $n) {
            $sum += $n * $n;
        }

        return $sum;
    }

    /**
     * Straight lines through the points of each long edge; their directions averaged by weight.
     *
     * @param list<array{float, float}> $across
     * @param list<array{float, float}> $down
     */
    private static function byLines(array $across, array $down, float $degrees): ?float
    {
        $c = cos(deg2rad($degrees));
        $s = sin(deg2rad($degrees));
        $slopes = [];
        foreach ([[$across, false], [$down, true]] as [$points, $isDown]) {
            $bins = [];
            foreach ($points as [$x, $y]) {
                // Along the line, and off it.
                $t = $isDown ? $c * $y - $s * $x : $c * $x + $s * $y;
                $n = $isDown ? $c * $x + $s * $y : $c * $y - $s * $x;
                $bins[(int) floor($n)][] = [$t, $n];
            }
            foreach ($bins as $bin => $here) {
                $before = \count($bins[$bin - 1] ?? []);
                $after = \count($bins[$bin + 1] ?? []);
                if (\count($here) < $before || \count($here) <= $after) {
                    continue; // not the middle of an edge
                }
                $line = self::line([...($bins[$bin - 1] ?? []), ...$here, ...($bins[$bin + 1] ?? [])]);
                if (null !== $line) {
                    // A line down the page turns the other way for the same slope.
                    $slopes[] = [$isDown ? -$line[0] : $line[0], $line[1]];
                }
            }
        }
        if ([] === $slopes) {
            return null;
        }
        // The weighted median first: a leaning wall or a stair is no part of the grid.
        usort($slopes, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $half = array_sum(array_column($slopes, 1)) / 2.0;
        $middle = 0.0;
        foreach ($slopes as [$slope, $weight]) {
            $half -= $weight;
            if ($half <= 0.0) {
                $middle = $slope;
                break;
            }
        }
        $spread = 0.0015;
        [$sum, $weights] = [0.0, 0.0];
        foreach ($slopes as [$slope, $weight]) {
            if (abs($slope - $middle) < $spread) {
                $sum += $weight * $slope;
                $weights += $weight;
            }
        }

        return $degrees + rad2deg(atan($weights > 0.0 ? $sum / $weights : $middle));
    }

    /**
     * @param list<array{float, float}> $points along and off
     *
     * @return array{float, float}|null slope, and the weight that its variance gives it
     */
    private static function line(array $points): ?array
    {
        [$slope, $tt] = [0.0, 0.0];
        for ($round = 0; $round < 3; ++$round) {
            $n = \count($points);
            if ($n < self::LEAST_LINE_PX) {
                return null;
            }
            [$mt, $mo] = [array_sum(array_column($points, 0)) / $n, array_sum(array_column($points, 1)) / $n];
            [$tt, $to] = [0.0, 0.0];
            foreach ($points as [$t, $o]) {
                $tt += ($t - $mt) ** 2;
                $to += ($t - $mt) * ($o - $mo);
            }
            if ($tt <= 0.0) {
                return null;
            }
            $slope = $to / $tt;
            $kept = array_values(array_filter($points, static fn (array $p): bool => abs($p[1] - $mo - $slope * ($p[0] - $mt)) < 0.6));
            if (\count($kept) === $n) {
                break;
            }
            $points = $kept;
        }

        return [$slope, $tt];
    }
}
