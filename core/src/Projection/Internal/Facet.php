<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

/**
 * A plane face of a body in the coordinates of a view, none that is seen edge-on: w = a·u + b·v + c.
 *
 * @internal
 *
 * @phpstan-type Place array{float, float, float}
 * @phpstan-type Span array{float, float}
 */
final readonly class Facet
{
    /** What lies so near to a line lies on it, mm. */
    private const ON_MM = 1e-4;

    /** of boxes that stand beside each other: more tell no more than their edges */
    private const MOST_COLUMNS = 24;

    public float $u0;
    public float $u1;
    public float $v0;
    public float $v1;
    public float $w0;
    public float $w1;
    /** whether it is an upright rectangle, seen as such */
    private bool $isBox;

    /**
     * @param non-empty-list<non-empty-list<Place>> $rings outer and holes
     * @param list<list<bool>> $drawn whether the edge that leaves a corner is one of the body's; a cut makes others
     * @param int $plane number of the plane and material, which faces that go on in each other share
     * @param bool $isFront whether it is seen from outside its body
     * @param int $body number of the body
     */
    public function __construct(
        public array $rings,
        public array $drawn,
        public float $a,
        public float $b,
        public float $c,
        public int $plane,
        public bool $isFront,
        public int $body,
    ) {
        $all = 1 === \count($rings) ? $rings[0] : array_merge(...$rings);
        [$u, $v, $w] = [array_column($all, 0), array_column($all, 1), array_column($all, 2)];
        [$this->u0, $this->u1] = [min($u), max($u)];
        [$this->v0, $this->v1] = [min($v), max($v)];
        [$this->w0, $this->w1] = [min($w), max($w)];
        $this->isBox = 4 === \count($all) && 2 === \count(array_unique($u)) && 2 === \count(array_unique($v));
    }

    /** How far behind the view's plane it lies there, mm. */
    public function depth(float $u, float $v): float
    {
        return $this->a * $u + $this->b * $v + $this->c;
    }

    /**
     * Where a line runs over it, once for what lies just to the left of the line and once for its right: they differ only where it runs
     * along an edge or through a corner.
     *
     * @param float $du unit vector along the line
     *
     * @return array{list<float>, list<float>, bool} in order, entering and leaving by turns; whether the two differ
     */
    public function along(float $u, float $v, float $du, float $dv): array
    {
        [$left, $right, $touches] = [[], [], false];
        foreach ($this->rings as $ring) {
            $p = $ring[\count($ring) - 1];
            $off = $du * ($p[1] - $v) - $dv * ($p[0] - $u);
            if ($off < self::ON_MM && $off > -self::ON_MM) {
                [$off, $touches] = [0.0, true];
            }
            $at = $du * ($p[0] - $u) + $dv * ($p[1] - $v);
            foreach ($ring as $q) {
                $next = $du * ($q[1] - $v) - $dv * ($q[0] - $u);
                if ($next < self::ON_MM && $next > -self::ON_MM) {
                    [$next, $touches] = [0.0, true];
                }
                $then = $du * ($q[0] - $u) + $dv * ($q[1] - $v);
                if (($off > 0.0) !== ($next > 0.0)) {
                    $left[] = 0.0 === $off ? $at : (0.0 === $next ? $then : $at + ($then - $at) * $off / ($off - $next));
                }
                if (($off >= 0.0) !== ($next >= 0.0)) {
                    $right[] = 0.0 === $off ? $at : (0.0 === $next ? $then : $at + ($then - $at) * $off / ($off - $next));
                }
                [$off, $at] = [$next, $then];
            }
        }
        sort($left);
        if (!$touches) {
            return [$left, $left, false];
        }
        sort($right);

        return [$left, $right, true];
    }

    public function contains(float $u, float $v): bool
    {
        $inside = false;
        foreach ($this->rings as $ring) {
            $p = $ring[\count($ring) - 1];
            foreach ($ring as $q) {
                if (($q[1] > $v) !== ($p[1] > $v) && $u < ($p[0] - $q[0]) * ($v - $q[1]) / ($p[1] - $q[1]) + $q[0]) {
                    $inside = !$inside;
                }
                $p = $q;
            }
        }

        return $inside;
    }

    /** Whether it covers all of an upright box. */
    public function covers(float $u0, float $v0, float $u1, float $v1): bool
    {
        // Borders that meet count as covered.
        [$u0, $v0, $u1, $v1] = [$u0 + self::ON_MM, $v0 + self::ON_MM, $u1 - self::ON_MM, $v1 - self::ON_MM];
        if ($this->u0 > $u0 || $this->u1 < $u1 || $this->v0 > $v0 || $this->v1 < $v1) {
            return false;
        }
        foreach ($this->isBox ? [] : $this->rings as $ring) {
            $p = $ring[\count($ring) - 1];
            foreach ($ring as $q) {
                if (
                    max($p[0], $q[0]) > $u0 && min($p[0], $q[0]) < $u1 && max($p[1], $q[1]) > $v0 && min($p[1], $q[1]) < $v1
                    && !self::passes($p, $q, $u0, $v0, $u1, $v1)
                ) {
                    return false;
                }
                $p = $q;
            }
        }

        return $this->isBox || $this->contains(($u0 + $u1) / 2.0, ($v0 + $v1) / 2.0);
    }

    /**
     * Upright boxes that together are all of it, as walls with holes have them; none where an edge of it is aslant.
     *
     * @return list<array{float, float, float, float}> least u and v, most u and v
     */
    public function boxes(): array
    {
        if ($this->isBox) {
            return [[$this->u0, $this->v0, $this->u1, $this->v1]];
        }
        $columns = [];
        foreach ($this->rings as $ring) {
            $p = $ring[\count($ring) - 1];
            foreach ($ring as $q) {
                if (abs($p[0] - $q[0]) > self::ON_MM && abs($p[1] - $q[1]) > self::ON_MM) {
                    return [];
                }
                $columns[(string) round($q[0], 4)] = $q[0];
                $p = $q;
            }
        }
        sort($columns);
        $boxes = [];
        for ($k = 1; $k < \count($columns) && $k <= self::MOST_COLUMNS; ++$k) {
            [$from, $to] = [$columns[$k - 1], $columns[$k]];
            foreach (Spans::between($this->along(($from + $to) / 2.0, 0.0, 0.0, 1.0)[0]) as [$low, $high]) {
                $boxes[] = [$from, $low, $to, $high];
            }
        }

        return $boxes;
    }

    /**
     * Whether all of a box lies on one side of an edge.
     *
     * @param Place $p
     * @param Place $q
     */
    private static function passes(array $p, array $q, float $u0, float $v0, float $u1, float $v1): bool
    {
        [$du, $dv] = [$q[0] - $p[0], $q[1] - $p[1]];
        $sides = [];
        foreach ([[$u0, $v0], [$u1, $v0], [$u0, $v1], [$u1, $v1]] as [$u, $v]) {
            $sides[] = $du * ($v - $p[1]) - $dv * ($u - $p[0]);
        }

        return min($sides) > 0.0 || max($sides) < 0.0;
    }
}
