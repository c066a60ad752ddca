<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;

/**
 * Slows guessing down. Wrong passwords are counted by the account that was found and by who sent them, whatever the address was
 * written like; after a few, the next one must wait, twice as long each time, and no longer than a minute: nobody is locked out.
 * Who has signed in to an account from somewhere before is not slowed there by what others guess.
 */
final readonly class SignInThrottle
{
    private const FREE_TRIES = 5;
    private const WINDOW_SECONDS = 900;
    private const LONGEST_WAIT = 60;
    /** so long somebody is known from where they have signed in: a quarter of a year */
    private const KNOWN_SECONDS = 7_776_000;

    public function __construct(private Connection $connection, private ClockInterface $clock)
    {
    }

    /** @return int seconds to wait before the next try */
    public function wait(?User $user, string $sender): int
    {
        $now = $this->clock->now()->getTimestamp();
        $waits = [$this->waitAfter('sender = ?', [self::key($sender)], $now)];
        if (null !== $user) {
            $account = $user->id()->toBinary();
            $waits[] = false === $this->connection->fetchOne(
                'SELECT 1 FROM known_sender WHERE account = ? AND sender = ?',
                [$account, self::key($sender)],
            )
                ? $this->waitAfter('account = ?', [$account], $now)
                : $this->waitAfter('account = ? AND sender = ?', [$account, self::key($sender)], $now);
        }

        return max($waits);
    }

    public function failed(?User $user, string $sender): void
    {
        $now = $this->clock->now()->getTimestamp();
        $this->connection->executeStatement('DELETE FROM failed_sign_in WHERE failed_at <= ? LIMIT 1000', [$now - self::WINDOW_SECONDS]);
        $this->connection->insert('failed_sign_in', [
            'account' => $user?->id()->toBinary(),
            'sender' => self::key($sender),
            'failed_at' => $now,
        ]);
    }

    public function succeeded(User $user, string $sender): void
    {
        $this->connection->executeStatement(
            'DELETE FROM known_sender WHERE seen_at < ? LIMIT 1000',
            [$this->clock->now()->getTimestamp() - self::KNOWN_SECONDS],
        );
        $this->connection->executeStatement(
            'INSERT INTO known_sender (account, sender, seen_at) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE seen_at = VALUES(seen_at)',
            [$user->id()->toBinary(), self::key($sender), $this->clock->now()->getTimestamp()],
        );
        $this->connection->executeStatement(
            'DELETE FROM failed_sign_in WHERE account = ? AND sender = ?',
            [$user->id()->toBinary(), self::key($sender)],
        );
    }

    /** @param list<string> $values */
    private function waitAfter(string $where, array $values, int $now): int
    {
        $row = $this->connection->fetchNumeric(
            "SELECT COUNT(*), MAX(failed_at) FROM failed_sign_in WHERE $where AND failed_at > ?",
            [...$values, $now - self::WINDOW_SECONDS],
        );
        [$failed, $last] = false === $row ? [0, 0] : [is_numeric($row[0]) ? (int) $row[0] : 0, is_numeric($row[1]) ? (int) $row[1] : 0];
        if ($failed < self::FREE_TRIES) {
            return 0;
        }

        return max(0, $last + min(self::LONGEST_WAIT, 2 ** min(10, $failed - self::FREE_TRIES + 1)) - $now);
    }

    /** Senders are kept as what cannot be read back; of IPv6 the network of a site counts, since one has whole nets. */
    private static function key(string $sender): string
    {
        $packed = @inet_pton($sender);

        return hash('sha256', false === $packed ? $sender : (16 === \strlen($packed) ? substr($packed, 0, 8) : $packed), true);
    }
}
