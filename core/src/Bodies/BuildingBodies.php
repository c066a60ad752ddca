<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

use Plinth\Core\Bodies\Internal\Surfacing;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\PlacedObject;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\SurfaceOn;
use Plinth\Core\Plan\Network\Neighbourhood;
use Plinth\Core\Plan\Network\WholeStorey;
use Plinth\Core\Stairs\StairForm;
use Plinth\Core\Stairs\StairLimits;
use Plinth\Core\Units\Length;

/**
 * The bodies of a building, storey by storey, or of what an edit touches.
 *
 * Promises, each of them a test: every body is closed, turned outward and without faces of no area; no two bodies have anything in
 * common; a body is the same wherever the plan lies. What cuts what: a void cuts floors, an opening its wall, a floor or a roof the walls
 * and columns under it, walls and columns the finish of a floor and the ceilings between them, a chimney all that it passes.
 *
 * HeightPlane faces with straight edges: arcs are drawn by chords as they are in plan.
 */
final class BuildingBodies
{
    /** @var array<string, StoreyBodies> by storey */
    private array $storeys = [];
    private readonly StairLimits $stairLimits;

    /**
     * @param array<string, Neighbourhood> $plans what the walls of storeys are read from; all of the plan's own without it
     * @param array<string, Derivation> $derived of storeys that have been derived already
     */
    public function __construct(private readonly Plan $plan, private readonly array $plans = [], private readonly array $derived = [])
    {
        $this->stairLimits = StairLimits::of($plan->stairLimits);
    }

    /** What its stairs are held against. */
    public function stairLimits(): StairLimits
    {
        return $this->stairLimits;
    }

    /** @return list<Body> of all storeys */
    public static function of(Plan $plan): array
    {
        $building = new self($plan);

        return array_merge(...array_map(static fn (Storey $s): array => $building->storey($s->id)->all(), $plan->storeys));
    }

    public function storey(string $id): StoreyBodies
    {
        if (isset($this->storeys[$id])) {
            return $this->storeys[$id];
        }
        $storey = $this->byId($id);
        $plan = $this->plans[$id] ?? new WholeStorey($storey);
        $others = array_values(array_filter($this->plan->storeys, static fn (Storey $s): bool => $s->id !== $id));

        return $this->storeys[$id] = new StoreyBodies(
            $storey,
            $others,
            $plan,
            $this->derived[$id] ?? new Derivation($plan),
            $this->stairLimits,
        );
    }

    /**
     * What has a finish on a storey, as it stands; nothing of surfaces whose room or wall is not there.
     *
     * @return list<FinishedSurface>
     */
    public function surfaces(string $id): array
    {
        $storey = $this->byId($id);
        if ([] === $storey->surfaces) {
            return [];
        }
        $of = $this->storey($id);
        $made = [];
        foreach ($storey->surfaces as $surface) {
            if (!$surface->on->isOfRoom()) {
                $wall = $of->wallOf($surface->of);
                if (null !== $wall) {
                    $made[] = Surfacing::face($surface, $id, $wall, $of->walls([$wall->id]), $storey->elevation);
                }
                continue;
            }
            foreach ($of->regions() as $region) {
                if ($region->room?->id === $surface->of) {
                    $made[] = SurfaceOn::Walls === $surface->on
                        ? Surfacing::round($surface, $id, $region, $of->rooms()->cells($region), $this->wallsRound($id, $region))
                        : Surfacing::level($surface, $id, $region, $of->rooms());
                }
            }
        }

        return $made;
    }

    /** @return list<BuildingQuantity> of all storeys: finishes first, then objects and stairs, then what is built */
    public function quantities(): array
    {
        [$finished, $objects, $built] = [[], [], []];
        $names = array_column($this->plan->finishes, 'name', 'id');
        foreach ($this->plan->storeys as $storey) {
            $rooms = [];
            foreach ($storey->rooms as $room) {
                $rooms[$room->id] = trim("$room->number $room->name");
            }
            $surfaces = array_column($storey->surfaces, null, 'id');
            $walls = array_column($storey->walls, null, 'id');
            foreach ($this->surfaces($storey->id) as $made) {
                $surface = $surfaces[$made->id];
                $on = $surface->on->value;
                $long = Length::told(isset($walls[$surface->of]) ? $walls[$surface->of]->length() : 0.0);
                $where = $surface->on->isOfRoom() ? ($rooms[$surface->of] ?? '').", $on" : "wall of $long, $on face";
                $finished[] = new BuildingQuantity('finish', $storey->name, $names[$made->finish] ?? '', $where, 1, $made->areaMm2 / 1e6);
            }
            $counts = array_count_values(array_map(
                static fn (PlacedObject $o): string => \sprintf('%s|%.0f × %.0f × %.0f mm', $o->kind, $o->width, $o->depth, $o->height),
                $storey->objects,
            ));
            foreach ($counts as $key => $count) {
                [$kind, $size] = explode('|', $key);
                $objects[] = new BuildingQuantity('object', $storey->name, $kind, $size, $count);
            }
            foreach ($this->storey($storey->id)->stairsShown() as $shown) {
                if ($shown->goesUp) {
                    $objects[] = new BuildingQuantity('stair', $storey->name, 'stair', self::stairInWords($shown->form), 1);
                }
            }
            $volumes = [];
            foreach ($this->storey($storey->id)->all() as $body) {
                if (BodyKind::Object !== $body->kind) {
                    $volumes[$body->kind->value][] = $body->form->volume() / 1e9;
                }
            }
            foreach ($volumes as $kind => $of) {
                $built[] = new BuildingQuantity('body', $storey->name, $kind, '', \count($of), null, array_sum($of));
            }
        }

        return [...$finished, ...$objects, ...$built];
    }

    private static function stairInWords(StairForm $form): string
    {
        return \sprintf(
            '%d risers of %s, going %s, %s wide, rises %s',
            $form->stair->risers,
            Length::told($form->rise),
            Length::told($form->going()),
            Length::told($form->width()),
            Length::told($form->height),
        );
    }

    /** @return list<Body> walls that a room looks onto, those of the storey above where it is open to it */
    private function wallsRound(string $id, Region $region): array
    {
        $of = $this->storey($id);
        $above = $of->rooms()->opensTo($region);
        $higher = null === $above ? null : $this->storey($above->id);

        return [
            ...$of->walls($region->walls),
            ...$higher?->walls($higher->wallsNear(Polygon::bounds($region->polygon))) ?? [],
        ];
    }

    private function byId(string $id): Storey
    {
        foreach ($this->plan->storeys as $storey) {
            if ($storey->id === $id) {
                return $storey;
            }
        }

        throw new \LogicException("No storey $id.");
    }
}
