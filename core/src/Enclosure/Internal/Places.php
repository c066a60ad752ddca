<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure\Internal;

use Plinth\Core\Enclosure\EnclosedArea;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Enclosure;
use Plinth\Core\Plan\Model\Storey;

/**
 * What lies where: areas and regions by storey and place.
 *
 * @internal
 */
final readonly class Places
{
    /**
     * @param list<EnclosedArea> $areas
     * @param array<string, Storey> $storeys by id
     * @param array<string, DerivedStorey> $derived by id of the storey
     */
    public function __construct(public array $areas, public array $storeys, public array $derived)
    {
    }

    /** The class of what encloses a place, the first of several; null where nothing does. */
    public function classAt(string $storey, float $x, float $y): ?string
    {
        foreach ($this->at($storey, [$x, $y]) as $area) {
            return $area->enclosure->class;
        }

        return null;
    }

    /**
     * @param array{float, float} $place
     *
     * @return array<string, EnclosedArea> by class
     */
    public function at(string $storey, array $place): array
    {
        $found = [];
        foreach ($this->areas as $area) {
            if ($area->enclosure->storey === $storey && $area->holds(...$place)) {
                $found[$area->enclosure->class] ??= $area;
            }
        }

        return $found;
    }

    /**
     * @param array{float, float} $place
     *
     * @return string|null the room at a place, where it is not in an enclosure
     */
    public function roomAt(string $storey, array $place, Enclosure $of): ?string
    {
        $room = $this->regionAt($storey, $place)?->room;

        return null === $room || \in_array($room->id, $of->rooms, true) ? null : $room->id;
    }

    /** @param array{float, float} $place */
    public function regionAt(string $storey, array $place): ?Region
    {
        foreach ($this->derived[$storey]->regions as $region) {
            if ($region->holds(...$place)) {
                return $region;
            }
        }

        return null;
    }
}
