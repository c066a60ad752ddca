<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling;

use Plinth\Core\Geometry\Point;

/** Where the nodes of a storey go when it is settled. */
final readonly class Settled
{
    /**
     * @param array<string, Point> $moves nodes that go elsewhere
     * @param string|null $farthest the node that goes farthest
     * @param float $largestMm how far that is
     * @param list<Contradiction> $contradictions
     * @param int $straightened walls that were not quite level, plumb, or parallel or square to their like, and are now
     * @param list<string> $held figures that were measured after settling, and hold
     * @param list<Unheld> $unheld figures that hold nothing, nor contradict another
     * @param array<string, array{float, float}> $sigmas standard deviation of each node's x and y by what it rests on, mm
     */
    public function __construct(
        public array $moves,
        public ?string $farthest,
        public float $largestMm,
        public array $contradictions,
        public int $straightened,
        public array $held,
        public array $unheld,
        public array $sigmas,
    ) {
    }
}
