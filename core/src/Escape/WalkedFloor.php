<?php

declare(strict_types=1);

namespace Plinth\Core\Escape;

use Plinth\Core\Escape\Internal\Corners;
use Plinth\Core\Geometry\Ears;
use Plinth\Core\Geometry\Overlay;

/**
 * Where one may walk, cut into triangles: cells, as rooms and doorways, that touch each other along what edges they share.
 *
 * Storeys lie in it one after the other; nothing of one touches another, whatever their coordinates are.
 *
 * @phpstan-import-type Shape from Overlay
 */
final class WalkedFloor
{
    /** @var list<array{float, float}> mm */
    public array $at = [];
    /** @var list<array{int, int, int}> corners of triangles, counter-clockwise */
    public array $triangles = [];
    /** @var list<array{int, int, int}> what lies beyond the edge from each corner to the next; −1 where nothing does */
    public array $beyond = [];
    /** @var list<int> which cell a triangle is of */
    public array $cells = [];
    /** @var array<int, list<int>> triangles about each corner */
    public array $about = [];
    /** @var array<int, list<int>> corners next to each along the border: two, but where more than two lines of it meet */
    public array $border = [];
    /** @var array<int, float> radians that are walked on about each corner */
    public array $open = [];

    private int $cellCount = 0;

    /**
     * Adds a storey.
     *
     * @param list<Shape> $cells without overlaps
     * @param list<array{float, float}> $places that are to be corners, on borders of cells
     *
     * @return array{list<int>, list<int|null>} numbers of its cells, and of the corners at these places; null where none is
     */
    public function add(array $cells, array $places = []): array
    {
        $corners = new Corners($this->at);
        foreach ($cells as $cell) {
            foreach ([$cell['outer'], ...$cell['holes']] as $ring) {
                array_map($corners->put(...), $ring);
            }
        }
        $wanted = array_map($corners->put(...), $places);
        $first = \count($this->triangles);
        $numbers = [];
        foreach ($cells as $cell) {
            $numbers[] = $this->cellCount;
            // What lies on an edge becomes a corner of it: cells that touch have their edges in common.
            $rings = array_map($corners->ring(...), [$cell['outer'], ...$cell['holes']]);
            if (\count($rings[0]) > 2) {
                $places = [];
                foreach (array_merge(...$rings) as $v) {
                    $places[$v] = $corners->at[$v];
                }
                foreach (Ears::cut($rings, $places) as $triangle) {
                    $this->triangles[] = $triangle;
                    $this->cells[] = $this->cellCount;
                }
            }
            ++$this->cellCount;
        }
        $this->at = $corners->at;
        $this->join($first);

        return [$numbers, array_map(fn (int $v): ?int => isset($this->about[$v]) ? $v : null, $wanted)];
    }

    private function join(int $first): void
    {
        $edges = $beyond = [];
        $count = \count($this->at);
        for ($t = $first; $t < \count($this->triangles); ++$t) {
            $beyond[$t] = [-1, -1, -1];
            $corners = $this->triangles[$t];
            foreach ($corners as $k => $a) {
                $b = $corners[2 === $k ? 0 : $k + 1];
                $c = $corners[0 === $k ? 2 : $k - 1];
                $this->about[$a][] = $t;
                [$x, $y] = $this->at[$a];
                [$ux, $uy] = [$this->at[$b][0] - $x, $this->at[$b][1] - $y];
                [$vx, $vy] = [$this->at[$c][0] - $x, $this->at[$c][1] - $y];
                $this->open[$a] = ($this->open[$a] ?? 0.0) + abs(atan2($ux * $vy - $uy * $vx, $ux * $vx + $uy * $vy));
                $back = $b * $count + $a;
                if (isset($edges[$back])) {
                    [$other, $j] = $edges[$back];
                    $beyond[$t] = self::put($beyond[$t], $k, $other);
                    $beyond[$other] = self::put($beyond[$other], $j, $t);
                    unset($edges[$back]);
                } else {
                    $edges[$a * $count + $b] = [$t, $k];
                }
            }
        }
        array_push($this->beyond, ...array_values($beyond));
        foreach (array_keys($edges) as $edge) {
            [$a, $b] = [intdiv($edge, $count), $edge % $count];
            $this->border[$a][] = $b;
            $this->border[$b][] = $a;
        }
    }

    /**
     * @param array{int, int, int} $beyond
     *
     * @return array{int, int, int}
     */
    private static function put(array $beyond, int $k, int $t): array
    {
        return [0 === $k ? $t : $beyond[0], 1 === $k ? $t : $beyond[1], 2 === $k ? $t : $beyond[2]];
    }
}
