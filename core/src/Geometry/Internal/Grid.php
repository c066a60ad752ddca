<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry\Internal;

/**
 * A grid of 2²⁹ steps across all that is given: a fifth of a micrometre in a hundred metres. On it every comparison is exact in 64-bit
 * integers.
 *
 * A place goes by one whole number, x times 2³⁰ plus y: from left to right, and from below, is from less to more.
 *
 * @internal
 */
final class Grid
{
    public const BITS = 30;
    public const LOW = (1 << self::BITS) - 1;
    private const STEPS = 1 << 29;

    private readonly float $x;
    private readonly float $y;
    private readonly float $step;
    /** @var array<int, int> place → the one that it was settled into */
    private array $settled = [];
    /** @var array<int, array{float, float}> what a place was given as */
    private array $given = [];

    /** @param non-empty-list<array{float, float}> $points all corners that will be asked for */
    public function __construct(array $points)
    {
        [$x1, $y1] = [$x2, $y2] = $points[0];
        foreach ($points as [$x, $y]) {
            if ($x < $x1) {
                $x1 = $x;
            } elseif ($x > $x2) {
                $x2 = $x;
            }
            if ($y < $y1) {
                $y1 = $y;
            } elseif ($y > $y2) {
                $y2 = $y;
            }
        }
        [$this->x, $this->y, $this->step] = [$x1, $y1, max($x2 - $x1, $y2 - $y1, 1e-9) / self::STEPS];
        $this->settle($points);
    }

    /**
     * Corners in neighbouring places, as the same corner computed twice may be, are put into one.
     *
     * @param non-empty-list<array{float, float}> $points
     */
    private function settle(array $points): void
    {
        $places = array_map($this->rounded(...), $points);
        // In an order that does not hang on that of the rings.
        asort($places);
        foreach ($places as $i => $place) {
            if (!isset($this->settled[$place])) {
                $into = $place;
                foreach ([
                    $place - (1 << self::BITS) - 1,
                    $place - (1 << self::BITS),
                    $place - (1 << self::BITS) + 1,
                    $place - 1,
                ] as $near) {
                    if (($this->settled[$near] ?? null) === $near) {
                        $into = $near;
                        break;
                    }
                }
                $this->settled[$place] = $into;
            }
            $into = $this->settled[$place];
            $this->given[$into] = min($this->given[$into] ?? $points[$i], $points[$i]);
        }
    }

    /** @param array{float, float} $point */
    private function rounded(array $point): int
    {
        return ((int) round(($point[0] - $this->x) / $this->step) << self::BITS) + (int) round(($point[1] - $this->y) / $this->step);
    }

    /** @param array{float, float} $point one of those that were given */
    public function place(array $point): int
    {
        return $this->settled[$this->rounded($point)];
    }

    /** @return array{float, float} as it was given, if it was */
    public function point(int $place): array
    {
        return $this->given[$place] ?? [$this->x + ($place >> self::BITS) * $this->step, $this->y + ($place & self::LOW) * $this->step];
    }
}
