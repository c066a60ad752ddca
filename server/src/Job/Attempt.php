<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;

/**
 * One try at a job. It holds the job for as long as it says that it is alive; a worker that was stopped or cut off for longer
 * loses it to another, and finds out before it writes anything: only the newest attempt writes.
 */
final class Attempt
{
    /** s that a worker may be silent before its job is taken up by another */
    public const LEASE = 30;
    /** s between two signs of life */
    private const BEAT = 5.0;

    private float $beat;

    public function __construct(private readonly Connection $connection, private readonly ClockInterface $clock, private readonly Job $job)
    {
        $this->beat = microtime(true);
    }

    public function number(): int
    {
        return $this->job->attempt;
    }

    /** Says now and then that the work goes on; asked often, it costs nothing in between. */
    public function goesOn(): void
    {
        if (microtime(true) - $this->beat < self::BEAT) {
            return;
        }
        $this->beat = microtime(true);
        if (1 !== $this->connection->executeStatement('UPDATE job SET held_until = ? WHERE number = ? AND attempt = ?', [$this->clock->now()->getTimestamp() + self::LEASE, $this->job->number, $this->job->attempt])
            && !$this->isNewest()) {
            throw Superseded::byANewerAttempt();
        }
    }

    /**
     * Writes results while no other attempt can begin: rows in one transaction, and files moved into place.
     *
     * @template T
     *
     * @param callable(): T $write
     *
     * @return T
     */
    public function write(callable $write): mixed
    {
        return $this->connection->transactional(function () use ($write): mixed {
            if ($this->job->attempt !== self::asNumber($this->connection->fetchOne('SELECT attempt FROM job WHERE number = ? FOR UPDATE', [$this->job->number]))) {
                throw Superseded::byANewerAttempt();
            }

            return $write();
        });
    }

    private function isNewest(): bool
    {
        return $this->job->attempt === self::asNumber($this->connection->fetchOne('SELECT attempt FROM job WHERE number = ?', [$this->job->number]));
    }

    private static function asNumber(mixed $value): int
    {
        return is_numeric($value) ? (int) $value : -1;
    }
}
