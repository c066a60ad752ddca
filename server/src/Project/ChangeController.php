<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\Connection;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Account\User;
use Plinth\Server\Change\Change;
use Plinth\Server\Change\ChangeRequest;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\Recorder;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** Changes of a project: made, taken back, done again, asked about. */
#[Route('/api/projects/{project}')]
final readonly class ChangeController
{
    private const HISTORY = 200;

    public function __construct(
        private ProjectAccess $access,
        private Recorder $recorder,
        private ChangeRequest $requests,
        private ProjectState $state,
        private Connection $connection,
        private QuietPoll $polls,
    ) {
    }

    #[Needs(Who::Editor)]
    #[Route('/changes', methods: ['POST'])]
    public function make(Uuid $project, Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object([
            'id', 'base', 'after', 'known', 'heard', 'account', 'title', 'operations', 'tracing',
        ]);
        $user = $this->access->user();
        ChangeRequest::requireAuthor($body, $user);
        $change = $this->recorder->record(
            $project,
            $user,
            RowValues::uuid($body->get('id')),
            $body->get('title')->text(120),
            $this->requests->read($project, $user, $body),
            ChangeRequest::occasion($body),
        );

        return $this->answer($project, $request, $body, $change, $body->get('base')->count());
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
        return $this->told(
            $project,
            $request,
            max(0, $request->query->getInt('since')),
            (float) $request->query->get('heard', '0'),
            storey: self::storey($request),
        );
    }

    private static function storey(Request $request): ?Uuid
    {
        $storey = $request->query->getString('storey');

        return '' === $storey ? null : RowValues::uuid(JsonValue::of($storey, 'storey'));
    }

    #[Needs(Who::Reader)]
    #[Route('/history', methods: ['GET'])]
    public function history(Uuid $project): Response
    {
        $changes = $this->connection->fetchAllNumeric(
            'SELECT id, revision, title, state, at FROM project_change WHERE project = ? ORDER BY revision DESC LIMIT '.self::HISTORY,
            [$project->toBinary()],
        );

        return new JsonResponse(['changes' => array_map(static fn (array $c): array => [
            'id' => Raw::id($c[0]), 'revision' => (int) Raw::number($c[1]), 'title' => Raw::text($c[2]), 'state' => Raw::text($c[3]), 'at' => (new \DateTimeImmutable(Raw::text($c[4])))->format(\DATE_ATOM),
        ], $changes)]);
    }

    /** @param callable(Uuid, User, Uuid, Uuid|null): Change $take */
    private function step(Uuid $project, Request $request, callable $take): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['id', 'target', 'known', 'heard', 'account']);
        $user = $this->access->user();
        ChangeRequest::requireAuthor($body, $user);
        $target = $body->optional('target');
        $change = $take($project, $user, RowValues::uuid($body->get('id')), null === $target ? null : RowValues::uuid($target));

        return $this->answer($project, $request, $body, $change, \PHP_INT_MAX);
    }

    /** @param int $base where the client does not say from which revision on it is told */
    private function answer(Uuid $project, Request $request, JsonValue $body, Change $change, int $base): Response
    {
        $known = min($body->optional('known')?->count() ?? $base, $change->revision() - 1);

        return $this->told($project, $request, $known, $body->optional('heard')?->notNegative() ?? 0.0, $change);
    }

    /** With a tag for the next time, so that a client that was told all is not told again. */
    private function told(Uuid $project, Request $request, int $since, float $heard, ?Change $made = null, ?Uuid $storey = null): Response
    {
        $user = $this->access->user();
        // What happens from here on makes another tag.
        $tag = $this->polls->tagOf($request, $project, $user);
        $answer = $this->state->since($this->access->project($project), $user, $since, $made, $heard, $storey);
        if (null !== $tag) {
            $answer->headers->add(['ETag' => $tag, 'Cache-Control' => 'private, no-cache']);
        }

        return $answer;
    }
}
