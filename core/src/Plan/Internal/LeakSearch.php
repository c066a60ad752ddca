<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Internal;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Plan\Leak;
use Plinth\Core\Plan\Line;
use Plinth\Core\Plan\Room;
use Plinth\Core\Plan\Wall;

/**
 * Finds where a room runs out.
 *
 * Every free end could be joined to every other wall by a straight mend; mends are tried shortest first. The shortest
 * set that encloses the anchor ends with the widest gap that has to be closed, and by duality that gap is the
 * narrowest place of the widest way out: the leak.
 *
 * @internal
 *
 * @phpstan-type Mend array{gap: float, neck: array{array{float, float}, array{float, float}}, walls: array{string, string}, wall: Wall}
 */
final class LeakSearch
{
    /** A gap wider than this is a missing wall, not a leak: the widest common door is about half of it. */
    private const WIDEST_GAP_MM = 2500.0;
    private const MOST_MENDS = 400;

    /** @var list<Mend> narrowest first */
    private array $mends;

    /** @param list<Wall> $walls */
    public function __construct(private readonly array $walls)
    {
        $this->mends = $this->mends();
    }

    /** @return Leak|null null when no gap up to 2.5 m, once mended, would enclose the room */
    public function from(Room $room): ?Leak
    {
        $low = 0;
        $high = \count($this->mends);
        if (!$this->encloses($room->anchor, $high)) {
            return null;
        }
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            if ($this->encloses($room->anchor, $middle)) {
                $high = $middle;
            } else {
                $low = $middle + 1;
            }
        }
        // Nothing to mend: the anchor stands inside a wall.
        $mend = $this->mends[$low - 1] ?? null;

        return null === $mend ? null : new Leak($room->id, $mend['gap'], $mend['neck'], $mend['walls']);
    }

    private function encloses(Point $anchor, int $mends): bool
    {
        $closed = [...$this->walls, ...array_map(static fn (array $m): Wall => $m['wall'], \array_slice($this->mends, 0, $mends))];
        foreach (Faces::of(Network::of($closed))->bounded as $face) {
            if (Polygon::contains($face['centre'], $anchor->x, $anchor->y)) {
                return true;
            }
        }

        return false;
    }

    /** @return list<Mend> */
    private function mends(): array
    {
        $byId = [];
        $index = new GridIndex(self::WIDEST_GAP_MM);
        foreach ($this->walls as $i => $wall) {
            $byId[$wall->id] = $wall;
            $index->add($i, min($wall->from->x, $wall->to->x), min($wall->from->y, $wall->to->y), max($wall->from->x, $wall->to->x), max($wall->from->y, $wall->to->y));
        }
        $mends = [];
        foreach ($this->freeEnds() as [$id, $x, $y]) {
            $reach = self::WIDEST_GAP_MM + $byId[$id]->thickness;
            foreach ($index->near($x - $reach, $y - $reach, $x + $reach, $y + $reach) as $i) {
                $host = $this->walls[$i];
                if ($host->id === $id) {
                    continue;
                }
                [$px, $py, $gap] = [...Segment::nearest([$x, $y], $host->from->toArray(), $host->to->toArray())];
                [$p, $q, $gap] = Segment::shortestWay($byId[$id]->body(), $host->body());
                if ($gap <= self::WIDEST_GAP_MM && hypot($px - $x, $py - $y) > Wall::JOIN_MM) {
                    $mends[] = ['gap' => $gap, 'neck' => [$p, $q], 'walls' => [$id, $host->id], 'wall' => new Wall('mend', new Point($x, $y), new Point($px, $py), 0.0, Line::Centre)];
                }
            }
        }
        usort($mends, static fn (array $a, array $b): int => $a['gap'] <=> $b['gap']);

        return \array_slice($mends, 0, self::MOST_MENDS);
    }

    /** @return list<array{string, float, float}> wall, x, y */
    private function freeEnds(): array
    {
        $network = Network::of($this->walls);
        $edgesAt = [];
        foreach ($network->edges as $e => $edge) {
            $edgesAt[$edge['from']][] = $e;
            $edgesAt[$edge['to']][] = $e;
        }
        $ends = [];
        foreach ($edgesAt as $node => $edges) {
            if (1 === \count($edges)) {
                $ends[] = [$network->edges[$edges[0]]['wall'], ...$network->nodes[$node]];
            }
        }

        return $ends;
    }
}
