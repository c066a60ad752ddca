<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\Security\Http\Authenticator\Passport\Badge\UserBadge;
use Symfony\Component\Security\Http\Event\CheckPassportEvent;

/** Counts failed sign-ins per address and sender; checked before the password is. */
final readonly class SignInThrottle
{
    private const MOST = 8;
    private const WINDOW_SECONDS = 900;

    public function __construct(private Connection $connection, private ClockInterface $clock, private RequestStack $requests)
    {
    }

    #[AsEventListener(event: CheckPassportEvent::class, priority: 1000)]
    public function check(CheckPassportEvent $event): void
    {
        $request = $this->requests->getCurrentRequest();
        if (null === $request || !$event->getPassport()->hasBadge(UserBadge::class)) {
            return;
        }
        $since = $this->clock->now()->getTimestamp() - self::WINDOW_SECONDS;
        $failed = $this->connection->fetchOne('SELECT COUNT(*) FROM failed_sign_in WHERE sender = ? AND failed_at > ?', [$this->sender($request), $since]);
        if (is_numeric($failed) && (int) $failed >= self::MOST) {
            throw new TooManySignIns();
        }
    }

    public function count(Request $request): void
    {
        $now = $this->clock->now()->getTimestamp();
        $this->connection->executeStatement('DELETE FROM failed_sign_in WHERE failed_at <= ?', [$now - self::WINDOW_SECONDS]);
        $this->connection->insert('failed_sign_in', ['sender' => $this->sender($request), 'failed_at' => $now]);
    }

    public function forget(Request $request): void
    {
        $this->connection->delete('failed_sign_in', ['sender' => $this->sender($request)]);
    }

    private function sender(Request $request): string
    {
        $body = json_decode($request->getContent(), true);
        $email = \is_array($body) && \is_string($body['email'] ?? null) ? mb_strtolower($body['email']) : '';

        return hash('sha256', $email.'|'.($request->getClientIp() ?? ''));
    }
}
