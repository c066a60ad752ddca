<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Drafting\DrawnDimension;
use Plinth\Core\Drafting\DrawnLine;
use Plinth\Core\Stairs\StairPlan;

/**
 * What a plan shows beside its walls, openings, columns and objects.
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final readonly class PlanBeside
{
    /**
     * @param list<StairPlan> $stairs
     * @param list<Ring> $over rings round what lies over the plan's cut: mouldings
     * @param list<DrawnLine> $lines that were drawn freely
     * @param list<DrawnDimension> $dimensions by hand
     * @param list<array{array{float, float}, string, array{float, float}|null}> $notes where they stand, words, and what they point at; mm
     */
    public function __construct(
        public array $stairs = [],
        public array $over = [],
        public array $lines = [],
        public array $dimensions = [],
        public array $notes = [],
    ) {
    }
}
