<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

/** The clean body of one connected group of walls; openings are not cut out of it. */
final readonly class BodyOutline
{
    /**
     * @param non-empty-list<array{float, float}> $outer counter-clockwise
     * @param list<non-empty-list<array{float, float}>> $holes clockwise
     */
    public function __construct(public array $outer, public array $holes)
    {
    }
}
