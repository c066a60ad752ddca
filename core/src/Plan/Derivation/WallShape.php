<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

/** What a wall looks like: its body between junctions, and its openings. */
final readonly class WallShape
{
    /**
     * @param list<array{from: array{float, float}, right: list<array{float, float}>, to: array{float, float}, left: list<array{float, float}>}> $stretches
     *                                                                                                                                                      from node to node of the centre line: along the right face from the start to the end, and back along the left; together they are the body
     * @param array<string, non-empty-list<array{float, float}>> $openings cut-out of each opening, by id
     * @param list<Finding> $findings
     */
    public function __construct(public string $id, public array $stretches, public float $areaMm2, public array $openings, public array $findings)
    {
    }
}
