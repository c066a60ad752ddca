<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Roof\Exception\UnbuildableRoof;
use Plinth\Core\Roof\Roof;
use Plinth\Core\Roof\RoofEdge;
use Plinth\Core\Roof\RoofFacet;

/**
 * What lies between a roof's underside and its upper side.
 *
 * Its planes are measured where the underside passes over the eaves' line; it reaches beyond that by its overhangs, and lies lower
 * there. Across each slope it is equally thick, so the upper sides of slopes of unequal pitch meet elsewhere than their undersides.
 *
 * @internal
 */
final readonly class RoofBody
{
    /**
     * @param list<Covering> $coverings parts of it in plan, each between two planes
     * @param Roof|null $upper its upper side; null of a flat one
     * @param float $lowest mm that the upper side's heights count from
     */
    private function __construct(public array $coverings, public ?Roof $upper, public float $lowest)
    {
    }

    /**
     * @param float $level mm of its storey
     *
     * @throws UnbuildableRoof
     */
    public static function of(PitchedRoof $roof, float $level): self
    {
        [$corners, $pitches, $overhangs] = [$roof->corners, $roof->pitches, $roof->overhangs];
        if ((new Contour($corners))->area() < 0.0) {
            // Counter-clockwise; the edge from each corner keeps what rises over it.
            $n = \count($corners);
            $turned = array_map(static fn (int $i): int => (2 * $n - 2 - $i) % $n, range(0, $n - 1));
            $corners = array_reverse($corners);
            $pitches = array_map(static fn (int $i): ?float => $roof->pitches[$i], $turned);
            $overhangs = array_map(static fn (int $i): float => $roof->overhangs[$i], $turned);
        }
        $reached = Outward::moved($corners, $overhangs);
        $eaves = $level + $roof->eaves;
        if ($roof->isFlat()) {
            $ring = array_map(static fn (Point $p): array => $p->toArray(), $reached);

            $upper = HeightPlane::level($eaves + $roof->thickness);

            return new self([new Covering([$ring], HeightPlane::level($eaves), $upper)], null, $eaves);
        }
        [$under, $over] = [[], []];
        foreach ($pitches as $i => $degrees) {
            $slope = null === $degrees ? null : deg2rad($degrees);
            $under[] = null === $slope ? null : $eaves - $overhangs[$i] * tan($slope);
            $over[] = null === $slope ? null : $eaves - $overhangs[$i] * tan($slope) + $roof->thickness / cos($slope);
        }
        [$lower, $least] = self::over($reached, $pitches, $under);
        $isEven = 1 === \count(array_unique(array_filter($pitches, static fn (?float $p): bool => null !== $p), \SORT_REGULAR));
        [$upper, $lowest] = self::over($reached, $pitches, $over);
        $below = self::planes($lower, $least);
        if ($isEven) {
            $up = $roof->thickness / cos(deg2rad(max(0.0, ...array_map(floatval(...), $pitches))));

            return new self(
                array_map(static fn (array $f): Covering => new Covering($f['rings'], $f['plane'], $f['plane']->raised($up)), $below),
                $upper,
                $lowest,
            );
        }
        $coverings = [];
        foreach ($below as $b) {
            foreach (self::planes($upper, $lowest) as $a) {
                $box = Polygon::bounds($b['rings'][0]);
                if ((new Covering($a['rings'], $a['plane'], $a['plane']))->isNear($box)) {
                    foreach (Cut::both($b['rings'], $a['rings']) as $part) {
                        if (Overlay::area([$part]) > 1.0) {
                            $coverings[] = new Covering([$part['outer'], ...$part['holes']], $b['plane'], $a['plane']);
                        }
                    }
                }
            }
        }

        return new self($coverings, $upper, $lowest);
    }

    /**
     * @param non-empty-list<Point> $corners
     * @param list<float|null> $pitches
     * @param list<float|null> $eaves
     *
     * @return array{Roof, float} and the height that its own count from
     */
    private static function over(array $corners, array $pitches, array $eaves): array
    {
        $known = array_filter($eaves, static fn (?float $mm): bool => null !== $mm);
        $least = [] === $known ? 0.0 : min($known);
        $edges = [];
        foreach ($pitches as $i => $degrees) {
            $edges[] = null === $degrees ? RoofEdge::gable() : RoofEdge::pitched($degrees, ($eaves[$i] ?? $least) - $least);
        }

        return [Roof::over([$corners], [$edges]), $least];
    }

    /** @return list<array{rings: non-empty-list<non-empty-list<array{float, float}>>, plane: HeightPlane}> of slopes, with their holes */
    private static function planes(Roof $roof, float $least): array
    {
        $slopes = array_filter($roof->facets, static fn (RoofFacet $f): bool => $f->isSlope && abs($f->planArea()) > 1.0);
        $ring = static fn (RoofFacet $f): array => array_map(static fn (array $p): array => [$p[0], $p[1]], $f->corners);
        $planes = [];
        foreach ($slopes as $facet) {
            if ($facet->planArea() < 0.0 || [] === $facet->corners) {
                continue;
            }
            $outer = $ring($facet);
            $rings = [$outer];
            foreach ($slopes as $hole) {
                if ($hole->planArea() < 0.0 && $hole->edge === $facet->edge && Polygon::contains($outer, ...$ring($hole)[0])) {
                    $rings[] = $ring($hole);
                }
            }
            /** @var non-empty-list<non-empty-list<array{float, float}>> $rings */
            $planes[] = ['rings' => $rings, 'plane' => HeightPlane::of($facet->corners)->raised($least)];
        }

        return $planes;
    }
}
