<?php

declare(strict_types=1);

namespace Plinth\Server\Demo;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Server\Stairs\StairRail;
use Symfony\Component\Uid\UuidV7;

/** The rows of a plan, as operations that add them to a project. */
final class PlanRows
{
    /** @var list<array<string, mixed>> */
    private array $operations = [];
    /** @var array<string, string> the plan’s id of a storey → that of its row */
    private array $storeys = [];
    /** @var array<string, string> the plan's id of a finish → that of its row */
    private array $finishes = [];

    private function __construct()
    {
    }

    /** @return list<array<string, mixed>> */
    public static function of(Plan $plan): array
    {
        $rows = new self();
        foreach ($plan->finishes as $f) {
            $rows->finishes[$f->id] = $rows->add('finish', [
                'name' => $f->name, 'colour' => $f->colour, 'pattern' => $f->pattern->value, 'width' => $f->width, 'height' => $f->height,
                'joint' => $f->joint, 'bond' => $f->bond,
            ]);
        }
        foreach ($plan->storeys as $storey) {
            $rows->storeys[$storey->id] = $rows->add('storey', ['name' => $storey->name, 'elevation' => $storey->elevation, 'height' => $storey->height]);
        }
        foreach ($plan->storeys as $storey) {
            $rows->storey($storey);
        }

        return $rows->operations;
    }

    private function storey(Storey $s): void
    {
        $storey = $this->storeys[$s->id];
        [$nodes, $walls] = [[], []];
        $node = function (Point $at) use (&$nodes, $storey): string {
            return $nodes["$at->x $at->y"] ??= $this->add('node', ['storey' => $storey, 'x' => $at->x, 'y' => $at->y]);
        };
        foreach ($s->walls as $wall) {
            $walls[$wall->id] = $this->add('wall', [
                'storey' => $storey, 'fromNode' => $node($wall->from), 'toNode' => $node($wall->to), 'thickness' => $wall->thickness,
                'height' => $wall->height, 'line' => $wall->line->value, 'evidence' => 'figure', 'rise' => $wall->rise,
                'toCeiling' => $wall->toCeiling, 'enclosing' => $wall->enclosing, 'railing' => $wall->railing,
            ]);
        }
        foreach ($s->openings as $o) {
            $this->add('opening', [
                'wall' => $walls[$o->wall], 'kind' => $o->kind->value, 'offset' => $o->offset, 'width' => $o->width, 'sill' => $o->sill,
                'height' => $o->height, 'hand' => $o->hand, 'swing' => $o->swing, 'number' => $o->id, 'leaf' => $o->leaf,
                'head' => $o->head->value, ...(0.0 === $o->rise ? [] : ['rise' => $o->rise]),
            ]);
        }
        $rooms = [];
        foreach ($s->rooms as $r) {
            $rooms[$r->id] = $this->add('room', [
                'storey' => $storey, 'name' => $r->name, 'number' => $r->number, 'x' => $r->anchor->x, 'y' => $r->anchor->y,
            ]);
        }
        foreach ($s->surfaces as $f) {
            $this->add('surface', [
                'finish' => $this->finishes[$f->finish], 'on' => $f->on->value, 'bottom' => $f->bottom, 'top' => $f->top, 'start' => $f->start,
                'end' => $f->end, 'x' => $f->origin->x, 'y' => $f->origin->y, 'degrees' => $f->degrees,
                'room' => $f->on->isOfRoom() ? $rooms[$f->of] : null, 'wall' => $f->on->isOfRoom() ? null : $walls[$f->of],
            ]);
        }
        foreach ($s->columns as $c) {
            $this->add('column', [
                'storey' => $storey, 'x' => $c->centre->x, 'y' => $c->centre->y, 'width' => $c->width, 'depth' => $c->depth,
                'round' => $c->round,
            ]);
        }
        foreach ($s->objects as $o) {
            $this->add('object', [
                'storey' => $storey, 'kind' => $o->kind, 'x' => $o->at->x, 'y' => $o->at->y, 'degrees' => $o->degrees, 'width' => $o->width,
                'depth' => $o->depth, 'height' => $o->height, 'base' => $o->base,
            ]);
        }
        foreach ($s->stairs as $stair) {
            $rails = [[StairRail::None, StairRail::Right], [StairRail::Left, StairRail::Both]];
            $this->add('stair', [
                'storey' => $storey, 'reaches' => null === $stair->reaches ? null : $this->storeys[$stair->reaches],
                'line' => self::places($stair->line, $stair->rises),
                'treads' => implode('|', array_map(static fn (Contour $t): string => self::places($t->corners, $t->rises), $stair->treads)),
                'width' => $stair->width, 'risers' => $stair->risers, 'turn' => $stair->turn->value, 'winders' => $stair->winders,
                'build' => $stair->build->value, 'thickness' => $stair->thickness, 'nosing' => $stair->nosing,
                'rails' => $rails[(int) $stair->leftRail][(int) $stair->rightRail]->value, 'railHeight' => $stair->railHeight,
                'posts' => $stair->posts->value, 'postsBy' => $stair->postsBy, 'headroom' => $stair->headroom,
            ]);
        }
        foreach (['slab' => $s->floors, 'ceiling' => $s->ceilings] as $kind => $slabs) {
            foreach ($slabs as $slab) {
                $this->outline($storey, $kind, $slab->outline, $slab->top, $slab->thickness, finish: $slab->finish);
            }
        }
        foreach ($s->voids as $void) {
            $this->outline($storey, 'void', $void->outline, null, null);
        }
        foreach ($s->shafts as $shaft) {
            $this->outline($storey, 'chimney', $shaft->outline, $shaft->top, $shaft->top - $shaft->base);
        }
        foreach ($s->dormers as $dormer) {
            $this->outline($storey, 'dormer', $dormer->outline, $dormer->top, $dormer->thickness);
        }
        foreach ($s->roofs as $roof) {
            $this->outline($storey, 'roof', new Contour($roof->corners), $roof->eaves, $roof->thickness, $roof->pitches, $roof->overhangs);
        }
    }

    /**
     * @param list<float|null> $pitches of each edge
     * @param list<float> $overhangs
     */
    private function outline(
        string $storey,
        string $kind,
        Contour $round,
        ?float $top,
        ?float $thickness,
        array $pitches = [],
        array $overhangs = [],
        float $finish = 0.0,
    ): void {
        $outline = $this->add('outline', [
            'storey' => $storey, 'side' => null, 'kind' => $kind, 'name' => 'slab' === $kind ? 'Floor' : ucfirst($kind), 'top' => $top,
            'thickness' => $thickness, 'finish' => 0.0 === $finish ? null : $finish,
        ]);
        foreach ($round->corners as $i => $corner) {
            $this->add('outlineCorner', [
                'outline' => $outline, 'order' => $i, 'x' => $corner->x, 'y' => $corner->y, 'rise' => $round->rises[$i] ?? 0.0,
                'pitch' => $pitches[$i] ?? null, 'overhang' => $overhangs[$i] ?? 0.0,
            ]);
        }
    }

    /**
     * @param list<Point> $at
     * @param list<float> $rises
     */
    private static function places(array $at, array $rises): string
    {
        $places = [];
        foreach ($at as $i => $p) {
            $places[] = implode(' ', [$p->x, $p->y, ...(0.0 === ($rises[$i] ?? 0.0) ? [] : [$rises[$i]])]);
        }

        return implode('; ', $places);
    }

    /** @param array<string, scalar|null> $values */
    private function add(string $type, array $values): string
    {
        $id = (string) new UuidV7();
        $this->operations[] = ['do' => 'add', 'type' => $type, 'id' => $id, 'values' => $values];

        return $id;
    }
}
