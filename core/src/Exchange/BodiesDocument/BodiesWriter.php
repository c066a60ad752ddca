<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\BodiesDocument;

use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\Refused;
use Plinth\Core\Roof\Roof;
use Plinth\Core\Roof\RoofFacet;
use Plinth\Core\Roof\RoofLine;

/** Bodies, and what is counted of them, as data for JSON (docs/plan-format.md). */
final class BodiesWriter
{
    /** @return array<string, mixed> a body where it stands, with its quantities */
    public static function body(Body $body): array
    {
        $mesh = $body->mesh();

        return [
            'storey' => $body->storey,
            'kind' => $body->kind->value,
            'id' => $body->id,
            'volumeM3' => $mesh->volume() / 1e9,
            'areaM2' => $mesh->area() / 1e6,
            'vertices' => $mesh->vertices,
            'faces' => $mesh->faces,
            'triangles' => $mesh->triangles(),
        ];
    }

    /** @return array<string, mixed> of a roof's upper side */
    public static function roof(string $id, Roof $roof): array
    {
        return [
            'id' => $id,
            'facets' => array_map(static fn (RoofFacet $f): array => [
                'edge' => $f->edge, 'areaM2' => $f->area() / 1e6, 'pitch' => rad2deg(acos(min(1.0, $f->planArea() / $f->area()))),
            ], array_values(array_filter($roof->facets, static fn (RoofFacet $f): bool => $f->isSlope && $f->planArea() > 1.0))),
            'lines' => array_map(
                static fn (RoofLine $l): array => ['kind' => $l->kind->value, 'lengthMm' => $l->length(), 'from' => $l->from, 'to' => $l->to],
                $roof->lines,
            ),
        ];
    }

    /** @return array<string, mixed> */
    public static function refused(Refused $refused): array
    {
        return ['id' => $refused->id, 'message' => $refused->message];
    }
}
