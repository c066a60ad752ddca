<?php

declare(strict_types=1);

namespace Plinth\Core\Roof\Internal;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Numerics\DisjointSets;
use Plinth\Core\Roof\Exception\UnbuildableRoof;
use Plinth\Core\Roof\RoofEdge;

/**
 * An outline that moves inward while height passes, each edge as fast as its slope is flat: what its corners leave behind are the lines
 * of the roof (weighted straight skeleton: Aichholzer, Aurenhammer, Alberts and Gärtner 1995; Eppstein and Erickson 1999).
 *
 * No queue of events: each step looks for the earliest of three (an edge shrinks to nothing; a reflex corner meets another edge; an eaves
 * height is reached), and draws the front anew there as a network of nodes. Events at one time and place need no special case.
 *
 * Metres, relative to a corner of the outline.
 *
 * @internal
 *
 * @phpstan-type Arc array{string|null, string, int, int}
 */
final class Wavefront
{
    /** What turns by less runs the same way; what turns back by less runs the opposite way. */
    private const SAME_WAY = 1e-7;
    private const OPPOSITE_WAY = 1e-11;
    /** Heights of events that are one differ by less, m. */
    private const AT_ONCE = 1e-13;
    /** Speeds below are none. */
    private const STILL = 1e-11;
    /** Eaves that begin so near to an event begin before it, m. */
    private const EAVES = 1e-10;

    /** @var list<Front> */
    public array $fronts = [];

    /** @var list<array{float, float, float}> */
    public array $nodes = [];

    /** @var list<Arc> facet to its left (none for the outline), facet to its right, and the two nodes between which it runs */
    public array $arcs = [];

    /** @var array<int, bool> by front */
    private array $moves = [];

    /** @var list<Corner> */
    private array $corners = [];

    /** @var list<list<list<int>>> parts of the front: rings of corners, each part an outer one with its holes */
    private array $parts = [];

    private float $height;

    private readonly DisjointSets $same;

    /**
     * @param list<list<array{float, float}>> $rings the outer one counter-clockwise, holes clockwise
     * @param list<list<RoofEdge>> $edges of each ring, the first from its first corner to its second; eaves in m
     */
    private function __construct(array $rings, array $edges, private readonly float $near)
    {
        $this->same = new DisjointSets();
        $eaves = array_filter(
            array_map(static fn (RoofEdge $e): float => $e->eavesMm / 1000.0, array_merge(...$edges)),
            is_finite(...),
        );
        if ([] === $eaves) {
            throw UnbuildableRoof::open();
        }
        $this->height = min($eaves);
        $part = [];
        foreach ($rings as $r => $ring) {
            $part[] = $this->ring($ring, $edges[$r], $r);
        }
        $this->parts = [$part];
    }

    /**
     * @param list<list<array{float, float}>> $rings
     * @param list<list<RoofEdge>> $edges
     * @param float $near m within which nodes are one
     *
     * @throws Lost where the front cannot be drawn anew
     */
    public static function over(array $rings, array $edges, float $near): self
    {
        $front = new self($rings, $edges, $near);
        $most = 40 * \count($front->fronts) + 50;
        for ($n = 0; [] !== $front->parts; ++$n) {
            if ($n > $most) {
                throw Lost::endless();
            }
            $front->step();
        }

        return $front;
    }

    /** The node that stands for all that lie where this one does. */
    public function one(int $node): int
    {
        return $this->same->root($node);
    }

    /**
     * @param list<array{float, float}> $ring
     * @param list<RoofEdge> $edges
     *
     * @return list<int> its corners
     */
    private function ring(array $ring, array $edges, int $r): array
    {
        $n = \count($ring);
        [$fronts, $nodes, $corners] = [[], [], []];
        foreach ($ring as $i => [$x, $y]) {
            [$x2, $y2] = $ring[($i + 1) % $n];
            $length = hypot($x2 - $x, $y2 - $y);
            $edge = $edges[$i];
            $slowness = $edge->isGable() ? 0.0 : 1.0 / $edge->steepness;
            $fronts[] = $this->front(Front::through(
                ($x2 - $x) / $length,
                ($y2 - $y) / $length,
                [$x, $y],
                $slowness,
                $edge->eavesMm / 1000.0,
                [$r, $i],
            ));
            $nodes[] = $this->node($x, $y);
        }
        for ($i = 0; $i < $n; ++$i) {
            array_push($corners, ...$this->join($fronts[($i + $n - 1) % $n], $fronts[$i], $nodes[$i]));
            $this->arcs[] = [null, $this->label($fronts[$i]), $nodes[($i + 1) % $n], $nodes[$i]];
        }

        return $corners;
    }

    private function front(Front $front): int
    {
        $this->fronts[] = $front;
        $this->moves[] = $front->start <= $this->height + 1e-12;

        return \count($this->fronts) - 1;
    }

    private function node(float $x, float $y): int
    {
        $this->nodes[] = [$x, $y, $this->height];

        return \count($this->nodes) - 1;
    }

    private function label(int $front): string
    {
        return $front.($this->moves[$front] ? ':1' : ':0');
    }

    private function slowness(int $front): float
    {
        return $this->moves[$front] ? $this->fronts[$front]->slowness : 0.0;
    }

    private function level(int $front, float $height): float
    {
        $f = $this->fronts[$front];

        return $this->moves[$front] ? $f->level + $f->slowness * ($height - $f->start) : $f->level;
    }

    /**
     * The corners between two fronts that meet at a node: two with a step between them, where both run in one line at different speeds.
     *
     * @return list<int>
     */
    private function join(int $in, int $out, int $node): array
    {
        [$a, $b] = [$this->fronts[$in], $this->fronts[$out]];
        $isOpposite = $a->dot($b) < 0.0;
        if (abs($a->cross($b)) <= ($isOpposite ? self::OPPOSITE_WAY : self::SAME_WAY)) {
            if ($isOpposite) {
                throw Lost::spike();
            }
            $faster = $this->slowness($in) - $this->slowness($out);
            if (abs($faster) > 1e-9) {
                [$x, $y] = $this->nodes[$node];
                $sign = $faster > 0.0 ? -1.0 : 1.0;
                $step = $this->front(Front::through($a->nx * $sign, $a->ny * $sign, [$x, $y], 0.0, \INF, null));

                return [$this->corner($in, $step, $node), $this->corner($step, $out, $node)];
            }
        }

        return [$this->corner($in, $out, $node)];
    }

    private function corner(int $in, int $out, int $node): int
    {
        [$a, $b] = [$this->fronts[$in], $this->fronts[$out]];
        [$sa, $sb] = [$this->slowness($in), $this->slowness($out)];
        $det = $a->cross($b);
        if (abs($det) <= ($a->dot($b) < 0.0 ? self::OPPOSITE_WAY : self::SAME_WAY)) {
            [$det, $vx, $vy] = [0.0, $a->nx * $sa, $a->ny * $sa];
        } else {
            [$vx, $vy] = [($sa * $b->ny - $sb * $a->ny) / $det, ($a->nx * $sb - $b->nx * $sa) / $det];
        }
        [$x, $y] = $this->nodes[$node];
        $this->corners[] = new Corner($in, $out, $node, $x, $y, $this->height, $vx, $vy, $det, $this->label($in), $this->label($out));

        return \count($this->corners) - 1;
    }

    /** @return array{float, float} */
    private function place(int $corner, float $height): array
    {
        $c = $this->corners[$corner];
        if (0.0 === $c->det) {
            return [$c->x + $c->vx * ($height - $c->born), $c->y + $c->vy * ($height - $c->born)];
        }
        [$a, $b] = [$this->fronts[$c->in], $this->fronts[$c->out]];
        [$la, $lb] = [$this->level($c->in, $height), $this->level($c->out, $height)];

        return [($la * $b->ny - $lb * $a->ny) / $c->det, ($a->nx * $lb - $b->nx * $la) / $c->det];
    }

    /** On to the earliest event. */
    private function step(): void
    {
        $soonest = \INF;
        /** @var list<Event> $events */
        $events = [];
        foreach ($this->parts as $p => $rings) {
            foreach ($this->eventsOf($rings) as $event) {
                if ($event->after >= $soonest + self::AT_ONCE) {
                    continue;
                }
                if ($event->after < $soonest - self::AT_ONCE) {
                    $events = [];
                }
                $soonest = min($soonest, $event->after);
                $events[] = $event->ofPart($p);
            }
        }
        $eaves = \INF;
        foreach ($this->fronts as $f => $front) {
            $eaves = $this->moves[$f] ? $eaves : min($eaves, $front->start);
        }
        if ($eaves <= $this->height + $soonest + self::EAVES && is_finite($eaves)) {
            $this->height = $eaves;
            $this->setMoving();

            return;
        }
        if (!is_finite($soonest)) {
            throw UnbuildableRoof::open();
        }
        $this->height += $soonest;
        $by = [];
        foreach ($events as $event) {
            if ($event->after <= $soonest + self::AT_ONCE) {
                $by[$event->part][] = $event;
            }
        }
        $parts = array_values(array_diff_key($this->parts, $by));
        foreach ($by as $p => $at) {
            array_push($parts, ...$this->drawnAnew($this->parts[$p], $at));
        }
        $this->parts = $parts;
    }

    /**
     * @param list<list<int>> $rings
     *
     * @return iterable<Event>
     */
    private function eventsOf(array $rings): iterable
    {
        $place = [];
        foreach ($rings as $ring) {
            foreach ($ring as $v) {
                $place[$v] = $this->place($v, $this->height);
            }
        }
        $pieces = self::pieces($rings);
        foreach ($pieces as [$u, $w]) {
            [$from, $to, $f] = [$this->corners[$u], $this->corners[$w], $this->fronts[$this->corners[$u]->out]];
            $length = ($place[$w][0] - $place[$u][0]) * $f->dx + ($place[$w][1] - $place[$u][1]) * $f->dy;
            $grows = ($to->vx - $from->vx) * $f->dx + ($to->vy - $from->vy) * $f->dy;
            if ($grows < -self::STILL) {
                yield Event::shrunk(max(0.0, -$length / $grows), $u, $w);
            }
        }
        foreach ($place as $v => [$x, $y]) {
            $reflex = $this->corners[$v];
            if (!$reflex->isReflex()) {
                continue;
            }
            foreach ($pieces as [$u, $w]) {
                if ($u === $v || $w === $v) {
                    continue;
                }
                $event = $this->meets($v, [$x, $y], $u, $w, $place);
                if (null !== $event) {
                    yield $event;
                }
            }
        }
    }

    /**
     * When a reflex corner comes to the piece of front between two others.
     *
     * @param array{float, float} $at
     * @param array<int, array{float, float}> $place
     */
    private function meets(int $v, array $at, int $u, int $w, array $place): ?Event
    {
        [$reflex, $from, $to] = [$this->corners[$v], $this->corners[$u], $this->corners[$w]];
        $f = $this->fronts[$from->out];
        $nears = $f->nx * $reflex->vx + $f->ny * $reflex->vy - $this->slowness($from->out);
        if ($nears > -self::STILL) {
            return null;
        }
        $off = $f->nx * $at[0] + $f->ny * $at[1] - $this->level($from->out, $this->height);
        if ($off < -$this->near) {
            return null;
        }
        // Born together they touch already.
        if ($off < $this->near && ($from->node === $reflex->node || $to->node === $reflex->node)) {
            return null;
        }
        $after = $off <= 0.0 ? 0.0 : -$off / $nears;
        [$x, $y] = [$at[0] + $reflex->vx * $after, $at[1] + $reflex->vy * $after];
        $before = ($x - $place[$u][0] - $from->vx * $after) * $f->dx + ($y - $place[$u][1] - $from->vy * $after) * $f->dy;
        $behind = ($place[$w][0] + $to->vx * $after - $x) * $f->dx + ($place[$w][1] + $to->vy * $after - $y) * $f->dy;
        if ($before < -$this->near || $behind < -$this->near) {
            return null;
        }

        return match (true) {
            $before < $this->near => Event::shrunk($after, $u, $v),
            $behind < $this->near => Event::shrunk($after, $w, $v),
            default => Event::met($after, $v, $u),
        };
    }

    /** Fronts whose eaves have come begin to move; their facets begin there. */
    private function setMoving(): void
    {
        $begin = [];
        foreach ($this->fronts as $f => $front) {
            if (!$this->moves[$f] && $front->start <= $this->height + self::EAVES) {
                $begin[$f] = true;
            }
        }
        $nodes = [];
        foreach ($this->parts as $rings) {
            foreach ($rings as $ring) {
                foreach ($ring as $v) {
                    $c = $this->corners[$v];
                    if (isset($begin[$c->in]) || isset($begin[$c->out])) {
                        $nodes[$v] = $this->node(...$this->place($v, $this->height));
                        $this->end($v, $nodes[$v]);
                    }
                }
                foreach (self::pieces([$ring]) as [$u, $w]) {
                    $f = $this->corners[$u]->out;
                    if (isset($begin[$f])) {
                        $this->arcs[] = [$f.':0', $f.':1', $nodes[$w], $nodes[$u]];
                    }
                }
            }
        }
        foreach (array_keys($begin) as $f) {
            $this->moves[$f] = true;
        }
        foreach ($this->parts as $p => $rings) {
            foreach ($rings as $r => $ring) {
                $anew = [];
                foreach ($ring as $v) {
                    $c = $this->corners[$v];
                    array_push($anew, ...(isset($nodes[$v]) ? $this->join($c->in, $c->out, $nodes[$v]) : [$v]));
                }
                $this->parts[$p][$r] = $anew;
            }
        }
    }

    /** A corner's life ends at a node: it leaves a line of the roof behind, or none where it was born there. */
    private function end(int $corner, int $node): void
    {
        $c = $this->corners[$corner];
        [$a, $b] = [$this->nodes[$c->node], $this->nodes[$node]];
        if (max(abs($a[0] - $b[0]), abs($a[1] - $b[1]), abs($a[2] - $b[2])) < 2.0 * $this->near) {
            $this->same->unite($c->node, $node);
        } else {
            $this->arcs[] = [$c->labelIn, $c->labelOut, $c->node, $node];
        }
    }

    /**
     * A part of the front as it goes on after events: nodes that are one, pieces cut where a node lies on them, those that lie on each
     * other gone (a level ridge), and what is left followed round again.
     *
     * @param list<list<int>> $rings
     * @param list<Event> $events
     *
     * @return list<list<list<int>>> the parts that it has become
     */
    private function drawnAnew(array $rings, array $events): array
    {
        $place = [];
        foreach ($rings as $ring) {
            foreach ($ring as $v) {
                $place[$v] = $this->place($v, $this->height);
            }
        }
        [$cluster, $members, $at] = $this->clusters($place, $events);
        $touched = [];
        foreach ($members as $k => $of) {
            if (\count($of) > 1) {
                $touched[$k] = true;
            }
        }
        $cut = [];
        foreach ($events as $event) {
            if ($event->cuts) {
                $cut[$event->other][$cluster($event->corner)] = true;
            }
        }
        [$segments, $touched] = $this->segments($rings, $cluster, $at, $cut, $touched);

        $node = [];
        $nodeAt = function (int $k) use (&$node, $at): int {
            return $node[$k] ??= $this->node(...$at[$k]);
        };
        [$waiting, $gone] = [[], []];
        foreach ($segments as $s => [$a, $b, $front]) {
            $back = isset($waiting["$b $a"]) ? array_pop($waiting["$b $a"]) : null;
            if (null === $back) {
                $waiting["$a $b"][] = $s;
                continue;
            }
            $gone[$back] = $gone[$s] = true;
            $touched[$a] = $touched[$b] = true;
            $this->arcs[] = [$this->label($segments[$back][2]), $this->label($front), $nodeAt($a), $nodeAt($b)];
        }
        foreach ($members as $k => $of) {
            foreach (isset($touched[$k]) ? $of : [] as $v) {
                $this->end($v, $nodeAt($k));
            }
        }

        return $this->grouped($this->followed(array_diff_key($segments, $gone), $members, $touched, $nodeAt), $place);
    }

    /**
     * @param array<int, array{float, float}> $place
     * @param list<Event> $events
     *
     * @return array{callable(int): int, array<int, list<int>>, array<int, array{float, float}>} the cluster of a corner; members and place
     *                                                                                           of each
     */
    private function clusters(array $place, array $events): array
    {
        $sets = new DisjointSets();
        foreach ($events as $event) {
            if (!$event->cuts) {
                $sets->unite($event->corner, $event->other);
            }
        }
        $order = array_keys($place);
        usort($order, static fn (int $p, int $q): int => $place[$p][0] <=> $place[$q][0]);
        foreach ($order as $i => $p) {
            for ($j = $i + 1; isset($order[$j]) && $place[$order[$j]][0] - $place[$p][0] < $this->near; ++$j) {
                if (abs($place[$order[$j]][1] - $place[$p][1]) < $this->near) {
                    $sets->unite($p, $order[$j]);
                }
            }
        }
        [$members, $at] = [[], []];
        foreach (array_keys($place) as $v) {
            $members[$sets->root($v)][] = $v;
        }
        foreach ($members as $k => $of) {
            // Where the fronts cross most squarely the place is known best.
            $best = $of[0];
            foreach ($of as $v) {
                $best = abs($this->corners[$v]->det) > abs($this->corners[$best]->det) ? $v : $best;
            }
            $at[$k] = $place[$best];
        }

        return [$sets->root(...), $members, $at];
    }

    /**
     * Pieces of front between clusters, cut at every cluster that lies on them.
     *
     * @param list<list<int>> $rings
     * @param callable(int): int $cluster
     * @param array<int, array{float, float}> $at
     * @param array<int, array<int, true>> $cut clusters on the piece after a corner that an event has said
     * @param array<int, true> $touched
     *
     * @return array{list<array{int, int, int}>, array<int, true>} clusters and front of each; clusters at which something happens
     */
    private function segments(array $rings, callable $cluster, array $at, array $cut, array $touched): array
    {
        $segments = [];
        foreach (self::pieces($rings) as [$u, $w]) {
            [$a, $b, $front] = [$cluster($u), $cluster($w), $this->corners[$u]->out];
            if ($a === $b) {
                $touched[$a] = true;
                continue;
            }
            [$dx, $dy] = [$at[$b][0] - $at[$a][0], $at[$b][1] - $at[$a][1]];
            $length = hypot($dx, $dy);
            $on = [];
            foreach ($at as $k => [$x, $y]) {
                if ($k === $a || $k === $b) {
                    continue;
                }
                $along = (($x - $at[$a][0]) * $dx + ($y - $at[$a][1]) * $dy) / $length;
                $off = abs(($x - $at[$a][0]) * $dy - ($y - $at[$a][1]) * $dx) / $length;
                if (isset($cut[$u][$k]) || ($along > 0.0 && $along < $length && $off < $this->near)) {
                    $on[$k] = $along;
                }
            }
            asort($on);
            foreach (array_keys($on) as $k) {
                $touched[$k] = true;
                $segments[] = [$a, $k, $front];
                $a = $k;
            }
            $segments[] = [$a, $b, $front];
        }

        return [$segments, $touched];
    }

    /**
     * Segments followed round, at each cluster from the one that comes in to the one that goes out next to it.
     *
     * @param array<int, array{int, int, int}> $segments
     * @param array<int, list<int>> $members
     * @param array<int, true> $touched
     * @param callable(int): int $nodeAt
     *
     * @return list<list<int>> rings of corners
     */
    private function followed(array $segments, array $members, array $touched, callable $nodeAt): array
    {
        [$out, $in] = [[], []];
        foreach ($segments as $s => [$a, $b]) {
            $out[$a][] = $s;
            $in[$b][] = $s;
        }
        $next = [];
        foreach ($out as $k => $leaving) {
            $coming = $in[$k] ?? [];
            if (\count($coming) !== \count($leaving)) {
                throw Lost::unbalanced();
            }
            if (!isset($touched[$k])) {
                $next[$coming[0]] = [$leaving[0], [$members[$k][0]]];
                continue;
            }
            foreach ($this->turns($coming, $leaving, $segments) as [$from, $to]) {
                [$f, $g] = [$segments[$from][2], $segments[$to][2]];
                $next[$from] = [$to, $f === $g ? [] : $this->join($f, $g, $nodeAt($k))];
            }
        }
        [$rings, $done] = [[], []];
        foreach (array_keys($segments) as $start) {
            if (isset($done[$start])) {
                continue;
            }
            $ring = [];
            for ($s = $start; !isset($done[$s]); $s = $next[$s][0]) {
                $done[$s] = true;
                if (!isset($next[$s])) {
                    throw Lost::unbalanced();
                }
                array_push($ring, ...$next[$s][1]);
            }
            if (\count($ring) < 2) {
                throw Lost::unbalanced();
            }
            $rings[] = $ring;
        }

        return $rings;
    }

    /**
     * @param list<int> $coming
     * @param list<int> $leaving
     * @param array<int, array{int, int, int}> $segments
     *
     * @return list<array{int, int}> each that comes in with the one that it goes on to
     */
    private function turns(array $coming, array $leaving, array $segments): array
    {
        if (1 === \count($leaving)) {
            return [[$coming[0], $leaving[0]]];
        }
        $rays = [];
        foreach ([[$leaving, 1.0], [$coming, -1.0]] as [$of, $sign]) {
            foreach ($of as $s) {
                $f = $this->fronts[$segments[$s][2]];
                $rays[] = [atan2($sign * $f->dy, $sign * $f->dx), 1.0 === $sign, $s];
            }
        }
        usort($rays, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $turns = [];
        foreach ($rays as $i => [, $isOut, $s]) {
            [, $isNextOut, $t] = $rays[($i + 1) % \count($rays)];
            if ($isOut === $isNextOut) {
                throw Lost::unbalanced();
            }
            if ($isOut) {
                $turns[] = [$t, $s];
            }
        }

        return $turns;
    }

    /**
     * Each hole to the outer ring that it lies in.
     *
     * @param list<list<int>> $rings
     * @param array<int, array{float, float}> $place of corners that were there before
     *
     * @return list<list<list<int>>>
     */
    private function grouped(array $rings, array $place): array
    {
        if (\count($rings) <= 1) {
            return [] === $rings ? [] : [$rings];
        }
        [$outer, $holes] = [[], []];
        foreach ($rings as $ring) {
            $points = array_map(fn (int $v): array => $place[$v] ?? [$this->corners[$v]->x, $this->corners[$v]->y], $ring);
            $area = Polygon::area($points);
            if ($area > 0.0) {
                $outer[] = [$ring, $points, $area];
            } else {
                $holes[] = [$ring, $points];
            }
        }
        usort($outer, static fn (array $a, array $b): int => $a[2] <=> $b[2]);
        $parts = array_map(static fn (array $o): array => [$o[0]], $outer);
        foreach ($holes as [$ring, $points]) {
            foreach ($outer as $i => [, $around]) {
                $inside = array_filter($points, static fn (array $p): bool => Polygon::contains($around, $p[0], $p[1]));
                if (2 * \count($inside) > \count($points)) {
                    $parts[$i][] = $ring;
                    continue 2;
                }
            }
            throw Lost::unbalanced();
        }

        return $parts;
    }

    /**
     * @param list<list<int>> $rings
     *
     * @return list<array{int, int}> from each corner to the next
     */
    private static function pieces(array $rings): array
    {
        $pieces = [];
        foreach ($rings as $ring) {
            foreach ($ring as $k => $v) {
                $pieces[] = [$v, $ring[($k + 1) % \count($ring)]];
            }
        }

        return $pieces;
    }
}
