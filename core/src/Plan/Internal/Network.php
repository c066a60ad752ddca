<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Internal;

use Plinth\Core\Geometry\Segment;
use Plinth\Core\Plan\Wall;

/**
 * The planar network of centre lines: ends within a millimetre are one node, an end inside another wall's body lies on
 * that wall's centre line (T), and lines that cross share a node (X).
 *
 * @internal
 *
 * @phpstan-type Edge array{from: int, to: int, half: float, wall: string}
 */
final class Network
{
    /** A T end is drawn on along its own direction to the centre line, unless it runs nearly along the host. */
    private const LEAST_T_SINE = 0.17;

    /** @var list<array{float, float}> */
    public array $nodes = [];
    /** @var list<Edge> between neighbouring nodes; no two edges join the same nodes */
    public array $edges = [];
    /** @var list<array{string, string, array{float, float}}> pairs of walls that lie on each other, and where */
    public array $overlaps = [];

    /** @var array<string, list<int>> node indices by cell of the joining tolerance */
    private array $nodeCells = [];

    /** @param list<Wall> $walls */
    private function __construct(private readonly array $walls)
    {
    }

    /** @param list<Wall> $walls each longer than the joining tolerance */
    public static function of(array $walls): self
    {
        $network = new self($walls);
        $network->build();

        return $network;
    }

    private function build(): void
    {
        $ends = [];
        $degree = [];
        foreach ($this->walls as $wall) {
            $pair = [$this->nodeAt($wall->from->x, $wall->from->y), $this->nodeAt($wall->to->x, $wall->to->y)];
            $ends[] = $pair;
            foreach ($pair as $node) {
                $degree[$node] = ($degree[$node] ?? 0) + 1;
            }
        }
        $index = new GridIndex($this->cellSize());
        foreach ($this->walls as $w => $wall) {
            $r = $wall->thickness / 2.0 + Wall::JOIN_MM;
            $index->add($w, min($wall->from->x, $wall->to->x) - $r, min($wall->from->y, $wall->to->y) - $r, max($wall->from->x, $wall->to->x) + $r, max($wall->from->y, $wall->to->y) + $r);
        }
        $this->drawFreeEndsOn($ends, $degree, $index);
        $cuts = $this->cuts($ends, $index);
        $this->cutIntoEdges($ends, $cuts);
    }

    /**
     * A single end that stops inside another wall's body goes on to its centre line.
     *
     * @param list<array{int, int}> $ends
     * @param array<int, int> $degree
     */
    private function drawFreeEndsOn(array &$ends, array $degree, GridIndex $index): void
    {
        foreach ($ends as $w => $pair) {
            foreach ([0, 1] as $side) {
                $node = $pair[$side];
                if (1 !== $degree[$node]) {
                    continue;
                }
                [$x, $y] = $this->nodes[$node];
                foreach ($index->near($x, $y, $x, $y) as $host) {
                    if ($host === $w || \in_array($node, $ends[$host], true)) {
                        continue;
                    }
                    $a = $this->nodes[$ends[$host][0]];
                    $b = $this->nodes[$ends[$host][1]];
                    [$nx, $ny] = Segment::nearest([$x, $y], $a, $b);
                    $away = hypot($nx - $x, $ny - $y);
                    if ($away <= Wall::JOIN_MM / 1000.0 || $away > $this->walls[$host]->thickness / 2.0 + Wall::JOIN_MM) {
                        continue;
                    }
                    $ends[$w][$side] = $this->landing($this->nodes[$ends[$w][1 - $side]], [$x, $y], $a, $b, [$nx, $ny]);
                    break;
                }
            }
        }
    }

    /**
     * @param array{float, float} $start the wall's other end
     * @param array{float, float} $end its free end
     * @param array{float, float} $a
     * @param array{float, float} $b
     * @param array{float, float} $nearest
     */
    private function landing(array $start, array $end, array $a, array $b, array $nearest): int
    {
        $ux = $end[0] - $start[0];
        $uy = $end[1] - $start[1];
        $vx = $b[0] - $a[0];
        $vy = $b[1] - $a[1];
        $cross = $ux * $vy - $uy * $vx;
        if (abs($cross) > self::LEAST_T_SINE * hypot($ux, $uy) * hypot($vx, $vy)) {
            $t = (($a[0] - $start[0]) * $uy - ($a[1] - $start[1]) * $ux) / $cross;
            $t = max(0.0, min(1.0, $t));

            return $this->nodeAt($a[0] + $t * $vx, $a[1] + $t * $vy);
        }

        return $this->nodeAt($nearest[0], $nearest[1]);
    }

    /**
     * Nodes that lie on each wall between its ends.
     *
     * @param list<array{int, int}> $ends
     *
     * @return array<int, array<int, float>> wall → node → distance from the wall's start
     */
    private function cuts(array $ends, GridIndex $index): array
    {
        $cuts = [];
        foreach ($ends as $w => [$from, $to]) {
            $a = $this->nodes[$from];
            $b = $this->nodes[$to];
            $length = hypot($b[0] - $a[0], $b[1] - $a[1]);
            foreach ($index->near(min($a[0], $b[0]), min($a[1], $b[1]), max($a[0], $b[0]), max($a[1], $b[1])) as $other) {
                if ($other === $w) {
                    continue;
                }
                // T: the other wall's ends on this line.
                foreach ($ends[$other] as $node) {
                    if ($node === $from || $node === $to || isset($cuts[$w][$node])) {
                        continue;
                    }
                    [$x, $y, $t] = Segment::nearest($this->nodes[$node], $a, $b);
                    if (hypot($x - $this->nodes[$node][0], $y - $this->nodes[$node][1]) <= Wall::JOIN_MM) {
                        $cuts[$w][$node] = $t * $length;
                    }
                }
                // X: a crossing away from all four ends; seen from both walls, so made once and found again.
                if ($other > $w && [] === array_intersect($ends[$w], $ends[$other])) {
                    $c = $this->nodes[$ends[$other][0]];
                    $d = $this->nodes[$ends[$other][1]];
                    $crossing = Segment::crossing($a, $b, $c, $d);
                    if (null !== $crossing) {
                        $node = $this->nodeAt($a[0] + $crossing[0] * ($b[0] - $a[0]), $a[1] + $crossing[0] * ($b[1] - $a[1]));
                        if ($node !== $from && $node !== $to) {
                            $cuts[$w][$node] = $crossing[0] * $length;
                        }
                        if (!\in_array($node, $ends[$other], true)) {
                            $cuts[$other][$node] = $crossing[1] * hypot($d[0] - $c[0], $d[1] - $c[1]);
                        }
                    }
                }
            }
        }

        return $cuts;
    }

    /**
     * @param list<array{int, int}> $ends
     * @param array<int, array<int, float>> $cuts
     */
    private function cutIntoEdges(array $ends, array $cuts): void
    {
        $seen = [];
        foreach ($ends as $w => [$from, $to]) {
            $wall = $this->walls[$w];
            $along = $cuts[$w] ?? [];
            asort($along);
            $previous = $from;
            foreach ([...array_keys($along), $to] as $node) {
                if ($node === $previous) {
                    continue;
                }
                $key = min($previous, $node).','.max($previous, $node);
                if (isset($seen[$key])) {
                    $first = $seen[$key];
                    $this->overlaps[] = [$this->edges[$first]['wall'], $wall->id, $this->nodes[$node]];
                    if ($wall->thickness / 2.0 > $this->edges[$first]['half']) {
                        $this->edges[$first]['half'] = $wall->thickness / 2.0;
                        $this->edges[$first]['wall'] = $wall->id;
                    }
                } else {
                    $seen[$key] = \count($this->edges);
                    $this->edges[] = ['from' => $previous, 'to' => $node, 'half' => $wall->thickness / 2.0, 'wall' => $wall->id];
                }
                $previous = $node;
            }
        }
    }

    private function nodeAt(float $x, float $y): int
    {
        $i = (int) floor($x / Wall::JOIN_MM);
        $j = (int) floor($y / Wall::JOIN_MM);
        for ($di = -1; $di <= 1; ++$di) {
            for ($dj = -1; $dj <= 1; ++$dj) {
                foreach ($this->nodeCells[($i + $di).','.($j + $dj)] ?? [] as $node) {
                    if (hypot($this->nodes[$node][0] - $x, $this->nodes[$node][1] - $y) <= Wall::JOIN_MM) {
                        return $node;
                    }
                }
            }
        }
        $this->nodes[] = [$x, $y];
        $this->nodeCells[$i.','.$j][] = \count($this->nodes) - 1;

        return \count($this->nodes) - 1;
    }

    private function cellSize(): float
    {
        $sum = 0.0;
        foreach ($this->walls as $wall) {
            $sum += $wall->length();
        }

        return max(500.0, [] === $this->walls ? 0.0 : $sum / \count($this->walls));
    }
}
