<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

use Plinth\Core\Geometry\Polygon;

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
    private const LEAST_MM2 = 1.0;

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

    /** @return list<non-empty-list<array{float, float}>> what it covers of the plan, counter-clockwise; only what has a breadth */
    public function bodies(): array
    {
        $bodies = [];
        foreach ($this->stretches as ['from' => $from, 'right' => $right, 'to' => $to, 'left' => $left]) {
            $ring = [$from, ...$right, $to, ...$left];
            $area = Polygon::area($ring);
            if (abs($area) > self::LEAST_MM2) {
                $bodies[] = $area < 0.0 ? array_reverse($ring) : $ring;
            }
        }

        return $bodies;
    }
}
