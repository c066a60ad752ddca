<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Units\DisplayUnit;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Change\ChangeState;
use Plinth\Server\Change\Recorder;
use Plinth\Server\Change\RowId;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

final readonly class ProjectController
{
    /** of one's own, and of those shared with one */
    private const MOST_LISTED = 1000;

    public function __construct(
        private ProjectAccess $access,
        private ProjectState $state,
        private EntityManagerInterface $entities,
        private Recorder $recorder,
        private Cover $cover,
        private Projects $projects,
    ) {
    }

    #[Needs(Who::SignedIn)]
    #[Route('/api/projects', methods: ['GET'])]
    public function list(): Response
    {
        $user = $this->access->user();
        $this->projects->emptyBin($user);
        $projects = $this->entities->getRepository(Project::class)->findBy(['owner' => $user->id()], ['id' => 'DESC'], self::MOST_LISTED);
        $shares = $this->entities->getRepository(ProjectShare::class)->findBy(
            ['user' => $user->id()],
            ['project' => 'DESC'],
            self::MOST_LISTED,
        );
        array_push(
            $projects,
            ...$this->entities->getRepository(Project::class)->findBy([
                'id' => array_map(static fn (ProjectShare $s): Uuid => $s->project(), $shares),
                'binned' => null,
            ]),
        );
        $covers = $this->cover->of(array_map(static fn (Project $p): Uuid => $p->id(), $projects));

        return new JsonResponse(['projects' => array_map(fn (Project $p): array => [
            'id' => $p->id()->toRfc4122(),
            'revision' => $p->head(),
            'preview' => $covers[$p->id()->toRfc4122()] ?? null,
            'role' => $this->access->role($p)->value,
            'binned' => $p->binned()?->format(\DATE_ATOM),
        ] + array_intersect_key($p->values(), ['name' => true, 'purpose' => true, 'unit' => true]), $projects)]);
    }

    #[Needs(Who::SignedIn)]
    #[Route('/api/projects', methods: ['POST'])]
    public function create(Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['id', 'name', 'purpose', 'unit', 'shows', 'storey']);
        $id = RowValues::uuid($body->get('id'));
        $user = $this->access->user();
        if (null === $this->entities->find(Project::class, (new RowId($id, $id))->criteria())) {
            $project = Project::of($id, $user);
            $unit = $body->optional('unit')?->choice(LengthUnit::class) ?? LengthUnit::Millimetre;
            $project->take(new RowValues([
                'name' => $body->get('name')->text(120),
                'purpose' => $body->optional('purpose')?->text() ?? Purpose::Planning->value,
                'unit' => $unit->value,
                'shows' => $body->optional('shows')?->text() ?? DisplayUnit::usualFor($unit)->value,
            ], '', ['name', 'purpose', 'unit', 'shows', 'areas', 'course', 'unitLength', 'joint']));
            $this->entities->persist($project);
            $this->entities->flush();
        }
        // Sent again after a break in between, a project without its beginning gets it now.
        if (0 === $this->access->project($id)->head()) {
            $storey = $body->optional('storey')?->text(120) ?? 'Ground';
            // Floor to floor until somebody says it, round in the project's unit: common practice, no source.
            $height = $this->access->project($id)->unit()->isImperial() ? 2743.2 : 2700.0;
            $this->recorder->record($id, $user, new UuidV7(), 'Begin', static function (Workspace $workspace) use ($storey, $height): void {
                $workspace->add(Storey::class, new UuidV7(), ['name' => $storey, 'elevation' => 0.0, 'height' => $height], 'storey');
            }, state: ChangeState::Left); // the beginning of a project is not undone
        }

        return $this->state->whole($this->access->project($id), $user);
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}', methods: ['GET'])]
    public function show(Uuid $project, Request $request): Response
    {
        $wanted = $request->query->getString('storey');

        return $this->state->whole(
            $this->access->project($project),
            $this->access->user(),
            '' === $wanted ? null : $this->storey($project, $wanted),
        );
    }

    /** The storey that is named, or the first where that has gone. */
    private function storey(Uuid $project, string $wanted): ?Uuid
    {
        $storeys = $this->entities->getRepository(Storey::class);
        $found = Uuid::isValid($wanted) ? $storeys->find((new RowId($project, Uuid::fromString($wanted)))->criteria()) : null;

        return ($found ?? $storeys->findBy(['project' => $project], ['id' => 'ASC'], 1)[0] ?? null)?->id();
    }
}
