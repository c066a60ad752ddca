<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Projection\View;

/**
 * Where a section cuts bodies.
 *
 * @internal
 *
 * @phpstan-import-type Shape from Overlay
 */
final readonly class CutFacets
{
    /**
     * @param list<array{int, Shape, float}> $faces number of the body, what of it is cut, and how far behind the view's plane
     * @param list<Facet> $facets the same, before all else; those of one kind go on in each other
     */
    private function __construct(public array $faces, public array $facets)
    {
    }

    /**
     * @param list<PlacedBody> $bodies
     * @param int $count of all bodies: a facet that is a cut has the number of its body beyond that
     */
    public static function of(array $bodies, View $view, int $count): self
    {
        [$faces, $facets, $planes] = [[], [], []];
        foreach ([] === $view->steps ? [] : $bodies as $body) {
            foreach ($view->steps as [$from, $to, $depth]) {
                $rings = CutRings::of($body->places, $body->faces, $depth, $from, $to);
                foreach ([] === $rings ? [] : Overlay::union($rings) as $shape) {
                    $planes[$body->kind] ??= -2 - \count($planes);
                    $faces[] = [$body->number, $shape, $depth];
                    $at = [];
                    foreach ([$shape['outer'], ...$shape['holes']] as $ring) {
                        $at[] = array_map(static fn (array $p): array => [$p[0], $p[1], $depth], $ring);
                    }
                    $isDrawn = array_map(static fn (array $ring): array => array_fill(0, \count($ring), true), $at);
                    $facets[] = new Facet($at, $isDrawn, 0.0, 0.0, $depth, $planes[$body->kind], true, $body->number + $count);
                }
            }
        }

        return new self($faces, $facets);
    }
}
