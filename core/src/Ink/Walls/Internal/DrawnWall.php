<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * A wall by its exact lines, along an axis of its own.
 *
 * @internal
 */
final readonly class DrawnWall
{
    /** mm by which ends may miss what they meet */
    private const NEAR = 3.0;
    /** sine of the angle under which walls may meet at least */
    private const SLANT = 0.1;
    /** radians: one that turns further is two walls */
    private const ROUND = 4.7;

    /**
     * @param DrawnAxis $axis its centre line
     * @param list<array{float, float}> $openings from where to where
     */
    public function __construct(
        public DrawnAxis $axis,
        public float $thickness,
        public float $from,
        public float $to,
        public array $openings,
    ) {
    }

    /** @return array{float, float} of the middle of its centre line */
    public function middle(): array
    {
        return $this->axis->at(($this->from + $this->to) / 2.0);
    }

    /** @return float how far it rises over its chord, to the left; it runs counter-clockwise, and so to the right */
    public function rise(): float
    {
        $radius = $this->axis->radius;

        return null === $radius ? 0.0 : -$radius * (1.0 - cos(($this->to - $this->from) / 2.0 / $radius));
    }

    /** A stretch of it as a straight wall, along the chord of its centre line. */
    public function straight(float $from, float $to): self
    {
        if (null === $this->axis->radius) {
            return new self($this->axis, $this->thickness, $from, $to, []);
        }
        [[$x1, $y1], [$x2, $y2]] = [$this->axis->at($from), $this->axis->at($to)];
        $chord = max(self::NEAR, hypot($x2 - $x1, $y2 - $y1));

        return new self(DrawnAxis::straight([$x1, $y1], [($x2 - $x1) / $chord, ($y2 - $y1) / $chord]), $this->thickness, 0.0, $chord, []);
    }

    /** @return list<self> two of it where it runs nearly all round, which no single wall may */
    public function halves(): array
    {
        if (null === $this->axis->radius || $this->to - $this->from < self::ROUND * $this->axis->radius) {
            return [$this];
        }
        $middle = ($this->from + $this->to) / 2.0;
        foreach ($this->openings as $k => [$begin, $end]) {
            if ($begin < $middle && $end > $middle) {
                $middle = ($end + ($this->openings[$k + 1][0] ?? $this->to)) / 2.0;
                break;
            }
        }
        $within = fn (float $from, float $to): array => array_values(
            array_filter($this->openings, static fn (array $o): bool => $o[0] >= $from && $o[1] <= $to),
        );

        return [
            new self($this->axis, $this->thickness, $this->from, $middle, $within($this->from, $middle)),
            new self($this->axis, $this->thickness, $middle, $this->to, $within($middle, $this->to)),
        ];
    }

    /** @return float mm of it that are drawn */
    public function drawn(): float
    {
        return $this->to - $this->from - array_sum(array_map(static fn (array $o): float => $o[1] - $o[0], $this->openings));
    }

    /** Whether a place lies in it, or before its ends by so much. */
    public function has(float $x, float $y, float $before): bool
    {
        [$along, $across] = $this->axis->of($x, $y);

        return abs($across) <= $this->thickness / 2.0 + self::NEAR && $along >= $this->from - $before && $along <= $this->to + $before;
    }

    /**
     * Both ends on the centre line of what they meet.
     *
     * @param list<self> $walls
     *
     * @return array{self, list<int>, int} and which walls it meets, and how many of its ends do
     */
    public function ended(array $walls): array
    {
        $ends = [$this->from, $this->to];
        $nearest = [\INF, \INF];
        $met = [];
        foreach ($walls as $j => $other) {
            if ($other === $this) {
                continue;
            }
            $met = [...$met, ...($this->meetsInLine($other) ? [$j] : [])];
            foreach ($this->axis->crossings($other->axis) as [$x, $y]) {
                [[$s], [$u]] = [$this->axis->of($x, $y), $other->axis->of($x, $y)];
                [$way, $its] = [$this->axis->way($s), $other->axis->way($u)];
                $sine = abs($way[0] * $its[1] - $way[1] * $its[0]);
                $cosine = abs($way[0] * $its[0] + $way[1] * $its[1]);
                if ($sine < self::SLANT) {
                    continue;
                }
                // Where the centre lines cross: along this one, and along the other.
                $reach = ($other->thickness + $this->thickness * $cosine) / 2.0 / $sine + self::NEAR;
                $there = ($this->thickness + $other->thickness * $cosine) / 2.0 / $sine + self::NEAR;
                if ($u < $other->from - $there || $u > $other->to + $there || $s < $this->from - $reach || $s > $this->to + $reach) {
                    continue;
                }
                $met[] = $j;
                foreach ([$this->from, $this->to] as $k => $end) {
                    if (abs($s - $end) <= $reach && abs($s - $end) < $nearest[$k]) {
                        [$ends[$k], $nearest[$k]] = [$s, abs($s - $end)];
                    }
                }
            }
        }

        $ended = new self($this->axis, $this->thickness, $ends[0], $ends[1], $this->openings);

        // What runs all round ends on itself.
        $isRing = null !== $this->axis->radius && $this->to - $this->from > 2.0 * \M_PI * $this->axis->radius - self::NEAR;

        return [$ended, $met, $isRing ? 2 : \count(array_filter($nearest, is_finite(...)))];
    }

    /** Whether both run on into each other, of whatever thickness. */
    private function meetsInLine(self $other): bool
    {
        foreach ([$other->from, $other->to] as $its) {
            [$along, $across] = $this->axis->of(...$other->axis->at($its));
            foreach (abs($across) < ($this->thickness + $other->thickness) / 2.0 ? [$this->from, $this->to] : [] as $end) {
                [$way, $theirs] = [$this->axis->way($end), $other->axis->way($its)];
                if (abs($along - $end) < self::NEAR && abs($way[0] * $theirs[1] - $way[1] * $theirs[0]) < self::SLANT) {
                    return true;
                }
            }
        }

        return false;
    }
}
