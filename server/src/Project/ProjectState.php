<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Account\User;
use Plinth\Server\Change\Change;
use Plinth\Server\Change\Rows;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\Steps;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Fit\FitReport;
use Plinth\Server\Fit\Statement;
use Plinth\Server\Plan\DerivedShapes;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Uid\Uuid;

/** What clients are told of a project: whole, or since a revision. */
final readonly class ProjectState
{
    public function __construct(private EntityManagerInterface $entities, private FitReport $fits, private DerivedShapes $shapes, private Steps $steps, private ProjectAccess $access)
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

    /** What has changed after a revision; `removed` names rows that are gone. */
    public function since(Project $project, User $user, int $revision, ?Change $made = null): JsonResponse
    {
        $changes = $this->entities->createQueryBuilder()->select('c')->from(Change::class, 'c')
            ->where('c.project = :project')->andWhere('c.revision > :revision')
            ->setParameter('project', $project->id(), 'uuid')->setParameter('revision', $revision)
            ->orderBy('c.revision')->getQuery()->getResult();
        $touched = [];
        foreach (\is_array($changes) ? $changes : [] as $change) {
            foreach ($change instanceof Change ? $change->touches() : [] as $touch) {
                $touched[$touch['type'].'/'.$touch['id']] = $touch;
            }
        }
        $there = [];
        foreach (RowType::cases() as $type) {
            $ids = array_map(static fn (array $t): Uuid => Uuid::fromString($t['id']), array_values(array_filter($touched, static fn (array $t): bool => $t['type'] === $type->value)));
            foreach (Rows::with($this->entities, $project->id(), $type->class(), 'id', $ids) as $row) {
                $there[$type->value.'/'.$row->id()->toRfc4122()] = $row;
            }
        }
        $rows = [];
        $removed = [];
        $drawings = [];
        foreach ($touched as $key => $touch) {
            $row = $there[$key] ?? null;
            if (null === $row) {
                $removed[] = ['type' => $touch['type'], 'id' => $touch['id']];
            } else {
                $rows[] = $row->describe();
            }
            $values = $touch['after'] ?? $touch['before'] ?? [];
            $drawing = match (true) {
                $row instanceof Drawing => $row->id(),
                $row instanceof DrawingFit => $row->id(),
                $row instanceof Statement => $row->drawing(),
                // Of one that is gone the drawing still has a fit to be told.
                is_subclass_of(RowType::from($touch['type'])->class(), Statement::class) && \is_string($values['drawing'] ?? null) => Uuid::fromString($values['drawing']),
                default => null,
            };
            if (null !== $drawing && null !== ($found = $this->entities->find(Drawing::class, $project->beside($drawing)->criteria()))) {
                $drawings[$drawing->toRfc4122()] = $found;
            }
        }

        return $this->answer($project, $user, $rows, $removed, array_values($drawings), $this->shapes->changedSince($project->id(), $revision), $revision, $made);
    }

    /**
     * @param list<array<string, mixed>> $rows
     * @param list<array<string, mixed>> $removed
     * @param list<Drawing> $drawings whose fits are told
     * @param list<Uuid> $storeys whose shapes are told
     */
    private function answer(Project $project, User $user, array $rows, array $removed, array $drawings, array $storeys, ?int $since = null, ?Change $made = null): JsonResponse
    {
        $fits = [];
        foreach ($drawings as $drawing) {
            $fit = $this->entities->find(DrawingFit::class, $drawing->key()->criteria());
            if (null !== $fit) {
                $fits[] = $this->fits->of($fit, $drawing);
            }
        }
        // Kept as JSON: it goes out as it came from the core.
        $derived = array_map(fn (Uuid $s): string => $this->shapes->json($project->beside($s), $since), $storeys);
        $pages = array_map(static fn (Page $p): array => $p->progress(), $this->entities->getRepository(Page::class)->findBy(['project' => $project->id()]));
        $head = [
            'revision' => $project->head(),
            'since' => $since ?? 0,
            'role' => $this->access->role($project)->value,
            'change' => $made?->id()->toRfc4122(),
            'changeRevision' => $made?->revision(),
            'steps' => $this->steps->of($project->id(), $user),
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
