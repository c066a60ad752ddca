<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

/** So much of something on a storey: surfaces by their finish and room, objects and stairs by their kind and size, bodies by their kind. */
final readonly class BuildingQuantity
{
    /**
     * @param string $of `finish`, `object`, `stair` or `body`
     * @param string $name of the finish, or the kind of object or body
     * @param string $where the room or the wall, and what of it; an object's or a stair's size
     * @param float|null $areaM2 of surfaces, without what is open in them
     * @param float|null $volumeM3 of bodies
     */
    public function __construct(
        public string $of,
        public string $storey,
        public string $name,
        public string $where,
        public int $count,
        public ?float $areaM2 = null,
        public ?float $volumeM3 = null,
    ) {
    }
}
