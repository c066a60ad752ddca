<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;

/**
 * Outlines as rings of straight edges, and what others leave of them.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 * @phpstan-import-type Shape from Overlay
 */
final class Rings
{
    /** @return non-empty-list<array{float, float}> counter-clockwise */
    public static function of(Contour $contour): array
    {
        $ring = $contour->points();

        return Polygon::area($ring) < 0.0 ? array_reverse($ring) : $ring;
    }

    /**
     * @param list<Ring> $rings
     * @param list<Ring> $without
     *
     * @return list<Shape>
     */
    public static function less(array $rings, array $without): array
    {
        return [] === $without && 1 === \count($rings)
            ? [['outer' => $rings[0], 'holes' => []]]
            : Overlay::difference($rings, $without);
    }
}
