<?php

declare(strict_types=1);

namespace Plinth\Core\Plan;

/** A region enclosed by walls, along their inner faces, with the room that names it if one does. */
final readonly class Region
{
    /**
     * @param non-empty-list<array{float, float}> $polygon counter-clockwise
     * @param list<non-empty-list<array{float, float}>> $holes what stands free inside, clockwise
     */
    public function __construct(public ?Room $room, public array $polygon, public array $holes, public float $netAreaMm2)
    {
    }
}
