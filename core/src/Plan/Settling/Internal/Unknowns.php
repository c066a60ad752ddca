<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling\Internal;

/**
 * What is tied together is one unknown, traced at the weighted mean of its coordinates, each in its node's frame; it goes by the root
 * of what it ties. The way of a family that is not known is another, −1 − its number.
 *
 * Turning a frame by δ changes coordinates by δ v along its first axis and by −δ u along the second, so means by the means of these.
 * Taken with that (z = z′ + shift δ) they are independent of δ, which is traced where its walls' own scatter is least:
 * Σ w (ũ + ṽ δ)² over what is tied along the first axis and Σ w (ṽ − ũ δ)² along the second, ~ meaning less the mean.
 *
 * @internal
 */
final class Unknowns
{
    /** Of its way a family knows at least this much: it was put together by it, radians. */
    private const LOOSELY = 10.0 * \M_PI / 180.0;

    /** @var array<int, float> σ² of each as traced */
    public readonly array $variances;
    /** @var array<int, float> mm, radians */
    private readonly array $traced;
    /** @var array<int, float> how much each follows its frame's turn, mm */
    private readonly array $shifts;
    /** @var list<array{array{float, float}, array{float, float}}> of each node's frame */
    private readonly array $axes;
    /** @var list<array{int, int}> of each node's coordinates */
    private readonly array $roots;

    /** @param list<Family> $families */
    public function __construct(Traced $traced, public readonly array $families, private readonly Ties $ties)
    {
        $frames = [-1 => [[1.0, 0.0], [0.0, 1.0]]] + array_map(
            static fn (Family $family): array => [$family->axis(0), $family->axis(1)],
            $families,
        );
        [$axes, $roots, $weights, $means, $shifts] = [[], [], [], [], []];
        $coordinates = [];
        foreach ($traced->places as $node => [$x, $y]) {
            $axes[] = [[$ux, $uy], [$vx, $vy]] = $frames[$ties->frames[$node]];
            $roots[] = [$ties->sets->root(2 * $node), $ties->sets->root(2 * $node + 1)];
            $w = 1.0 / $traced->sigmas[$node] ** 2;
            $coordinates[] = [$u, $v] = [$ux * $x + $uy * $y, $vx * $x + $vy * $y];
            foreach ([[$u, $v], [$v, -$u]] as $axis => [$at, $follows]) {
                $root = $roots[$node][$axis];
                $weights[$root] = ($weights[$root] ?? 0.0) + $w;
                $means[$root] = ($means[$root] ?? 0.0) + $w * $at;
                $shifts[$root] = ($shifts[$root] ?? 0.0) + $w * $follows;
            }
        }
        $variances = [];
        foreach ($weights as $root => $weight) {
            $means[$root] /= $weight;
            $shifts[$root] /= $weight;
            $variances[$root] = 1.0 / $weight;
        }
        // A family's own scatter: how it changes with its way, and how fast that changes.
        [$slopes, $bends] = [[], []];
        foreach ($coordinates as $node => [$u, $v]) {
            $f = $ties->frames[$node];
            $w = 1.0 / $traced->sigmas[$node] ** 2;
            foreach ([[$u, $v], [$v, -$u]] as $axis => [$at, $follows]) {
                $root = $roots[$node][$axis];
                [$off, $lever] = [$at - $means[$root], $follows - $shifts[$root]];
                $slopes[$f] = ($slopes[$f] ?? 0.0) + $w * $off * $lever;
                $bends[$f] = ($bends[$f] ?? 0.0) + $w * $lever * $lever;
            }
        }
        foreach ($families as $f => $family) {
            if (!$family->isKnown) {
                $bend = ($bends[$f] ?? 0.0) + 1.0 / self::LOOSELY ** 2;
                $means[self::way($f)] = -(($slopes[$f] ?? 0.0) + ($family->angle - $family->first) / self::LOOSELY ** 2) / $bend;
                $variances[self::way($f)] = 1.0 / $bend;
            }
        }
        [$this->axes, $this->roots, $this->traced, $this->shifts, $this->variances] = [$axes, $roots, $means, $shifts, $variances];
    }

    public static function way(int $family): int
    {
        return -1 - $family;
    }

    /**
     * Adds a node's place along an axis of a family.
     *
     * @param array<int, float> $row
     * @param list<array{float, float}> $places where nodes are found so far
     */
    public function along(array &$row, array $places, int $node, int $family, int $axis, float $factor): void
    {
        if ($this->ties->frames[$node] === $family) {
            $this->coordinate($row, $node, $axis, $factor);
            $this->turn($row, $family, $factor * $this->shifts[$this->roots[$node][$axis]]);
        } else {
            [$nx, $ny] = $this->families[$family]->axis($axis);
            $this->towards($row, $places, $node, $factor * $nx, $factor * $ny);
            // The direction turns with its family: the first axis towards the second, the second away from the first.
            [$x, $y] = $places[$node];
            $this->turn($row, $family, $factor * ($nx * $y - $ny * $x));
        }
    }

    /**
     * Adds a node's place along a direction.
     *
     * @param array<int, float> $row
     * @param list<array{float, float}> $places where nodes are found so far
     */
    public function towards(array &$row, array $places, int $node, float $nx, float $ny): void
    {
        $turn = 0.0;
        foreach ($this->axes[$node] as $axis => [$ax, $ay]) {
            $factor = $nx * $ax + $ny * $ay;
            $this->coordinate($row, $node, $axis, $factor);
            $turn += $factor * $this->shifts[$this->roots[$node][$axis]];
        }
        [$x, $y] = $places[$node];
        $this->turn($row, $this->ties->frames[$node], $turn + $ny * $x - $nx * $y);
    }

    /** @param array<int, float> $row */
    private function coordinate(array &$row, int $node, int $axis, float $factor): void
    {
        $root = $this->roots[$node][$axis];
        $row[$root] = ($row[$root] ?? 0.0) + $factor;
    }

    /** @param array<int, float> $row */
    private function turn(array &$row, int $family, float $factor): void
    {
        if (isset($this->families[$family]) && !$this->families[$family]->isKnown) {
            $row[self::way($family)] = ($row[self::way($family)] ?? 0.0) + $factor;
        }
    }

    /**
     * @param array<int, float> $row
     *
     * @return array{array<int, float>, float} what stands in it, and what it shall be less what it is as traced
     */
    public function condition(array $row, float $wanted): array
    {
        $row = array_filter($row, static fn (float $factor): bool => abs($factor) > 1e-15);
        foreach ($row as $unknown => $factor) {
            $wanted -= $factor * $this->traced[$unknown];
        }

        return [$row, $wanted];
    }

    /**
     * @param array<int, float> $corrections of unknowns
     *
     * @return list<array{float, float}> of the nodes, from the middle, mm
     */
    public function places(array $corrections): array
    {
        $places = [];
        foreach ($this->axes as $node => [[$ux, $uy], [$vx, $vy]]) {
            [$a, $b] = $this->roots[$node];
            [$u, $v] = [$this->traced[$a] + ($corrections[$a] ?? 0.0), $this->traced[$b] + ($corrections[$b] ?? 0.0)];
            $places[] = [$u * $ux + $v * $vx, $u * $uy + $v * $vy];
        }

        return $places;
    }

    /**
     * @param array<int, float> $corrections of unknowns
     *
     * @return array<int, float> by family whose way is not known: by how much it turns, radians
     */
    public function turns(array $corrections): array
    {
        $turns = [];
        foreach ($this->families as $f => $family) {
            if (!$family->isKnown) {
                $turns[$f] = $this->traced[self::way($f)] + ($corrections[self::way($f)] ?? 0.0);
            }
        }

        return $turns;
    }

    /** @return list<int> unknowns on which a node's place rests: its two coordinates, and the way of its frame where that is one */
    public function of(int $node): array
    {
        $f = $this->ties->frames[$node];

        return isset($this->variances[self::way($f)]) && $f >= 0 ? [...$this->roots[$node], self::way($f)] : $this->roots[$node];
    }

    /**
     * @param array{float, float} $place of the node
     * @param list<list<float>> $covariance of the unknowns on which it rests
     *
     * @return array{float, float} σ² of its x and y
     */
    public function variancesOf(int $node, array $place, array $covariance): array
    {
        [[$ux, $uy], [$vx, $vy]] = $this->axes[$node];
        [$x, $y] = $place;
        [$a, $b] = $this->roots[$node];
        $by = [
            [$ux, $vx, $ux * $this->shifts[$a] + $vx * $this->shifts[$b] - $y],
            [$uy, $vy, $uy * $this->shifts[$a] + $vy * $this->shifts[$b] + $x],
        ];
        $variances = [0.0, 0.0];
        foreach ($covariance as $i => $line) {
            foreach ($line as $j => $value) {
                $variances[0] += $by[0][$i] * $by[0][$j] * $value;
                $variances[1] += $by[1][$i] * $by[1][$j] * $value;
            }
        }

        return [max(0.0, $variances[0]), max(0.0, $variances[1])];
    }
}
