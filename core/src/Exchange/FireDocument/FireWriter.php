<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\FireDocument;

use Plinth\Core\Enclosure\EnclosedArea;
use Plinth\Core\Enclosure\EnclosureDoor;
use Plinth\Core\Enclosure\EnclosureFinding;
use Plinth\Core\Enclosure\EnclosurePlan;
use Plinth\Core\Escape\EscapePlan;
use Plinth\Core\Escape\EscapeRoute;
use Plinth\Core\Escape\RoomEscape;
use Plinth\Core\Escape\StairEscape;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\EscapeMeasure;
use Plinth\Core\Plan\Model\Plan;

/**
 * Writes ways out and enclosures as data for JSON; mm, m².
 *
 * @phpstan-import-type Shape from Overlay
 */
final readonly class FireWriter
{
    private EnclosurePlan $enclosures;

    /** @param array<string, DerivedStorey> $known by storey; others are derived */
    public function __construct(private Plan $plan, private array $known = [])
    {
        $this->enclosures = EnclosurePlan::of($plan, $known);
    }

    /**
     * Ways out from all rooms and down all stairs, what they run in, and which limits they do not keep.
     *
     * @param list<string>|null $only keys of regions: of these alone, and of no stair
     *
     * @return array<string, mixed>
     */
    public function escape(?array $only = null): array
    {
        $escape = new EscapePlan($this->plan, $this->known);
        $limits = $escape->limits();

        return [
            'seconds' => $escape->looksForSeconds(),
            'rooms' => array_map(fn (RoomEscape $room): array => [
                'key' => $room->region->key,
                'storey' => $room->storey,
                'room' => $room->region->room?->id,
                'name' => $room->region->room->name ?? '',
                'at' => $room->region->label,
                'toExit' => $this->route($room->toExit),
                'toFinal' => $this->route($room->toFinal),
                'second' => null === $room->second ? null : [
                    'singleMm' => $room->second->singleMm,
                    'degrees' => $room->second->degrees,
                    'route' => $this->route($room->second->route),
                ],
                'openAbove' => $room->openAbove,
                'broken' => array_map(
                    /** @param array{EscapeMeasure, string} $b */
                    static fn (array $b): array => ['measure' => $b[0]->value, 'message' => $b[1]],
                    $limits->broken($room),
                ),
            ], $escape->rooms($only)),
            'stairs' => array_map(fn (StairEscape $stair): array => [
                'stair' => $stair->stair, 'storey' => $stair->storey, 'fireClass' => $this->ofStair($stair),
                'route' => $this->route($stair->route),
            ], null === $only ? $escape->stairs() : []),
        ];
    }

    /** @return array<string, mixed> what is enclosed, how much of it, what is wrong with it, and the doors in what bounds it */
    public function enclosures(): array
    {
        $totals = [];
        foreach ($this->enclosures->totals() as $class => $storeys) {
            foreach ($storeys as $storey => $mm2) {
                // Of digits alone, PHP makes numbers of keys.
                $totals[] = ['fireClass' => "$class", 'storey' => "$storey", 'areaM2' => $mm2 / 1e6];
            }
        }

        return [
            'areas' => array_map(static fn (EnclosedArea $area): array => [
                'enclosure' => $area->enclosure->id, 'shapes' => $area->shapes, 'areaM2' => $area->area() / 1e6, 'at' => $area->label(),
            ], $this->enclosures->areas),
            'totals' => $totals,
            'findings' => array_map(static fn (EnclosureFinding $f): array => [
                'code' => $f->code, 'enclosures' => $f->enclosures, 'storey' => $f->storey, 'at' => $f->at, 'message' => $f->message,
                'room' => $f->room,
            ], $this->enclosures->findings()),
            'doors' => array_map(static fn (EnclosureDoor $d): array => [
                'enclosure' => $d->enclosure, 'opening' => $d->opening->id, 'kind' => $d->opening->kind->value,
                'widthMm' => $d->opening->width, 'rated' => $d->opening->rated,
            ], $this->enclosures->doors()),
        ];
    }

    /** What a stair runs in, whether or not it leads out. */
    private function ofStair(StairEscape $of): ?string
    {
        foreach ($this->plan->storeys as $storey) {
            foreach ($storey->id === $of->storey ? $storey->stairs : [] as $stair) {
                if ($stair->id === $of->stair) {
                    return $this->enclosures->ofStair($storey, $stair);
                }
            }
        }

        return null;
    }

    /** @return array<string, mixed>|null */
    private function route(?EscapeRoute $route): ?array
    {
        return null === $route ? null : [
            'mm' => $route->mm,
            'places' => array_map(static fn (array $p): array => ['storey' => $p[0], 'at' => $p[1]], $route->places),
            'doors' => $route->doors,
            'narrowestMm' => $route->narrowestMm,
            'against' => $route->against,
            'stairs' => $route->stairs,
            'exit' => $route->exit,
            'enclosed' => array_map(
                static fn (array $run): array => ['fireClass' => $run[0], 'mm' => $run[1]],
                $this->enclosures->along($route->places, $route->legs),
            ),
        ];
    }
}
