<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Network\Neighbourhood;
use Plinth\Core\Plan\Network\WholeStorey;

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

    /**
     * @param array<string, Neighbourhood> $plans what the walls of storeys are read from; all of the plan's own without it
     * @param array<string, Derivation> $derived of storeys that have been derived already
     */
    public function __construct(private readonly Plan $plan, private readonly array $plans = [], private readonly array $derived = [])
    {
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
        $storey = null;
        foreach ($this->plan->storeys as $each) {
            $storey = $each->id === $id ? $each : $storey;
        }
        \assert(null !== $storey);
        $plan = $this->plans[$id] ?? new WholeStorey($storey);
        $others = array_values(array_filter($this->plan->storeys, static fn (Storey $s): bool => $s->id !== $id));

        return $this->storeys[$id] = new StoreyBodies($storey, $others, $plan, $this->derived[$id] ?? new Derivation($plan));
    }
}
