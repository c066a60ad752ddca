<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\PlanDocument;

use Plinth\Core\Plan\DerivedStorey;
use Plinth\Core\Plan\Opening;
use Plinth\Core\Plan\Plan;
use Plinth\Core\Plan\Region;
use Plinth\Core\Plan\Room;
use Plinth\Core\Plan\Storey;
use Plinth\Core\Plan\Wall;

/** Writes a plan document, and what was derived from one, as data for JSON. */
final class PlanWriter
{
    /** @return array<string, mixed> */
    public static function document(Plan $plan): array
    {
        return [
            'format' => PlanReader::FORMAT,
            'version' => PlanReader::VERSION,
            'units' => 'mm',
            'storeys' => array_map(static fn (Storey $s): array => [
                'id' => $s->id,
                'name' => $s->name,
                'elevation' => $s->elevation,
                'height' => $s->height,
                'walls' => array_map(static fn (Wall $w): array => array_filter([
                    'id' => $w->id, 'from' => $w->from->toArray(), 'to' => $w->to->toArray(), 'thickness' => $w->thickness, 'line' => $w->line->value, 'height' => $w->height,
                ], static fn (mixed $v): bool => null !== $v), $s->walls),
                'openings' => array_map(static fn (Opening $o): array => array_filter([
                    'id' => $o->id, 'wall' => $o->wall, 'kind' => $o->kind->value, 'offset' => $o->offset, 'width' => $o->width, 'sill' => $o->sill, 'height' => $o->height, 'hand' => $o->hand, 'swing' => $o->swing,
                ], static fn (mixed $v): bool => null !== $v), $s->openings),
                'rooms' => array_map(static fn (Room $r): array => ['id' => $r->id, 'name' => $r->name, 'number' => $r->number, 'anchor' => $r->anchor->toArray()], $s->rooms),
            ], $plan->storeys),
        ];
    }

    /** @return array<string, mixed> regions that no room names have null for id and name */
    public static function derived(DerivedStorey $storey): array
    {
        return [
            'id' => $storey->id,
            'outlines' => array_map(static fn ($o): array => ['outer' => $o->outer, 'holes' => $o->holes], $storey->outlines),
            'rooms' => array_map(static fn (Region $r): array => [
                'id' => $r->room?->id,
                'name' => $r->room?->name,
                'polygon' => $r->polygon,
                'holes' => $r->holes,
                'netAreaM2' => $r->netAreaMm2 / 1e6,
                'label' => $r->label,
                'clear' => $r->clear,
            ], $storey->regions),
            'openings' => array_map(static fn (string $id, array $piece): array => ['id' => $id, 'polygon' => $piece], array_keys($storey->openings), $storey->openings),
            'leaks' => array_map(static fn ($l): array => ['room' => $l->room, 'gapMm' => $l->gapMm, 'neck' => $l->neck, 'walls' => $l->walls], $storey->leaks),
            'areas' => array_map(static fn (float $mm2): float => $mm2 / 1e6, [
                'grossFloorM2' => $storey->areasMm2['grossFloor'],
                'netFloorM2' => $storey->areasMm2['netFloor'],
                'structureM2' => $storey->areasMm2['structure'],
            ]),
            'findings' => array_map(static fn ($f): array => ['code' => $f->code, 'things' => $f->things, 'at' => $f->at, 'message' => $f->message], $storey->findings),
        ];
    }
}
