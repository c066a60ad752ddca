<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\DBAL\Connection;
use Plinth\Server\Http\Refusal;
use Psr\Clock\ClockInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\KernelEvents;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/**
 * Who is signed in where. A session stands only as long as its row here does, so that one may end others of one's own.
 *
 * @phpstan-type Told array{id: string, began: string, seen: string, program: string, here: bool}
 */
final readonly class SignIns
{
    public const KEY = 'signed-in';
    /** s between two notes that somebody is still there */
    public const NOTE = 60;
    /** s after which a session that nobody used is over: a working day with its breaks */
    public const IDLE = 43_200;

    public function __construct(
        private Connection $connection,
        private Security $security,
        private RequestStack $requests,
        private ClockInterface $clock,
    ) {
    }

    public function begin(User $user, Request $request): void
    {
        $this->security->login($user, NoAuthenticator::class, 'main');
        $id = new UuidV7();
        $now = $this->clock->now()->getTimestamp();
        $this->connection->executeStatement('DELETE FROM signed_in WHERE seen_at < ? LIMIT 1000', [$now - self::IDLE]);
        $this->connection->insert('signed_in', [
            'id' => $id->toBinary(),
            'account' => $user->id()->toBinary(),
            'began_at' => $now,
            'seen_at' => $now,
            'program' => mb_substr(mb_scrub((string) $request->headers->get('User-Agent')), 0, 200),
        ]);
        $this->requests->getSession()->set(self::KEY, $id->toRfc4122());
    }

    /** Runs behind the firewall, before any controller. */
    #[AsEventListener(event: KernelEvents::REQUEST, priority: 4)]
    public function check(RequestEvent $event): void
    {
        $request = $event->getRequest();
        if (!$request->hasPreviousSession() || !$this->security->getUser() instanceof User) {
            return;
        }
        $id = $this->here();
        $seen = null === $id ? false : $this->connection->fetchOne(
            'SELECT seen_at FROM signed_in WHERE id = ? AND account = ?',
            [$id->toBinary(), $this->user()->id()->toBinary()],
        );
        $now = $this->clock->now()->getTimestamp();
        if (null === $id || !is_numeric($seen) || (int) $seen < $now - self::IDLE) {
            $this->leave();

            return;
        }
        if ((int) $seen < $now - self::NOTE) {
            $this->connection->executeStatement('UPDATE signed_in SET seen_at = ? WHERE id = ?', [$now, $id->toBinary()]);
            // What has changed is written, and with it how long the session stands.
            $this->requests->getSession()->set('seen-at', $now);
        }
    }

    /** @return list<Told> newest first */
    public function of(User $user): array
    {
        $rows = $this->connection->fetchAllNumeric(
            'SELECT id, began_at, seen_at, program FROM signed_in WHERE account = ? AND seen_at >= ? ORDER BY id DESC LIMIT 100',
            [$user->id()->toBinary(), $this->clock->now()->getTimestamp() - self::IDLE],
        );
        $at = static fn (mixed $seconds): string => gmdate(\DATE_ATOM, is_numeric($seconds) ? (int) $seconds : 0);

        return array_map(function (array $row) use ($at): array {
            $id = Uuid::fromBinary(\is_string($row[0]) ? $row[0] : '');

            return [
                'id' => $id->toRfc4122(),
                'began' => $at($row[1]),
                'seen' => $at($row[2]),
                'program' => \is_string($row[3]) ? $row[3] : '',
                'here' => true === $this->here()?->equals($id),
            ];
        }, $rows);
    }

    public function end(User $user, Uuid $id): void
    {
        if (0 === $this->connection->executeStatement(
            'DELETE FROM signed_in WHERE id = ? AND account = ?',
            [$id->toBinary(), $user->id()->toBinary()],
        )) {
            throw Refusal::notFound();
        }
    }

    /** Ends every session of an account, but for the one that asks where that is to stay. */
    public function endAll(User $user, bool $butThis): void
    {
        $here = $butThis ? $this->here() : null;
        $this->connection->executeStatement(
            'DELETE FROM signed_in WHERE account = ? AND id <> ?',
            [$user->id()->toBinary(), $here?->toBinary() ?? ''],
        );
    }

    public function endHere(): void
    {
        $here = $this->here();
        if (null !== $here) {
            $this->connection->executeStatement('DELETE FROM signed_in WHERE id = ?', [$here->toBinary()]);
        }
        $this->leave();
    }

    private function leave(): void
    {
        $this->security->logout(false);
        $this->requests->getSession()->invalidate();
    }

    /** The session of this request, where it has one. */
    public function here(): ?Uuid
    {
        $id = $this->requests->getSession()->get(self::KEY);

        return \is_string($id) && Uuid::isValid($id) ? Uuid::fromString($id) : null;
    }

    private function user(): User
    {
        $user = $this->security->getUser();

        return $user instanceof User ? $user : throw Refusal::signedOut();
    }
}
