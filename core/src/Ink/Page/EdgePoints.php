<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

/**
 * Points where the grey values change most along their own gradient, placed between the pixels by a parabola, with the direction
 * of the edge there.
 */
final readonly class EdgePoints
{
    /** grey levels × 32: an edge weaker than this is grain; by trial on scans and faxes (bench ink) */
    private const WEAKEST = 24;
    /** Gradients come in grey levels × 32, as the operator's weights add up. */
    private const WEIGHTS = 32;
    /** bins of the histogram of directions, per degree: finer than a coarse direction needs */
    private const BINS_PER_DEGREE = 4;

    /**
     * @param list<array{float, float, float, float}> $points x, y, direction in which it grows lighter in degrees [0, 360) with y down,
     *                                                        strength
     * @param array<int, float> $histogram strength by direction modulo 90°
     */
    private function __construct(public array $points, private array $histogram)
    {
    }

    /**
     * @param int $least fewer points than this say nothing
     * @param int $weakest grey levels by which an edge stands out at least
     */
    public static function of(GreyRaster $raster, int $least = 100, int $weakest = self::WEAKEST): ?self
    {
        $w = $raster->width;
        $h = $raster->height;
        $histogram = array_fill(0, 90 * self::BINS_PER_DEGREE, 0.0);
        $points = [];
        $rows = [];
        for ($y = 0; $y < $h; ++$y) {
            /** @var list<int> $row */
            $row = array_values((array) unpack('C*', $raster->row($y)));
            $rows[] = $row;
        }
        $limit = (self::WEIGHTS * $weakest) ** 2;
        for ($y = 2; $y < $h - 2; ++$y) {
            [$a, $b, $c] = [$rows[$y - 1], $rows[$y], $rows[$y + 1]];
            for ($x = 2; $x < $w - 2; ++$x) {
                $gx = 3 * ($a[$x + 1] - $a[$x - 1] + $c[$x + 1] - $c[$x - 1]) + 10 * ($b[$x + 1] - $b[$x - 1]);
                $gy = 3 * ($c[$x - 1] - $a[$x - 1] + $c[$x + 1] - $a[$x + 1]) + 10 * ($c[$x] - $a[$x]);
                $m = $gx * $gx + $gy * $gy;
                if ($m < $limit) {
                    continue;
                }
                // Across the edge, along the axis that is nearer to the gradient.
                $isDown = abs($gx) > abs($gy);
                $here = $isDown ? $gx : $gy;
                // Signed: on thin strokes the opposite edge is the neighbour, and no rival.
                $sign = $here < 0 ? -1.0 : 1.0;
                $here *= $sign;
                [$before, $after] = $isDown ? [
                    $sign * self::slope($rows, $x - 1, $y, true),
                    $sign * self::slope($rows, $x + 1, $y, true),
                ] : [$sign * self::slope($rows, $x, $y - 1, false), $sign * self::slope($rows, $x, $y + 1, false)];
                if ($here <= $before || $here < $after) {
                    continue;
                }
                $off = ($before - $after) / (2.0 * min(-1e-9, $before - 2.0 * $here + $after));
                $degrees = fmod(rad2deg(atan2($gy, $gx)) + 360.0, 360.0);
                $strength = sqrt($m);
                $histogram[(int) (fmod($degrees, 90.0) * self::BINS_PER_DEGREE) % (90 * self::BINS_PER_DEGREE)] += $strength;
                $points[] = [$x + 0.5 + ($isDown ? $off : 0.0), $y + 0.5 + ($isDown ? 0.0 : $off), $degrees, $strength];
            }
        }

        return \count($points) < $least ? null : new self($points, $histogram);
    }

    /** @param list<list<int>> $rows */
    private static function slope(array $rows, int $x, int $y, bool $alongX): int
    {
        [$a, $b, $c] = [$rows[$y - 1], $rows[$y], $rows[$y + 1]];

        return $alongX
            ? 3 * ($a[$x + 1] - $a[$x - 1] + $c[$x + 1] - $c[$x - 1]) + 10 * ($b[$x + 1] - $b[$x - 1])
            : 3 * ($c[$x - 1] - $a[$x - 1] + $c[$x + 1] - $a[$x + 1]) + 10 * ($c[$x] - $a[$x]);
    }

    /** The direction, modulo 90°, that most of the edges have. */
    public function dominantDegrees(): float
    {
        $bins = \count($this->histogram);
        $best = 0;
        $most = -1.0;
        for ($i = 0; $i < $bins; ++$i) {
            $sum = 0.0;
            for ($k = -4; $k <= 4; ++$k) {
                $sum += (5 - abs($k)) * $this->histogram[($i + $k + $bins) % $bins];
            }
            if ($sum > $most) {
                $most = $sum;
                $best = $i;
            }
        }

        return ($best + 0.5) / self::BINS_PER_DEGREE;
    }

    /**
     * Directions modulo 90° that many edges have, the strongest first.
     *
     * @param float $least part of the strongest one's strength that a direction has at least
     * @param float $apart degrees between two at least
     *
     * @return list<float> degrees
     */
    public function directions(float $least, float $apart): array
    {
        $bins = \count($this->histogram);
        $smooth = [];
        for ($i = 0; $i < $bins; ++$i) {
            $sum = 0.0;
            for ($k = -3; $k <= 3; ++$k) {
                $sum += (4 - abs($k)) * $this->histogram[($i + $k + $bins) % $bins];
            }
            $smooth[$i] = $sum;
        }
        $sorted = $smooth;
        sort($sorted);
        $ground = $sorted[intdiv($bins, 2)];
        $most = max([0.0, ...$smooth]) - $ground;
        arsort($smooth);
        $found = [];
        foreach ($smooth as $i => $sum) {
            if ($sum - $ground < $least * $most) {
                break;
            }
            $degrees = ($i + 0.5) / self::BINS_PER_DEGREE;
            foreach ($found as $other) {
                if (abs(fmod($degrees - $other + 135.0, 90.0) - 45.0) < $apart) {
                    continue 2;
                }
            }
            $found[] = $degrees;
        }

        return $found;
    }

    /** Part of all edge strength that runs within so many degrees of a grid. */
    public function share(float $degrees, float $within): float
    {
        $bins = \count($this->histogram);
        $middle = (int) ($degrees * self::BINS_PER_DEGREE);
        $sum = 0.0;
        for ($k = (int) (-$within * self::BINS_PER_DEGREE); $k <= $within * self::BINS_PER_DEGREE; ++$k) {
            $sum += $this->histogram[($middle + $k + $bins) % $bins];
        }

        return $sum / max(1e-9, array_sum($this->histogram));
    }

    /**
     * Points of edges that run with a grid of this turn.
     *
     * @return array{list<array{float, float}>, list<array{float, float}>} along its x, and along its y
     */
    public function near(float $degrees, float $within): array
    {
        $across = [];
        $down = [];
        foreach ($this->points as [$x, $y, $lighter]) {
            // The edge runs at a right angle to the way it grows lighter.
            $direction = fmod($lighter + 90.0, 180.0);
            $off = fmod($direction - $degrees + 45.0 + 360.0, 90.0) - 45.0;
            if (abs($off) <= $within) {
                if (abs(fmod($direction - $degrees + 90.0 + 360.0, 180.0) - 90.0) < 45.0) {
                    $across[] = [$x, $y];
                } else {
                    $down[] = [$x, $y];
                }
            }
        }

        return [$across, $down];
    }
}
