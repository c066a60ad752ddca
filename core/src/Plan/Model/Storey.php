<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** One floor of a plan. */
final readonly class Storey
{
    /**
     * @param float $elevation mm above the project's zero
     * @param float $height mm, storey height
     * @param list<Wall> $walls
     * @param list<Opening> $openings
     * @param list<Room> $rooms
     * @param list<Divider> $dividers
     * @param list<Column> $columns
     * @param list<Figure> $figures that were decided
     * @param list<Slab> $floors
     * @param list<Slab> $ceilings
     * @param list<FloorVoid> $voids in its floor
     * @param list<PitchedRoof> $roofs over it
     * @param list<Shaft> $shafts that stand on it
     * @param list<Dormer> $dormers on its roofs
     * @param list<PlacedObject> $objects in its rooms
     * @param list<Surface> $surfaces of its rooms and walls that have a finish
     * @param list<Stair> $stairs that go up from it
     * @param list<Sweep> $sweeps
     *
     * @throws UnusableValue
     */
    public function __construct(
        public string $id,
        public string $name,
        public float $elevation,
        public float $height,
        public array $walls,
        public array $openings = [],
        public array $rooms = [],
        public array $dividers = [],
        public array $columns = [],
        public array $figures = [],
        public array $floors = [],
        public array $ceilings = [],
        public array $voids = [],
        public array $roofs = [],
        public array $shafts = [],
        public array $dormers = [],
        public array $objects = [],
        public array $surfaces = [],
        public array $stairs = [],
        public array $sweeps = [],
    ) {
        Checked::within("storey $id/elevation", $elevation);
        Checked::size("storey $id/height", $height);
    }

    /**
     * The same with what lies over and under its walls.
     *
     * @param list<Slab> $floors
     * @param list<Slab> $ceilings
     * @param list<FloorVoid> $voids
     * @param list<PitchedRoof> $roofs
     * @param list<Shaft> $shafts
     * @param list<Dormer> $dormers
     * @param list<PlacedObject> $objects
     * @param list<Surface> $surfaces
     * @param list<Stair> $stairs
     * @param list<Sweep> $sweeps
     */
    public function built(
        array $floors,
        array $ceilings = [],
        array $voids = [],
        array $roofs = [],
        array $shafts = [],
        array $dormers = [],
        array $objects = [],
        array $surfaces = [],
        array $stairs = [],
        array $sweeps = [],
    ): self {
        return new self(
            $this->id,
            $this->name,
            $this->elevation,
            $this->height,
            $this->walls,
            $this->openings,
            $this->rooms,
            $this->dividers,
            $this->columns,
            $this->figures,
            $floors,
            $ceilings,
            $voids,
            $roofs,
            $shafts,
            $dormers,
            $objects,
            $surfaces,
            $stairs,
            $sweeps,
        );
    }

    /**
     * @param list<Wall> $walls
     * @param list<Opening> $openings
     * @param list<Divider>|null $dividers the same ones without any
     */
    public function with(array $walls, array $openings, ?array $dividers = null): self
    {
        return new self(
            $this->id,
            $this->name,
            $this->elevation,
            $this->height,
            $walls,
            $openings,
            $this->rooms,
            $dividers ?? $this->dividers,
            $this->columns,
            $this->figures,
            $this->floors,
            $this->ceilings,
            $this->voids,
            $this->roofs,
            $this->shafts,
            $this->dormers,
            $this->objects,
            $this->surfaces,
            $this->stairs,
            $this->sweeps,
        );
    }
}
