<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

use Plinth\Core\Geometry\Ears;
use Plinth\Core\Geometry\Newell;

/**
 * The surface of a body: plane faces whose corners go counter-clockwise seen from outside.
 *
 * @phpstan-type Place array{float, float, float}
 * @phpstan-type Face non-empty-list<list<int>>
 */
final readonly class Mesh
{
    /** Triangles whose normals have less in common are needles. */
    private const LEAST_MM4 = 1e-2;

    /**
     * @param list<Place> $vertices mm
     * @param list<Face> $faces rings of numbers of vertices: the outer one, then those of holes, which go the other way round
     * @param list<array{int, int}> $smooth edges between faces that stand for what is round
     */
    public function __construct(public array $vertices, public array $faces, public array $smooth = [])
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
        if (1 === \count($face) && 4 === \count($face[0])) {
            // Of four corners that is what their diagonals span.
            [$a, $b, $c, $d] = $face[0];
            [$a, $b, $c, $d] = [$this->vertices[$a], $this->vertices[$b], $this->vertices[$c], $this->vertices[$d]];
            [$ux, $uy, $uz] = [$c[0] - $a[0], $c[1] - $a[1], $c[2] - $a[2]];
            [$vx, $vy, $vz] = [$d[0] - $b[0], $d[1] - $b[1], $d[2] - $b[2]];

            return [$uy * $vz - $uz * $vy, $uz * $vx - $ux * $vz, $ux * $vy - $uy * $vx];
        }
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
        if (1 === \count($face) && 4 === \count($face[0]) && null !== ($halves = $this->halves($face[0]))) {
            return $halves;
        }
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

    /**
     * Four corners along the diagonal that leaves something on both sides.
     *
     * @param list<int> $ring
     *
     * @return list<array{int, int, int}>|null null where neither does
     */
    private function halves(array $ring): ?array
    {
        [$a, $b, $c, $d] = $ring;
        foreach ([[[$a, $b, $c], [$a, $c, $d]], [[$b, $c, $d], [$b, $d, $a]]] as $halves) {
            [$one, $other] = [$this->normal([$halves[0]]), $this->normal([$halves[1]])];
            if ($one[0] * $other[0] + $one[1] * $other[1] + $one[2] * $other[2] > self::LEAST_MM4) {
                return $halves;
            }
        }

        return null;
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
