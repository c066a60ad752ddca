<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

/** Asks the worker how a newer page lies on the page it replaces, starting from points picked on both. */
final readonly class MatchPages
{
    /** @param list<array{float, float, float, float}> $pairs old x, y, new x, y; page pixels */
    public function __construct(public string $page, public array $pairs)
    {
    }
}
