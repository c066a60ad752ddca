<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\PageInk;

/**
 * Joints counted along a line: the grey values are averaged across it, their beat found by autocorrelation, and each tick set
 * where the ink or shade is strongest near its place. What is proposed is looked at with its ticks numbered, never taken unseen.
 */
final readonly class JointCount
{
    /** px to either side that are averaged: a joint runs on, a stain does not */
    private const ACROSS = 14;
    /** px from one look along the courses to the next */
    private const STEP = 0.5;
    /** px from joint to joint: closer ones run into each other */
    private const LEAST_PITCH = 3.0;
    /** px: a longer line lies on no page */
    private const LONGEST_PX = 40_000.0;
    /** pitches that are looked at beyond either end */
    private const BEYOND = 0.8;
    /** how much of a step's difference the next step takes over */
    private const ADAPTS = 0.15;
    /** how much of what joints stand out by the faintest must */
    private const STANDS_OUT = 0.4;
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

    public static function along(PageInk $pageInk, PixelPoint $a, PixelPoint $b): ?self
    {
        $length = $a->distanceTo($b);
        if ($length < 6 * self::LEAST_PITCH || $length > self::LONGEST_PX) {
            return null;
        }
        [$lag, $beat] = self::beat(self::flat(self::profile($pageInk, $a, $b, $length, 0.0)));
        if (null === $lag || $beat < self::LEAST_BEAT) {
            return null;
        }
        // The joints at either end are seen whole only from beyond them.
        $beyond = self::BEYOND * $lag * self::STEP;
        $ticks = array_map(
            static fn (float $i): float => $i * self::STEP - $beyond,
            self::ticks(self::flat(self::profile($pageInk, $a, $b, $length, $beyond)), $lag),
        );
        $pitch = $lag * self::STEP;
        $ticks = array_values(array_filter($ticks, static fn (float $t): bool => $t > -0.4 * $pitch && $t < $length + 0.4 * $pitch));
        if (\count($ticks) < 2) {
            return null;
        }
        $spaces = \count($ticks) - 1;
        [$first, $last] = [$ticks[0], $ticks[$spaces]];
        // The mean over all of them is far better than one beat; at the ends of a slanted wall the pitch there counts.
        $pitch = ($last - $first) / $spaces;
        $missing = round($first / max(1e-9, $ticks[1] - $first)) + round(($length - $last) / max(1e-9, $last - $ticks[$spaces - 1]));
        [$ux, $uy] = [($b->x - $a->x) / $length, ($b->y - $a->y) / $length];

        return new self(
            $pitch,
            array_map(static fn (float $t): PixelPoint => new PixelPoint($a->x + $ux * $t, $a->y + $uy * $t), $ticks),
            $spaces + (int) $missing,
            $beat,
        );
    }

    /**
     * @param float $beyond px that it begins before a and ends after b
     *
     * @return list<float>
     */
    private static function profile(PageInk $pageInk, PixelPoint $a, PixelPoint $b, float $length, float $beyond): array
    {
        $margin = self::ACROSS + 2 + (int) ceil($beyond);
        $left = max(0, (int) floor(min($a->x, $b->x)) - $margin);
        $top = max(0, (int) floor(min($a->y, $b->y)) - $margin);
        $raster = $pageInk->window($left, $top, (int) ceil(abs($b->x - $a->x)) + 2 * $margin, (int) ceil(abs($b->y - $a->y)) + 2 * $margin);
        $ux = ($b->x - $a->x) / $length;
        $uy = ($b->y - $a->y) / $length;
        $profile = [];
        for ($t = -$beyond; $t <= $length + $beyond; $t += self::STEP) {
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
        // Found in the middle, followed from tick to tick to either end: on a slanted wall the pitch changes on the way.
        $best = $n / 2.0;
        $most = -\INF;
        for ($phase = 0.0; $phase < $lag; $phase += 0.5) {
            $sum = 0.0;
            for ($k = -2; $k <= 2; ++$k) {
                $sum += $sign * ($profile[(int) round($n / 2.0 + $phase + $k * $lag)] ?? 0.0);
            }
            if ($sum > $most) {
                [$most, $best] = [$sum, $n / 2.0 + $phase];
            }
        }
        // What stands out much less than those is no joint: over a band without any the beat goes on.
        $least = self::STANDS_OUT * $most / 5.0;
        $at = self::peak($profile, $sign, $best, 0.3 * $lag, $least) ?? $best;

        return [
            ...array_reverse(self::follow($profile, $sign, $at, -$lag, $least)),
            $at,
            ...self::follow($profile, $sign, $at, $lag, $least),
        ];
    }

    /**
     * @param list<float> $profile
     *
     * @return list<float> ticks from one to the end of the profile, by steps of about $lag
     */
    private static function follow(array $profile, float $sign, float $from, float $lag, float $least): array
    {
        $ticks = [];
        for ($expected = $from + $lag; $expected >= 0.0 && $expected <= \count($profile) - 1; $expected = $from + $lag) {
            $peak = self::peak($profile, $sign, $expected, 0.28 * abs($lag), $least) ?? $expected;
            $lag += self::ADAPTS * ($peak - $from - $lag);
            $from = $peak;
            $ticks[] = $peak;
        }

        return $ticks;
    }

    /**
     * @param list<float> $profile
     *
     * @return float|null where it stands out most within reach, to a part of a sample; null where nothing does
     */
    private static function peak(array $profile, float $sign, float $near, float $reach, float $least): ?float
    {
        $best = null;
        for ($k = (int) max(1.0, ceil($near - $reach)); $k <= min(\count($profile) - 2, $near + $reach); ++$k) {
            $v = $sign * $profile[$k];
            if (
                $v >= $least
                && $v >= $sign * $profile[$k - 1]
                && $v >= $sign * $profile[$k + 1]
                && (null === $best || $v > $sign * $profile[$best])
            ) {
                $best = $k;
            }
        }
        if (null === $best) {
            return null;
        }
        $bend = $profile[$best - 1] - 2.0 * $profile[$best] + $profile[$best + 1];

        return $best + (0.0 === $bend ? 0.0 : 0.5 * ($profile[$best - 1] - $profile[$best + 1]) / $bend);
    }
}
