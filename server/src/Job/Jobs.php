<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\RowId;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;

/**
 * The long work that waits: asked for in the transaction that makes it needed, taken by workers in turns. Of one kind about one
 * row there is one job at a time; asked for again while it is under way, it is done again afterwards.
 */
final readonly class Jobs
{
    public function __construct(private Connection $connection, private ClockInterface $clock)
    {
    }

    /**
     * @param class-string<JobKind> $kind
     * @param array<string, mixed> $more
     */
    public function ask(string $kind, RowId $about, array $more = []): void
    {
        // The attempt goes on counting, so that whoever still works on what was asked before writes nothing of it.
        $this->connection->executeStatement(
            'INSERT INTO job (project, subject, kind, lane, more, attempt, tries, asked_at, not_before, held_until, held_by) VALUES (?, ?, ?, ?, ?, 0, 0, ?, 0, NULL, \'\')
             ON DUPLICATE KEY UPDATE more = VALUES(more), attempt = attempt + 1, tries = 0, asked_at = VALUES(asked_at), not_before = 0, held_until = NULL',
            [...$about->binary(), $kind::name(), $kind::lane()->value, json_encode($more, \JSON_THROW_ON_ERROR), $this->clock->now()->getTimestamp()],
        );
    }

    /**
     * The next job of a lane: projects take turns, the one that was served longest ago first, and none has two under way in a lane.
     *
     * @param string $worker a name that no other worker has, so that the next one of that name knows what was left undone
     */
    public function take(Lane $lane, string $worker = ''): ?Job
    {
        $now = $this->clock->now()->getTimestamp();
        // Mostly there is nothing, which one look tells.
        if (false === $this->connection->fetchOne('SELECT 1 FROM job WHERE lane = ? AND not_before <= ? AND (held_until IS NULL OR held_until < ?) LIMIT 1', [$lane->value, $now, $now])) {
            return null;
        }

        return $this->connection->transactional(function () use ($lane, $worker): ?Job {
            $now = $this->clock->now()->getTimestamp();
            $row = $this->connection->fetchAssociative(
                'SELECT j.number, j.project, j.subject, j.kind, j.more, j.attempt FROM job j LEFT JOIN job_turn t ON t.project = j.project AND t.lane = j.lane
                 WHERE j.lane = ? AND j.not_before <= ? AND (j.held_until IS NULL OR j.held_until < ?)
                 AND NOT EXISTS (SELECT 1 FROM job o WHERE o.project = j.project AND o.lane = j.lane AND o.held_until >= ?)
                 ORDER BY COALESCE(t.served, 0), j.number LIMIT 1 FOR UPDATE SKIP LOCKED',
                [$lane->value, $now, $now, $now],
            );
            if (false === $row || !is_numeric($row['number']) || !is_numeric($row['attempt']) || !\is_string($row['project']) || !\is_string($row['subject']) || !\is_string($row['kind']) || !\is_string($row['more'])) {
                return null;
            }
            $this->connection->executeStatement('UPDATE job SET attempt = attempt + 1, tries = tries + 1, held_until = ?, held_by = ? WHERE number = ?', [$now + Attempt::LEASE, $worker, $row['number']]);
            $this->connection->executeStatement('INSERT INTO job_turn (project, lane, served) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE served = VALUES(served)', [$row['project'], $lane->value, (int) (1e6 * microtime(true))]);
            $more = json_decode($row['more'], true);

            return new Job((int) $row['number'], $row['kind'], new RowId(Uuid::fromBinary($row['project']), Uuid::fromBinary($row['subject'])), \is_array($more) ? array_combine(array_map(strval(...), array_keys($more)), $more) : [], (int) $row['attempt'] + 1);
        });
    }

    /** A worker that begins lets go of what one of its name held when it was killed: nobody waits for the lease to run out. */
    public function letGo(string $worker): void
    {
        if ('' !== $worker) {
            $this->connection->executeStatement('UPDATE job SET held_until = NULL WHERE held_by = ?', [$worker]);
        }
    }

    /** Done or given up: gone, unless it was asked for again meanwhile. */
    public function end(Job $job): void
    {
        $this->connection->executeStatement('DELETE FROM job WHERE number = ? AND attempt = ?', [$job->number, $job->attempt]);
    }

    /** @return bool whether it will be tried again: after a pause, and not for ever */
    public function again(Job $job, int $mostTries): bool
    {
        $tries = $this->connection->fetchOne('SELECT tries FROM job WHERE number = ? AND attempt = ?', [$job->number, $job->attempt]);
        if (!is_numeric($tries) || (int) $tries >= $mostTries) {
            return false;
        }
        $this->connection->executeStatement('UPDATE job SET held_until = NULL, not_before = ? WHERE number = ? AND attempt = ?', [$this->clock->now()->getTimestamp() + (int) $tries, $job->number, $job->attempt]);

        return true;
    }

    public function tries(Job $job): int
    {
        $tries = $this->connection->fetchOne('SELECT tries FROM job WHERE number = ?', [$job->number]);

        return is_numeric($tries) ? (int) $tries : 0;
    }
}
