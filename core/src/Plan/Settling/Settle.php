<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling;

use Plinth\Core\Fitting\Internal\Cholesky;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\JoinedWall;
use Plinth\Core\Plan\Line;

/**
 * Adjusts the tracing of a storey by least squares: every node stays as near as it can to where it was traced, walls that are nearly
 * level, plumb or parallel become so, ends stay on the walls they end on, and decided figures hold.
 *
 * What must hold along one axis is a difference between two coordinates: nodes of a level wall have the same y, a figure between two
 * level walls puts one a stated way above the other. Coordinates that are tied so form groups with one unknown each (a union of sets
 * with potentials), whose least-squares place is the weighted mean. Leaning walls tie both axes together; they are solved by Cholesky
 * with the conditions at a weight that leaves nothing to see.
 *
 * Figures are taken by rank: overall ones first, then those between centre lines, then details; among details those the tracing
 * agrees with best. One that closes a ring of others and does not agree with them is a contradiction and gives way.
 */
final class Settle
{
    /** Walls that run off by less are meant to be level, plumb, or parallel to each other. */
    public const MEANT_DEGREES = 1.0;
    /** An end that lies within this of a centre line, or within the wall's body, ends on that wall, mm. */
    private const ON_LINE_MM = 20.0;
    /** Figures are detail unless they reach over this part of the storey. */
    private const OVERALL = 0.93;
    /** what conditions of leaning walls are held by, mm */
    private const HOLDS_MM = 0.0005;
    private const ROUNDS = 6;
    /** Below this nothing moved, mm. */
    private const STILL_MM = 1e-6;

    /** @var array{Potentials, Potentials} of x, and of y */
    private array $tied;
    /** @var array<string, JoinedWall> */
    private array $walls = [];
    /** @var list<string> */
    private array $leaning = [];
    /** @var list<Contradiction> */
    private array $contradictions = [];
    /** @var list<string> */
    private array $held = [];
    private int $straightened = 0;

    /**
     * @param list<JoinedWall> $walls
     * @param array<string, Point> $nodes as traced
     * @param array<string, float> $sigmas how far a node may be off its true place by what it rests on, mm
     * @param list<Held> $figures
     */
    private function __construct(array $walls, private readonly array $nodes, private readonly array $sigmas, private readonly array $figures)
    {
        $this->tied = [new Potentials(), new Potentials()];
        foreach ($walls as $wall) {
            $this->walls[$wall->wall->id] = $wall;
        }
    }

    /**
     * @param list<JoinedWall> $walls of one storey
     * @param array<string, Point> $nodes by the names that the walls use
     * @param array<string, float> $sigmas standard deviation of each node's place, mm; 10 where nothing is said
     * @param list<Held> $figures
     */
    public static function storey(array $walls, array $nodes, array $sigmas = [], array $figures = []): Settled
    {
        $settle = new self($walls, $nodes, $sigmas, $figures);
        $settle->straighten();
        $settle->endOnWalls();
        $settle->hold();

        return $settle->solved();
    }

    /** What shall be level has one y, what shall be plumb one x. */
    private function straighten(): void
    {
        foreach ($this->walls as $id => $wall) {
            [$a, $b] = [$this->nodes[$wall->from], $this->nodes[$wall->to]];
            $axis = $this->axisOf($wall);
            if (null === $axis) {
                if (0.0 === $wall->wall->rise) {
                    $this->leaning[] = $id;
                }
                continue;
            }
            $off = 0 === $axis ? $b->x - $a->x : $b->y - $a->y;
            $this->straightened += abs($off) > self::STILL_MM ? 1 : 0;
            $this->tied[$axis]->tie($wall->from, $wall->to, 0.0);
        }
    }

    /** @return int|null 0 for a plumb wall, which has one x; 1 for a level one; null for one that leans or bends */
    private function axisOf(JoinedWall $wall): ?int
    {
        if (0.0 !== $wall->wall->rise) {
            return null;
        }
        [$a, $b] = [$this->nodes[$wall->from], $this->nodes[$wall->to]];
        [$dx, $dy] = [abs($b->x - $a->x), abs($b->y - $a->y)];
        $limit = tan(deg2rad(self::MEANT_DEGREES));

        return $dy <= $limit * $dx ? 1 : ($dx <= $limit * $dy ? 0 : null);
    }

    /** An end on another wall's centre line stays on it. */
    private function endOnWalls(): void
    {
        foreach ($this->hosts() as $node => $hosts) {
            foreach ($hosts as $host) {
                $axis = $this->axisOf($host);
                if (null !== $axis) {
                    $this->tied[$axis]->tie($host->from, $node, 0.0);
                }
            }
        }
    }

    /** @return array<string, list<JoinedWall>> walls that a node lies on, other than at their ends */
    private function hosts(): array
    {
        $cells = [];
        $cell = 2000.0;
        foreach ($this->nodes as $name => $p) {
            $cells[(int) floor($p->x / $cell)][(int) floor($p->y / $cell)][] = $name;
        }
        $on = [];
        foreach ($this->walls as $wall) {
            if (0.0 !== $wall->wall->rise) {
                continue;
            }
            [$a, $b] = [$this->nodes[$wall->from], $this->nodes[$wall->to]];
            $length = max(1e-9, $a->distanceTo($b));
            [$ux, $uy] = [($b->x - $a->x) / $length, ($b->y - $a->y) / $length];
            $seen = [];
            for ($t = 0.0; $t <= $length + $cell; $t += $cell / 2.0) {
                $s = min($t, $length);
                [$i, $j] = [(int) floor(($a->x + $s * $ux) / $cell), (int) floor(($a->y + $s * $uy) / $cell)];
                for ($di = -1; $di <= 1; ++$di) {
                    for ($dj = -1; $dj <= 1; ++$dj) {
                        foreach ($cells[$i + $di][$j + $dj] ?? [] as $name) {
                            $seen[$name] = true;
                        }
                    }
                }
            }
            foreach (array_keys($seen) as $name) {
                if ($name === $wall->from || $name === $wall->to) {
                    continue;
                }
                $p = $this->nodes[$name];
                $t = ($p->x - $a->x) * $ux + ($p->y - $a->y) * $uy;
                $off = abs(($p->y - $a->y) * $ux - ($p->x - $a->x) * $uy);
                if ($t > 1.0 && $t < $length - 1.0 && $off <= max(self::ON_LINE_MM, $wall->wall->thickness / 2.0)) {
                    $on[$name][] = $wall;
                }
            }
        }

        return $on;
    }

    /** Figures by rank, the surest first. */
    private function hold(): void
    {
        $open = [];
        foreach ($this->figures as $figure) {
            [$a, $b] = [$this->walls[$figure->a] ?? null, $this->walls[$figure->b] ?? null];
            if (null === $a || null === $b) {
                continue;
            }
            $axis = $this->axisOf($a);
            if (null === $axis || $axis !== $this->axisOf($b)) {
                continue; // between leaning walls: held in solved()
            }
            // From the middle of one wall to that of the other, upward or to the right.
            $apart = $this->face($b, $figure->bSide, $axis) - $this->face($a, $figure->aSide, $axis);
            $way = $apart < 0.0 ? -1.0 : 1.0;
            $between = $way * $figure->mm - $this->shift($b, $figure->bSide, $axis) + $this->shift($a, $figure->aSide, $axis);
            $open[] = [$this->rank($figure, $axis, $figure->mm), abs($way * $figure->mm - $apart), $figure, $a, $b, $axis, $between, $way];
        }
        usort($open, static fn (array $x, array $y): int => [$x[0], $x[1], strcmp($x[2]->id, $y[2]->id)] <=> [$y[0], $y[1], 0]);
        $misfits = [];
        foreach ($open as [, $off, $figure]) {
            $misfits[$figure->id] = $off;
        }
        $tolerances = [];
        foreach ($open as [, , $figure, $a, $b, $axis, $between, $way]) {
            $tolerances[$figure->id] = $figure->toleranceMm;
            $known = $this->tied[$axis]->between($a->from, $b->from);
            if (null === $known) {
                $this->tied[$axis]->tie($a->from, $b->from, $between, $figure->id);
                $this->held[] = $figure->id;
                continue;
            }
            $chain = $this->tied[$axis]->path($a->from, $b->from);
            $by = $way * ($between - $known);
            $allowed = array_sum(array_map(static fn (string $id): float => $tolerances[$id] ?? 0.0, $chain)) + $figure->toleranceMm + self::STILL_MM;
            if (abs($by) <= self::STILL_MM || ([] !== $chain && abs($by) <= $allowed)) {
                $this->held[] = $figure->id;
                continue;
            }
            $this->contradictions[] = new Contradiction($figure->id, $chain, $by, $this->culprit([$figure->id, ...$chain], $misfits, abs($by)));
        }
    }

    /**
     * The figure that, were it wrong by the whole discrepancy, would leave the tracing best explained.
     *
     * @param non-empty-list<string> $figures
     * @param array<string, float> $misfits by how much each differs from the tracing
     */
    private function culprit(array $figures, array $misfits, float $by): string
    {
        $best = $figures[0];
        foreach ($figures as $id) {
            if (abs(($misfits[$id] ?? 0.0) - $by) < abs(($misfits[$best] ?? 0.0) - $by) - self::STILL_MM) {
                $best = $id;
            }
        }

        return $best;
    }

    private function rank(Held $figure, int $axis, float $mm): int
    {
        $values = array_map(static fn (Point $p): float => 0 === $axis ? $p->x : $p->y, array_values($this->nodes));
        if ([] !== $values && $mm >= self::OVERALL * (max($values) - min($values))) {
            return 0;
        }

        return Line::Centre === $figure->aSide && Line::Centre === $figure->bSide ? 1 : 2;
    }

    private function face(JoinedWall $wall, Line $side, int $axis): float
    {
        [$a, $b] = [$this->nodes[$wall->from], $this->nodes[$wall->to]];

        return (0 === $axis ? ($a->x + $b->x) / 2.0 : ($a->y + $b->y) / 2.0) + $this->shift($wall, $side, $axis);
    }

    /** How far a face lies above its wall's middle, or to the right of it. */
    private function shift(JoinedWall $wall, Line $side, int $axis): float
    {
        if (Line::Centre === $side) {
            return 0.0;
        }
        [$a, $b] = [$this->nodes[$wall->from], $this->nodes[$wall->to]];
        // The left of a wall that runs to the right is above; of one that runs up, to the left of it.
        $left = 1 === $axis ? ($b->x > $a->x ? 1.0 : -1.0) : ($b->y > $a->y ? -1.0 : 1.0);

        return (Line::Left === $side ? $left : -$left) * $wall->wall->thickness / 2.0;
    }

    private function solved(): Settled
    {
        $groups = [[], []];
        $weights = [[], []];
        foreach ($this->nodes as $name => $p) {
            $w = 1.0 / max(1e-6, $this->sigmas[$name] ?? 10.0) ** 2;
            foreach ([$p->x, $p->y] as $axis => $value) {
                [$root, $off] = $this->tied[$axis]->root($name);
                $groups[$axis][$root] = ($groups[$axis][$root] ?? 0.0) + $w * ($value - $off);
                $weights[$axis][$root] = ($weights[$axis][$root] ?? 0.0) + $w;
            }
        }
        foreach ([0, 1] as $axis) {
            foreach ($groups[$axis] as $root => $sum) {
                $groups[$axis][$root] = $sum / $weights[$axis][$root];
            }
        }
        $groups = $this->leant($groups, $weights);
        $moves = [];
        $sigmas = [];
        [$farthest, $largest] = [null, 0.0];
        foreach ($this->nodes as $name => $p) {
            $to = $this->place($name, $groups);
            $sigmas[$name] = [1.0 / sqrt($weights[0][$this->tied[0]->root($name)[0]]), 1.0 / sqrt($weights[1][$this->tied[1]->root($name)[0]])];
            $by = $to->distanceTo($p);
            if ($by > self::STILL_MM) {
                $moves[$name] = $to;
            }
            if ($by > $largest && $by > self::STILL_MM) {
                [$farthest, $largest] = [$name, $by];
            }
        }

        return new Settled($moves, $farthest, $largest, $this->contradictions, $this->straightened, $this->held, $sigmas);
    }

    /** @param array{array<string, float>, array<string, float>} $groups */
    private function place(string $name, array $groups): Point
    {
        [$rx, $ox] = $this->tied[0]->root($name);
        [$ry, $oy] = $this->tied[1]->root($name);

        return new Point($groups[0][$rx] + $ox, $groups[1][$ry] + $oy);
    }

    /**
     * Leaning walls: parallel to their like, ends on them, figures between them. Both axes at once, from the places found so far.
     *
     * @param array{array<string, float>, array<string, float>} $groups
     * @param array{array<string, float>, array<string, float>} $weights
     *
     * @return array{array<string, float>, array<string, float>}
     */
    private function leant(array $groups, array $weights): array
    {
        if ([] === $this->leaning) {
            return $groups;
        }
        $mean = $groups;
        $hosts = $this->hosts();
        $families = $this->families();
        foreach ($families as $family) {
            foreach ($family as $id) {
                $wall = $this->walls[$id];
                $off = $this->angle($wall, $groups) - $this->angleOf($family, $groups);
                $this->straightened += \count($family) > 1 && abs($off) > 1e-9 ? 1 : 0;
            }
        }
        $figures = $this->betweenLeaning();
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $conditions = [];
            foreach ($families as $family) {
                $angle = $this->angleOf($family, $groups);
                [$nx, $ny] = [-sin($angle), cos($angle)];
                foreach ($family as $id) {
                    $wall = $this->walls[$id];
                    if (\count($family) > 1) {
                        $conditions[] = [$wall->from, $wall->to, $nx, $ny, 0.0];
                    }
                }
            }
            foreach ($hosts as $name => $on) {
                foreach ($on as $host) {
                    if (\in_array($host->wall->id, $this->leaning, true)) {
                        $angle = $this->angle($host, $groups);
                        $conditions[] = [$host->from, $name, -sin($angle), cos($angle), 0.0];
                    }
                }
            }
            foreach ($figures as [$figure, $a, $b]) {
                $angle = $this->angle($a, $groups);
                [$nx, $ny] = [-sin($angle), cos($angle)];
                [$p, $q] = [$this->place($a->from, $groups), $this->place($b->from, $groups)];
                $side = static fn (JoinedWall $w, Line $line, float $same): float => match ($line) {
                    Line::Centre => 0.0,
                    Line::Left => $same * $w->wall->thickness / 2.0,
                    Line::Right => -$same * $w->wall->thickness / 2.0,
                };
                $same = cos($this->angle($b, $groups, true) - $this->angle($a, $groups, true)) < 0.0 ? -1.0 : 1.0;
                $shift = $side($b, $figure->bSide, $same) - $side($a, $figure->aSide, 1.0);
                $turned = cos($this->angle($a, $groups, true) - $angle) < 0.0 ? -1.0 : 1.0;
                $now = ($q->x - $p->x) * $nx + ($q->y - $p->y) * $ny + $turned * $shift;
                $conditions[] = [$a->from, $b->from, $nx, $ny, ($now < 0.0 ? -1.0 : 1.0) * $figure->mm - $turned * $shift];
            }
            $next = $this->adjusted($mean, $weights, $conditions);
            if (null === $next) {
                return $groups;
            }
            $groups = $next;
        }
        foreach ($figures as [$figure]) {
            $this->held[] = $figure->id;
        }

        return $groups;
    }

    /** @return list<array{Held, JoinedWall, JoinedWall}> */
    private function betweenLeaning(): array
    {
        $found = [];
        foreach ($this->figures as $figure) {
            if (\in_array($figure->a, $this->leaning, true) && \in_array($figure->b, $this->leaning, true)) {
                $found[] = [$figure, $this->walls[$figure->a], $this->walls[$figure->b]];
            }
        }

        return $found;
    }

    /**
     * Leaning walls that run nearly the same way.
     *
     * @return list<non-empty-list<string>>
     */
    private function families(): array
    {
        $families = [];
        foreach ($this->leaning as $id) {
            $angle = $this->wallAngle($id);
            foreach ($families as $k => $family) {
                if (abs(self::turn($angle - $this->wallAngle($family[0]))) <= deg2rad(self::MEANT_DEGREES)) {
                    $families[$k][] = $id;
                    continue 2;
                }
            }
            $families[] = [$id];
        }

        return array_values($families);
    }

    private function wallAngle(string $id): float
    {
        [$a, $b] = [$this->nodes[$this->walls[$id]->from], $this->nodes[$this->walls[$id]->to]];

        return atan2($b->y - $a->y, $b->x - $a->x);
    }

    /** @param array{array<string, float>, array<string, float>} $groups */
    private function angle(JoinedWall $wall, array $groups, bool $withSense = false): float
    {
        [$a, $b] = [$this->place($wall->from, $groups), $this->place($wall->to, $groups)];
        $angle = atan2($b->y - $a->y, $b->x - $a->x);

        return $withSense ? $angle : self::turn($angle);
    }

    /**
     * The direction of most of a family's length.
     *
     * @param non-empty-list<string> $family
     * @param array{array<string, float>, array<string, float>} $groups
     */
    private function angleOf(array $family, array $groups): float
    {
        $first = $this->angle($this->walls[$family[0]], $groups);
        [$sum, $lengths] = [0.0, 0.0];
        foreach ($family as $id) {
            $length = $this->walls[$id]->wall->length() ** 3;
            $sum += $length * self::turn($this->angle($this->walls[$id], $groups) - $first);
            $lengths += $length;
        }

        return $first + $sum / $lengths;
    }

    /** An angle modulo half a turn, from −90° to 90°. */
    private static function turn(float $angle): float
    {
        return $angle - \M_PI * round($angle / \M_PI);
    }

    /**
     * @param array{array<string, float>, array<string, float>} $mean where each group would be without conditions
     * @param array{array<string, float>, array<string, float>} $weights
     * @param list<array{string, string, float, float, float}> $conditions n · (second node − first node) = value
     *
     * @return array{array<string, float>, array<string, float>}|null
     */
    private function adjusted(array $mean, array $weights, array $conditions): ?array
    {
        $rows = [];
        $index = [];
        foreach ($conditions as [$p, $q, $nx, $ny, $value]) {
            $row = [];
            $rest = $value;
            foreach ([[$p, -1.0], [$q, 1.0]] as [$node, $sign]) {
                foreach ([$nx, $ny] as $axis => $n) {
                    [$root, $off] = $this->tied[$axis]->root($node);
                    $i = $index[$axis.$root] ??= \count($index);
                    $row[$i] = ($row[$i] ?? 0.0) + $sign * $n;
                    $rest -= $sign * $n * $off;
                }
            }
            $rows[] = [$row, $rest];
        }
        $n = \count($index);
        $normal = array_fill(0, $n, array_fill(0, $n, 0.0));
        $right = array_fill(0, $n, 0.0);
        foreach ($index as $key => $i) {
            [$axis, $root] = [(int) $key[0], substr($key, 1)];
            $normal[$i][$i] += $weights[$axis][$root];
            $right[$i] += $weights[$axis][$root] * $mean[$axis][$root];
        }
        $w = 1.0 / self::HOLDS_MM ** 2;
        foreach ($rows as [$row, $rest]) {
            foreach ($row as $i => $a) {
                $right[$i] += $w * $a * $rest;
                foreach ($row as $k => $b) {
                    $normal[$i][$k] += $w * $a * $b;
                }
            }
        }
        $solution = Cholesky::of(array_map(array_values(...), $normal))?->solve(array_values($right));
        if (null === $solution) {
            return null;
        }
        [$x, $y] = $mean;
        foreach ($index as $key => $i) {
            if ('0' === $key[0]) {
                $x[substr($key, 1)] = $solution[$i];
            } else {
                $y[substr($key, 1)] = $solution[$i];
            }
        }

        return [$x, $y];
    }
}
