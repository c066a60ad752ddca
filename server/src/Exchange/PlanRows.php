<?php

declare(strict_types=1);

namespace Plinth\Server\Exchange;

use Plinth\Core\Drafting\Fill;
use Plinth\Core\Drafting\LineKind;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\FireSafety;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Sweep;
use Plinth\Core\Plan\Model\SweepAlong;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Sheets\Model\PrintSheet as CoreSheet;
use Plinth\Core\Sheets\Model\SheetSide;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Server\Sheets\SheetView;
use Plinth\Server\Stairs\StairRail;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/** The rows of a plan, its sides and its sheets, as operations that add them to a project. */
final class PlanRows
{
    private const LONGEST_NUMBER = 12;

    /** @var list<array<string, mixed>> */
    private array $operations = [];
    /** @var array<string, string> the document's id of anything that others name → that of its row */
    private array $ids = [];
    /** @var list<string> what a project has no place for, in words */
    private array $left = [];
    /** @var array<string, string> rows by name and thickness */
    private array $buildUps = [];
    /** a side that the profiles of mouldings are drawn on */
    private ?string $profiles = null;

    /** @param bool $keepsIds whether rows are called as in the document, where that has ids that a row may have */
    private function __construct(private readonly bool $keepsIds)
    {
    }

    /** @return list<array<string, mixed>> */
    public static function of(Plan $plan): array
    {
        return self::documented($plan, [], [], false)[0];
    }

    /**
     * @param list<CoreSheet> $sheets
     * @param list<SheetSide> $sides
     *
     * @return array{list<array<string, mixed>>, list<string>} operations, and what was left out
     */
    public static function documented(Plan $plan, array $sheets, array $sides, bool $keepsIds): array
    {
        $rows = new self($keepsIds);
        foreach ($plan->finishes as $f) {
            $rows->add('finish', [
                'name' => $f->name, 'colour' => $f->colour, 'pattern' => $f->pattern->value, 'width' => $f->width, 'height' => $f->height,
                'joint' => $f->joint, 'bond' => $f->bond,
            ], $f->id);
        }
        foreach ($plan->stairLimits as $limit) {
            $rows->add('stairLimit', [
                'measure' => $limit->measure->value, 'least' => $limit->least, 'most' => $limit->most, 'standing' => $limit->standing,
            ]);
        }
        foreach ($plan->storeys as $storey) {
            $rows->add('storey', ['name' => $storey->name, 'elevation' => $storey->elevation, 'height' => $storey->height], $storey->id);
        }
        foreach ($plan->storeys as $storey) {
            $rows->storey($storey, $plan);
        }
        $rows->fire($plan->fire);
        foreach ($sides as $side) {
            $rows->side($side);
        }
        foreach ($sheets as $order => $sheet) {
            $rows->sheet($sheet, $order);
        }

        return [$rows->operations, array_values(array_unique($rows->left))];
    }

    private function fire(FireSafety $fire): void
    {
        foreach ($fire->classes as $class) {
            $this->add('fireClass', ['name' => $class->name, 'colour' => $class->colour, 'hatch' => $class->hatch->value], $class->id);
        }
        foreach ($fire->enclosures as $enclosure) {
            $outline = $enclosure->outline;
            $id = $this->add('enclosure', [
                'storey' => $this->ids[$enclosure->storey], 'fireClass' => $this->ids[$enclosure->class],
                'line' => null === $outline ? '' : self::places($outline->corners, $outline->rises),
            ], $enclosure->id);
            foreach ($enclosure->rooms as $room) {
                $this->add('enclosedRoom', ['enclosure' => $id, 'room' => $this->ids[$room]]);
            }
        }
        foreach ($fire->together as [$one, $other]) {
            $this->add('classesTogether', ['one' => $this->ids[$one], 'other' => $this->ids[$other]]);
        }
        foreach ($fire->limits as $limit) {
            $this->add('escapeLimit', ['measure' => $limit->measure->value, 'bound' => $limit->bound, 'standing' => $limit->standing]);
        }
    }

    private function storey(Storey $s, Plan $of): void
    {
        $storey = $this->ids[$s->id];
        $this->walls($s, $storey, $of);
        foreach ($s->rooms as $r) {
            $this->add('room', [
                'storey' => $storey, 'name' => $r->name, 'number' => $r->number, 'x' => $r->anchor->x, 'y' => $r->anchor->y,
                ...(null === $r->height ? [] : ['height' => $r->height]),
            ], $r->id);
        }
        foreach ($s->surfaces as $f) {
            $of = $this->ids[$f->of];
            $this->add('surface', [
                'finish' => $this->ids[$f->finish], 'on' => $f->on->value, 'bottom' => $f->bottom, 'top' => $f->top, 'start' => $f->start,
                'end' => $f->end, 'x' => $f->origin->x, 'y' => $f->origin->y, 'degrees' => $f->degrees,
                'room' => $f->on->isOfRoom() ? $of : null, 'wall' => $f->on->isOfRoom() ? null : $of,
            ], $f->id);
        }
        foreach ($s->columns as $c) {
            $this->add('column', [
                'storey' => $storey, 'x' => $c->centre->x, 'y' => $c->centre->y, 'width' => $c->width, 'depth' => $c->depth,
                'round' => $c->round,
            ], $c->id);
        }
        foreach ($s->objects as $o) {
            $this->add('object', [
                'storey' => $storey, 'kind' => $o->kind, 'x' => $o->at->x, 'y' => $o->at->y, 'degrees' => $o->degrees, 'width' => $o->width,
                'depth' => $o->depth, 'height' => $o->height, 'base' => $o->base,
            ], $o->id);
        }
        foreach ($s->stairs as $stair) {
            $rails = [[StairRail::None, StairRail::Right], [StairRail::Left, StairRail::Both]];
            $this->add('stair', [
                'storey' => $storey, 'reaches' => null === $stair->reaches ? null : $this->ids[$stair->reaches],
                'line' => self::places($stair->line, $stair->rises),
                'treads' => implode('|', array_map(static fn (Contour $t): string => self::places($t->corners, $t->rises), $stair->treads)),
                'width' => $stair->width, 'risers' => $stair->risers, 'turn' => $stair->turn->value, 'winders' => $stair->winders,
                'build' => $stair->build->value, 'thickness' => $stair->thickness, 'nosing' => $stair->nosing,
                'rails' => $rails[(int) $stair->leftRail][(int) $stair->rightRail]->value, 'railHeight' => $stair->railHeight,
                'posts' => $stair->posts->value, 'postsBy' => $stair->postsBy, 'headroom' => $stair->headroom,
            ], $stair->id);
        }
        $this->outlines($s, $storey);
        foreach ($s->sweeps as $sweep) {
            $this->sweep($sweep, $storey);
        }
        if ([] !== $s->figures) {
            $this->left[] = 'figures between faces: walls are as they were settled by them';
        }
    }

    private function walls(Storey $s, string $storey, Plan $of): void
    {
        $nodes = [];
        $node = function (Point $at) use (&$nodes, $storey): string {
            return $nodes["$at->x $at->y"] ??= $this->add('node', ['storey' => $storey, 'x' => $at->x, 'y' => $at->y]);
        };
        foreach ($s->walls as $wall) {
            $this->add('wall', [
                'storey' => $storey, 'fromNode' => $node($wall->from), 'toNode' => $node($wall->to), 'thickness' => $wall->thickness,
                'height' => $wall->height, 'line' => $wall->line->value, 'evidence' => 'figure', 'rise' => $wall->rise,
                'toCeiling' => $wall->toCeiling, 'enclosing' => $wall->enclosing, 'railing' => $wall->railing,
                'buildUp' => $this->buildUp($of->buildUps[$wall->id] ?? '', $wall),
            ], $wall->id);
        }
        foreach ($s->openings as $o) {
            // What is called by a number of its own keeps it.
            $number = $of->numbers[$o->id] ?? (Uuid::isValid($o->id) || mb_strlen($o->id) > self::LONGEST_NUMBER ? '' : $o->id);
            $this->add('opening', [
                'wall' => $this->ids[$o->wall], 'kind' => $o->kind->value, 'offset' => $o->offset, 'width' => $o->width, 'sill' => $o->sill,
                'height' => $o->height, 'hand' => $o->hand, 'swing' => $o->swing, 'number' => $number, 'leaf' => $o->leaf,
                'head' => $o->head->value, ...(0.0 === $o->rise ? [] : ['rise' => $o->rise]),
                'exit' => $o->exit->value, 'rated' => $o->rated,
            ], $o->id);
        }
        foreach ($s->dividers as $d) {
            $this->add('divider', [
                'storey' => $storey, 'drawing' => null, 'x1' => $d->from->x, 'y1' => $d->from->y, 'x2' => $d->to->x, 'y2' => $d->to->y,
                'rise' => $d->rise,
            ], $d->id);
        }
    }

    /** A build-up for each name and thickness. */
    private function buildUp(string $name, Wall $wall): ?string
    {
        return '' === $name ? null : $this->buildUps["$name|$wall->thickness"] ??= $this->add('buildUp', [
            'name' => $name, 'thickness' => $wall->thickness, 'height' => $wall->height, 'enclosing' => $wall->enclosing,
        ]);
    }

    private function outlines(Storey $s, string $storey): void
    {
        foreach (['slab' => $s->floors, 'ceiling' => $s->ceilings] as $kind => $slabs) {
            foreach ($slabs as $slab) {
                $this->outline($storey, $kind, $slab->id, $slab->outline, $slab->top, $slab->thickness, finish: $slab->finish);
            }
        }
        foreach ($s->voids as $void) {
            $this->outline($storey, 'void', $void->id, $void->outline, null, null);
        }
        foreach ($s->shafts as $shaft) {
            $this->outline($storey, 'chimney', $shaft->id, $shaft->outline, $shaft->top, $shaft->top - $shaft->base);
        }
        foreach ($s->dormers as $dormer) {
            $this->outline($storey, 'dormer', $dormer->id, $dormer->outline, $dormer->top, $dormer->thickness);
        }
        foreach ($s->roofs as $roof) {
            $round = new Contour($roof->corners);
            $this->outline($storey, 'roof', $roof->id, $round, $roof->eaves, $roof->thickness, $roof->pitches, $roof->overhangs);
        }
    }

    /**
     * @param list<float|null> $pitches of each edge
     * @param list<float> $overhangs
     */
    private function outline(
        string $storey,
        string $kind,
        string $id,
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
        ], $id);
        foreach ($round->corners as $i => $corner) {
            $this->add('outlineCorner', [
                'outline' => $outline, 'order' => $i, 'x' => $corner->x, 'y' => $corner->y, 'rise' => $round->rises[$i] ?? 0.0,
                'pitch' => $pitches[$i] ?? null, 'overhang' => $overhangs[$i] ?? 0.0,
            ]);
        }
    }

    /** A moulding with its profile, which is drawn on a side of its own, and with its path where it has one. */
    private function sweep(Sweep $sweep, string $storey): void
    {
        [$left, $bottom, $right, $top] = $sweep->profile->bounds();
        $held = [-$left / max(1e-9, $right - $left), -$bottom / max(1e-9, $top - $bottom)];
        if (null !== $sweep->face || min($held) < 0.0 || max($held) > 1.0) {
            $this->left[] = 'mouldings on sides, and those that are held outside their profile';

            return;
        }
        $this->profiles ??= $this->add('side', [
            'name' => 'Profiles', 'fromX' => null, 'fromY' => null, 'toX' => null, 'toY' => null, 'cut' => false, 'jogs' => '',
        ]);
        $profile = $this->drawn(['storey' => null, 'side' => $this->profiles], $sweep->profile->corners, $sweep->profile->rises, true);
        $path = SweepAlong::Path === $sweep->along
            ? $this->drawn(['storey' => $storey, 'side' => null], $sweep->path, $sweep->rises, $sweep->closed)
            : null;
        $this->add('sweep', [
            'storey' => $storey, 'name' => 'Moulding', 'profile' => $profile, 'heldX' => $held[0], 'heldY' => $held[1],
            'outline' => SweepAlong::Eaves === $sweep->along && null !== $sweep->of ? $this->ids[$sweep->of] : null,
            'path' => $path, 'level' => $sweep->level, 'inward' => $sweep->inward,
        ], $sweep->id);
    }

    /**
     * @param array{storey: string|null, side: string|null} $where
     * @param list<Point> $corners
     * @param list<float> $rises
     */
    private function drawn(array $where, array $corners, array $rises, bool $isClosed): string
    {
        return $this->add('drawnLine', [
            ...$where, 'drawing' => null, 'name' => '', 'line' => self::places($corners, $rises), 'closed' => $isClosed, 'kind' => LineKind::Narrow->value,
            'fill' => Fill::None->value,
        ]);
    }

    private function side(SheetSide $side): void
    {
        [$from, $to] = [$side->line[0], $side->line[\count($side->line) - 1]];
        $this->add('side', [
            'name' => '' === $side->name ? 'Side' : $side->name, 'fromX' => $from->x, 'fromY' => $from->y, 'toX' => $to->x, 'toY' => $to->y,
            'cut' => $side->cut, 'depth' => $side->depth, 'jogs' => self::places(\array_slice($side->line, 1, -1), []),
        ], $side->id);
    }

    private function sheet(CoreSheet $sheet, int $order): void
    {
        $row = $this->add('printSheet', [
            'order' => $order, 'width' => $sheet->width, 'height' => $sheet->height, 'part' => $sheet->part, 'number' => $sheet->number,
            'owner' => $sheet->owner, 'creator' => $sheet->creator, 'approved' => $sheet->approved, 'date' => $sheet->date,
        ], $sheet->id);
        foreach ($sheet->views as $view) {
            if (ViewKind::Picture === $view->kind || ('' !== $view->of && !isset($this->ids[$view->of]))) {
                $this->left[] = 'views of pictures and of what the document does not hold';
                continue;
            }
            $values = SheetView::valuesOf($view, $row);
            foreach (['storey', 'side'] as $of) {
                $values[$of] = \is_string($values[$of]) ? $this->ids[$values[$of]] : null;
            }
            $id = $this->add('sheetView', $values, $view->id);
            foreach ($view->marks as $mark) {
                $this->add('viewMark', ['view' => $id, 'of' => $mark->of, 'dx' => $mark->dx, 'dy' => $mark->dy, 'hidden' => $mark->hidden]);
            }
        }
    }

    /**
     * @param list<Point> $at
     * @param list<float> $rises
     */
    private static function places(array $at, array $rises): string
    {
        $number = static fn (float $mm): string => json_encode($mm, \JSON_THROW_ON_ERROR);
        $places = [];
        foreach ($at as $i => $p) {
            $rise = $rises[$i] ?? 0.0;
            $places[] = implode(' ', array_map($number, [$p->x, $p->y, ...(0.0 === $rise ? [] : [$rise])]));
        }

        return implode('; ', $places);
    }

    /**
     * @param array<string, mixed> $values
     * @param string|null $documented its id in the document
     *
     * @return string that of its row
     */
    private function add(string $type, array $values, ?string $documented = null): string
    {
        $id = $this->keepsIds && null !== $documented && Uuid::isValid($documented)
            ? Uuid::fromString($documented)->toRfc4122()
            : (string) new UuidV7();
        if (null !== $documented) {
            $this->ids[$documented] = $id;
        }
        $this->operations[] = ['do' => 'add', 'type' => $type, 'id' => $id, 'values' => $values];

        return $id;
    }
}
