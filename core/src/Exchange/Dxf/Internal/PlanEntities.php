<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf\Internal;

use Plinth\Core\Exchange\Dxf\DxfLayers;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Objects\ObjectForm;
use Plinth\Core\Objects\ObjectKind;
use Plinth\Core\Plan\Derivation\BodyOutline;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\FireOnPlan;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PlanSheet;
use Plinth\Core\Sheets\Written;
use Plinth\Core\Stairs\StairPlan;

/**
 * What a storey's plan draws: walls cut at their openings, leaves and panes as they are, arcs as arcs.
 *
 * @internal
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final class PlanEntities
{
    public const LAYERS = [
        'walls' => [7, DxfFile::CONTINUOUS],
        'wall-hatch' => [9, DxfFile::CONTINUOUS],
        'centre-lines' => [8, DxfFile::CHAIN],
        'railings' => [7, DxfFile::CONTINUOUS],
        'dividers' => [8, DxfFile::DASHED],
        'openings' => [3, DxfFile::CONTINUOUS],
        'opening-numbers' => [3, DxfFile::CONTINUOUS],
        'rooms' => [4, DxfFile::CONTINUOUS],
        'room-names' => [4, DxfFile::CONTINUOUS],
        'stairs' => [7, DxfFile::CONTINUOUS],
        'stairs-beyond' => [8, DxfFile::DASHED],
        'axes' => [8, DxfFile::CHAIN],
        'columns' => [7, DxfFile::CONTINUOUS],
        'outlines' => [6, DxfFile::DASHED],
        'objects' => [8, DxfFile::CONTINUOUS],
        'boundary' => [1, DxfFile::CHAIN],
        'drawn' => [7, DxfFile::CONTINUOUS],
        'dimensions' => [3, DxfFile::CONTINUOUS],
        'notes' => [2, DxfFile::CONTINUOUS],
        'levels' => [2, DxfFile::CONTINUOUS],
        'remarks' => [1, DxfFile::CONTINUOUS],
        'ways-out' => [6, DxfFile::CONTINUOUS],
        'ways-out-lengths' => [6, DxfFile::CONTINUOUS],
    ];
    /** at which hatches of classes are as wide as on paper, 1 : so much */
    private const HATCH_SCALE = 50.0;
    private const TEXT_MM = DxfWriter::TEXT_HEIGHT_MM;
    /** by how far axes run on beyond what they set out */
    private const AXIS_BEYOND_MM = 1500.0;

    private readonly Bulges $bulges;
    /** mm to the right that all of it lies */
    private float $by = 0.0;

    public function __construct(
        private readonly DxfFile $file,
        private readonly DxfLayers $layers,
        private readonly Written $written,
        private readonly Storey $storey,
        private readonly DerivedStorey $derived,
        private readonly PlanBeside $beside,
        private readonly ?FireOnPlan $fire = null,
    ) {
        $circles = [];
        foreach ($storey->walls as $wall) {
            $arc = $wall->arc();
            array_push($circles, ...(null === $arc ? [] : Bulges::beside($arc, $wall->thickness)));
        }
        foreach ($storey->dividers as $divider) {
            $arc = $divider->arc();
            array_push($circles, ...(null === $arc ? [] : Bulges::beside($arc, 0.0)));
        }
        $this->bulges = new Bulges($circles);
    }

    /** @return array{float, float, float, float}|null how far what is traced reaches, mm */
    public function extent(): ?array
    {
        $points = array_merge([], ...array_map(static fn (BodyOutline $o): array => $o->outer, $this->derived->outlines));
        foreach ([] === $points ? $this->storey->walls : [] as $wall) {
            array_push($points, $wall->from->toArray(), $wall->to->toArray());
        }

        return [] === $points ? null : Polygon::bounds($points);
    }

    /** @param float $by mm to the right that all of it is put */
    public function draw(float $by = 0.0): void
    {
        $this->by = $by;
        $this->walls();
        foreach ($this->storey->openings as $opening) {
            if (isset($this->derived->openings[$opening->id])) {
                $this->opening($opening, $this->derived->openings[$opening->id]);
            }
        }
        foreach ($this->storey->dividers as $divider) {
            $arc = $divider->arc();
            $bulge = null === $arc ? 0.0 : -2.0 * $divider->rise / $divider->from->distanceTo($divider->to);
            $ends = [[...$this->at($divider->from->toArray()), $bulge], [...$this->at($divider->to->toArray()), 0.0]];
            $this->file->polyline($this->layers->named('dividers'), $ends, false);
        }
        $this->rooms();
        $this->outlines();
        array_map($this->stair(...), $this->beside->stairs);
        $this->objects();
        $this->settingOut();
        DxfWriter::drawn($this->file, $this->layers, $this->written, $this->beside, $by);
        if (null !== $this->fire) {
            $this->enclosures($this->fire);
            $this->waysOut($this->fire);
        }
    }

    private function enclosures(FireOnPlan $fire): void
    {
        $key = $fire->key();
        foreach ($fire->on($this->storey->id) as [$class, $area]) {
            $layer = $this->layers->ofClass(1 + (int) array_search($class, $key, true), $class->name);
            foreach ($area->shapes as $shape) {
                $rings = array_map($this->ring(...), [$shape['outer'], ...$shape['holes']]);
                foreach ($rings as $ring) {
                    $this->file->polyline($layer, $ring);
                }
                $this->file->hatch($layer, $rings, $class->hatch->directions(), $class->hatch->apartMm() * self::HATCH_SCALE);
            }
            $label = $area->label();
            if (null !== $label) {
                [$x, $y] = $this->at($label);
                $this->file->text($layer, $class->name, $x, $y, self::TEXT_MM);
            }
        }
    }

    /** From the worst place of each room, with the length where it begins; nothing where no door is an exit. */
    private function waysOut(FireOnPlan $fire): void
    {
        foreach ($fire->ways() as $room) {
            $route = $room->toFinal ?? $room->toExit;
            foreach (null === $route ? [] : $route->on($this->storey->id) as [$places, $isFirst]) {
                $corners = array_map(fn (array $p): array => [...$this->at($p), 0.0], $places);
                $this->file->polyline($this->layers->named('ways-out'), $corners, false);
                if ($isFirst && null !== $route) {
                    [$x, $y] = $this->at($places[0]);
                    $told = $this->written->length($route->mm);
                    $this->file->text($this->layers->named('ways-out-lengths'), $told, $x, $y, 0.8 * self::TEXT_MM);
                }
            }
        }
    }

    private function walls(): void
    {
        $cutOuts = $this->derived->cutOuts();
        $holes = array_merge([], ...array_map(static fn (BodyOutline $o): array => $o->holes, $this->derived->outlines));
        $bodies = array_map(static fn (BodyOutline $o): array => $o->outer, $this->derived->outlines);
        $low = [];
        foreach ($this->storey->walls as $wall) {
            $middle = $wall->arc();
            if (null === $middle) {
                $this->file->line($this->layers->named('centre-lines'), $this->at($wall->from->toArray()), $this->at($wall->to->toArray()));
            } else {
                $bulge = -2.0 * $wall->rise / $wall->from->distanceTo($wall->to);
                $ends = [[...$this->at($wall->from->toArray()), $bulge], [...$this->at($wall->to->toArray()), 0.0]];
                $this->file->polyline($this->layers->named('centre-lines'), $ends, false);
            }
            $shape = $this->derived->walls[$wall->id] ?? null;
            foreach ($wall->enclosing ? [] : $shape?->bodies() ?? [] as $ring) {
                $isCut = !$wall->railing && ($wall->height ?? \INF) > PlanSheet::CUT_MM;
                $isCut ? $bodies[] = $ring : $low[] = $ring;
            }
        }
        $without = [...$cutOuts, ...array_map(self::counterClockwise(...), $holes)];
        foreach ([] === $bodies ? [] : Overlay::difference($bodies, $without) as ['outer' => $outer, 'holes' => $inside]) {
            $rings = array_map($this->ring(...), [$outer, ...$inside]);
            foreach ($rings as $ring) {
                $this->file->polyline($this->layers->named('walls'), $ring);
            }
            $this->file->hatch($this->layers->named('wall-hatch'), $rings);
        }
        foreach ($low as $ring) {
            $this->file->polyline($this->layers->named('railings'), $this->ring($ring));
        }
    }

    /** @param Ring $piece along the right face from near to far, and back along the left */
    private function opening(Opening $opening, array $piece): void
    {
        $half = intdiv(\count($piece), 2);
        if ($half < 2) {
            return;
        }
        $layer = $this->layers->named('openings');
        [$right, $left] = [\array_slice($piece, 0, $half), array_reverse(\array_slice($piece, $half))];
        [$nearRight, $farRight, $farLeft, $nearLeft] = [$right[0], $right[$half - 1], $left[\count($left) - 1], $left[0]];
        $this->file->line($layer, $this->at($nearRight), $this->at($nearLeft));
        $this->file->line($layer, $this->at($farRight), $this->at($farLeft));
        $number = $this->beside->numbers[$opening->id] ?? '';
        if ('' !== $number) {
            [$x, $y] = $this->at(self::middle(self::middle($nearRight, $farRight), self::middle($nearLeft, $farLeft)));
            $this->file->text($this->layers->named('opening-numbers'), $number, $x, $y, 0.6 * self::TEXT_MM);
        }
        if (OpeningKind::Window === $opening->kind) {
            $pane = \count($right) === \count($left)
                ? array_map(self::middle(...), $right, $left)
                : [self::middle($nearRight, $nearLeft), self::middle($farRight, $farLeft)];
            foreach ([$right, $left, $pane] as $line) {
                if (2 === \count($line)) {
                    $this->file->line($layer, $this->at($line[0]), $this->at($line[1]));
                } else {
                    $this->file->polyline($layer, $this->chain($line), false);
                }
            }
        }
        if (OpeningKind::Door === $opening->kind) {
            $this->leaves($opening, 'left' === $opening->swing ? [$nearLeft, $farLeft, 1.0] : [$nearRight, $farRight, -1.0]);
        }
    }

    /**
     * Each leaf as it stands open at a right angle to its wall, with the arc it swings along; one that slides beside the wall.
     *
     * @param array{array{float, float}, array{float, float}, float} $face near jamb, far jamb, and which way it turns open
     */
    private function leaves(Opening $opening, array $face): void
    {
        [$near, $far, $turn] = $face;
        $layer = $this->layers->named('openings');
        if ('sliding' === $opening->leaf) {
            $this->file->line($layer, $this->at($near), $this->at([2.0 * $near[0] - $far[0], 2.0 * $near[1] - $far[1]]));

            return;
        }
        $middle = self::middle($near, $far);
        $leaves = 'double' === $opening->leaf
            ? [[$near, $middle, $turn], [$far, $middle, -$turn]]
            : ['left' === $opening->hand ? [$near, $far, $turn] : [$far, $near, -$turn]];
        foreach ($leaves as [$hinge, $latch, $way]) {
            $wide = hypot($latch[0] - $hinge[0], $latch[1] - $hinge[1]);
            $across = atan2($latch[1] - $hinge[1], $latch[0] - $hinge[0]);
            $open = $across + $way * \M_PI_2;
            $this->file->line($layer, $this->at($hinge), $this->at([$hinge[0] + $wide * cos($open), $hinge[1] + $wide * sin($open)]));
            $this->file->arc($layer, $this->at($hinge), $wide, $way > 0.0 ? $across : $open, $way > 0.0 ? $open : $across);
        }
    }

    private function rooms(): void
    {
        $largest = null;
        foreach ($this->derived->regions as $region) {
            foreach ([$region->polygon, ...$region->holes] as $ring) {
                $this->file->polyline($this->layers->named('rooms'), $this->ring($ring));
            }
            $largest = null === $largest || $region->netAreaMm2 > $largest->netAreaMm2 ? $region : $largest;
            if (null !== $region->room) {
                [$x, $y] = $this->at($region->room->anchor->toArray());
                $name = trim($region->room->number.' '.$region->room->name);
                $this->file->text($this->layers->named('room-names'), $name, $x, $y, self::TEXT_MM);
                $area = $this->written->areas->written($region->netAreaMm2 / 1e6);
                $this->file->text($this->layers->named('room-names'), $area, $x, $y - 1.6 * self::TEXT_MM, self::TEXT_MM);
            }
        }
        if (null !== $largest) {
            [$x, $y] = $this->at($largest->room?->anchor->toArray() ?? $largest->label);
            $level = $this->written->level($this->storey->elevation);
            $this->file->text($this->layers->named('levels'), $level, $x, $y - 3.2 * self::TEXT_MM, 0.8 * self::TEXT_MM);
        }
    }

    /** Of floors, ceilings, voids, roofs, chimneys and dormers. */
    private function outlines(): void
    {
        $storey = $this->storey;
        $rings = [
            ...array_map(static fn ($s): array => $s->outline->points(), [...$storey->floors, ...$storey->ceilings, ...$storey->voids]),
            ...array_map(static fn ($s): array => $s->outline->points(), [...$storey->shafts, ...$storey->dormers]),
            ...array_map(static fn ($r): array => array_map(static fn ($p): array => $p->toArray(), $r->corners), $storey->roofs),
        ];
        foreach ([...$rings, ...$this->beside->over] as $ring) {
            $this->file->polyline($this->layers->named('outlines'), $this->ring($ring));
        }
    }

    private function stair(StairPlan $plan): void
    {
        $drawn = [
            'stairs' => [...$plan->seen, $plan->way, ...null === $plan->cut ? [] : [$plan->cut]],
            'stairs-beyond' => $plan->beyond,
        ];
        foreach ($drawn as $layer => $lines) {
            foreach ($lines as $line) {
                foreach (\array_slice($line, 1) as $i => $to) {
                    $this->file->line($this->layers->named($layer), $this->at($line[$i]), $this->at($to));
                }
            }
        }
        $this->file->text($this->layers->named('stairs'), $plan->words, ...[...$this->at($plan->way[0]), self::TEXT_MM]);
    }

    private function objects(): void
    {
        foreach ($this->storey->objects as $object) {
            $kind = ObjectKind::tryFrom($object->kind);
            [$cos, $sin] = [cos(deg2rad($object->degrees)), sin(deg2rad($object->degrees))];
            foreach (null === $kind ? [] : (new ObjectForm($kind, $object->width, $object->depth, $object->height))->plan() as $ring) {
                $this->file->polyline($this->layers->named('objects'), $this->ring(array_map(static fn (array $p): array => [
                    $object->at->x + $cos * $p[0] - $sin * $p[1], $object->at->y + $sin * $p[0] + $cos * $p[1],
                ], $ring)));
            }
        }
    }

    private function settingOut(): void
    {
        $of = $this->beside->settingOut;
        foreach ($this->storey->columns as $column) {
            if ($column->round) {
                $this->file->circle($this->layers->named('columns'), $this->at($column->centre->toArray()), $column->width / 2.0);
            } else {
                $this->file->polyline($this->layers->named('columns'), $this->ring($column->outline()));
            }
        }
        foreach ([] === $this->storey->columns ? $of->columns : [] as $ring) {
            $this->file->polyline($this->layers->named('columns'), $this->ring($ring));
        }
        foreach ($of->boundaries as $ring) {
            $this->file->polyline($this->layers->named('boundary'), $this->ring($ring));
        }
        $points = array_merge(
            [],
            ...array_map(static fn (BodyOutline $o): array => $o->outer, $this->derived->outlines),
            ...array_map(static fn (Column $c): array => $c->outline(), $this->storey->columns),
            ...$of->columns,
        );
        foreach ($of->axes as $axis) {
            $points[] = 'x' === $axis['along'] ? [$axis['at'], $points[0][1] ?? 0.0] : [$points[0][0] ?? 0.0, $axis['at']];
        }
        if ([] === $points) {
            return;
        }
        [$x1, $y1, $x2, $y2] = Polygon::bounds($points);
        foreach ($of->axes as ['label' => $label, 'along' => $along, 'at' => $at]) {
            [$from, $to] = 'x' === $along
                ? [[$at, $y1 - self::AXIS_BEYOND_MM], [$at, $y2 + self::AXIS_BEYOND_MM]]
                : [[$x1 - self::AXIS_BEYOND_MM, $at], [$x2 + self::AXIS_BEYOND_MM, $at]];
            $this->file->line($this->layers->named('axes'), $this->at($from), $this->at($to));
            [$x, $y] = $this->at('x' === $along ? $to : $from);
            $this->file->text($this->layers->named('axes'), $label, $x, $y, self::TEXT_MM);
        }
    }

    /**
     * @param list<array{float, float}> $ring
     *
     * @return list<array{float, float, float}>
     */
    private function ring(array $ring): array
    {
        return array_map($this->corner(...), $this->bulges->of($ring));
    }

    /**
     * @param list<array{float, float}> $line
     *
     * @return list<array{float, float, float}>
     */
    private function chain(array $line): array
    {
        return array_map($this->corner(...), $this->bulges->of($line, false));
    }

    /**
     * @param array{float, float, float} $corner
     *
     * @return array{float, float, float}
     */
    private function corner(array $corner): array
    {
        return [$corner[0] + $this->by, $corner[1], $corner[2]];
    }

    /**
     * @param array{float, float} $p
     *
     * @return array{float, float}
     */
    private function at(array $p): array
    {
        return [$p[0] + $this->by, $p[1]];
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float}
     */
    private static function middle(array $a, array $b): array
    {
        return [($a[0] + $b[0]) / 2.0, ($a[1] + $b[1]) / 2.0];
    }

    /**
     * @param Ring $ring
     *
     * @return Ring
     */
    private static function counterClockwise(array $ring): array
    {
        return Polygon::area($ring) < 0.0 ? array_reverse($ring) : $ring;
    }
}
