<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

/**
 * What a wall looks like: its body between junctions, and its openings.
 *
 * A stretch runs from node to node of the centre line: along the right face from the start to the end, and back along the left;
 * together they are the body.
 *
 * @phpstan-type Path list<array{float, float}>
 * @phpstan-type Stretch array{from: array{float, float}, right: Path, to: array{float, float}, left: Path}
 */
final readonly class WallShape
{
    /**
     * @param list<Stretch> $stretches
     * @param array<string, non-empty-list<array{float, float}>> $openings cut-out of each opening, by id
     * @param list<Finding> $findings
     */
    public function __construct(
        public string $id,
        public array $stretches,
        public float $areaMm2,
        public array $openings,
        public array $findings,
    ) {
    }
}
