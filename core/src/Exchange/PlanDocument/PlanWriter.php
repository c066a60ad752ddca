<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\PlanDocument;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Finding;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Derivation\Unplaced;
use Plinth\Core\Plan\Derivation\WallShape;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\Dormer;
use Plinth\Core\Plan\Model\Enclosure;
use Plinth\Core\Plan\Model\EscapeLimit;
use Plinth\Core\Plan\Model\Figure;
use Plinth\Core\Plan\Model\Finish;
use Plinth\Core\Plan\Model\FinishPattern;
use Plinth\Core\Plan\Model\FireClass;
use Plinth\Core\Plan\Model\FireSafety;
use Plinth\Core\Plan\Model\FloorVoid;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningHead;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\PlacedObject;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Shaft;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\StairLimit;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Surface;
use Plinth\Core\Plan\Model\Sweep;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Leak;

/** Writes a plan document, and what was derived from one, as data for JSON. */
final class PlanWriter
{
    /**
     * @param list<string> $remarks what whoever reads it should know
     *
     * @return array<string, mixed>
     */
    public static function document(Plan $plan, array $remarks = []): array
    {
        return [
            'format' => PlanReader::FORMAT,
            'version' => PlanReader::VERSION,
            'units' => 'mm',
            ...([] === $remarks ? [] : ['remarks' => $remarks]),
            ...([] === $plan->finishes ? [] : ['finishes' => array_map(self::finish(...), $plan->finishes)]),
            ...([] === $plan->stairLimits ? [] : ['stairLimits' => array_map(static fn (StairLimit $l): array => self::said([
                'measure' => $l->measure->value, 'least' => $l->least, 'most' => $l->most, 'standing' => $l->standing,
            ]), $plan->stairLimits)]),
            ...self::fire($plan->fire),
            'storeys' => array_map(static fn (Storey $s): array => self::storey($s, $plan), $plan->storeys),
        ];
    }

    /** @return array<string, mixed> */
    private static function fire(FireSafety $fire): array
    {
        $said = array_filter([
            'classes' => array_map(static fn (FireClass $c): array => [
                'id' => $c->id, 'name' => $c->name, 'colour' => $c->colour, 'hatch' => $c->hatch->value,
            ], $fire->classes),
            'enclosures' => array_map(static fn (Enclosure $e): array => [
                'id' => $e->id, 'storey' => $e->storey, 'class' => $e->class, ...([] === $e->rooms ? [] : ['rooms' => $e->rooms]),
                ...(null === $e->outline ? [] : self::contour($e->outline)),
            ], $fire->enclosures),
            'together' => $fire->together,
            'limits' => array_map(static fn (EscapeLimit $l): array => [
                'measure' => $l->measure->value, 'bound' => $l->bound, 'standing' => $l->standing,
            ], $fire->limits),
        ]);

        return [] === $said ? [] : ['fire' => $said];
    }

    /** @return array<string, mixed> */
    private static function storey(Storey $s, Plan $of): array
    {
        return [
            'id' => $s->id,
            'name' => $s->name,
            'elevation' => $s->elevation,
            'height' => $s->height,
            'walls' => array_map(static fn (Wall $w): array => self::said([
                'id' => $w->id,
                'from' => $w->from->toArray(),
                'to' => $w->to->toArray(),
                'thickness' => $w->thickness,
                'line' => $w->line->value,
                'height' => $w->height, 'rise' => 0.0 === $w->rise ? null : $w->rise, 'enclosing' => $w->enclosing ? null : false,
                'toCeiling' => $w->toCeiling ? true : null,
                'railing' => $w->railing ? true : null,
                'buildUp' => $of->buildUps[$w->id] ?? null,
            ]), $s->walls),
            'openings' => array_map(static fn (Opening $o): array => self::said([
                'id' => $o->id,
                'wall' => $o->wall,
                'kind' => $o->kind->value,
                'offset' => $o->offset,
                'width' => $o->width,
                'sill' => $o->sill,
                'height' => $o->height, 'hand' => $o->hand, 'swing' => $o->swing, 'leaf' => $o->leaf,
                'head' => OpeningHead::Level === $o->head ? null : $o->head->value, 'rise' => 0.0 === $o->rise ? null : $o->rise,
                'number' => $of->numbers[$o->id] ?? null,
                'exit' => DoorExit::None === $o->exit ? null : $o->exit->value, 'rated' => '' === $o->rated ? null : $o->rated,
            ]), $s->openings),
            'dividers' => array_map(
                static fn (Divider $d): array => self::said([
                    'id' => $d->id, 'from' => $d->from->toArray(), 'to' => $d->to->toArray(), 'rise' => 0.0 === $d->rise ? null : $d->rise,
                ]),
                $s->dividers,
            ),
            'columns' => array_map(static fn (Column $c): array => [
                'id' => $c->id, 'at' => $c->centre->toArray(), 'width' => $c->width, 'depth' => $c->depth, 'round' => $c->round,
            ], $s->columns),
            'rooms' => array_map(static fn (Room $r): array => self::said([
                'id' => $r->id, 'name' => $r->name, 'number' => $r->number, 'anchor' => $r->anchor->toArray(), 'height' => $r->height,
            ]), $s->rooms),
            'figures' => array_map(static fn (Figure $f): array => [
                'id' => $f->id, 'a' => $f->a, 'aSide' => $f->aSide->value, 'b' => $f->b, 'bSide' => $f->bSide->value, 'mm' => $f->mm,
                'roundedTo' => 2.0 * $f->toleranceMm,
            ], $s->figures),
            'floors' => array_map(self::slab(...), $s->floors),
            'ceilings' => array_map(self::slab(...), $s->ceilings),
            'voids' => array_map(static fn (FloorVoid $v): array => ['id' => $v->id, ...self::contour($v->outline)], $s->voids),
            'roofs' => array_map(static fn (PitchedRoof $r): array => [
                'id' => $r->id, ...self::contour(new Contour($r->corners)), 'pitches' => $r->pitches, 'overhangs' => $r->overhangs,
                'eaves' => $r->eaves, 'thickness' => $r->thickness,
            ], $s->roofs),
            'chimneys' => array_map(static fn (Shaft $c): array => [
                'id' => $c->id, ...self::contour($c->outline), 'base' => $c->base, 'top' => $c->top,
            ], $s->shafts),
            'dormers' => array_map(static fn (Dormer $d): array => [
                'id' => $d->id, ...self::contour($d->outline), 'top' => $d->top, 'thickness' => $d->thickness,
            ], $s->dormers),
            'objects' => array_map(static fn (PlacedObject $o): array => [
                'id' => $o->id, 'kind' => $o->kind, 'at' => $o->at->toArray(), 'degrees' => $o->degrees, 'width' => $o->width,
                'depth' => $o->depth, 'height' => $o->height, 'base' => $o->base,
            ], $s->objects),
            'surfaces' => array_map(static fn (Surface $f): array => self::said([
                'id' => $f->id, 'finish' => $f->finish, 'on' => $f->on->value, $f->on->isOfRoom() ? 'room' : 'wall' => $f->of,
                'bottom' => $f->bottom, 'top' => $f->top, 'start' => $f->start, 'end' => $f->end,
                'origin' => $f->origin->toArray(), 'degrees' => $f->degrees,
            ]), $s->surfaces),
            'stairs' => array_map(self::stair(...), $s->stairs),
            'sweeps' => array_map(self::sweep(...), $s->sweeps),
        ];
    }

    /** @return array<string, mixed> */
    private static function sweep(Sweep $s): array
    {
        return self::said([
            'id' => $s->id, 'profile' => self::contour($s->profile), 'along' => $s->along->value,
            'path' => [] === $s->path ? null : array_map(static fn (Point $p): array => $p->toArray(), $s->path),
            'rises' => [] === array_filter($s->rises, static fn (float $r): bool => 0.0 !== $r) ? null : $s->rises,
            'closed' => $s->closed ? true : null, 'of' => $s->of, 'level' => $s->level, 'inward' => $s->inward ? true : null,
            'face' => null === $s->face ? null : [$s->face[0]->toArray(), $s->face[1]->toArray()],
        ]);
    }

    /** @return array<string, mixed> */
    private static function stair(Stair $s): array
    {
        $rails = array_keys(array_filter(['left' => $s->leftRail, 'right' => $s->rightRail]));

        return self::said([
            'id' => $s->id,
            ...$s->isFree() ? ['treads' => array_map(self::contour(...), $s->treads)] : [
                'line' => array_map(static fn (Point $p): array => $p->toArray(), $s->line),
                'rises' => [] === array_filter($s->rises, static fn (float $r): bool => 0.0 !== $r) ? null : $s->rises,
            ],
            'width' => $s->width, 'risers' => $s->risers, 'turn' => $s->turn->value, 'winders' => $s->winders, 'build' => $s->build->value,
            'thickness' => $s->thickness,
            'nosing' => $s->nosing,
            'rails' => 2 === \count($rails) ? 'both' : ($rails[0] ?? null),
            'railHeight' => $s->railHeight, 'headroom' => $s->headroom, 'reaches' => $s->reaches,
            ...[] === $rails ? [] : ['posts' => $s->posts->value, 'postsBy' => $s->postsBy],
        ]);
    }

    /** @return array<string, mixed> */
    private static function finish(Finish $f): array
    {
        return self::said([
            'id' => $f->id, 'name' => $f->name, 'colour' => $f->colour, 'pattern' => $f->pattern->value,
            ...FinishPattern::Plain === $f->pattern ? [] : [
                'width' => $f->width, 'height' => 0.0 === $f->height ? null : $f->height, 'joint' => $f->joint, 'bond' => $f->bond,
            ],
        ]);
    }

    /** @return array<string, mixed> */
    private static function slab(Slab $s): array
    {
        return self::said([
            'id' => $s->id, ...self::contour($s->outline), 'top' => $s->top, 'thickness' => $s->thickness,
            'finish' => 0.0 === $s->finish ? null : $s->finish,
        ]);
    }

    /** @return array<string, mixed> */
    private static function contour(Contour $contour): array
    {
        return [
            'outline' => array_map(static fn (Point $p): array => $p->toArray(), $contour->corners),
            ...([] === array_filter($contour->rises, static fn (float $r): bool => 0.0 !== $r) ? [] : ['rises' => $contour->rises]),
        ];
    }

    /**
     * Without what is not said.
     *
     * @param array<string, mixed> $values
     *
     * @return array<string, mixed>
     */
    private static function said(array $values): array
    {
        return array_filter($values, static fn (mixed $v): bool => null !== $v);
    }

    /** @return array<string, mixed> what a wall looks like, to a thousandth of a millimetre */
    public static function wall(WallShape $shape): array
    {
        return [
            'id' => $shape->id,
            'stretches' => array_map(
                static fn (array $s): array => [
                    'from' => self::rounded($s['from']),
                    'right' => array_map(self::rounded(...), $s['right']),
                    'to' => self::rounded($s['to']),
                    'left' => array_map(self::rounded(...), $s['left']),
                ],
                $shape->stretches,
            ),
            'openings' => array_map(
                static fn (string $id, array $piece): array => ['id' => $id, 'polygon' => array_map(self::rounded(...), $piece)],
                array_keys($shape->openings),
                $shape->openings,
            ),
            'findings' => array_map(self::finding(...), $shape->findings),
        ];
    }

    /** @return array<string, mixed> the room that names a region has its id there, null where none does */
    public static function region(Region $region): array
    {
        return [
            'key' => $region->key,
            'id' => $region->room?->id,
            'polygon' => array_map(self::rounded(...), $region->polygon),
            'holes' => array_map(static fn (array $hole): array => array_map(self::rounded(...), $hole), $region->holes),
            'netAreaM2' => $region->netAreaMm2 / 1e6,
            'label' => $region->label,
            'clear' => $region->clear,
            'walls' => $region->walls,
            'leaks' => array_map(self::leak(...), $region->leaks),
            'findings' => array_map(self::finding(...), $region->findings),
        ];
    }

    /** @return array<string, mixed> */
    public static function unplaced(Unplaced $place): array
    {
        return [
            'room' => $place->room->id,
            'leak' => null === $place->leak ? null : self::leak($place->leak),
            'finding' => self::finding($place->finding),
        ];
    }

    /** @return array<string, mixed> */
    private static function leak(Leak $leak): array
    {
        return ['room' => $leak->room, 'gapMm' => $leak->gapMm, 'neck' => $leak->neck, 'walls' => $leak->walls, 'end' => $leak->end];
    }

    /** @return array<string, mixed> */
    private static function finding(Finding $finding): array
    {
        return [
            'code' => $finding->code,
            'things' => $finding->things,
            'at' => $finding->at,
            'message' => $finding->message,
            'mend' => $finding->mend?->value,
        ];
    }

    /**
     * @param array{float, float} $point
     *
     * @return array{float, float}
     */
    private static function rounded(array $point): array
    {
        return [round($point[0], 3), round($point[1], 3)];
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
            'openings' => array_map(
                static fn (string $id, array $piece): array => ['id' => $id, 'polygon' => $piece],
                array_keys($storey->openings),
                $storey->openings,
            ),
            'leaks' => array_map(self::leak(...), $storey->leaks),
            'areas' => array_map(static fn (float $mm2): float => $mm2 / 1e6, [
                'grossFloorM2' => $storey->areasMm2['grossFloor'],
                'netFloorM2' => $storey->areasMm2['netFloor'],
                'structureM2' => $storey->areasMm2['structure'],
            ]),
            'findings' => array_map(self::finding(...), $storey->findings),
        ];
    }
}
