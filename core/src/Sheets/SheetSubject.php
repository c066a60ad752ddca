<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;

/** What sheets of a project are drawn from. */
final readonly class SheetSubject
{
    /** @var array<string, string> of doors and windows, by id */
    public array $numbers;
    /** @var array<string, string> names of what walls are built of, by id of the wall */
    public array $buildUps;
    /** @var array<string, int> by id of wall, the pattern of its build-up: one each, in the order of their names */
    public array $hatches;

    /**
     * @param string $title of the project
     * @param array<string, PlanBeside> $beside by id of storey or side
     * @param array<string, SubjectSide> $sides by id
     * @param list<Contour> $boundaries of the site, mm of the plan
     * @param float|null $bearing of up on the plan, degrees clockwise from north; null where nobody has said
     * @param array<string, InkPicture> $pictures by id
     * @param array<string, string> $pictureNames by id
     * @param list<string> $assumptions that were made
     * @param array<string, string> $buildUps names of what walls are built of, by id of the wall
     * @param array<string, string> $numbers of openings, by id; those that have none are numbered here
     * @param array<string, string> $honest what each storey or side was traced from and how true that is, by id
     */
    public function __construct(
        public string $title,
        public Plan $plan,
        public Written $written = new Written(),
        public array $beside = [],
        public array $sides = [],
        public array $boundaries = [],
        public ?float $bearing = null,
        public array $pictures = [],
        public array $pictureNames = [],
        public array $assumptions = [],
        array $buildUps = [],
        public array $honest = [],
        array $numbers = [],
    ) {
        // What the plan says itself holds where nothing else is said.
        $buildUps += $plan->buildUps;
        $this->buildUps = $buildUps;
        $this->numbers = self::numbered($plan, $numbers + $plan->numbers);
        $names = array_values(array_unique($buildUps));
        sort($names, \SORT_NATURAL);
        $this->hatches = array_map(static fn (string $name): int => (int) array_search($name, $names, true), $buildUps);
    }

    public function storey(string $id): ?Storey
    {
        foreach ($this->plan->storeys as $storey) {
            if ($storey->id === $id) {
                return $storey;
            }
        }

        return null;
    }

    /**
     * Numbers of doors and windows through the building. Those that have none get the next ones, storey by storey, in the order in which
     * they came to be: D01, D02, …, W01, W02, …
     *
     * @param array<string, string> $known
     *
     * @return array<string, string> by id of opening
     */
    public static function numbered(Plan $plan, array $known = []): array
    {
        $known = array_filter($known, static fn (string $n): bool => '' !== $n);
        $taken = array_flip($known);
        $numbers = [];
        $count = ['D' => 1, 'W' => 1];
        foreach ($plan->storeys as $storey) {
            $openings = array_filter(
                $storey->openings,
                static fn (Opening $o): bool => OpeningKind::Opening !== $o->kind || isset($known[$o->id]),
            );
            usort($openings, static fn (Opening $a, Opening $b): int => $a->id <=> $b->id);
            foreach ($openings as $opening) {
                $letter = OpeningKind::Door === $opening->kind ? 'D' : 'W';
                while (!isset($known[$opening->id]) && isset($taken[\sprintf('%s%02d', $letter, $count[$letter])])) {
                    ++$count[$letter];
                }
                $numbers[$opening->id] = $known[$opening->id] ?? \sprintf('%s%02d', $letter, $count[$letter]++);
            }
        }

        return $numbers;
    }
}
