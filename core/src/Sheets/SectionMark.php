<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Geometry\Point;

/** Where a section is cut through a plan. */
final readonly class SectionMark
{
    /** @param non-empty-list<Point> $line from left to right as one looks; mm of the plan */
    public function __construct(public string $name, public array $line)
    {
    }
}
