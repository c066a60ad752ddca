<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Account\User;
use Plinth\Server\Change\Change;
use Plinth\Server\Change\Recorder;
use Plinth\Server\Change\RowType;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Fit\FitReport;
use Plinth\Server\Fit\Statement;
use Plinth\Server\Plan\PlanKeeper;
use Plinth\Server\Plan\Wall;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Uid\Uuid;

/** What clients are told of a project: whole, or since a revision. */
final readonly class ProjectState
{
    public function __construct(private EntityManagerInterface $entities, private FitReport $fits, private PlanKeeper $plans, private Recorder $recorder)
    {
    }

    public function whole(Project $project, User $user): JsonResponse
    {
        $rows = [];
        $drawings = [];
        $storeys = [];
        foreach (RowType::cases() as $type) {
            foreach ($this->entities->getRepository($type->class())->findBy(['project' => $project->id()]) as $row) {
                $rows[] = $row->describe();
                if ($row instanceof Drawing) {
                    $drawings[] = $row;
                } elseif ($row instanceof Storey) {
                    $storeys[] = $row->id();
                }
            }
        }

        return $this->answer($project, $user, $rows, [], $drawings, $storeys);
    }

    /** What has changed after the revision; `removed` names rows that are gone. */
    public function since(Project $project, User $user, int $revision): JsonResponse
    {
        $changes = $this->entities->createQueryBuilder()->select('c')->from(Change::class, 'c')
            ->where('c.project = :project')->andWhere('c.revision > :revision')
            ->setParameter('project', $project->id(), 'uuid')->setParameter('revision', $revision)
            ->orderBy('c.revision')->getQuery()->getResult();

        return $this->after($project, $user, array_values(array_filter(\is_array($changes) ? $changes : [], static fn (mixed $c): bool => $c instanceof Change)));
    }

    /** @param list<Change> $changes */
    public function after(Project $project, User $user, array $changes, ?Change $made = null): JsonResponse
    {
        $touched = [];
        foreach ($changes as $change) {
            foreach ($change->touches() as $touch) {
                $touched[$touch['type'].'/'.$touch['id']] = $touch;
            }
        }
        $rows = [];
        $removed = [];
        $drawings = [];
        $storeys = [];
        foreach ($touched as $touch) {
            $row = $this->entities->find(RowType::from($touch['type'])->class(), Uuid::fromString($touch['id']));
            if (null === $row) {
                $removed[] = ['type' => $touch['type'], 'id' => $touch['id']];
            } else {
                $rows[] = $row->describe();
            }
            $values = $touch['after'] ?? $touch['before'] ?? [];
            if (\is_string($values['storey'] ?? null) && 'drawing' !== $touch['type']) {
                $storeys[$values['storey']] = Uuid::fromString($values['storey']);
            }
            if ($row instanceof Storey) {
                $storeys[$touch['id']] = $row->id();
            }
            if ('opening' === $touch['type'] && \is_string($values['wall'] ?? null)) {
                $wall = $this->entities->find(Wall::class, Uuid::fromString($values['wall']));
                if (null !== $wall) {
                    $storeys[$wall->storey()->toRfc4122()] = $wall->storey();
                }
            }
            $drawing = match (true) {
                $row instanceof Drawing => $row->id(),
                $row instanceof DrawingFit => $row->id(),
                $row instanceof Statement => $row->drawing(),
                // Of one that is gone the drawing still has a fit to be told.
                is_subclass_of(RowType::from($touch['type'])->class(), Statement::class) && \is_string($values['drawing'] ?? null) => Uuid::fromString($values['drawing']),
                default => null,
            };
            if (null !== $drawing && null !== ($found = $this->entities->find(Drawing::class, $drawing))) {
                $drawings[$drawing->toRfc4122()] = $found;
            }
        }

        return $this->answer($project, $user, $rows, $removed, array_values($drawings), array_values($storeys), $made);
    }

    /**
     * @param list<array<string, mixed>> $rows
     * @param list<array<string, mixed>> $removed
     * @param list<Drawing> $drawings whose fits are told
     * @param list<Uuid> $storeys whose shapes are told
     */
    private function answer(Project $project, User $user, array $rows, array $removed, array $drawings, array $storeys, ?Change $made = null): JsonResponse
    {
        $fits = [];
        foreach ($drawings as $drawing) {
            $fit = $this->entities->find(DrawingFit::class, $drawing->id());
            if (null !== $fit) {
                $fits[] = $this->fits->of($fit, $drawing);
            }
        }
        $derived = [];
        foreach ($storeys as $storey) {
            $found = $this->plans->derived($storey);
            // Kept as JSON: it goes out as it came from the core.
            $derived[] = '{"storey":'.json_encode($storey->toRfc4122(), \JSON_THROW_ON_ERROR).',"revision":'.$found['revision'].',"shapes":'.$found['shapes'].'}';
        }
        $pages = array_map(static fn (Page $p): array => $p->progress(), $this->entities->getRepository(Page::class)->findBy(['project' => $project->id()]));
        $head = [
            'revision' => $project->head(),
            'change' => $made?->id()->toRfc4122(),
            'changeRevision' => $made?->revision(),
            'steps' => $this->recorder->steps($project, $user),
            'tolerance' => Purpose::from((string) $project->values()['purpose'])->toleranceMmPer10m(),
            'pages' => $pages,
            'rows' => $rows,
            'removed' => $removed,
            'fits' => $fits,
        ];
        $json = json_encode($head, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES);

        return new JsonResponse(substr($json, 0, -1).',"derived":['.implode(',', $derived).']}', 200, [], true);
    }
}
