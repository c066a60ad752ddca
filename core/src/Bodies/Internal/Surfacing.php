<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\FinishedSurface;
use Plinth\Core\Bodies\Mesh;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Surface;
use Plinth\Core\Plan\Model\SurfaceOn;
use Plinth\Core\Plan\Model\Wall;

/**
 * Lays finishes: on what a room leaves free of floors and ceilings, and on the faces of the bodies of walls, so that openings, ceilings
 * and roofs end them as they end the walls. Arcs as the chords that they are drawn by; level floors and ceilings with their true area.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 *
 * @phpstan-type Face array{
 *     mesh: Mesh, face: non-empty-list<list<int>>, length: float,
 *     from: array{float, float}, to: array{float, float}, along: array{float, float},
 * }
 */
final class Surfacing
{
    /** What lies no further off is on a face, mm. */
    private const ON_MM = 0.2;
    /** Chords of one arc lie no further off each other, mm; and turn by less: the cosine. */
    private const CHORDS_MM = 0.5;
    private const ONE_WAY = 0.99;
    /** Nothing is higher or lower, mm. */
    private const FAR_MM = 1e9;

    /** @var list<array{float, float, float}> */
    private array $places = [];
    /** @var list<array{float, float}> */
    private array $pattern = [];
    private float $areaMm2 = 0.0;

    private function __construct(private readonly Surface $surface)
    {
    }

    /** The floor of a room or its ceiling. */
    public static function level(Surface $surface, string $storey, Region $region, RoomSpace $rooms): FinishedSurface
    {
        $made = new self($surface);
        $isFloor = SurfaceOn::Floor === $surface->on;
        $isLevel = true;
        foreach ($rooms->cells($region) as $cell) {
            [$bottom, $over] = $cell->spans[0];
            $plane = $isFloor ? $bottom : $over;
            $isLevel = $isLevel && $plane->isLevel();
            foreach (Rings::less($cell->rings, $rooms->without($region, $plane, $isFloor)) as $shape) {
                $made->lie([$shape['outer'], ...$shape['holes']], $plane, $isFloor);
            }
        }
        // By as much as its arcs enclose more or less than their chords.
        $chords = Polygon::area($region->polygon) + array_sum(array_map(Polygon::area(...), $region->holes));

        return $made->done($storey, $isLevel ? $region->netAreaMm2 + $region->columnsMm2 - $chords : 0.0);
    }

    /**
     * The walls round a room.
     *
     * @param list<Cell> $cells of the room
     * @param list<Body> $walls
     */
    public static function round(Surface $surface, string $storey, Region $region, array $cells, array $walls): FinishedSurface
    {
        $made = new self($surface);
        $faces = self::upright($walls);
        foreach ($cells as $cell) {
            [$bottom, $over] = $cell->spans[0];
            $ring = $cell->rings[0];
            foreach ($ring as $i => $from) {
                $to = $ring[($i + 1) % \count($ring)];
                $length = hypot($to[0] - $from[0], $to[1] - $from[1]);
                if ($length <= self::ON_MM) {
                    continue;
                }
                $before = null;
                foreach ($faces as $face) {
                    // The room lies to the left of its edge, and the wall looks into it.
                    if (null === ($along = self::alongEdge($face, $from, $to, $length))) {
                        continue;
                    }
                    [$first, $rate] = $along;
                    $before ??= self::roundTo($region, $from);
                    $floor = self::over($bottom, $face);
                    $limits = [
                        [$rate, 0.0, $first],
                        [-$rate, 0.0, $length - $first],
                        [-$floor[1], 1.0, -$floor[0] - max(0.0, $surface->bottom ?? 0.0)],
                        [self::over($over, $face)[1], -1.0, self::over($over, $face)[0]],
                        [$floor[1], -1.0, $floor[0] + ($surface->top ?? self::FAR_MM)],
                    ];
                    $made->hang($face, $limits, static fn (float $s, float $z): array => [
                        $before - $first - $rate * $s, $z - $floor[0] - $floor[1] * $s,
                    ]);
                }
            }
        }

        return $made->done($storey);
    }

    /**
     * One face of a wall.
     *
     * @param list<Body> $walls its bodies
     */
    public static function face(Surface $surface, string $storey, Wall $wall, array $walls, float $base): FinishedSurface
    {
        $made = new self($surface);
        $off = (SurfaceOn::Left === $surface->on ? 0.5 : -0.5) * $wall->thickness;
        $length = $wall->length();
        [$low, $high] = [$base + ($surface->bottom ?? -self::FAR_MM), $base + ($surface->top ?? self::FAR_MM)];
        [$start, $end] = [$surface->start ?? -self::FAR_MM, $surface->end ?? self::FAR_MM];
        foreach (self::upright($walls) as $face) {
            if (!self::isOn($wall, $off, $face['from']) || !self::isOn($wall, $off, $face['to'])) {
                continue;
            }
            $first = $wall->along(...$face['from']);
            $rate = ($wall->along(...$face['to']) - $first) / $face['length'];
            $limits = [
                [$rate, 0.0, $first - $start],
                [-$rate, 0.0, $end - $first],
                [0.0, 1.0, -$low],
                [0.0, -1.0, $high],
            ];
            $made->hang($face, $limits, static function (float $s, float $z) use ($first, $rate, $length, $base): array {
                $along = $first + $rate * $s;

                return [$rate > 0.0 ? $along : $length - $along, $z - $base];
            });
        }

        return $made->done($storey);
    }

    private function done(string $storey, float $moreMm2 = 0.0): FinishedSurface
    {
        $area = [] === $this->places ? 0.0 : $this->areaMm2 + $moreMm2;

        return new FinishedSurface($this->surface->id, $this->surface->finish, $storey, $area, $this->places, $this->pattern);
    }

    /** @param non-empty-list<Ring> $rings the outer one counter-clockwise, then holes */
    private function lie(array $rings, HeightPlane $plane, bool $isFloor): void
    {
        [$vertices, $face] = [[], []];
        foreach ($rings as $ring) {
            $numbers = [];
            foreach ($ring as [$x, $y]) {
                $numbers[] = \count($vertices);
                $vertices[] = [$x, $y, $plane->at($x, $y)];
            }
            // A ceiling is looked at from below.
            $face[] = $isFloor ? $numbers : array_reverse($numbers);
        }
        $mesh = new Mesh($vertices, [$face]);
        $this->areaMm2 += $mesh->area();
        // Unfolded about the level line through the zero, so that pieces on a slope keep their size.
        $steep = hypot($plane->dx, $plane->dy);
        $more = $steep > 0.0 ? (hypot(1.0, $steep) - 1.0) / ($steep * $steep) : 0.0;
        foreach ($mesh->trianglesOf($face) as $triangle) {
            foreach ($triangle as $v) {
                [$x, $y] = $vertices[$v];
                $up = $more * ($x * $plane->dx + $y * $plane->dy);
                $this->put($vertices[$v], [$x + $up * $plane->dx, $y + $up * $plane->dy]);
            }
        }
    }

    /**
     * @param Face $face
     * @param list<array{float, float, float}> $limits half planes a·s + b·z + c ≥ 0, s along the face from where it begins
     * @param \Closure(float, float): array{float, float} $pattern
     */
    private function hang(array $face, array $limits, \Closure $pattern): void
    {
        [[$x, $y], [$dx, $dy]] = [$face['from'], $face['along']];
        foreach ($face['mesh']->trianglesOf($face['face']) as $triangle) {
            $part = array_map(static function (int $v) use ($face, $x, $y, $dx, $dy): array {
                [$px, $py, $pz] = $face['mesh']->vertices[$v];

                return [($px - $x) * $dx + ($py - $y) * $dy, $pz];
            }, $triangle);
            foreach ($limits as $limit) {
                $part = self::within($part, $limit);
            }
            for ($i = 1; $i + 1 < \count($part); ++$i) {
                $corners = [$part[0], $part[$i], $part[$i + 1]];
                $this->areaMm2 += abs(Polygon::area($corners));
                foreach ($corners as [$s, $z]) {
                    $this->put([$x + $s * $dx, $y + $s * $dy, $z], $pattern($s, $z));
                }
            }
        }
    }

    /**
     * @param array{float, float, float} $place
     * @param array{float, float} $at
     */
    private function put(array $place, array $at): void
    {
        $turn = deg2rad($this->surface->degrees);
        [$u, $v] = [$at[0] - $this->surface->origin->x, $at[1] - $this->surface->origin->y];
        $this->places[] = $place;
        $this->pattern[] = [cos($turn) * $u + sin($turn) * $v, cos($turn) * $v - sin($turn) * $u];
    }

    /**
     * @param list<array{float, float}> $ring convex
     * @param array{float, float, float} $limit
     *
     * @return list<array{float, float}> what of it lies within (Sutherland and Hodgman 1974)
     */
    private static function within(array $ring, array $limit): array
    {
        [$a, $b, $c] = $limit;
        $kept = [];
        foreach ($ring as $i => $p) {
            $q = $ring[($i + 1) % \count($ring)];
            [$here, $there] = [$a * $p[0] + $b * $p[1] + $c, $a * $q[0] + $b * $q[1] + $c];
            if ($here >= 0.0) {
                $kept[] = $p;
            }
            if (($here > 0.0 && $there < 0.0) || ($here < 0.0 && $there > 0.0)) {
                $part = $here / ($here - $there);
                $kept[] = [$p[0] + $part * ($q[0] - $p[0]), $p[1] + $part * ($q[1] - $p[1])];
            }
        }

        return $kept;
    }

    /**
     * @param list<Body> $walls
     *
     * @return list<Face> their faces that stand upright, from their left to their right as one looks at them
     */
    private static function upright(array $walls): array
    {
        $faces = [];
        foreach ($walls as $body) {
            if (BodyKind::Wall !== $body->kind && BodyKind::Railing !== $body->kind) {
                continue;
            }
            $vertices = $body->form->vertices;
            foreach ($body->form->faces as $face) {
                [$nx, $ny, $nz] = $body->form->normal($face);
                $level = hypot($nx, $ny);
                if (0.0 === $level || abs($nz) > 1e-6 * $level) {
                    continue;
                }
                [$x, $y] = $vertices[$face[0][0]];
                [$dx, $dy] = [-$ny / $level, $nx / $level];
                [$least, $most] = [0.0, 0.0];
                foreach ($face[0] as $v) {
                    $ahead = ($vertices[$v][0] - $x) * $dx + ($vertices[$v][1] - $y) * $dy;
                    [$least, $most] = [min($least, $ahead), max($most, $ahead)];
                }
                if ($most - $least > self::ON_MM) {
                    $faces[] = [
                        'mesh' => $body->form,
                        'face' => $face,
                        'from' => [$x + $least * $dx, $y + $least * $dy],
                        'to' => [$x + $most * $dx, $y + $most * $dy],
                        'along' => [$dx, $dy],
                        'length' => $most - $least,
                    ];
                }
            }
        }

        return $faces;
    }

    /**
     * Where a face lies along the edge of a room. Chords of one arc may have other ends than those of another.
     *
     * @param Face $face
     * @param array{float, float} $from
     * @param array{float, float} $to
     *
     * @return array{float, float}|null how far from the edge's start it begins, and by how much it goes on for each mm of the face; null
     *                                  where it does not lie on it, or looks the other way
     */
    private static function alongEdge(array $face, array $from, array $to, float $length): ?array
    {
        [$dx, $dy] = [($to[0] - $from[0]) / $length, ($to[1] - $from[1]) / $length];
        $rate = $face['along'][0] * $dx + $face['along'][1] * $dy;
        // As one looks at a wall from inside, the edge runs from right to left.
        if ($rate > -self::ONE_WAY) {
            return null;
        }
        [$px, $py] = [$face['from'][0] - $from[0], $face['from'][1] - $from[1]];
        [$first, $off] = [$px * $dx + $py * $dy, $py * $dx - $px * $dy];
        $turn = ($face['along'][1] * $dx - $face['along'][0] * $dy) / $rate;
        [$least, $most] = [max(0.0, $first + $rate * $face['length']), min($length, $first)];
        $isOn = $least < $most && max(abs($off + ($least - $first) * $turn), abs($off + ($most - $first) * $turn)) < self::CHORDS_MM;

        return $isOn ? [$first, $rate] : null;
    }

    /**
     * @param Face $face
     *
     * @return array{float, float} how high a plane lies where a face begins, and by how much it rises along it
     */
    private static function over(HeightPlane $plane, array $face): array
    {
        return [$plane->at(...$face['from']), $plane->dx * $face['along'][0] + $plane->dy * $face['along'][1]];
    }

    /** @param array{float, float} $place */
    private static function isOn(Wall $wall, float $off, array $place): bool
    {
        $at = $wall->at($wall->along(...$place), $off);

        return hypot($at->x - $place[0], $at->y - $place[1]) < self::ON_MM;
    }

    /**
     * @param array{float, float} $place
     *
     * @return float how far round the room a place on its edge lies, mm clockwise from the first corner of its ring
     */
    private static function roundTo(Region $region, array $place): float
    {
        foreach ([$region->polygon, ...$region->holes] as $ring) {
            $round = 0.0;
            foreach (array_reverse($ring, true) as $i => [$x, $y]) {
                [$tx, $ty] = $ring[($i + 1) % \count($ring)];
                $length = max(1e-9, hypot($tx - $x, $ty - $y));
                $round += $length;
                [$dx, $dy] = [($tx - $x) / $length, ($ty - $y) / $length];
                $along = ($place[0] - $x) * $dx + ($place[1] - $y) * $dy;
                $off = ($place[1] - $y) * $dx - ($place[0] - $x) * $dy;
                if (abs($off) < self::ON_MM && $along > -self::ON_MM && $along < $length - self::ON_MM) {
                    return $round - $along;
                }
            }
        }

        return 0.0;
    }
}
