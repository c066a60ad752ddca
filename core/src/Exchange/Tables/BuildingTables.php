<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Tables;

use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\BuildingQuantity;
use Plinth\Core\Enclosure\EnclosurePlan;
use Plinth\Core\Escape\EscapePlan;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Units\Bearing;

/**
 * What a building has, in tables: rooms, doors and windows, walls, areas (ISO 9836), finishes and what stands, stairs, ways out,
 * enclosures, roofs, boundaries.
 * Lengths in millimetres, areas in square metres, volumes in cubic metres, however the project shows them.
 */
final readonly class BuildingTables
{
    private BuildingBodies $bodies;
    /** @var array<string, DerivedStorey> by id of storey */
    private array $derived;

    private function __construct(private SheetSubject $subject)
    {
        $this->bodies = new BuildingBodies($subject->plan);
        $derived = [];
        foreach ($subject->plan->storeys as $storey) {
            $derived[$storey->id] = Derivation::of($storey);
        }
        $this->derived = $derived;
    }

    /** @return list<Table> without those that would have no row */
    public static function of(SheetSubject $subject): array
    {
        $of = new self($subject);
        $tables = [
            $of->rooms(), $of->openings(), $of->walls(), $of->areas(), self::quantities($of->bodies->quantities()),
            $of->stairs(), $of->waysOut(), $of->enclosures(), $of->roofs(), $of->boundaries(),
        ];

        return array_values(array_filter($tables, static fn (Table $t): bool => [] !== $t->rows));
    }

    private function rooms(): Table
    {
        $rows = [];
        foreach ($this->subject->plan->storeys as $storey) {
            $heights = array_column($this->bodies->storey($storey->id)->heights(), null, 'region');
            foreach ($this->derived[$storey->id]->regions as $region) {
                $height = $heights[$region->key] ?? null;
                $rows[] = [
                    $storey->name, $region->room->number ?? '', $region->room->name ?? '', self::m2($region->netAreaMm2),
                    self::mm($region->clear[0]), self::mm($region->clear[1]),
                    null === $height ? null : self::mm($height->leastMm), null === $height ? null : self::mm($height->mostMm),
                ];
            }
        }

        return new Table('Rooms', [
            'storey', 'number', 'name', 'net area m²', 'clear width mm', 'clear depth mm', 'least height mm', 'greatest height mm',
        ], $rows);
    }

    private function openings(): Table
    {
        $rows = [];
        foreach ($this->subject->plan->storeys as $storey) {
            foreach ($storey->openings as $o) {
                $rows[] = [
                    $this->subject->numbers[$o->id] ?? '', $storey->name, $o->kind->value, self::mm($o->width),
                    null === $o->height ? null : self::mm($o->height), self::mm($o->sill), 'door' === $o->kind->value ? $o->leaf : '',
                    'door' === $o->kind->value ? $o->hand : '', $this->subject->buildUps[$o->wall] ?? '', $o->rated,
                    DoorExit::None === $o->exit ? '' : $o->exit->value,
                ];
            }
        }
        usort($rows, static fn (array $a, array $b): int => strnatcmp($a[0], $b[0]));

        return new Table('Doors and windows', [
            'number', 'storey', 'kind', 'width mm', 'height mm', 'sill mm', 'leaf', 'hand', 'build-up of its wall', 'fire rated', 'exit',
        ], $rows);
    }

    /** From the worst place of every room, once a door is an exit. */
    private function waysOut(): Table
    {
        $plan = $this->subject->plan;
        $escape = EscapePlan::hasExits($plan) ? new EscapePlan($plan, $this->derived) : null;
        $rows = [];
        $limits = $escape?->limits();
        foreach ($escape?->rooms() ?? [] as $way) {
            $broken = array_map(static fn (array $b): string => $b[0]->value, $limits?->broken($way) ?? []);
            [$room, $route] = [$way->region->room, $way->toFinal ?? $way->toExit];
            $rows[] = [
                $this->subject->storey($way->storey)->name ?? '', $room->number ?? '', $room->name ?? '',
                null === $way->toExit ? null : self::mm($way->toExit->mm), null === $way->toFinal ? null : self::mm($way->toFinal->mm),
                null === $route ? null : self::mm($route->narrowestMm),
                $this->named($route->doors ?? []), $this->named($route->against ?? []), implode(' ', $broken),
            ];
        }

        return new Table('Ways out', [
            'storey', 'number', 'room', 'to an exit mm', 'into the open air mm', 'narrowest door mm', 'doors passed', 'doors against it',
            'limits not kept',
        ], $rows);
    }

    /** Each with its class, storey, rooms, area and the doors in what bounds it; then how much of each class there is. */
    private function enclosures(): Table
    {
        $plan = EnclosurePlan::of($this->subject->plan, $this->derived);
        $classes = array_column($this->subject->plan->fire->classes, 'name', 'id');
        $doors = [];
        foreach ($plan->doors() as $door) {
            $doors[$door->enclosure][$door->isRated() ? 'rated' : 'not rated'][] = $door->opening->id;
        }
        $rows = [];
        foreach ($plan->areas as $area) {
            $of = $area->enclosure;
            $storey = $this->subject->storey($of->storey);
            $rooms = array_filter($storey->rooms ?? [], static fn (Room $r): bool => \in_array($r->id, $of->rooms, true));
            $rows[] = [
                $classes[$of->class] ?? '', $storey->name ?? '', implode(', ', array_map(static fn (Room $r): string => $r->name, $rooms)),
                self::m2($area->area()), $this->named($doors[$of->id]['rated'] ?? []), $this->named($doors[$of->id]['not rated'] ?? []),
            ];
        }
        foreach ($plan->totals() as $class => $storeys) {
            $rows[] = [$classes[$class] ?? '', 'all', '', self::m2(array_sum($storeys)), '', ''];
        }

        return new Table('Enclosures', ['class', 'storey', 'rooms', 'area m²', 'rated doors', 'doors not rated'], $rows);
    }

    /** @param list<string> $openings by id */
    private function named(array $openings): string
    {
        return implode(' ', array_map(fn (string $id): string => $this->subject->numbers[$id] ?? $id, $openings));
    }

    private function walls(): Table
    {
        $rows = [];
        foreach ($this->subject->plan->storeys as $storey) {
            $volumes = [];
            foreach ($this->bodies->storey($storey->id)->shell() as $body) {
                if (BodyKind::Wall === $body->kind || BodyKind::Railing === $body->kind) {
                    $volumes[$body->id] = ($volumes[$body->id] ?? 0.0) + $body->form->volume() / 1e9;
                }
            }
            foreach ($storey->walls as $wall) {
                $rows[] = [
                    $storey->name, $this->subject->buildUps[$wall->id] ?? '', self::mm($wall->thickness), self::mm($wall->length()),
                    self::mm($wall->height ?? $storey->height), isset($volumes[$wall->id]) ? round($volumes[$wall->id], 4) : null,
                    $wall->railing ? 'railing' : ($wall->enclosing ? 'bounds rooms' : 'bounds no room'),
                ];
            }
        }

        return new Table('Walls', [
            'storey', 'build-up', 'thickness mm', 'length along its centre mm', 'height mm', 'net volume m³', 'what it does',
        ], $rows);
    }

    private function areas(): Table
    {
        $rows = [];
        foreach ($this->derived as $id => $derived) {
            $of = $derived->areasMm2;
            if ($of['grossFloor'] > 0.0) {
                $name = $this->subject->storey($id)->name ?? '';
                $rows[] = [$name, self::m2($of['grossFloor']), self::m2($of['netFloor']), self::m2($of['structure'])];
            }
        }

        return new Table('Areas (ISO 9836)', [
            'storey', 'gross floor area m²', 'net floor area m²', 'area of structural elements m²',
        ], $rows);
    }

    /** @param list<BuildingQuantity> $quantities */
    public static function quantities(array $quantities): Table
    {
        return new Table('Quantities', ['what', 'storey', 'name', 'where', 'count', 'area m²', 'volume m³'], array_map(
            static fn (BuildingQuantity $q): array => [
                $q->of, $q->storey, $q->name, $q->where, $q->count,
                null === $q->areaM2 ? null : round($q->areaM2, 4), null === $q->volumeM3 ? null : round($q->volumeM3, 4),
            ],
            $quantities,
        ));
    }

    private function stairs(): Table
    {
        $rows = [];
        $enclosures = EnclosurePlan::of($this->subject->plan, $this->derived);
        $classes = array_column($this->subject->plan->fire->classes, 'name', 'id');
        foreach ($this->subject->plan->storeys as $storey) {
            foreach ($this->bodies->storey($storey->id)->stairsShown() as $shown) {
                if ($shown->goesUp) {
                    $form = $shown->form;
                    $class = $enclosures->ofStair($storey, $form->stair);
                    $rows[] = [
                        $storey->name, $form->stair->risers, self::mm($form->rise), self::mm($form->going()), round($form->pitch(), 2),
                        self::mm($form->width()), self::mm($form->height), null === $class ? '' : $classes[$class],
                    ];
                }
            }
        }

        return new Table('Stairs', [
            'from storey', 'risers', 'rise mm', 'going mm', 'pitch °', 'width mm', 'from floor to floor mm', 'enclosed by',
        ], $rows);
    }

    private function roofs(): Table
    {
        $rows = [];
        foreach ($this->subject->plan->storeys as $storey) {
            foreach ($storey->roofs as $roof) {
                $over = $this->bodies->storey($storey->id)->roofOver($roof);
                foreach ($over->facets ?? [] as $facet) {
                    $what = $facet->isSlope ? 'slope over edge '.($facet->edge + 1) : 'gable over edge '.($facet->edge + 1);
                    $rows[] = [$storey->name, $what, self::m2($facet->area()), null];
                }
                foreach ($over->lines ?? [] as $line) {
                    $rows[] = [$storey->name, $line->kind->value, null, self::mm($line->length())];
                }
            }
        }

        return new Table('Roofs', ['storey', 'what', 'area m²', 'length mm'], $rows);
    }

    private function boundaries(): Table
    {
        $rows = [];
        foreach ($this->subject->boundaries as $n => $boundary) {
            $rows[] = ['site '.($n + 1), 'all of it', null, null, self::m2(abs($boundary->area()))];
            foreach (array_keys($boundary->corners) as $i) {
                $rows[] = ['site '.($n + 1), 'leg '.($i + 1), ...$this->leg($boundary, $i), null];
            }
        }

        return new Table('Boundaries', ['boundary', 'what', 'length mm', 'bearing', 'area m²'], $rows);
    }

    /** @return array{float, string|null} its length, and its bearing where north is known */
    private function leg(Contour $boundary, int $i): array
    {
        [$from, $to] = [$boundary->corners[$i], $boundary->corners[($i + 1) % \count($boundary->corners)]];
        $arc = $boundary->arc($i);
        $up = $this->subject->bearing;

        return [
            self::mm($arc?->length() ?? $from->distanceTo($to)),
            null === $up || null !== $arc ? null : Bearing::along($to->x - $from->x, $to->y - $from->y)->turned($up)->written(),
        ];
    }

    /** To a hundredth of a millimetre. */
    private static function mm(float $mm): float
    {
        return round($mm, 2);
    }

    private static function m2(float $mm2): float
    {
        return round($mm2 / 1e6, 4);
    }
}
