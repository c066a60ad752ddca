<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Ink\Page\EdgePoints;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Pages\Internal\EdgePiece;
use Plinth\Core\Ink\Pages\Internal\SlantedView;
use Plinth\Core\Ink\Pages\Internal\SlantOfLines;

/**
 * How far a drawing is turned on its page: the direction of its dominant grid, modulo 90°.
 *
 * First a histogram of edge directions by Scharr's operator (central differences are off by degrees on thin strokes; Scharr
 * 2000, from memory), then the turn at which edge points fall together best when projected (greatest sum of squared counts),
 * and at last straight lines through the points of each long edge, averaged by how well each tells its own direction.
 */
final readonly class Skew
{
    /** px along the longer side that are enough; larger pages are reduced to less than twice that */
    public const SIDE = 1500;
    /** degrees to either side of the coarse direction whose lines are measured: more than a coarse bin is wide */
    private const WINDOW_DEGREES = 3.3;
    /** px of edge in a direction: less tells nothing */
    private const LEAST_LINE_PX = 60;
    /** points that the first search looks at, of either direction */
    private const ENOUGH = 6000;
    /** lines that run off by more than this belong to no common grid, radians */
    private const SAME_SLOPE = 0.0015;
    /** the page is looked at in so many parts across and down, for lines that converge */
    private const PARTS = 4;
    /** degrees to either side in which lines of a slanted photograph lean */
    private const LEANING_WINDOW_DEGREES = 6.0;
    /** radians that no scan tells better than; and what is said where a single line tells: half a pixel over a thousand */
    private const LEAST_SIGMA = 0.000005;
    /** radians, where one line alone tells: half a pixel over a thousand */
    private const UNKNOWN_SIGMA = 0.0005;

    /**
     * @param float $degrees of the drawing's +x axis, counter-clockwise positive as seen, in (−45, 45]
     * @param float $confidence 0 (nothing runs anywhere) to 1 (all edges run with one grid)
     * @param float $sigmaDegrees standard deviation, from how far the lines that run with the grid scatter
     * @param Leaning|null $leaning how its lines converge; null where too few of them show
     */
    private function __construct(
        public float $degrees,
        public float $confidence,
        public float $sigmaDegrees,
        public ?Leaning $leaning,
    ) {
    }

    /**
     * @param (callable(): void)|null $goesOn asked now and then, so that whoever waits hears that the work goes on
     *
     * @return self|null null when the page has no edges to speak of
     */
    public static function of(GreyRaster $page, ?callable $goesOn = null): ?self
    {
        $goesOn ??= static function (): void {};
        $raster = $page->shrunk(max(1, intdiv(max($page->width, $page->height), self::SIDE)));
        $edges = EdgePoints::of($raster);
        $goesOn();
        if (null === $edges) {
            return null;
        }
        $coarse = $edges->dominantDegrees();
        [$across, $down] = $edges->near($coarse, self::WINDOW_DEGREES);
        if (\count($across) + \count($down) < self::LEAST_LINE_PX) {
            return null;
        }
        $best = self::sharpest(self::some($across), self::some($down), $coarse);
        $sigma = rad2deg(self::UNKNOWN_SIGMA);
        for ($round = 0; $round < 3; ++$round) {
            $goesOn();
            $slopes = self::slopes($across, $down, $best);
            if ([] === $slopes) {
                break;
            }
            [$slope, $spread] = self::agreed($slopes);
            $best += rad2deg(atan($slope));
            $sigma = rad2deg($spread);
        }
        // The lines that run across the page, not those that run down it.
        $best = $best > 45.0 ? $best - 90.0 : $best;
        [$across, $down] = $edges->near($best, self::LEANING_WINDOW_DEGREES);
        $slant = self::slant($raster, $across, $down, $best, $goesOn);
        $leaning = null === $slant ? null : Leaning::of($slant);
        if (true === $slant?->converges()) {
            [$direction, $spread] = $slant->directionAt(
                ...self::middle([...$across, ...$down], $slant->view(), $raster->width, $raster->height),
            );
            [$best, $sigma] = [-rad2deg($direction), rad2deg($spread)];
        }
        // As the page is seen: image y runs down, so a line that falls to the right is turned clockwise.
        $degrees = fmod(-$best + 45.0 + 360.0, 90.0) - 45.0;

        return new self(
            $degrees <= -45.0 ? $degrees + 90.0 : $degrees,
            $edges->share($coarse, self::WINDOW_DEGREES / 3),
            $sigma,
            $leaning,
        );
    }

    /**
     * On photographs lines converge: pieces of both families are found in each part of the page for itself. Where too few of them show, the
     * edges of the sheet that they are drawn on run with them.
     *
     * @param list<array{float, float}> $across
     * @param list<array{float, float}> $down
     * @param callable(): void $goesOn
     */
    private static function slant(GreyRaster $raster, array $across, array $down, float $degrees, callable $goesOn): ?SlantOfLines
    {
        // Those that run down, as seen with the page turned by a quarter.
        $turned = self::pieces(array_map(static fn (array $p): array => [$p[1], -$p[0]], $down), $degrees, $goesOn);
        $pieces = [
            self::pieces($across, $degrees, $goesOn),
            array_map(static fn (EdgePiece $s): EdgePiece => new EdgePiece(-$s->y, $s->x, $s->direction, $s->weight), $turned),
        ];
        $slant = SlantOfLines::of(...$pieces, start: [-deg2rad($degrees), 0.0, 0.0, 0.0], width: $raster->width, height: $raster->height);

        return true === $slant?->byBoth ? $slant : Sheet::in($raster)?->slant($raster->width, $raster->height) ?? $slant;
    }

    /**
     * @param list<array{float, float}> $points of one family
     * @param callable(): void $goesOn
     *
     * @return list<EdgePiece>
     */
    private static function pieces(array $points, float $degrees, callable $goesOn): array
    {
        if (\count($points) < self::PARTS * self::PARTS * self::LEAST_LINE_PX) {
            return [];
        }
        [$left, $right] = self::reach(array_column($points, 0));
        [$top, $bottom] = self::reach(array_column($points, 1));
        [$w, $h] = [max(1.0, $right - $left), max(1.0, $bottom - $top)];
        $parts = [];
        foreach ($points as [$x, $y]) {
            $i = (int) floor(self::PARTS * ($x - $left) / $w);
            $j = (int) floor(self::PARTS * ($y - $top) / $h);
            if ($i >= 0 && $j >= 0 && $i < self::PARTS && $j < self::PARTS) {
                $parts[$j * self::PARTS + $i][] = [$x, $y];
            }
        }
        $pieces = [];
        foreach ($parts as $here) {
            if (\count($here) < 2 * self::LEAST_LINE_PX) {
                continue;
            }
            $goesOn();
            $runs = self::sharpest(self::some($here), [], $degrees);
            [$c, $s] = [cos(deg2rad($runs)), sin(deg2rad($runs))];
            foreach (self::slopes($here, [], $runs) as [$slope, $weight, $t, $n]) {
                $pieces[] = new EdgePiece($c * $t - $s * $n, $s * $t + $c * $n, deg2rad($runs) + atan($slope), $weight);
            }
        }

        return $pieces;
    }

    /**
     * The middle of the drawing as it is, not as it is seen: what is nearer looks larger. In the coordinates of SlantOfLines.
     *
     * @param list<array{float, float}> $points
     *
     * @return array{float, float}
     */
    private static function middle(array $points, SlantedView $view, int $width, int $height): array
    {
        $unit = hypot($width, $height) / 2.0;
        $flat = array_map(
            static fn (array $p): array => $view->flat(($p[0] - $width / 2.0) / $unit, ($height / 2.0 - $p[1]) / $unit),
            $points,
        );
        [$left, $right] = self::reach(array_column($flat, 0));
        [$low, $high] = self::reach(array_column($flat, 1));

        return $view->seen(($left + $right) / 2.0, ($low + $high) / 2.0);
    }

    /**
     * Where all but a fiftieth at either end lie.
     *
     * @param list<float> $values
     *
     * @return array{float, float}
     */
    private static function reach(array $values): array
    {
        sort($values);
        $cut = intdiv(\count($values), 50);

        return [$values[$cut], $values[\count($values) - 1 - $cut]];
    }

    /**
     * Enough of the points to see where they fall together.
     *
     * @param list<array{float, float}> $points
     *
     * @return list<array{float, float}>
     */
    private static function some(array $points): array
    {
        $every = max(1, intdiv(\count($points), self::ENOUGH));
        $some = [];
        for ($i = 0; $i < \count($points); $i += $every) {
            $some[] = $points[$i];
        }

        return $some;
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
     * Straight lines through the points of each long edge: by how much each runs off the turn assumed, counter-clockwise on the page
     * with y down, with the weight that its length gives it, and where its middle lies along and off the turned x, or the turned y.
     *
     * @param list<array{float, float}> $across
     * @param list<array{float, float}> $down
     *
     * @return list<array{float, float, float, float}>
     */
    private static function slopes(array $across, array $down, float $degrees): array
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
                    $slopes[] = [$isDown ? -$line[0] : $line[0], $line[1], $line[2], $line[3]];
                }
            }
        }

        return $slopes;
    }

    /**
     * What most of them agree on.
     *
     * @param non-empty-list<array{float, float, float, float}> $slopes
     *
     * @return array{float, float} slope and its standard deviation
     */
    private static function agreed(array $slopes): array
    {
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
        $near = array_values(array_filter($slopes, static fn (array $s): bool => abs($s[0] - $middle) < self::SAME_SLOPE));
        $weights = array_sum(array_column($near, 1));
        $mean = array_sum(array_map(static fn (array $s): float => $s[0] * $s[1], $near)) / $weights;
        $scatter = array_sum(array_map(static fn (array $s): float => $s[1] * ($s[0] - $mean) ** 2, $near)) / $weights;
        $count = $weights ** 2 / array_sum(array_map(static fn (array $s): float => $s[1] ** 2, $near));

        return [$mean, max(self::LEAST_SIGMA, $count > 1.5 ? sqrt($scatter / ($count - 1.0)) : self::UNKNOWN_SIGMA)];
    }

    /**
     * @param list<array{float, float}> $points along and off
     *
     * @return array{float, float, float, float}|null slope, the weight that its variance gives it, and its middle along and off
     */
    private static function line(array $points): ?array
    {
        [$slope, $tt, $mt, $mo] = [0.0, 0.0, 0.0, 0.0];
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

        return [$slope, $tt, $mt, $mo];
    }
}
