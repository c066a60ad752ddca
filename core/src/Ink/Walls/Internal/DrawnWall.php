<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * A wall by its exact lines, along an axis of its own: mm along, and across to the left.
 *
 * @internal
 */
final readonly class DrawnWall
{
    /** mm by which ends may miss what they meet */
    private const NEAR = 3.0;
    /** sine of the angle under which walls may meet at least */
    private const SLANT = 0.1;

    /**
     * @param array{float, float} $origin on its centre line, mm
     * @param array{float, float} $way unit vector along it
     * @param list<array{float, float}> $openings from where to where
     */
    public function __construct(
        public array $origin,
        public array $way,
        public float $thickness,
        public float $from,
        public float $to,
        public array $openings,
    ) {
    }

    /** @return array{float, float} along and across of a place */
    public function of(float $x, float $y): array
    {
        [$dx, $dy] = [$x - $this->origin[0], $y - $this->origin[1]];

        return [$this->way[0] * $dx + $this->way[1] * $dy, $this->way[0] * $dy - $this->way[1] * $dx];
    }

    /** @return array{float, float} of a place on the centre line */
    public function at(float $along): array
    {
        return [$this->origin[0] + $along * $this->way[0], $this->origin[1] + $along * $this->way[1]];
    }

    /** @return float mm of it that are drawn */
    public function drawn(): float
    {
        return $this->to - $this->from - array_sum(array_map(static fn (array $o): float => $o[1] - $o[0], $this->openings));
    }

    /** Whether a place lies in it, or before its ends by so much. */
    public function has(float $x, float $y, float $before): bool
    {
        [$along, $across] = $this->of($x, $y);

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
            $sine = $this->way[0] * $other->way[1] - $this->way[1] * $other->way[0];
            $cosine = abs($this->way[0] * $other->way[0] + $this->way[1] * $other->way[1]);
            [$along, $across] = $other->of(...$this->origin);
            if (abs($sine) < self::SLANT) {
                // In line with each other, of another thickness.
                $both = [$this->of(...$other->at($other->from)), $this->of(...$other->at($other->to))];
                foreach (abs($across) < ($this->thickness + $other->thickness) / 2.0 ? $both : [] as [$s]) {
                    if (min(abs($s - $this->from), abs($s - $this->to)) < self::NEAR) {
                        $met[] = $j;
                    }
                }
                continue;
            }
            // Where the centre lines cross: along this one, and along the other.
            $s = $across / $sine;
            $u = $along + $s * ($this->way[0] * $other->way[0] + $this->way[1] * $other->way[1]);
            $reach = ($other->thickness + $this->thickness * $cosine) / 2.0 / abs($sine) + self::NEAR;
            $its = ($this->thickness + $other->thickness * $cosine) / 2.0 / abs($sine) + self::NEAR;
            if ($u < $other->from - $its || $u > $other->to + $its || $s < $this->from - $reach || $s > $this->to + $reach) {
                continue;
            }
            $met[] = $j;
            foreach ([$this->from, $this->to] as $k => $end) {
                if (abs($s - $end) <= $reach && abs($s - $end) < $nearest[$k]) {
                    [$ends[$k], $nearest[$k]] = [$s, abs($s - $end)];
                }
            }
        }

        $ended = new self($this->origin, $this->way, $this->thickness, $ends[0], $ends[1], $this->openings);

        return [$ended, $met, \count(array_filter($nearest, is_finite(...)))];
    }
}
