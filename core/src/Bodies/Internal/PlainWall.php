<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Bodies\Mesh;
use Plinth\Core\Plan\Model\Wall;

/**
 * A straight wall between two levels with openings of level sills and heads: most walls. Its faces are whole, with notches where doors
 * are and holes where windows are, so that there are few of them; what is otherwise is left to Upright and Stack.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 *
 * @phpstan-type Edge array{from: int, to: int, start: float, end: float}
 * @phpstan-type Hole array{from: float, to: float, low: float, high: float, isDoor: bool, right: int, left: int}
 */
final class PlainWall
{
    /** Nothing of it is narrower or lower, mm. */
    private const LEAST_MM = 0.01;

    /** @var list<array{float, float, float}> */
    private array $vertices = [];
    /** @var list<non-empty-list<list<int>>> */
    private array $faces = [];

    /** @param Ring $ring */
    private function __construct(
        private readonly Wall $wall,
        private readonly array $ring,
        private readonly float $base,
        private readonly float $top,
    ) {
    }

    /**
     * @param Ring $ring counter-clockwise
     * @param list<Slice> $slices
     *
     * @return Mesh|null null where it is not so plain
     */
    public static function mesh(Wall $wall, array $ring, float $base, float $top, array $slices): ?Mesh
    {
        if (null !== $wall->arc() || $top - $base < self::LEAST_MM) {
            return null;
        }
        $made = new self($wall, $ring, $base, $top);
        $edges = $made->edges();
        $holes = null === $edges ? null : $made->holes($edges, $slices);
        if (null === $edges || null === $holes) {
            return null;
        }
        $made->build($edges, $holes);

        return new Mesh($made->vertices, $made->faces);
    }

    /** @return list<Edge>|null with where each begins and ends along the wall; null where one is too short */
    private function edges(): ?array
    {
        $n = \count($this->ring);
        $along = [];
        foreach ($this->ring as [$x, $y]) {
            $along[] = $this->wall->along($x, $y);
        }
        $edges = [];
        foreach ($this->ring as $i => [$x, $y]) {
            $k = $i + 1 < $n ? $i + 1 : 0;
            if (abs($this->ring[$k][0] - $x) + abs($this->ring[$k][1] - $y) < self::LEAST_MM) {
                return null;
            }
            $edges[] = ['from' => $i, 'to' => $k, 'start' => $along[$i], 'end' => $along[$k]];
        }

        return $edges;
    }

    /**
     * @param list<Edge> $edges
     * @param list<Slice> $slices
     *
     * @return list<Hole>|null from the wall's start; null where one does not go through from one edge to one other, or reaches the top
     */
    private function holes(array $edges, array $slices): ?array
    {
        $holes = [];
        foreach ($slices as $slice) {
            if (1 !== \count($slice->spans) || !$slice->spans[0][0]->isLevel() || !$slice->spans[0][1]->isLevel()) {
                return null;
            }
            [$low, $high] = [$slice->spans[0][0]->z, $slice->spans[0][1]->z];
            $isDoor = $low <= $this->base;
            // What it leaves over, under and between has to be something.
            $left = [$this->top - $high, $high - max($low, $this->base), $isDoor ? \INF : $low - $this->base];
            if (min($left) < self::LEAST_MM) {
                return null;
            }
            $through = [];
            foreach ($edges as $e => $edge) {
                [$least, $most] = [min($edge['start'], $edge['end']), max($edge['start'], $edge['end'])];
                if ($most < $slice->from - self::LEAST_MM || $least > $slice->to + self::LEAST_MM) {
                    continue;
                }
                if ($least > $slice->from - self::LEAST_MM || $most < $slice->to + self::LEAST_MM) {
                    return null;
                }
                $through[$edge['end'] > $edge['start'] ? 'right' : 'left'][] = $e;
            }
            if (1 !== \count($through['right'] ?? []) || 1 !== \count($through['left'] ?? [])) {
                return null;
            }
            $holes[] = [
                'from' => $slice->from, 'to' => $slice->to, 'low' => $isDoor ? $this->base : $low, 'high' => $high, 'isDoor' => $isDoor,
                'right' => $through['right'][0], 'left' => $through['left'][0],
            ];
        }
        usort($holes, static fn (array $a, array $b): int => $a['from'] <=> $b['from']);
        foreach ($holes as $i => $hole) {
            if ($i > 0 && $hole['from'] - $holes[$i - 1]['to'] < self::LEAST_MM) {
                return null;
            }
        }

        return $holes;
    }

    /**
     * @param list<Edge> $edges
     * @param list<Hole> $holes
     */
    private function build(array $edges, array $holes): void
    {
        $n = \count($this->ring);
        foreach ($this->ring as [$x, $y]) {
            $this->vertices[] = [$x, $y, $this->base];
        }
        foreach ($this->ring as [$x, $y]) {
            $this->vertices[] = [$x, $y, $this->top];
        }
        $notches = array_fill(0, $n, []);
        $inner = array_fill(0, $n, []);
        $doors = [];
        foreach ($holes as $hole) {
            // On either edge: low and high where it begins, low and high where it ends.
            [$right, $left] = [$this->corners($edges[$hole['right']], $hole), $this->corners($edges[$hole['left']], $hole)];
            [$a, $b, $c, $d] = $right;
            [$e, $f, $g, $h] = $left;
            array_push($this->faces, [[$a, $e, $f, $b]], [[$g, $c, $d, $h]], [[$b, $f, $h, $d]]);
            if ($hole['isDoor']) {
                $notches[$hole['right']][] = [$a, $b, $d, $c];
                array_unshift($notches[$hole['left']], [$g, $h, $f, $e]);
                $doors[] = ['right' => $hole['right'], 'left' => $hole['left'], 'corners' => [$a, $c, $e, $g]];
            } else {
                $this->faces[] = [[$a, $c, $g, $e]];
                $inner[$hole['right']][] = [$a, $b, $d, $c];
                $inner[$hole['left']][] = [$g, $h, $f, $e];
            }
        }
        $this->faces[] = [range($n, 2 * $n - 1)];
        foreach ($edges as $e => $edge) {
            $outer = [$edge['from'], ...array_merge(...$notches[$e]), $edge['to'], $edge['to'] + $n, $edge['from'] + $n];
            $this->faces[] = [$outer, ...$inner[$e]];
        }
        $this->bottom($n, $doors);
    }

    /**
     * @param Edge $edge
     * @param Hole $hole
     *
     * @return list<int> vertices: low and high where it begins along the wall, low and high where it ends
     */
    private function corners(array $edge, array $hole): array
    {
        $corners = [];
        [[$ax, $ay], [$bx, $by]] = [$this->ring[$edge['from']], $this->ring[$edge['to']]];
        foreach ([$hole['from'], $hole['to']] as $along) {
            $part = ($along - $edge['start']) / ($edge['end'] - $edge['start']);
            foreach ([$hole['low'], $hole['high']] as $z) {
                $corners[] = \count($this->vertices);
                $this->vertices[] = [$ax + $part * ($bx - $ax), $ay + $part * ($by - $ay), $z];
            }
        }

        return $corners;
    }

    /**
     * What it stands on: its ring, in pieces between doors.
     *
     * @param list<array{right: int, left: int, corners: array{int, int, int, int}}> $doors from the wall's start
     */
    private function bottom(int $n, array $doors): void
    {
        // Round the ring, with the corners of doors on its edges.
        $on = array_fill(0, $n, []);
        foreach ($doors as ['right' => $right, 'left' => $left, 'corners' => [$a, $c, $e, $g]]) {
            array_push($on[$right], $a, $c);
            array_unshift($on[$left], $g, $e);
        }
        $round = [];
        for ($i = 0; $i < $n; ++$i) {
            array_push($round, $i, ...$on[$i]);
        }
        if ([] === $doors) {
            $this->faces[] = [array_reverse($round)];

            return;
        }
        $at = array_flip($round);
        $walk = static function (int $from, int $to) use ($round, $at): array {
            $way = [];
            for ($i = $at[$from];; $i = ($i + 1) % \count($round)) {
                $way[] = $round[$i];
                if ($round[$i] === $to) {
                    return $way;
                }
            }
        };
        $last = \count($doors) - 1;
        $this->faces[] = [array_reverse($walk($doors[0]['corners'][2], $doors[0]['corners'][0]))];
        foreach ($doors as $i => ['corners' => [, $c, , $g]]) {
            $piece = $i === $last
                ? $walk($c, $g)
                : [...$walk($c, $doors[$i + 1]['corners'][0]), ...$walk($doors[$i + 1]['corners'][2], $g)];
            $this->faces[] = [array_reverse($piece)];
        }
    }
}
