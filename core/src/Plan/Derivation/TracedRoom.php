<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

/** A region as a rooms table looks at it. */
final readonly class TracedRoom
{
    /**
     * @param string $key of its region
     * @param string|null $room id of the room that names it
     * @param array{float, float} $clear clear width and depth, mm
     */
    public function __construct(
        public string $key,
        public ?string $room,
        public string $number,
        public string $name,
        public float $netAreaM2,
        public array $clear,
    ) {
    }

    public static function of(Region $region): self
    {
        return new self(
            $region->key,
            $region->room?->id,
            $region->room->number ?? '',
            $region->room->name ?? '',
            $region->netAreaMm2 / 1e6,
            $region->clear,
        );
    }
}
