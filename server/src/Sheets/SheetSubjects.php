<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\ShownStair;
use Plinth\Core\Bodies\ShownSweep;
use Plinth\Core\Drafting\DrawnDimension;
use Plinth\Core\Drafting\DrawnLine as CoreLine;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Sheets\InkPicture;
use Plinth\Core\Sheets\Model\PrintSheet as CoreSheet;
use Plinth\Core\Sheets\Model\SheetSide;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\SectionMark;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Sheets\SubjectSide;
use Plinth\Core\Sheets\Written;
use Plinth\Core\Site\Exception\UnusableBoundary;
use Plinth\Core\Site\Traverse;
use Plinth\Core\Stairs\StairPlan;
use Plinth\Server\Building\BuildingPlan;
use Plinth\Server\Building\SeenSides;
use Plinth\Server\Drafting\Dimension;
use Plinth\Server\Drafting\DrawnLine;
use Plinth\Server\Plan\BuildUp;
use Plinth\Server\Plan\Evidence;
use Plinth\Server\Plan\Note;
use Plinth\Server\Plan\Opening;
use Plinth\Server\Plan\Wall;
use Plinth\Server\Project\Project;
use Plinth\Server\Project\Side;
use Plinth\Server\Project\Storey;
use Plinth\Server\SettingOut\Surroundings;
use Plinth\Server\Site\Boundary;
use Plinth\Server\Site\Legs;
use Plinth\Server\Source\Drawing;
use Symfony\Component\Uid\Uuid;

/** What sheets of a project are drawn from: as much of it as the sheets at hand show. */
final readonly class SheetSubjects
{
    private const DPI = 200.0;

    public function __construct(
        private EntityManagerInterface $entities,
        private BuildingPlan $building,
        private SeenSides $seen,
        private Surroundings $surroundings,
        private Legs $legs,
        private HonestLine $honest,
        private DrawingPictures $pictures,
        private Sheets $sheets,
    ) {
    }

    /**
     * @param list<CoreSheet>|null $sheets that are to be drawn; null where anything may be asked for
     * @param (callable(): void)|null $onLook called between its parts
     */
    public function of(Project $project, ?array $sheets = null, ?callable $onLook = null): SheetSubject
    {
        $id = $project->id();
        $plan = $this->building->of($id);
        $wanted = self::wanted($sheets);
        $bodies = new BuildingBodies($plan);
        $sides = $this->entities->getRepository(Side::class)->findBy(['project' => $id], ['id' => 'ASC']);
        $cuts = [];
        $shown = [];
        foreach ($sides as $side) {
            $isWanted = null === $wanted || isset($wanted['side'][$side->id()->toRfc4122()]);
            $hasLine = $side->hasLine();
            $isCut = $hasLine && true === $side->values()['cut'];
            $cut = $isCut ? $side->looksAlong() : [];
            $drawn = $isWanted && ($hasLine || [] !== $this->seen->parts($side))
                ? $this->seen->of($side, $plan, isset($wanted['hidden'][$side->id()->toRfc4122()]))
                : null;
            $shown[$side->id()->toRfc4122()] = new SubjectSide($side->name(), $drawn, $cut);
            if ([] !== $cut) {
                $cuts[] = new SectionMark(SectionMark::letter($side->name()), $cut);
            }
            if (null !== $onLook) {
                $onLook();
            }
        }
        $pictures = $this->alone($id, $wanted);
        [$beside, $honest] = [[], []];
        $known = $this->numbers($id);
        $numbers = SheetSubject::numbered($plan, $known);
        $rows = $this->entities->getRepository(Storey::class)->findBy(['project' => $id], ['elevation' => 'ASC', 'id' => 'ASC']);
        $freeHand = $this->freeHand($id);
        foreach ($rows as $row) {
            $key = $row->id()->toRfc4122();
            $honest[$key] = $this->honest->of($row);
            if (!self::has($plan, $key) || (null !== $wanted && !isset($wanted['storey'][$key]) && !isset($wanted['all']))) {
                continue;
            }
            $of = $bodies->storey($key);
            [$lines, $dimensions, $notes] = $this->drawn(['project' => $id, 'storey' => $row->id()]);
            $beside[$key] = new PlanBeside(
                array_map(static fn (ShownStair $s): StairPlan => $s->plan, $of->stairsShown()),
                array_merge([], ...array_map(static fn (ShownSweep $s): array => $s->rings, $of->sweepsShown())),
                $lines,
                $dimensions,
                $notes,
                $this->surroundings->of($row),
                $numbers,
                $cuts,
                $freeHand,
                isset($wanted['ink'][$key]) ? $this->under(['project' => $id, 'storey' => $row->id()], $wanted['ink'][$key]) : null,
            );
            if (null !== $onLook) {
                $onLook();
            }
        }
        foreach (array_keys($shown) as $key) {
            $at = ['project' => $id, 'side' => Uuid::fromString($key)];
            [$lines, $dimensions, $notes] = $this->drawn($at);
            $picture = isset($wanted['ink'][$key]) ? $this->under($at, $wanted['ink'][$key]) : null;
            $beside[$key] = new PlanBeside(lines: $lines, dimensions: $dimensions, notes: $notes, picture: $picture);
        }
        [$boundaries, $bearing] = $this->boundaries($id);

        return new SheetSubject(
            $project->name(),
            $plan,
            new Written($project->shows(), $project->areas()),
            $beside,
            $shown,
            $boundaries,
            $bearing,
            array_map(static fn (array $p): InkPicture => $p[0], $pictures),
            array_map(static fn (array $p): string => $p[1], $pictures),
            $this->assumptions($id),
            $this->buildUps($id),
            array_intersect_key($honest, array_flip(array_map(
                static fn ($s): string => $s->id,
                array_filter($plan->storeys, static fn ($s): bool => [] !== $s->walls),
            ))),
            $known,
        );
    }

    /** @return array{Plan, list<CoreSheet>, list<SheetSide>} the building, its sheets, and sides that have a line on the plan */
    public function documented(Project $project): array
    {
        $sides = array_filter(
            $this->entities->getRepository(Side::class)->findBy(['project' => $project->id()], ['id' => 'ASC']),
            static fn (Side $s): bool => $s->hasLine(),
        );

        $plan = $this->building->of($project->id());
        $numbers = array_filter($this->numbers($project->id()), static fn (string $n): bool => '' !== $n);
        $plan = new Plan($plan->storeys, $plan->finishes, $plan->stairLimits, $numbers, $this->buildUps($project->id()), $plan->fire);

        return [$plan, $this->sheets->of($project->id()), array_values(array_map(
            static fn (Side $s): SheetSide => new SheetSide($s->id()->toRfc4122(), $s->name(), $s->looksAlong(), true === $s->values()['cut'], $s->depth()),
            $sides,
        ))];
    }

    private static function has(Plan $plan, string $storey): bool
    {
        return \in_array($storey, array_map(static fn ($s): string => $s->id, $plan->storeys), true);
    }

    /**
     * @param list<CoreSheet>|null $sheets
     *
     * @return array<string, array<string, float>>|null ids that views show, by what they are; scales of those that show ink
     */
    private static function wanted(?array $sheets): ?array
    {
        if (null === $sheets) {
            return null;
        }
        $wanted = [];
        foreach ($sheets as $sheet) {
            foreach ($sheet->views as $view) {
                match ($view->kind) {
                    ViewKind::Plan => $wanted['storey'][$view->of] = 1.0,
                    ViewKind::Side => $wanted['side'][$view->of] = 1.0,
                    ViewKind::Picture => $wanted['picture'][$view->of] = 1.0,
                    ViewKind::Key => $wanted['all'][''] = 1.0,
                    default => null,
                };
                if ($view->shows(Shows::Ink)) {
                    $wanted['ink'][$view->of] = min($view->scale, $wanted['ink'][$view->of] ?? \INF);
                }
                if ($view->shows(Shows::Hidden)) {
                    $wanted['hidden'][$view->of] = 1.0;
                }
            }
        }

        return $wanted;
    }

    /**
     * @param array<string, array<string, float>>|null $wanted
     *
     * @return array<string, array{InkPicture, string}> by id of drawing
     */
    private function alone(Uuid $project, ?array $wanted): array
    {
        $pictures = [];
        foreach ($this->entities->getRepository(Drawing::class)->findBy(['project' => $project], ['id' => 'ASC']) as $drawing) {
            $key = $drawing->id()->toRfc4122();
            // Of all there is, photographs and sides are what a set shows.
            $isWanted = null === $wanted ? null !== $drawing->side() && \count($pictures) < 2 : isset($wanted['picture'][$key]);
            if ($isWanted) {
                $pictures[$key] = [$this->pictures->alone($drawing), (string) $drawing->values()['name']];
            }
        }

        return $pictures;
    }

    /**
     * The drawing that lies on top there.
     *
     * @param array{project: Uuid, storey?: Uuid, side?: Uuid} $where
     */
    private function under(array $where, float $scale): ?InkPicture
    {
        foreach ($this->entities->getRepository(Drawing::class)->findBy($where, ['id' => 'DESC']) as $drawing) {
            $picture = true === $drawing->values()['hidden'] ? null : $this->pictures->under($drawing, self::DPI, $scale);
            if (null !== $picture) {
                return $picture;
            }
        }

        return null;
    }

    /**
     * @param array{project: Uuid, storey?: Uuid, side?: Uuid} $where
     *
     * @return array{list<CoreLine>, list<DrawnDimension>, list<array{array{float, float}, string, array{float, float}|null}>}
     */
    private function drawn(array $where): array
    {
        $notes = [];
        foreach ($this->entities->getRepository(Note::class)->findBy($where, ['id' => 'ASC']) as $note) {
            $v = $note->values();
            $to = null === $v['toX'] || null === $v['toY'] ? null : [(float) $v['toX'], (float) $v['toY']];
            $notes[] = [[(float) $v['x'], (float) $v['y']], (true === $v['assumption'] ? 'assumed: ' : '').$v['words'], $to];
        }

        return [
            array_map(static fn (DrawnLine $l): CoreLine => $l->drawn(), $this->entities->getRepository(DrawnLine::class)->findBy($where, ['id' => 'ASC'])),
            array_map(static fn (Dimension $d): DrawnDimension => $d->told(), $this->entities->getRepository(Dimension::class)->findBy($where, ['id' => 'ASC'])),
            $notes,
        ];
    }

    /** @return list<string> */
    private function assumptions(Uuid $project): array
    {
        return array_values(array_unique(array_map(
            static fn (Note $n): string => (string) $n->values()['words'],
            $this->entities->getRepository(Note::class)->findBy(['project' => $project, 'assumption' => true], ['id' => 'ASC']),
        )));
    }

    /** @return array<string, string> name of its build-up by id of wall */
    private function buildUps(Uuid $project): array
    {
        $names = [];
        foreach ($this->entities->getRepository(BuildUp::class)->findBy(['project' => $project]) as $buildUp) {
            $names[$buildUp->id()->toRfc4122()] = (string) $buildUp->values()['name'];
        }
        $of = [];
        foreach ([] === $names ? [] : $this->entities->getRepository(Wall::class)->findBy(['project' => $project]) as $wall) {
            $buildUp = $wall->values()['buildUp'];
            if (\is_string($buildUp) && isset($names[$buildUp])) {
                $of[$wall->id()->toRfc4122()] = $names[$buildUp];
            }
        }

        return $of;
    }

    /** @return array<string, string> that openings were given, by id */
    private function numbers(Uuid $project): array
    {
        $numbers = [];
        foreach ($this->entities->getRepository(Opening::class)->findBy(['project' => $project]) as $opening) {
            $numbers[$opening->id()->toRfc4122()] = (string) $opening->values()['number'];
        }

        return $numbers;
    }

    /** @return array<string, true> */
    private function freeHand(Uuid $project): array
    {
        return array_fill_keys(array_map(
            static fn (Wall $w): string => $w->id()->toRfc4122(),
            $this->entities->getRepository(Wall::class)->findBy(['project' => $project, 'evidence' => Evidence::FreeHand]),
        ), true);
    }

    /** @return array{list<Contour>, float|null} closed ones, and the bearing of up where one of them tells it */
    private function boundaries(Uuid $project): array
    {
        [$contours, $bearing] = [[], null];
        foreach ($this->entities->getRepository(Boundary::class)->findBy(['project' => $project], ['id' => 'ASC']) as $boundary) {
            try {
                $contours[] = Traverse::closed($this->legs->of($boundary), $boundary->from())->contour;
                $bearing ??= $boundary->upDegrees();
            } catch (UnusableBoundary) {
                continue; // still being typed
            }
        }

        return [$contours, $bearing];
    }
}
