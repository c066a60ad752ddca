<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\Raw;
use Psr\Clock\ClockInterface;

/**
 * One try at a job. It holds the job for as long as it says that it is alive; a worker that was cut off for longer loses it to another.
 * Whoever stops the job or asks for it anew takes it away as well: only the newest attempt writes, and each finds out at its next word.
 */
final class Attempt
{
    /** s that a worker may be silent before its job is taken up by another */
    public const LEASE = 90;
    /** s between two looks at whether the work is still wanted */
    private const LOOK = 0.2;

    private float $looked = 0.0;

    public function __construct(private readonly Connection $connection, private readonly ClockInterface $clock, private readonly Job $job)
    {
    }

    /**
     * Says that the work goes on, and how far it is; asked often, it costs nothing in between.
     *
     * @param float|null $part of the work that is done, 0 to 1; null where there is nothing new to say
     *
     * @throws Superseded
     */
    public function goesOn(?float $part = null): void
    {
        if (microtime(true) - $this->looked < self::LOOK) {
            return;
        }
        $this->looked = microtime(true);
        $until = $this->clock->now()->getTimestamp() + self::LEASE;
        if (1 !== $this->connection->executeStatement(
            'UPDATE job SET held_until = ?, part = COALESCE(?, part) WHERE number = ? AND attempt = ?',
            [$until, null === $part ? null : min(0.999, max(0.001, $part)), $this->job->number, $this->job->attempt],
        )
            && $this->job->attempt !== $this->newest('')) {
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
     *
     * @throws Superseded
     */
    public function write(callable $write): mixed
    {
        return $this->connection->transactional(function () use ($write): mixed {
            if ($this->job->attempt !== $this->newest(' FOR UPDATE')) {
                throw Superseded::byANewerAttempt();
            }

            return $write();
        });
    }

    private function newest(string $lock): ?int
    {
        $attempt = $this->connection->fetchOne('SELECT attempt FROM job WHERE number = ?'.$lock, [$this->job->number]);

        return false === $attempt ? null : (int) Raw::number($attempt);
    }
}
