<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\Connection;
use Plinth\Server\Account\SignIns;
use Plinth\Server\Account\User;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\Uid\Uuid;

/**
 * Answers whoever asks for what has changed, and nothing has, by one statement and without a session: with what is told goes a tag
 * over who asked, what they may, and what there was; while it would be the same, so would be the answer.
 */
final readonly class QuietPoll
{
    private const PATH = '#^/api/projects/([0-9a-f-]{36})/changes$#';
    private const STATE = <<<'SQL'
        SELECT p.head, p.owner = ?, COALESCE(s.role, ''), i.seen_at,
            (SELECT CONCAT(COUNT(*), '.', COALESCE(SUM(UNIX_TIMESTAMP(told_at) * 1000000), 0)) FROM job WHERE project = p.id),
            (SELECT CONCAT(COUNT(*), '.', COALESCE(SUM(CRC32(CONCAT(page, COALESCE(place, '')))), 0)) FROM presence WHERE project = p.id AND signed_in <> i.id AND seen_at >= ?),
            p.binned IS NULL
        FROM project p JOIN signed_in i ON i.id = ? AND i.account = ? LEFT JOIN project_share s ON s.project = p.id AND s.shared_with = ?
        WHERE p.id = ?
        SQL;

    public function __construct(
        private Connection $connection,
        private ClockInterface $clock,
        #[Autowire(env: 'APP_SECRET')] private string $secret,
    ) {
    }

    /** Before there is a session, a route or a user. */
    #[AsEventListener(priority: 2048)]
    public function answer(RequestEvent $event): void
    {
        $request = $event->getRequest();
        // What went out compressed comes back as weak.
        $known = preg_replace('/^W\//', '', (string) $request->headers->get('If-None-Match'));
        if (
            null === $known
            || '' === $known
            || $request->query->has('storey')
            || !$request->isMethod('GET')
            || 1 !== preg_match(self::PATH, $request->getPathInfo(), $m)
            || 1 !== preg_match('/^"([0-9a-f-]{36})\.([0-9a-f-]{36})\.[0-9a-f]{40}"$/', $known, $t)
        ) {
            return;
        }
        if (!Uuid::isValid($m[1]) || !Uuid::isValid($t[1]) || !Uuid::isValid($t[2])) {
            return;
        }
        $state = $this->state(Uuid::fromString($m[1]), Uuid::fromString($t[1]), Uuid::fromString($t[2]));
        // Once a minute it goes the long way, which notes that somebody is still there.
        if (
            null !== $state
            && (int) $state[3] >= $this->clock->now()->getTimestamp() - SignIns::NOTE
            && $state[0] === $request->query->get('since')
            && hash_equals($this->tag($request, $m[1], $t[1], $t[2], $state), $known)
        ) {
            $event->setResponse(new Response('', Response::HTTP_NOT_MODIFIED, ['ETag' => $known, 'Cache-Control' => 'private, no-cache']));
        }
    }

    /** What goes with an answer that is now begun to be made; null where the request has no sign-in to go by. */
    public function tagOf(Request $request, Uuid $project, User $user): ?string
    {
        $signedIn = $request->getSession()->get(SignIns::KEY);
        $state = \is_string($signedIn) && Uuid::isValid($signedIn) ? $this->state(
            $project,
            $user->id(),
            Uuid::fromString($signedIn),
        ) : null;

        return null === $state ? null : $this->tag($request, $project->toRfc4122(), $user->id()->toRfc4122(), $signedIn, $state);
    }

    /** @return list<string>|null revision, whether it is one's own, one's share, when one was seen, how far its long work is, who else is there, and that it is not in the bin */
    private function state(Uuid $project, Uuid $user, Uuid $signedIn): ?array
    {
        $row = $this->connection->fetchNumeric(self::STATE, [
            $user->toBinary(), $this->clock->now()->getTimestamp() - WhoIsThere::GONE, $signedIn->toBinary(), $user->toBinary(),
            $user->toBinary(), $project->toBinary(),
        ]);

        return false === $row ? null : array_map(static fn (mixed $v): string => \is_scalar($v) ? (string) $v : '', $row);
    }

    /** @param list<string> $state */
    private function tag(Request $request, string $project, string $user, string $signedIn, array $state): string
    {
        unset($state[3]);
        $cookie = $request->cookies->get((string) session_name());

        return '"'.$user.'.'.$signedIn.'.'.hash_hmac(
            'sha1',
            implode('|', [\is_string($cookie) ? $cookie : '', $project, $user, $signedIn, ...$state]),
            $this->secret,
        ).'"';
    }
}
