<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Account\User;
use Plinth\Server\Fit\Trial;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Plan\ChangePrice;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\ProjectState;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

#[Route('/api/projects/{project}')]
final readonly class ChangeController
{
    public function __construct(private ProjectAccess $access, private Recorder $recorder, private Operations $operations, private ProjectState $state, private EntityManagerInterface $entities, private Trial $trial, private ChangePrice $price)
    {
    }

    #[Needs(Who::Editor)]
    #[Route('/changes', methods: ['POST'])]
    public function make(Uuid $project, Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['id', 'base', 'title', 'operations', 'tracing']);
        $this->price->check($project, $body);
        $base = $this->base($project, $body->get('base'));
        $carry = 'carry' === ($body->optional('tracing')?->word(['keep', 'carry']) ?? 'keep');
        $change = $this->recorder->record(
            $project,
            $this->access->user(),
            RowValues::uuid($body->get('id')),
            $body->get('title')->text(120),
            function (Workspace $workspace) use ($body, $base): void {
                $this->operations->apply($workspace, $body, $base);
            },
            $carry,
        );

        return $this->state->since($this->access->project($project), $this->access->user(), min($base, $change->revision() - 1), $change);
    }

    /** What a change would do to the fits; nothing is kept of it. */
    #[Needs(Who::Editor)]
    #[Route('/try', methods: ['POST'])]
    public function attempt(Uuid $project, Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['base', 'operations', 'tracing']);
        $this->price->check($project, $body);
        $base = $this->base($project, $body->get('base'));

        return new JsonResponse($this->recorder->attempt(
            $project,
            $this->access->user(),
            function (Workspace $workspace) use ($body, $base): void {
                $this->operations->apply($workspace, $body, $base);
            },
            $this->trial->of(...),
            'carry' === $body->optional('tracing')?->word(['keep', 'carry']),
        ));
    }

    #[Needs(Who::Editor)]
    #[Route('/undo', methods: ['POST'])]
    public function undo(Uuid $project, Request $request): Response
    {
        return $this->step($project, $request, $this->recorder->undo(...));
    }

    #[Needs(Who::Editor)]
    #[Route('/redo', methods: ['POST'])]
    public function redo(Uuid $project, Request $request): Response
    {
        return $this->step($project, $request, $this->recorder->redo(...));
    }

    #[Needs(Who::Reader)]
    #[Route('/changes', methods: ['GET'])]
    public function since(Uuid $project, Request $request): Response
    {
        return $this->state->since($this->access->project($project), $this->access->user(), max(0, $request->query->getInt('since')));
    }

    #[Needs(Who::Reader)]
    #[Route('/history', methods: ['GET'])]
    public function history(Uuid $project): Response
    {
        $changes = $this->entities->getRepository(Change::class)->findBy(['project' => $project], ['revision' => 'DESC'], 200);

        return new JsonResponse(['changes' => array_map(static fn (Change $c): array => [
            'id' => $c->id()->toRfc4122(), 'revision' => $c->revision(), 'title' => $c->title(), 'state' => $c->state()->value, 'at' => $c->at()->format(\DATE_ATOM),
        ], $changes)]);
    }

    /** The revision that the client knew: one that there is. */
    private function base(Uuid $project, JsonValue $base): int
    {
        $head = $this->access->project($project)->head();

        return $base->count() <= $head ? $base->count() : throw Refusal::invalid('base-ahead', \sprintf('The project is at revision %d: nobody can know revision %d. Load it again.', $head, $base->count()), $base->at);
    }

    /** @param callable(Uuid, User, Uuid): Change $take */
    private function step(Uuid $project, Request $request, callable $take): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['id', 'base']);
        $change = $take($project, $this->access->user(), RowValues::uuid($body->get('id')));

        return $this->state->since($this->access->project($project), $this->access->user(), min($body->optional('base')?->count() ?? \PHP_INT_MAX, $change->revision() - 1), $change);
    }
}
