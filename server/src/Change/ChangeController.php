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
        $body = JsonValue::parse($request->getContent())->object(['id', 'base', 'after', 'known', 'account', 'title', 'operations', 'tracing']);
        $this->requireAuthor($body);
        $this->price->check($project, $body);
        $base = $this->base($project, $body);
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

        return $this->state->since($this->access->project($project), $this->access->user(), min($body->optional('known')?->count() ?? $base->revision, $change->revision() - 1), $change);
    }

    /** What a change would do to the fits; nothing is kept of it. */
    #[Needs(Who::Editor)]
    #[Route('/try', methods: ['POST'])]
    public function attempt(Uuid $project, Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['base', 'after', 'operations', 'tracing']);
        $this->price->check($project, $body);
        $base = $this->base($project, $body);

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

    private function base(Uuid $project, JsonValue $body): Base
    {
        return Base::of($this->entities->getConnection(), $project, $this->access->user(), $body, $this->access->project($project)->head());
    }

    /** Work that was kept while its author was signed out is not done in the name of whoever has signed in since. */
    private function requireAuthor(JsonValue $body): void
    {
        $author = $body->optional('account');
        if (null !== $author && !RowValues::uuid($author)->equals($this->access->user()->id())) {
            throw Refusal::otherAccount();
        }
    }

    /** @param callable(Uuid, User, Uuid, Uuid|null): Change $take */
    private function step(Uuid $project, Request $request, callable $take): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['id', 'target', 'known', 'account']);
        $this->requireAuthor($body);
        $target = $body->optional('target');
        $change = $take($project, $this->access->user(), RowValues::uuid($body->get('id')), null === $target ? null : RowValues::uuid($target));

        return $this->state->since($this->access->project($project), $this->access->user(), min($body->optional('known')?->count() ?? \PHP_INT_MAX, $change->revision() - 1), $change);
    }
}
