<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Facades\Internal;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\ReducedInk;
use Plinth\Core\Numerics\Median;

/**
 * One edge of an opening, placed on the picture itself: all along it first, then piece by piece, and how far the pieces lie off each other
 * says how well.
 *
 * @internal
 */
final readonly class PlacedEdge
{
    /** mm between two values across the edge, at least; part of a pixel otherwise */
    private const STEP = [2.0, 0.5];
    /** mm over which both sides of an edge are held against each other, at least; px otherwise */
    private const BESIDE = [12.0, 1.5];
    /** part of the strongest edge from which one counts, and from which it may: a reveal in shadow can hide where it begins */
    private const COUNTS = 0.1;
    private const MAY_COUNT = 0.06;
    /**
     * Part of its own strength that an edge has where it shows; part of all looks in which one shows that may count, as joints between
     * bricks show in every other course, and in which one that counts does.
     */
    private const SHOWS = [0.35, 0.6, 0.75];
    /** mm beyond both jambs, past lintels and sills, where courses are looked at; part of an edge's strength in which it goes on there */
    private const FLANKS = [200.0, 450.0];
    private const GOES_ON = 0.5;
    /** mm that a joint between courses is wide, about */
    private const JOINT = 10.0;
    /** mm from where the jambs end within which a joint may be an edge as well */
    private const NEAR = 20.0;
    /** pieces, and looks at each */
    private const PIECES = 8;
    private const LOOKS = 6;
    /** part left out at either end, where others meet it */
    private const ENDS = 0.08;
    /** mm that a piece may lie off the whole, at least; px otherwise */
    private const OFF = [12.0, 2.0];
    /** mm that a frame is wide at least */
    private const NARROWEST = 15.0;
    /** px by which an edge in a picture is off whatever its pieces say: compression and resampling; by trial on simulated pictures */
    private const SYSTEMATIC = 0.25;

    /** @param float|null $inner mm inwards to what shows most there: how wide a frame looks; null where nothing does */
    private function __construct(public float $at, public float $sigma, public ?float $inner)
    {
    }

    /**
     * @param bool $isUpright a jamb, or sill and head
     * @param float $at mm across
     * @param int $outside 1 where the wall lies to the right or above, −1 otherwise
     * @param array{float, float} $along from and to, mm
     * @param float $within mm to either side
     */
    public static function near(
        ReducedInk $page,
        PixelToMm $map,
        bool $isUpright,
        float $at,
        int $outside,
        array $along,
        bool $isPhotograph,
        float $mmPerPixel,
        float $within,
    ): self {
        $step = max(self::STEP[0], self::STEP[1] * $mmPerPixel);
        $beside = max(1, (int) round(max(self::BESIDE[0], self::BESIDE[1] * $mmPerPixel) / $step));
        $reach = (int) ceil($within / $step);
        $across = static function (float $v) use ($page, $map, $isUpright, $at, $outside, $step, $beside, $reach): array {
            $values = [];
            for ($i = -$reach - $beside; $i <= $reach + $beside; ++$i) {
                $u = $at + $outside * $i * $step;
                $values[] = $page->between($map, $isUpright ? new Point($u, $v) : new Point($v, $u));
            }

            return $values;
        };
        [$pieces, $looks] = self::looked($across, $along, $beside, $isPhotograph);
        $whole = self::mean($pieces);
        // Joints between courses go on beside an opening; what ends it does not.
        $goesOn = $isUpright || !$isPhotograph ? [] : self::mean(self::flanks($across, $along, $beside));
        [$found, $outer] = self::counting($whole, $looks, $goesOn, $isPhotograph, $reach, (int) ceil(self::NEAR / $step));
        $doubt = max(($outer - $found) * $step / 2.0, self::besideJoint($whole[$found], $goesOn, $found, (int) ceil(self::JOINT / $step)));
        $inner = $isPhotograph ? self::inner($whole, $found, (int) ceil(self::NARROWEST / $step)) : null;
        $inner = null === $inner ? null : $inner * $step;
        $off = max(1.0, max(self::OFF[0], self::OFF[1] * $mmPerPixel) / $step);
        $places = [];
        foreach ($pieces as $piece) {
            $place = self::peak($piece, $found, (int) $off, $whole[$found] < 0.0);
            if (null !== $place) {
                $places[] = $place;
            }
        }
        if (\count($places) < 3) {
            return new self($at + $outside * ($found - $reach) * $step, max(self::OFF[0], self::OFF[1] * $mmPerPixel), $inner);
        }
        $middle = Median::of($places);
        $spread = 1.48 * Median::of(array_map(static fn (float $v): float => abs($v - $middle), $places)) * $step;

        // Pieces of a line by hand wander together: more of them say no more.
        return new self(
            $at + $outside * ($middle - $reach) * $step,
            hypot(hypot($spread, self::SYSTEMATIC * $mmPerPixel), $doubt),
            $inner,
        );
    }

    /**
     * @param callable(float): list<float> $across values across the edge at a place along it
     * @param array{float, float} $along
     *
     * @return array{list<list<float>>, list<list<float>>} how strongly each place across is an edge, piece by piece and look by look
     */
    private static function looked(callable $across, array $along, int $beside, bool $isPhotograph): array
    {
        [$pieces, $looks] = [[], []];
        for ($k = 0; $k < self::PIECES; ++$k) {
            $values = [];
            for ($look = 0; $look < self::LOOKS; ++$look) {
                $part = self::ENDS + (1.0 - 2.0 * self::ENDS) * ($k + ($look + 0.5) / self::LOOKS) / self::PIECES;
                $values[] = $here = $across($along[0] + $part * ($along[1] - $along[0]));
                $looks[] = self::edges($here, $beside, $isPhotograph);
            }
            $pieces[] = self::edges(self::mean($values), $beside, $isPhotograph);
        }

        return [$pieces, $looks];
    }

    /**
     * The same on both sides of the opening.
     *
     * @param callable(float): list<float> $across
     * @param array{float, float} $along
     *
     * @return list<list<float>>
     */
    private static function flanks(callable $across, array $along, int $beside): array
    {
        $flanks = [];
        $each = intdiv(self::PIECES * self::LOOKS, 2);
        for ($k = 0; $k < $each; ++$k) {
            $beyond = self::FLANKS[0] + (self::FLANKS[1] - self::FLANKS[0]) * $k / $each;
            $flanks[] = self::edges($across($along[0] - $beyond), $beside, true);
            $flanks[] = self::edges($across($along[1] + $beyond), $beside, true);
        }

        return $flanks;
    }

    /**
     * @param list<list<float>> $rows as long as each other
     *
     * @return list<float>
     */
    private static function mean(array $rows): array
    {
        $mean = [];
        foreach (array_keys($rows[0] ?? []) as $i) {
            $mean[] = array_sum(array_column($rows, $i)) / \count($rows);
        }

        return $mean;
    }

    /**
     * @param list<float> $values across, from the opening outwards
     *
     * @return list<float> how strongly each place is an edge: signed of a photograph
     */
    private static function edges(array $values, int $beside, bool $isPhotograph): array
    {
        $n = \count($values);
        $sums = [0.0];
        foreach ($values as $v) {
            $sums[] = $sums[\count($sums) - 1] + $v;
        }
        $edges = [];
        $half = intdiv($beside, 2);
        for ($i = $beside; $i < $n - $beside; ++$i) {
            // Between the middles of two values: the one at i counts half to either side.
            $edges[] = $isPhotograph
                ? ($sums[$i + $beside + 1] - $sums[$i + 1] - ($sums[$i] - $sums[$i - $beside])) / $beside
                : ($sums[$i + $half + 1] - $sums[$i - $half]) / (2 * $half + 1)
                    - max(
                        $sums[$i - $half] - $sums[$i - $beside],
                        $sums[$i + $beside + 1] - $sums[$i + $half + 1],
                    ) / max(1, $beside - $half);
        }

        return $edges;
    }

    /**
     * The outermost edge of a photograph that counts, and how far out one lies that may be meant; of a drawing the line nearest to the
     * middle.
     *
     * @param list<float> $whole
     * @param list<list<float>> $looks of which it is the mean
     * @param list<float> $goesOn the same beside the opening; none for jambs
     *
     * @return array{int, int}
     */
    private static function counting(array $whole, array $looks, array $goesOn, bool $isPhotograph, int $reach, int $near): array
    {
        $strengths = array_map($isPhotograph ? abs(...) : static fn (float $v): float => max(0.0, $v), $whole);
        $most = max([0.0, ...$strengths]);
        [$found, $outer, $nearest] = [$reach, 0, \INF];
        for ($i = 1; $i < \count($whole) - 1; ++$i) {
            if ($strengths[$i] < self::MAY_COUNT * $most || $strengths[$i] < $strengths[$i - 1] || $strengths[$i] < $strengths[$i + 1]) {
                continue;
            }
            // A joint between courses may run where a sill does, but further out it is none.
            $sign = $whole[$i] < 0.0 ? -1.0 : 1.0;
            if (
                [] !== $goesOn && $i > $reach + $near
                && max($sign * $goesOn[$i - 1], $sign * $goesOn[$i], $sign * $goesOn[$i + 1]) > self::GOES_ON * $strengths[$i]
            ) {
                continue;
            }
            if ($isPhotograph) {
                $steady = self::steady($i, $whole[$i], $looks);
                $outer = $steady >= self::SHOWS[1] ? $i : $outer;
                $found = $strengths[$i] >= self::COUNTS * $most && $steady >= self::SHOWS[2] ? $i : $found;
            } elseif ($strengths[$i] >= self::COUNTS * $most && abs($i - $reach) < $nearest) {
                [$found, $nearest] = [$i, abs($i - $reach)];
            }
        }

        return [$found, max($found, $outer)];
    }

    /**
     * Where a course ends at an edge, its joint may be taken for a part of what stands there.
     *
     * @param list<float> $goesOn
     *
     * @return float mm, standard deviation
     */
    private static function besideJoint(float $strength, array $goesOn, int $at, int $near): float
    {
        $joint = array_map(abs(...), \array_slice($goesOn, max(0, $at - $near), 2 * $near + 1));

        return max([0.0, ...$joint]) > self::GOES_ON / 2.0 * abs($strength) ? self::JOINT / 2.0 : 0.0;
    }

    /**
     * How far inwards of an edge the strongest one lies.
     *
     * @param list<float> $whole
     */
    private static function inner(array $whole, int $found, int $least): ?int
    {
        $best = null;
        for ($i = 1; $i <= $found - $least; ++$i) {
            $here = abs($whole[$i]);
            if ($here > abs($whole[$i - 1]) && $here >= abs($whole[$i + 1]) && (null === $best || $here > abs($whole[$best]))) {
                $best = $i;
            }
        }

        return null === $best ? null : $found - $best;
    }

    /**
     * The part of all looks in which an edge shows.
     *
     * @param list<list<float>> $looks
     */
    private static function steady(int $at, float $strength, array $looks): float
    {
        $least = self::SHOWS[0] * abs($strength);
        $sign = $strength < 0.0 ? -1.0 : 1.0;
        $shows = 0;
        foreach ($looks as $look) {
            $shows += max($sign * $look[$at - 1], $sign * $look[$at], $sign * $look[$at + 1]) >= $least ? 1 : 0;
        }

        return $shows / max(1, \count($looks));
    }

    /** @param list<float> $edges */
    private static function peak(array $edges, int $at, int $off, bool $isFalling): ?float
    {
        $best = null;
        $sign = $isFalling ? -1.0 : 1.0;
        for ($i = max(1, $at - $off); $i <= min(\count($edges) - 2, $at + $off); ++$i) {
            $v = $sign * $edges[$i];
            $isPeak = $v > 0.0 && $v >= $sign * $edges[$i - 1] && $v >= $sign * $edges[$i + 1];
            if ($isPeak && (null === $best || $v > $sign * $edges[$best])) {
                $best = $i;
            }
        }
        if (null === $best) {
            return null;
        }
        [$a, $b, $c] = [$sign * $edges[$best - 1], $sign * $edges[$best], $sign * $edges[$best + 1]];

        return $best + ($a - $c) / (2.0 * min(-1e-9, $a - 2.0 * $b + $c));
    }

    /**
     * The same where a frame looks narrower than elsewhere: a reveal in shadow can hide how far out it begins.
     *
     * @param float $frame mm that it is wide elsewhere
     */
    public function besideAFrame(float $frame): self
    {
        $hidden = max(0.0, $frame - ($this->inner ?? $frame));

        return new self($this->at, hypot($this->sigma, $hidden / 2.0), $this->inner);
    }
}
