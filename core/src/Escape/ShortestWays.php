<?php

declare(strict_types=1);

namespace Plinth\Core\Escape;

use Plinth\Core\Escape\Internal\Part;

/**
 * The shortest ways on foot from everywhere to the nearest of some exits, mm.
 *
 * From each corner at which a shortest way may turn, in the order of how far it is from an exit (Dijkstra, 1959), what it sees is followed
 * through triangles by a cone that narrows at every edge; the corners in it come by way of it. Such cones are kept by the triangles that
 * they cross, so that for any place the way is min g(v) + |x − v| over those that hold it. A way turns only at corners that stand into the
 * floor (Lozano-Pérez and Wesley, 1979), and only round them: a corner hands on what lies behind it, as its predecessor sees it.
 *
 * @phpstan-type Cone array{int, float, float, float, float, float, float}
 */
final class ShortestWays
{
    /** part of both lengths by which directions may be off and still be one */
    private const CLOSE = 1e-12;
    /** the same for places that were computed */
    private const HAIR = 1e-9;
    /** radians by which a corner stands into the floor at least */
    private const BEND = 1e-7;
    private const LEVEL = 1e-9;

    /** @var array<int, float> mm to the exit, of every corner from which there is a way */
    private array $mm = [];
    /** @var array<int, int> where the way goes on; −1 at an exit */
    private array $next = [];
    /** @var array<int, list<Cone>> by triangle: whose cone it is, unit vectors along its right and its left limit, and from where */
    private array $cones = [];

    /** @var \SplPriorityQueue<float, array{int, float}> corners that were seen, the nearest to an exit first */
    private readonly \SplPriorityQueue $queue;
    /** @var array<int, true> corners that have handed on what they see */
    private array $done = [];

    /**
     * @param array<int, float> $exits
     * @param array<int, list<array{int, float}>> $links
     * @param (\Closure(int): float)|null $left
     */
    private function __construct(
        private readonly WalkedFloor $floor,
        private readonly array $exits,
        private readonly array $links,
        private readonly ?\Closure $left,
    ) {
        $this->queue = new \SplPriorityQueue();
        foreach ($exits as $v => $mm) {
            [$this->mm[$v], $this->next[$v]] = [$mm, -1];
            $this->wait($v, $mm);
        }
    }

    private function wait(int $v, float $mm): void
    {
        $this->queue->insert([$v, $mm], -$mm - (null === $this->left ? 0.0 : ($this->left)($v)));
    }

    /**
     * Nothing is worked out yet: whoever asks has them worked out as far as that needs.
     *
     * @param array<int, float> $exits by corner, with what is to be gone from there, mm
     * @param array<int, list<array{int, float}>> $links from corner to corner by a way of its own, mm, as a stair is
     * @param (\Closure(int): float)|null $left mm that are left at least from a corner to where somebody will ask; from one corner to the
     *                                          next no more of them go than lie between. What leads away is left (Hart et al., 1968)
     */
    public static function to(WalkedFloor $floor, array $exits, array $links = [], ?\Closure $left = null): self
    {
        return new self($floor, $exits, $links, $left);
    }

    /**
     * Corners hand on what they see, the nearest to an exit first.
     *
     * @param float $upTo mm
     * @param list<int> $until and until these have been seen
     */
    private function settle(float $upTo, array $until = []): void
    {
        $waits = \count($until);
        while (!$this->queue->isEmpty()) {
            /** @var array{int, float} $first */
            $first = $this->queue->top();
            [$v, $mm] = $first;
            $most = $mm + (null === $this->left ? 0.0 : ($this->left)($v));
            while ($waits > 0 && isset($this->mm[$until[$waits - 1]])) {
                --$waits;
            }
            if ($most > $upTo && 0 === $waits) {
                return;
            }
            $this->queue->extract();
            if (isset($this->done[$v]) || $mm > $this->mm[$v]) {
                continue;
            }
            $this->done[$v] = true;
            $reached = $this->seen($v, isset($this->exits[$v]) && -1 === $this->next[$v]);
            foreach ($this->links[$v] ?? [] as [$w, $by]) {
                $reached[$w] = min($reached[$w] ?? \INF, $by);
            }
            foreach ($reached as $w => $by) {
                if ($mm + $by < ($this->mm[$w] ?? \INF)) {
                    [$this->mm[$w], $this->next[$w]] = [$mm + $by, $v];
                    $this->wait($w, $mm + $by);
                }
            }
        }
    }

    /**
     * Has all worked out that any place of some triangles depends on: none is further than by way of a corner of its own.
     *
     * @param list<int> $triangles
     */
    private function ready(array $triangles): void
    {
        $corners = [];
        foreach ($triangles as $t) {
            array_push($corners, ...$this->floor->triangles[$t]);
        }
        $this->settle(0.0, array_values(array_unique($corners)));
        $furthest = 0.0;
        foreach ($triangles as $t) {
            [$a, $b, $c] = $this->floor->triangles[$t];
            $least = min($this->mm[$a] ?? \INF, $this->mm[$b] ?? \INF, $this->mm[$c] ?? \INF);
            $at = $this->floor->at;
            $furthest = max($furthest, $least + max(
                self::apart($at[$a], $at[$b]),
                self::apart($at[$b], $at[$c]),
                self::apart($at[$c], $at[$a]),
            ));
        }
        $this->settle($furthest);
    }

    /** @return float|null mm from a corner; null where there is no way */
    public function ofCorner(int $v): ?float
    {
        $this->settle(0.0, [$v]);
        $this->settle($this->mm[$v] ?? \INF);

        return $this->mm[$v] ?? null;
    }

    /**
     * From a place in a triangle.
     *
     * @return array{float, list<array{int, array{float, float}}>}|null mm, and the corners at which the way turns
     */
    public function from(int $triangle, float $x, float $y): ?array
    {
        $this->ready([$triangle]);
        [$mm, $by] = $this->nearest($triangle, $x, $y);
        if (null === $by) {
            return null;
        }
        $corners = [];
        for ($v = $by; $v >= 0; $v = $this->next[$v]) {
            $corners[] = [$v, $this->floor->at[$v]];
        }

        return [$mm, $corners];
    }

    /**
     * The place of some triangles from which it is furthest, to a tenth of a millimetre: halves of triangles, where no place can be further
     * than the best one known, are left (branch and bound). None is further than from a corner and along the longest side, nor, where one
     * cone holds all three corners, than the furthest of them by way of it.
     *
     * @param non-empty-list<int> $triangles
     *
     * @return array{float, array{float, float}, int}|null mm, place and triangle; null where there is no way from any place of them
     */
    public function furthest(array $triangles, float $within = 0.1): ?array
    {
        $this->ready($triangles);
        $far = $this->far(...);
        $queue = new \SplPriorityQueue();
        $parts = [];
        foreach ($triangles as $t) {
            [$a, $b, $c] = array_map(fn (int $v): array => $this->floor->at[$v], $this->floor->triangles[$t]);
            $cones = $this->cones[$t] ?? [];
            $part = new Part($t, [$a, $b, $c], [$far($cones, $a), $far($cones, $b), $far($cones, $c)], $cones);
            // Where nobody gets in, nobody has to get out.
            if (is_finite($part->furthest()[0])) {
                $parts[] = $part;
            }
        }
        if ([] === $parts) {
            return null;
        }
        $best = [-\INF, [0.0, 0.0], 0];
        while (true) {
            foreach ($parts as $part) {
                [$mm, $at] = $part->furthest();
                $best = $mm > $best[0] ? [$mm, $at, $part->triangle] : $best;
            }
            foreach ($parts as $part) {
                if ($part->bound() > $best[0] + $within) {
                    $bound = $this->bound($part);
                    if ($bound > $best[0] + $within) {
                        $queue->insert([$part, $bound], $bound);
                    }
                }
            }
            /** @var array{Part, float}|null $next */
            $next = $queue->isEmpty() ? null : $queue->extract();
            if (null === $next || $next[1] <= $best[0] + $within) {
                return $best;
            }
            $parts = $next[0]->halves($far, $this->counting($next[0], $next[1]));
        }
    }

    /**
     * @param list<Cone> $cones
     * @param array{float, float} $p
     */
    private function far(array $cones, array $p): float
    {
        return $this->least($cones, $p)[0];
    }

    /**
     * Cones of a part by way of which any of its places can be nearest.
     *
     * @param float $bound none of them is further
     *
     * @return list<Cone>
     */
    private function counting(Part $part, float $bound): array
    {
        [[$x, $y], $most] = [$part->corners[0], $bound + $part->size()];

        return array_values(array_filter(
            $part->cones,
            fn (array $cone): bool => $this->mm[$cone[0]] + hypot($x - $cone[5], $y - $cone[6]) <= $most,
        ));
    }

    /** @return float no place of it is further */
    private function bound(Part $part): float
    {
        $bound = $part->bound();
        [$p, $q, $r] = $part->corners;
        foreach ($part->cones as $cone) {
            if ($this->mm[$cone[0]] >= $bound) {
                continue;
            }
            $most = $this->by($cone, ...$p);
            if ($most < $bound) {
                $most = max($most, $this->by($cone, ...$q));
                $bound = $most < $bound ? min($bound, max($most, $this->by($cone, ...$r))) : $bound;
            }
        }

        return $bound;
    }

    /** @return array{float, int|null} mm, and the corner by way of which */
    private function nearest(int $triangle, float $x, float $y): array
    {
        return $this->least($this->cones[$triangle] ?? [], [$x, $y]);
    }

    /**
     * @param list<Cone> $cones
     * @param array{float, float} $p
     *
     * @return array{float, int|null} mm, and the corner by way of which
     */
    private function least(array $cones, array $p): array
    {
        $mm = \INF;
        $corner = null;
        [$x, $y] = $p;
        // As `by` does, without a call for each.
        foreach ($cones as [$v, $rx, $ry, $lx, $ly, $px, $py]) {
            $dx = $x - $px;
            $dy = $y - $py;
            $own = $this->mm[$v];
            $length = sqrt($dx * $dx + $dy * $dy);
            if ($own + $length < $mm) {
                $close = -self::HAIR * $length;
                if ($rx * $dy - $ry * $dx >= $close && $dx * $ly - $dy * $lx >= $close) {
                    $mm = $own + $length;
                    $corner = $v;
                }
            }
        }

        return [$mm, $corner];
    }

    /** @param Cone $cone */
    private function by(array $cone, float $x, float $y): float
    {
        [$v, $rx, $ry, $lx, $ly, $px, $py] = $cone;
        [$dx, $dy] = [$x - $px, $y - $py];
        $length = sqrt($dx * $dx + $dy * $dy);
        // A place is in a cone, too, where rounding has it a hair's breadth outside.
        $close = -self::HAIR * $length;

        return $rx * $dy - $ry * $dx < $close || $dx * $ly - $dy * $lx < $close ? \INF : $this->mm[$v] + $length;
    }

    /**
     * @param array{float, float} $right
     * @param array{float, float} $left
     *
     * @return Cone
     */
    private function cone(int $v, array $right, array $left): array
    {
        [$r, $l] = [hypot(...$right), hypot(...$left)];

        return [$v, $right[0] / $r, $right[1] / $r, $left[0] / $l, $left[1] / $l, ...$this->floor->at[$v]];
    }

    /**
     * Corners that one sees and to which a shortest way may go on from it, mm apart; cones are left behind.
     *
     * @return array<int, float>
     */
    private function seen(int $v, bool $isExit): array
    {
        $floor = $this->floor;
        $half = $this->behind($v, $isExit);
        if (null === $half) {
            return [];
        }
        [$px, $py] = $floor->at[$v];
        $seen = [];
        $stack = [];
        foreach ($floor->about[$v] ?? [] as $t) {
            $k = (int) array_search($v, $floor->triangles[$t], true);
            [$a, $b] = [$floor->triangles[$t][($k + 1) % 3], $floor->triangles[$t][($k + 2) % 3]];
            $right = [$floor->at[$a][0] - $px, $floor->at[$a][1] - $py];
            $left = [$floor->at[$b][0] - $px, $floor->at[$b][1] - $py];
            $cone = self::cut($right, $left, ...$half);
            if (null === $cone) {
                continue;
            }
            [$right, $left] = $cone;
            foreach ([$a, $b] as $w) {
                $d = [$floor->at[$w][0] - $px, $floor->at[$w][1] - $py];
                if (!self::turnsRight($right, $d) && !self::turnsRight($d, $left)) {
                    $seen[$w] = hypot(...$d);
                }
            }
            if (self::turnsRight($left, $right)) {
                $this->cones[$t][] = $this->cone($v, $right, $left);
                $stack[] = [$t, ($k + 1) % 3, ...$right, ...$left];
            }
        }
        // Most of all time is spent here: in plain numbers, and without a call for each of them.
        [$at, $triangles, $beyond, $mm] = [$floor->at, $floor->triangles, $floor->beyond, $this->mm];
        $own = $mm[$v];
        while ([] !== $stack) {
            [$from, $edge, $rx, $ry, $lx, $ly] = array_pop($stack);
            $t = $beyond[$from][$edge];
            if ($t < 0) {
                continue;
            }
            $a = $triangles[$from][$edge];
            $b = $triangles[$from][2 === $edge ? 0 : $edge + 1];
            $ends = min($mm[$a] ?? \INF, $mm[$b] ?? \INF);
            if ($ends < \INF && $this->isNearerAnyway($own, $ends, $px, $py, $at[$a], $at[$b])) {
                continue;
            }
            $across = $beyond[$t];
            $k = $across[0] === $from ? 0 : ($across[1] === $from ? 1 : 2);
            // Seen from there the edge begins on its left; the third corner lies behind it.
            $c = $triangles[$t][($k + 2) % 3];
            $dx = $at[$c][0] - $px;
            $dy = $at[$c][1] - $py;
            $r = sqrt($rx * $rx + $ry * $ry);
            $l = sqrt($lx * $lx + $ly * $ly);
            $d = sqrt($dx * $dx + $dy * $dy);
            $this->cones[$t][] = [$v, $rx / $r, $ry / $r, $lx / $l, $ly / $l, $px, $py];
            $toRight = $rx * $dy - $ry * $dx;
            $toLeft = $dx * $ly - $dy * $lx;
            $closeRight = self::CLOSE * $r * $d;
            $closeLeft = self::CLOSE * $l * $d;
            if ($toRight >= -$closeRight && $toLeft >= -$closeLeft) {
                $seen[$c] = $d;
            }
            // What is seen through no more than a line is its end, which is told above.
            if ($toRight > $closeRight) {
                $stack[] = $toLeft < -$closeLeft ? [$t, ($k + 1) % 3, $rx, $ry, $lx, $ly] : [$t, ($k + 1) % 3, $rx, $ry, $dx, $dy];
            }
            if ($toLeft > $closeLeft) {
                $stack[] = $toRight < -$closeRight ? [$t, ($k + 2) % 3, $rx, $ry, $lx, $ly] : [$t, ($k + 2) % 3, $dx, $dy, $lx, $ly];
            }
        }

        return $seen;
    }

    /**
     * Whether every place of an edge is nearer by way of its ends than it can be by way of a corner: then all beyond it is as well.
     *
     * @param float $own mm of the corner, which lies at x and y
     * @param float $ends mm of the nearer end
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private function isNearerAnyway(float $own, float $ends, float $x, float $y, array $a, array $b): bool
    {
        [$ux, $uy, $dx, $dy] = [$b[0] - $a[0], $b[1] - $a[1], $x - $a[0], $y - $a[1]];
        $length2 = $ux * $ux + $uy * $uy;
        $t = max(0.0, min(1.0, ($ux * $dx + $uy * $dy) / $length2));
        $off = sqrt(($dx - $t * $ux) ** 2 + ($dy - $t * $uy) ** 2);

        return $own + $off > $ends + sqrt($length2);
    }

    /**
     * Into which half of the plane shortest ways go on from a corner: the direction that one comes from an exit, and whether to its left;
     * a direction of no length is everywhere.
     *
     * @return array{float, float, bool}|null null where none does
     */
    private function behind(int $v, bool $isExit): ?array
    {
        $before = $this->next[$v];
        $border = $this->floor->border[$v] ?? [];
        if ($isExit || !isset($this->floor->about[$before]) || !$this->isOneStorey($v, $before) || 2 !== \count($border)) {
            return [0.0, 0.0, true];
        }
        if ($this->floor->open[$v] <= \M_PI + self::BEND) {
            return null;
        }
        [$px, $py] = $this->floor->at[$v];
        [$dx, $dy] = [$px - $this->floor->at[$before][0], $py - $this->floor->at[$before][1]];
        $sides = array_map(function (int $w) use ($px, $py, $dx, $dy): int {
            [$ux, $uy] = [$this->floor->at[$w][0] - $px, $this->floor->at[$w][1] - $py];
            $cross = $dx * $uy - $dy * $ux;

            return abs($cross) <= self::LEVEL * hypot($dx, $dy) * hypot($ux, $uy) ? 0 : ($cross > 0.0 ? 1 : -1);
        }, $border);

        return match (true) {
            min($sides) >= 0 && max($sides) > 0 => [$dx, $dy, true],
            max($sides) <= 0 && min($sides) < 0 => [$dx, $dy, false],
            0 === $sides[0] && 0 === $sides[1] => [0.0, 0.0, true],
            default => null,
        };
    }

    /** Whether one came from a corner on foot, and not by a stair. */
    private function isOneStorey(int $v, int $before): bool
    {
        $apart = self::apart($this->floor->at[$v], $this->floor->at[$before]);

        return abs($this->mm[$v] - $this->mm[$before] - $apart) < 1e-6 * (1.0 + $this->mm[$v]);
    }

    /**
     * What of a cone, less than half a turn wide, lies on one side of a direction.
     *
     * @param array{float, float} $right
     * @param array{float, float} $left
     *
     * @return array{array{float, float}, array{float, float}}|null
     */
    private static function cut(array $right, array $left, float $dx, float $dy, bool $toLeft): ?array
    {
        if (0.0 === $dx && 0.0 === $dy) {
            return [$right, $left];
        }
        $d = [$dx, $dy];
        [$r, $l] = $toLeft
            ? [!self::turnsRight($d, $right), !self::turnsRight($d, $left)]
            : [!self::turnsRight($right, $d), !self::turnsRight($left, $d)];
        if ($r && $l) {
            return [$right, $left];
        }
        if (!$r && !$l) {
            return null;
        }
        // The limit runs along the direction, or against it.
        $isAhead = !self::turnsRight($right, $d) && !self::turnsRight($d, $left);
        $limit = $isAhead ? $d : [-$dx, -$dy];

        return $r ? [$right, $limit] : [$limit, $left];
    }

    /**
     * Whether one turns to the right from one direction to the other, by more than rounding.
     *
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private static function turnsRight(array $a, array $b): bool
    {
        return $a[0] * $b[1] - $a[1] * $b[0] < -self::CLOSE * hypot(...$a) * hypot(...$b);
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private static function apart(array $a, array $b): float
    {
        return hypot($b[0] - $a[0], $b[1] - $a[1]);
    }
}
