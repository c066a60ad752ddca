<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

use Plinth\Core\Stairs\StairFinding;
use Plinth\Core\Stairs\StairForm;
use Plinth\Core\Stairs\StairPlan;

/** A stair as the plan of a storey shows it. */
final readonly class ShownStair
{
    /**
     * @param bool $goesUp whether it begins on the storey; otherwise it arrives there
     * @param list<StairFinding> $findings said where it begins
     */
    public function __construct(
        public StairForm $form,
        public StairPlan $plan,
        public bool $goesUp,
        public array $findings,
    ) {
    }
}
