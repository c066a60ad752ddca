<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling\Internal;

use Plinth\Core\Numerics\DisjointSets;

/**
 * What must hold because walls run as they are meant to and ends stay on walls.
 *
 * Each node has two coordinates in the frame of the family that has most to say there: 2 × node + axis. Where both ends of a wall
 * stand in its own family's frame it lies at one place along one axis: these two coordinates are one, so that all that hangs
 * together so is one unknown, and its least-squares place is the weighted mean. What lies between frames is left as a condition.
 *
 * @internal
 */
final class Ties
{
    public readonly DisjointSets $sets;
    /** @var list<int> family of each node's frame; −1 for one that stands in the grid's */
    public readonly array $frames;
    /** @var list<array{int, int, int, int, string}> first node, second node, family, axis along which they lie at one place, wall */
    public readonly array $between;
    /** @var list<array{int, int, int}> a node, and the two ends of the wall on which it stays */
    public readonly array $lines;
    /** @var array<array-key, int> family of each wall that has one */
    public readonly array $familyOf;

    /** @param list<Family> $families */
    public function __construct(private readonly Traced $traced, private readonly array $families)
    {
        $this->sets = new DisjointSets();
        $of = [];
        foreach ($families as $f => $family) {
            foreach (array_keys($family->normals) as $id) {
                $of[$id] = $f;
            }
        }
        $this->familyOf = $of;
        $this->frames = $this->framed();
        [$between, $lines] = [[], []];
        foreach ($traced->straight as $id => [$from, $to]) {
            if (isset($of[$id])) {
                $this->tie($from, $to, (string) $id, $between);
            }
        }
        foreach (EndsOnWalls::of($traced) as [$node, $id]) {
            [$from, $to] = $traced->straight[$id];
            if (isset($of[$id])) {
                $this->tie($this->frames[$from] === $of[$id] ? $from : $to, $node, $id, $between);
            } else {
                $lines[] = [$node, $from, $to];
            }
        }
        $this->between = $between;
        $this->lines = $lines;
    }

    /** @return list<int> */
    private function framed(): array
    {
        $lengths = [];
        foreach ($this->families as $f => $family) {
            $lengths[$f] = 0 === $f && 0.0 === $family->angle ? \INF : array_sum(
                array_map(fn (int|string $id): float => $this->traced->length((string) $id), array_keys($family->normals)),
            );
        }
        $frames = array_fill(0, \count($this->traced->names), -1);
        foreach ($this->familyOf as $id => $f) {
            foreach ($this->traced->straight[$id] as $node) {
                if (-1 === $frames[$node] || $lengths[$f] > $lengths[$frames[$node]]) {
                    $frames[$node] = $f;
                }
            }
        }

        return array_values($frames);
    }

    /** @param list<array{int, int, int, int, string}> $between */
    private function tie(int $p, int $q, string $wall, array &$between): void
    {
        $f = $this->familyOf[$wall];
        $axis = $this->families[$f]->normals[$wall];
        if ($this->frames[$p] === $f && $this->frames[$q] === $f) {
            $this->sets->unite(2 * $p + $axis, 2 * $q + $axis);
        } else {
            $between[] = [$p, $q, $f, $axis, $wall];
        }
    }
}
