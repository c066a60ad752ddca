<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Network\Neighbourhood;

/**
 * What rooms of a storey leave free: from their floors up to their ceiling, the floor above or the roof, and through a void up to what
 * covers that.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 */
final readonly class RoomSpace
{
    /** Just inside the room, mm. */
    private const OVER_MM = 0.5;

    private ?Storey $next;
    private Upright $covered;
    private Upright $through;
    /** @var list<Ring> in the floor above */
    private array $voids;

    public function __construct(private Storey $storey, private Surroundings $around, private Neighbourhood $plan)
    {
        $this->next = $around->above($storey);
        $this->voids = null === $this->next ? [] : $around->voids($this->next);
        $below = array_map(static fn (Slab $f): Covering => $around->plate($f, $storey), $storey->floors);
        $this->covered = new Upright($below, $around->over($storey, $storey->ceilings));
        $this->through = null === $this->next ? $this->covered : new Upright($below, $around->over($this->next, $this->next->ceilings));
    }

    /** @return list<Cell> of one ring and one span each; a height that was typed ends them */
    public function cells(Region $region): array
    {
        $rings = [$region->polygon, ...$region->holes];
        $whole = [['outer' => $region->polygon, 'holes' => $region->holes]];
        $base = $this->storey->elevation;
        if (null !== ($typed = $region->room?->height)) {
            return $this->covered->cells(Cut::withoutHoles($whole), $base, $base + $typed, true);
        }
        $open = $this->open($region);
        $covered = Cut::withoutHoles([] === $open ? $whole : Overlay::difference($rings, $this->voids));
        $cells = $this->covered->cells($covered, $base, $base + $this->storey->height);
        if (null !== $this->next && [] !== $open) {
            array_push($cells, ...$this->through->cells(Cut::withoutHoles($open), $base, $this->next->elevation + $this->next->height));
        }

        return $cells;
    }

    /** How much of a room is open to the storey above. */
    public function openMm2(Region $region): float
    {
        return Overlay::area($this->open($region));
    }

    /** @return Storey|null the storey above, where a room is open to it */
    public function opensTo(Region $region): ?Storey
    {
        return null === $region->room?->height && [] !== $this->open($region) ? $this->next : null;
    }

    /** @return list<Ring> what nothing can be laid on in a room, at its floor or its ceiling: voids, columns and chimneys */
    public function without(Region $region, HeightPlane $plane, bool $isFloor): array
    {
        $level = $plane->at(...$region->label) + ($isFloor ? self::OVER_MM : -self::OVER_MM);

        return [
            ...$isFloor ? $this->around->voids($this->storey) : [],
            ...array_map(static fn ($c): array => $c->outline(), $this->plan->columns(Polygon::bounds($region->polygon))),
            ...$this->around->shaftsAt($level),
        ];
    }

    /** @return list<array{outer: Ring, holes: list<Ring>}> */
    private function open(Region $region): array
    {
        return [] === $this->voids ? [] : Cut::both([$region->polygon, ...$region->holes], $this->voids);
    }
}
