<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Drafting\DrawnDimension;
use Plinth\Core\Drafting\DrawnLine;
use Plinth\Core\Plan\Model\SettingOut;
use Plinth\Core\Stairs\StairPlan;

/**
 * What a plan, a side or a section shows beside what is built.
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
     * @param array<string, string> $numbers of openings, by id
     * @param list<SectionMark> $sections that are cut through it
     * @param array<string, true> $freeHand walls that rest on no ink and no figure, by id
     * @param InkPicture|null $picture that it was traced from, its corners in mm of what is shown
     */
    public function __construct(
        public array $stairs = [],
        public array $over = [],
        public array $lines = [],
        public array $dimensions = [],
        public array $notes = [],
        public SettingOut $settingOut = new SettingOut(),
        public array $numbers = [],
        public array $sections = [],
        public array $freeHand = [],
        public ?InkPicture $picture = null,
    ) {
    }
}
