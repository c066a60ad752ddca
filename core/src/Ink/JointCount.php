<?php

declare(strict_types=1);

namespace Plinth\Core\Ink;

use Plinth\Core\Geometry\PixelPoint;

/**
 * Joints counted along a line: the grey values are averaged across it, their beat found by autocorrelation, and each tick set
 * where the ink or shade is strongest near its place. What is proposed is looked at with its ticks numbered, never taken unseen.
 */
final readonly class JointCount
{
    /** px to either side that are averaged: a joint runs on, a stain does not */
    private const ACROSS = 14;
    private const STEP = 0.5;
    private const LEAST_PITCH = 3.0;
    /** correlation of the profile with itself one pitch on, below which there is no beat */
    private const LEAST_BEAT = 0.25;

    /**
     * @param float $pitchPx from tick to tick
     * @param list<PixelPoint> $ticks from the line's start to its end
     * @param int $spaces how many modules the line holds, rounded
     * @param float $confidence 0 to 1
     */
    private function __construct(public float $pitchPx, public array $ticks, public int $spaces, public float $confidence)
    {
    }

    /** @param callable(int, int, int, int): GreyRaster $window reads the part of the page in a box, cut to the page */
    public static function along(callable $window, PixelPoint $a, PixelPoint $b): ?self
    {
        $length = $a->distanceTo($b);
        if ($length < 6 * self::LEAST_PITCH) {
            return null;
        }
        $profile = self::flat(self::profile($window, $a, $b, $length));
        [$lag, $beat] = self::beat($profile);
        if (null === $lag || $beat < self::LEAST_BEAT) {
            return null;
        }
        $pitch = $lag * self::STEP;
        $ticks = self::ticks($profile, $lag);
        $ux = ($b->x - $a->x) / $length;
        $uy = ($b->y - $a->y) / $length;
        if (\count($ticks) > 1) {
            // The mean over all of them is far better than one beat.
            $pitch = ($ticks[\count($ticks) - 1] - $ticks[0]) * self::STEP / (\count($ticks) - 1);
        }

        return new self(
            $pitch,
            array_map(static fn (float $i): PixelPoint => new PixelPoint($a->x + $ux * $i * self::STEP, $a->y + $uy * $i * self::STEP), $ticks),
            (int) round($length / $pitch),
            $beat,
        );
    }

    /**
     * @param callable(int, int, int, int): GreyRaster $window
     *
     * @return list<float>
     */
    private static function profile(callable $window, PixelPoint $a, PixelPoint $b, float $length): array
    {
        $margin = self::ACROSS + 2;
        $left = max(0, (int) floor(min($a->x, $b->x)) - $margin);
        $top = max(0, (int) floor(min($a->y, $b->y)) - $margin);
        $raster = $window($left, $top, (int) ceil(abs($b->x - $a->x)) + 2 * $margin, (int) ceil(abs($b->y - $a->y)) + 2 * $margin);
        $ux = ($b->x - $a->x) / $length;
        $uy = ($b->y - $a->y) / $length;
        $profile = [];
        for ($t = 0.0; $t <= $length; $t += self::STEP) {
            $sum = 0.0;
            $n = 0;
            for ($k = -self::ACROSS; $k <= self::ACROSS; ++$k) {
                $x = (int) ($a->x + $ux * $t - $uy * $k) - $left;
                $y = (int) ($a->y + $uy * $t + $ux * $k) - $top;
                if ($x >= 0 && $y >= 0 && $x < $raster->width && $y < $raster->height) {
                    $sum += \ord($raster->bytes[$y * $raster->width + $x]);
                    ++$n;
                }
            }
            $profile[] = $n > 0 ? $sum / $n : 0.0;
        }

        return $profile;
    }

    /**
     * Without what changes slowly: light that falls off is no joint.
     *
     * @param list<float> $profile
     *
     * @return list<float>
     */
    private static function flat(array $profile): array
    {
        $n = \count($profile);
        $half = max(12, intdiv($n, 8));
        $sums = [0.0];
        foreach ($profile as $v) {
            $sums[] = end($sums) + $v;
        }
        $flat = [];
        for ($i = 0; $i < $n; ++$i) {
            [$from, $to] = [max(0, $i - $half), min($n, $i + $half + 1)];
            $flat[] = $profile[$i] - ($sums[$to] - $sums[$from]) / ($to - $from);
        }

        return $flat;
    }

    /**
     * The first strong peak of the autocorrelation: later ones are its multiples.
     *
     * @param list<float> $profile
     *
     * @return array{float|null, float} lag in samples, correlation there
     */
    private static function beat(array $profile): array
    {
        $n = \count($profile);
        $power = array_sum(array_map(static fn (float $v): float => $v * $v, $profile)) / $n;
        if ($power < 1.0) {
            return [null, 0.0];
        }
        $correlations = [];
        for ($lag = (int) (self::LEAST_PITCH / self::STEP); $lag <= intdiv($n, 2); ++$lag) {
            $sum = 0.0;
            for ($i = 0; $i < $n - $lag; ++$i) {
                $sum += $profile[$i] * $profile[$i + $lag];
            }
            $correlations[$lag] = $sum / ($n - $lag) / $power;
        }
        $most = [] === $correlations ? 0.0 : max($correlations);
        foreach ($correlations as $lag => $c) {
            $before = $correlations[$lag - 1] ?? 2.0;
            $after = $correlations[$lag + 1] ?? 2.0;
            if ($c >= 0.5 * $most && $c >= $before && $c > $after) {
                $bend = $before - 2.0 * $c + $after;

                return [$lag + ($bend < 0.0 ? 0.5 * ($before - $after) / $bend : 0.0), $c];
            }
        }

        return [null, 0.0];
    }

    /**
     * @param list<float> $profile
     *
     * @return list<float> samples at which ticks stand
     */
    private static function ticks(array $profile, float $lag): array
    {
        $n = \count($profile);
        // Dark joints on light bricks or light on dark: whichever side of the mean is peakier.
        $cubes = array_sum(array_map(static fn (float $v): float => $v ** 3, $profile));
        $sign = $cubes < 0.0 ? -1.0 : 1.0;
        $best = 0.0;
        $most = -\INF;
        for ($phase = 0.0; $phase < $lag; $phase += 0.5) {
            $sum = 0.0;
            for ($i = $phase; $i < $n; $i += $lag) {
                $sum += $sign * $profile[(int) $i];
            }
            if ($sum > $most) {
                [$most, $best] = [$sum, $phase];
            }
        }
        $ticks = [];
        $drift = 0.0;
        for ($i = $best; $i < $n; $i += $lag) {
            $peak = null;
            $reach = 0.3 * $lag;
            for ($k = (int) max(0.0, ceil($i + $drift - $reach)); $k <= min($n - 1, $i + $drift + $reach); ++$k) {
                if (null === $peak || $sign * $profile[$k] > $sign * $profile[$peak]) {
                    $peak = $k;
                }
            }
            if (null !== $peak) {
                // A pitch that is a little off adds up: each tick corrects where the next is looked for.
                $drift += 0.5 * ($peak - $i - $drift);
                $ticks[] = (float) $peak;
            }
        }

        return $ticks;
    }
}
