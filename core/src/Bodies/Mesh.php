<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

use Plinth\Core\Bodies\Internal\Ears;
use Plinth\Core\Geometry\Newell;

/**
 * The surface of a body: plane faces whose corners go counter-clockwise seen from outside.
 *
 * @phpstan-type Place array{float, float, float}
 * @phpstan-type Face non-empty-list<list<int>>
 */
final readonly class Mesh
{
    /** Faces that lean on each other by less than this run on: the cosine of half a degree. */
    private const SMOOTH = 0.99996;

    /**
     * @param list<Place> $vertices mm
     * @param list<Face> $faces rings of numbers of vertices: the outer one, then those of holes, which go the other way round
     */
    public function __construct(public array $vertices, public array $faces)
    {
    }

    /** @return float mm³, by the divergence theorem about the first vertex */
    public function volume(): float
    {
        $six = 0.0;
        foreach ($this->faces as $face) {
            [$nx, $ny, $nz] = $this->normal($face);
            [$x, $y, $z] = $this->fromFirst($face[0][0]);
            $six += $x * $nx + $y * $ny + $z * $nz;
        }

        return $six / 6.0;
    }

    /** @return float mm² of all faces */
    public function area(): float
    {
        return array_sum(array_map(fn (array $face): float => self::length($this->normal($face)) / 2.0, $this->faces));
    }

    /**
     * @param Face $face
     *
     * @return Place outward, twice as long as the face is large, mm²
     */
    public function normal(array $face): array
    {
        [$nx, $ny, $nz] = [0.0, 0.0, 0.0];
        foreach ($face as $ring) {
            $corners = [];
            foreach ($ring as $v) {
                $corners[] = $this->vertices[$v];
            }
            [$x, $y, $z] = Newell::normal($corners);
            [$nx, $ny, $nz] = [$nx + $x, $ny + $y, $nz + $z];
        }

        return [$nx, $ny, $nz];
    }

    /** @return list<array{int, int, int}> vertices of triangles, counter-clockwise seen from outside */
    public function triangles(): array
    {
        $triangles = [];
        foreach ($this->faces as $face) {
            array_push($triangles, ...$this->trianglesOf($face));
        }

        return $triangles;
    }

    /**
     * @param Face $face
     *
     * @return list<array{int, int, int}>
     */
    public function trianglesOf(array $face): array
    {
        [$nx, $ny, $nz] = $this->normal($face);
        // Onto the plane of two axes that it faces most, the same way round.
        [$u, $v, $isTurned] = match (max(abs($nx), abs($ny), abs($nz))) {
            abs($nz) => [0, 1, $nz < 0.0],
            abs($ny) => [2, 0, $ny < 0.0],
            default => [1, 2, $nx < 0.0],
        };
        [$u, $v] = $isTurned ? [$v, $u] : [$u, $v];
        $first = $this->vertices[$face[0][0]];
        $places = [];
        foreach ($face as $ring) {
            foreach ($ring as $n) {
                $places[$n] = [$this->vertices[$n][$u] - $first[$u], $this->vertices[$n][$v] - $first[$v]];
            }
        }

        return Ears::cut($face, $places);
    }

    /** @return list<array{int, int}> vertices of lines along which faces meet at an angle */
    public function creases(): array
    {
        $normals = [];
        $faces = [];
        foreach ($this->faces as $f => $face) {
            $normal = $this->normal($face);
            $length = self::length($normal);
            $normals[$f] = [$normal[0] / $length, $normal[1] / $length, $normal[2] / $length];
            foreach ($face as $ring) {
                foreach ($ring as $i => $to) {
                    $from = $ring[$i > 0 ? $i - 1 : \count($ring) - 1];
                    $faces[min($from, $to)][max($from, $to)][] = $f;
                }
            }
        }
        $creases = [];
        foreach ($faces as $from => $ends) {
            foreach ($ends as $to => $both) {
                [$a, $b] = [$normals[$both[0]], $normals[$both[1] ?? $both[0]]];
                if (2 !== \count($both) || $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2] < self::SMOOTH) {
                    $creases[] = [$from, $to];
                }
            }
        }

        return $creases;
    }

    /** @return list<array{int, int}> edges that do not run once each way between two faces; none where the surface is closed */
    public function openEdges(): array
    {
        $runs = [];
        foreach ($this->faces as $face) {
            foreach ($face as $ring) {
                foreach ($ring as $i => $to) {
                    $from = $ring[$i > 0 ? $i - 1 : \count($ring) - 1];
                    $runs[min($from, $to)][max($from, $to)] = ($runs[min($from, $to)][max($from, $to)] ?? 0) + ($from < $to ? 1 : -1);
                }
            }
        }
        $open = [];
        foreach ($runs as $from => $ends) {
            foreach ($ends as $to => $sum) {
                if (0 !== $sum) {
                    $open[] = [$from, $to];
                }
            }
        }

        return $open;
    }

    /** @return Place */
    private function fromFirst(int $vertex): array
    {
        [[$ox, $oy, $oz], [$x, $y, $z]] = [$this->vertices[0], $this->vertices[$vertex]];

        return [$x - $ox, $y - $oy, $z - $oz];
    }

    /** @param Place $v */
    private static function length(array $v): float
    {
        return sqrt($v[0] ** 2 + $v[1] ** 2 + $v[2] ** 2);
    }
}
