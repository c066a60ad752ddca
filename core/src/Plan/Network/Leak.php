<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

/** Where a room that should close runs out: the narrowest place on the way from its anchor to the outside. */
final readonly class Leak
{
    /**
     * @param float $gapMm clear width between the two bodies
     * @param array{array{float, float}, array{float, float}} $neck its two ends
     * @param array{string, string} $walls the wall that ends, and the one it misses
     * @param 'from'|'to'|null $end of the wall that ends: drawn on to the other, it mends the leak; null where two walls corner there and
     *                              a line across closes it
     */
    public function __construct(public string $room, public float $gapMm, public array $neck, public array $walls, public ?string $end)
    {
    }
}
