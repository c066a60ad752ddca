<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Account\User;
use Plinth\Server\Change\Change;
use Plinth\Server\Change\Kinds;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\Rows;
use Plinth\Server\Change\Steps;
use Plinth\Server\Change\Workspace;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Uid\Uuid;

/** What clients are told of a project: whole, or since a revision. */
final readonly class ProjectState
{
    /** changes that are read to tell what they have touched: who has missed more is told the whole */
    private const MOST_MISSED = 1000;

    /** @param iterable<Teller> $tellers */
    public function __construct(
        private EntityManagerInterface $entities,
        private Kinds $kinds,
        private Steps $steps,
        private ProjectAccess $access,
        #[AutowireIterator(Teller::class)] private iterable $tellers,
    ) {
    }

    /** @param Uuid|null $storey the one whose rows and shapes are told; null for all */
    public function whole(Project $project, User $user, ?Uuid $storey = null, ?Change $made = null): JsonResponse
    {
        $rows = [];
        foreach ($this->kinds->classes as $class) {
            foreach (
                null !== $storey
                && is_subclass_of($class, OnStorey::class)
                    ? []
                    : $this->entities->getRepository($class)->findBy(['project' => $project->id()]) as $row
            ) {
                $rows[Workspace::key($class, $row->id())] = $row;
            }
        }
        $rows += null === $storey ? [] : $this->rowsOn($project, $storey);

        return $this->answer($user, new Telling($project, null, $rows, storeys: null === $storey ? null : [$storey]), $made);
    }

    /** @return array<string, ProjectRow> all rows that lie on a storey */
    private function rowsOn(Project $project, Uuid $storey): array
    {
        $rows = [];
        foreach ($this->kinds->classes as $class) {
            if (!is_subclass_of($class, OnStorey::class)) {
                continue;
            }
            $found = $this->entities->createQueryBuilder()->select('r')->from($class, 'r')->where('r.project = :project')->andWhere($class::onStorey())
                ->setParameter(
                    'project',
                    $project->id(),
                    UuidType::NAME,
                )->setParameter('storey', $storey, UuidType::NAME)->getQuery()->getResult();
            foreach (\is_array($found) ? $found : [] as $row) {
                if ($row instanceof $class) {
                    $rows[Workspace::key($class, $row->id())] = $row;
                }
            }
        }

        return $rows;
    }

    /**
     * What has changed after a revision; `removed` names rows that are gone. Where too much has, all there is.
     *
     * @param Uuid|null $storey one that is told whole beside
     * @param float $heard when the client was last told of what happens beside changes, by the database's clock, s
     */
    public function since(
        Project $project,
        User $user,
        int $revision,
        ?Change $made = null,
        float $heard = 0.0,
        ?Uuid $storey = null,
    ): JsonResponse {
        if ($project->head() - $revision > self::MOST_MISSED) {
            return $this->whole($project, $user, made: $made);
        }
        $touched = [];
        foreach ($this->entities->getConnection()->iterateColumn(
            'SELECT touches FROM project_change WHERE project = ? AND revision > ? ORDER BY revision',
            [$project->id()->toBinary(), $revision],
        ) as $touches) {
            /** @var list<array{type: string, id: string, before: array<string, scalar|null>|null, after: array<string, scalar|null>|null}> $touches our own writing */
            $touches = json_decode(Raw::text($touches), true, 512, \JSON_THROW_ON_ERROR);
            foreach ($touches as $touch) {
                $touched[$touch['type']][$touch['id']] = $touch['after'] ?? $touch['before'];
            }
        }
        $rows = [];
        $gone = [];
        foreach ($this->kinds->classes as $name => $class) {
            $values = $touched[$name] ?? [];
            foreach (Rows::with(
                $this->entities,
                $project->id(),
                $class,
                'id',
                array_map(Uuid::fromString(...), array_keys($values)),
            ) as $row) {
                $rows[Workspace::key($class, $row->id())] = $row;
                unset($values[$row->id()->toRfc4122()]);
            }
            foreach ($values as $id => $known) {
                $gone[] = [$class, Uuid::fromString($id), $known];
            }
        }

        $whole = null === $storey || null === $this->entities->find(Storey::class, $project->beside($storey)->criteria()) ? [] : [$storey];
        foreach ($whole as $one) {
            $rows += $this->rowsOn($project, $one);
        }

        return $this->answer($user, new Telling($project, $revision, $rows, $gone, $heard, $whole), $made);
    }

    private function answer(User $user, Telling $about, ?Change $made = null): JsonResponse
    {
        $project = $about->project;
        $head = [
            'heard' => Raw::number($this->entities->getConnection()->fetchOne('SELECT UNIX_TIMESTAMP(NOW(6))')),
            'revision' => $project->head(),
            'since' => $about->since ?? 0,
            'role' => $this->access->role($project)->value,
            'change' => $made?->id()->toRfc4122(),
            'changeRevision' => $made?->revision(),
            'steps' => $this->steps->of($project->id(), $user),
            'tolerance' => Purpose::from((string) $project->values()['purpose'])->toleranceMmPer10m(),
            'storeys' => null === $about->storeys ? null : array_map(static fn (Uuid $s): string => $s->toRfc4122(), $about->storeys),
            'rows' => array_values(array_map(static fn (ProjectRow $row): array => $row->describe(), $about->rows)),
            'removed' => array_map(
                static fn (array $g): array => ['type' => $g[0]::kind()->name, 'id' => $g[1]->toRfc4122()],
                $about->gone,
            ),
        ];
        $json = substr(json_encode($head, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES), 0, -1);
        foreach ($this->tellers as $teller) {
            // Kept as JSON: much of it goes out as it came from the core.
            $json .= ',"'.$teller::name().'":'.$teller->tell($about);
        }

        return new JsonResponse($json.'}', 200, [], true);
    }
}
