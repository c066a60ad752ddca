<?php

declare(strict_types=1);

namespace Plinth\Core\Roof;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Roof\Exception\UnbuildableRoof;
use Plinth\Core\Roof\Internal\Facets;
use Plinth\Core\Roof\Internal\Front;
use Plinth\Core\Roof\Internal\Lost;
use Plinth\Core\Roof\Internal\Wavefront;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * A roof over an outline: planes that rise over its edges, each at its own pitch from its own eaves, and upright gables, as far as they
 * meet.
 *
 * It is the weighted straight skeleton of the outline (Aichholzer, Aurenhammer, Alberts and Gärtner 1995; Eppstein and Erickson 1999),
 * checked before it is given: what does not cover its outline exactly once is refused.
 */
final readonly class Roof
{
    /** m within which nodes are one; after a failure coarser, finer, and with corners moved by so many metres */
    private const TRIES = [[1e-8, 0.0], [1e-6, 0.0], [1e-10, 0.0], [1e-8, 1e-5], [1e-8, 1e-4]];
    /** corners of all rings: what is asked of a front grows with their square */
    private const MOST_CORNERS = 400;
    /** mm between two corners of an outline at least */
    private const LEAST_EDGE = 1.0;
    /** A line whose ends differ in height by less is level, mm. */
    private const LEVEL = 0.01;

    /**
     * @param list<RoofFacet> $facets
     * @param list<RoofLine> $lines
     */
    private function __construct(public array $facets, public array $lines)
    {
    }

    /**
     * @param list<list<Point>> $outline the outer ring, then holes, either way round
     * @param list<list<RoofEdge>> $edges of each ring, the first from its first corner to its second
     *
     * @throws UnbuildableRoof
     */
    public static function over(array $outline, array $edges): self
    {
        self::check($outline, $edges);
        $origin = $outline[0][0];
        $rings = [];
        $turned = [];
        foreach ($outline as $r => $ring) {
            $points = array_map(static fn (Point $p): array => [($p->x - $origin->x) / 1000.0, ($p->y - $origin->y) / 1000.0], $ring);
            // The outer ring goes counter-clockwise, holes clockwise; an edge keeps its number.
            $turned[$r] = (Polygon::area($points) > 0.0) !== (0 === $r);
            $rings[] = $turned[$r] ? array_reverse($points) : $points;
            if ($turned[$r]) {
                $n = \count($points);
                $edges[$r] = array_map(static fn (int $i): RoofEdge => $edges[$r][(2 * $n - 2 - $i) % $n], range(0, $n - 1));
            }
        }
        $size = max(1.0, ...array_map(static fn (array $p): float => max(abs($p[0]), abs($p[1])), array_merge(...$rings)));
        foreach (self::TRIES as $n => [$near, $moved]) {
            try {
                $tried = self::moved($rings, $moved, $n);
                $wave = Wavefront::over($tried, $edges, $near * max(1.0, $size / 10.0));
                $facets = Facets::of($wave);
                Facets::check($wave, $facets, array_sum(array_map(Polygon::area(...), $tried)));
            } catch (Lost) {
                continue;
            }

            return self::told($wave, $facets, $origin, array_map(\count(...), $rings), $turned);
        }
        throw UnbuildableRoof::failed();
    }

    /**
     * @param list<list<Point>> $outline
     * @param list<list<RoofEdge>> $edges
     */
    private static function check(array $outline, array $edges): void
    {
        $fits = [] !== $outline && \count($outline) === \count($edges);
        if (array_sum(array_map(\count(...), $outline)) > self::MOST_CORNERS) {
            throw UnbuildableRoof::large(self::MOST_CORNERS);
        }
        foreach ($fits ? $outline : [] as $r => $ring) {
            $fits = $fits && \count($ring) >= 3 && \count($ring) === \count($edges[$r]);
            foreach ($ring as $i => $point) {
                $fits = $fits && $point->distanceTo($ring[($i + 1) % \count($ring)]) >= self::LEAST_EDGE;
            }
        }
        if (!$fits) {
            throw UnbuildableRoof::outline();
        }
        foreach ($outline as $r => $ring) {
            if ([] === $ring || null !== (new Contour($ring))->selfCrossing() || !self::liesClear($ring, \array_slice($outline, 0, $r))) {
                throw UnbuildableRoof::crossing();
            }
        }
    }

    /**
     * Whether a court lies within the outer ring and off every other.
     *
     * @param list<Point> $ring
     * @param list<list<Point>> $others the outer ring and courts before it
     */
    private static function liesClear(array $ring, array $others): bool
    {
        foreach ($others as $o => $other) {
            $around = array_map(static fn (Point $p): array => $p->toArray(), $other);
            foreach ($ring as $i => $from) {
                $to = $ring[($i + 1) % \count($ring)];
                if ((0 === $o) !== Polygon::contains($around, $from->x, $from->y)) {
                    return false;
                }
                foreach ($other as $k => $a) {
                    $b = $other[($k + 1) % \count($other)];
                    if (null !== Segment::crossing($from->toArray(), $to->toArray(), $a->toArray(), $b->toArray())) {
                        return false;
                    }
                }
            }
        }

        return true;
    }

    /**
     * @param list<list<array{float, float}>> $rings
     *
     * @return list<list<array{float, float}>> each corner moved by up to so many metres, the same way each time
     */
    private static function moved(array $rings, float $by, int $seed): array
    {
        $random = new Randomizer(new Mt19937($seed));
        $off = static fn (): float => 0.0 === $by ? 0.0 : $by * ($random->getInt(0, 1_000_000) / 1_000_000 - 0.5);

        return array_map(
            static fn (array $ring): array => array_map(static fn (array $p): array => [$p[0] + $off(), $p[1] + $off()], $ring),
            $rings,
        );
    }

    /**
     * @param list<array{front: int, isSlope: bool, nodes: list<int>}> $facets
     * @param list<int> $counts corners of each ring
     * @param array<int, bool> $turned whether a ring was turned round
     */
    private static function told(Wavefront $wave, array $facets, Point $origin, array $counts, array $turned): self
    {
        $place = static function (int $n) use ($wave, $origin): array {
            [$x, $y, $z] = $wave->nodes[$n];

            return [1000.0 * $x + $origin->x, 1000.0 * $y + $origin->y, 1000.0 * $z];
        };
        $told = [];
        foreach ($facets as ['front' => $f, 'isSlope' => $isSlope, 'nodes' => $nodes]) {
            [$r, $i] = $wave->fronts[$f]->source ?? [-1, -1];
            if ($r >= 0 && $turned[$r]) {
                $i = (2 * $counts[$r] - 2 - $i) % $counts[$r];
            }
            $told[] = new RoofFacet($r, $i, $isSlope, array_map($place, $nodes));
        }
        $lines = [];
        foreach ($wave->arcs as [$left, $right, $p, $q]) {
            [$p, $q] = [$wave->one($p), $wave->one($q)];
            if (null !== $left && $p !== $q) {
                $lines[] = new RoofLine(self::kind($wave, $left, $right, $place($p), $place($q)), $place($p), $place($q));
            }
        }

        return new self($told, $lines);
    }

    /**
     * @param array{float, float, float} $from
     * @param array{float, float, float} $to
     */
    private static function kind(Wavefront $wave, string $left, string $right, array $from, array $to): RoofLineKind
    {
        $read = static fn (string $label): array => array_map(intval(...), explode(':', $label));
        [[$f, $fSlopes], [$g, $gSlopes]] = [$read($left), $read($right)];
        if (1 !== $fSlopes && 1 !== $gSlopes) {
            return RoofLineKind::Seam;
        }
        if (1 !== $fSlopes || 1 !== $gSlopes) {
            return RoofLineKind::Verge;
        }
        [$a, $b] = [$wave->fronts[$f], $wave->fronts[$g]];
        if (abs($a->cross($b)) < 1e-9 && $a->dot($b) > 0.0) {
            return RoofLineKind::Seam;
        }
        // On its own side of the line the facet to the left lies lower than the other's plane at a ridge or hip, and higher at a valley.
        [$dx, $dy] = [$to[0] - $from[0], $to[1] - $from[1]];
        $rises = static fn (Front $front): float => ($dx * $front->ny - $dy * $front->nx) / $front->slowness;
        if ($rises($a) > $rises($b)) {
            return RoofLineKind::Valley;
        }

        return abs($from[2] - $to[2]) < self::LEVEL ? RoofLineKind::Ridge : RoofLineKind::Hip;
    }
}
