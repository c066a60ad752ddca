<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowId;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;

/**
 * All long work and how far it is: asked for in the transaction that makes it needed, taken by workers in turns. Of one kind about one
 * row there is one job; its row stays when it has ended and tells how.
 */
final readonly class Jobs
{
    private const PROGRESS = 'SELECT kind, project, subject, state, basis, part, words, reason FROM job';
    /** s after which nobody looks any more at what has ended */
    private const KEPT = 30 * 86_400;

    public function __construct(private Connection $connection, private ClockInterface $clock)
    {
    }

    /**
     * Asks for it anew: whoever still works on what was asked before writes nothing of it.
     *
     * @param class-string<JobKind> $kind
     * @param string $basis what it is asked for, of at most 40 characters
     * @param array<string, mixed> $more
     * @param Lane|null $lane where it waits; the kind's own unless one is given
     */
    public function ask(string $kind, RowId $about, string $basis = '', array $more = [], ?Lane $lane = null): void
    {
        $this->connection->executeStatement(
            'INSERT INTO job (project, subject, kind, lane, basis, more, state, part, words, reason, attempt, tries, asked_at, not_before, held_until, held_by) VALUES (?, ?, ?, ?, ?, ?, ?, 0, \'\', \'\', 0, 0, ?, 0, NULL, \'\')
             ON DUPLICATE KEY UPDATE lane = VALUES(lane), basis = VALUES(basis), more = VALUES(more), state = VALUES(state), part = 0, words = \'\', reason = \'\', attempt = attempt + 1, tries = 0, asked_at = VALUES(asked_at), not_before = 0, held_until = NULL',
            [
                ...$about->binary(),
                $kind::name(),
                ($lane ?? $kind::lane())->value,
                $basis,
                json_encode($more, \JSON_THROW_ON_ERROR),
                JobState::Waiting->value,
                $this->clock->now()->getTimestamp(),
            ],
        );
    }

    /**
     * Somebody asks for it: anew, unless it is under way for the same.
     *
     * @param class-string<JobKind> $kind
     */
    public function want(string $kind, RowId $about, string $basis = ''): Progress
    {
        $progress = $this->of($kind, $about);
        if (!$progress->isUnderWay() || $progress->basis !== $basis) {
            $this->ask($kind, $about, $basis);
            $progress = $this->of($kind, $about);
        } else {
            // What waits because nobody had asked for it is somebody's now.
            $this->connection->executeStatement(
                'UPDATE job SET lane = ? WHERE project = ? AND subject = ? AND kind = ? AND state = ?',
                [$kind::lane()->value, ...$about->binary(), $kind::name(), JobState::Waiting->value],
            );
        }

        return $progress;
    }

    /**
     * Who works on it finds out at the next word and writes nothing.
     *
     * @param class-string<JobKind> $kind
     */
    public function stop(string $kind, RowId $about): Progress
    {
        $this->connection->executeStatement(
            'UPDATE job SET state = ?, attempt = attempt + 1, held_until = NULL WHERE project = ? AND subject = ? AND kind = ? AND state IN (?, ?)',
            [JobState::Stopped->value, ...$about->binary(), $kind::name(), JobState::Waiting->value, JobState::Working->value],
        );

        return $this->of($kind, $about);
    }

    /** @param class-string<JobKind> $kind */
    public function of(string $kind, RowId $about): Progress
    {
        $row = $this->connection->fetchAssociative(
            self::PROGRESS.' WHERE project = ? AND subject = ? AND kind = ?',
            [...$about->binary(), $kind::name()],
        );

        return false === $row ? new Progress($kind::name(), $about) : self::progress($row);
    }

    /**
     * What has moved in a project.
     *
     * @param float|null $after by the database's clock, s; null for all that is not done
     *
     * @return list<Progress>
     */
    public function moved(Uuid $project, ?float $after): array
    {
        $rows = null === $after
            ? $this->connection->fetchAllAssociative(
                self::PROGRESS.' WHERE project = ? AND state <> ?',
                [$project->toBinary(), JobState::Done->value],
            )
            : $this->connection->fetchAllAssociative(
                self::PROGRESS.' WHERE project = ? AND told_at >= FROM_UNIXTIME(?)',
                [$project->toBinary(), $after],
            );

        return array_map(self::progress(...), $rows);
    }

    /** Whoever looks is told anew what work has found about a row: it was found by work about another one. */
    public function foundAbout(RowId $about): void
    {
        $this->connection->executeStatement(
            'UPDATE job SET told_at = CURRENT_TIMESTAMP(6) WHERE project = ? AND subject = ?',
            $about->binary(),
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
        if (false === $this->connection->fetchOne(
            'SELECT 1 FROM job WHERE lane = ? AND state IN (?, ?) AND not_before <= ? AND (held_until IS NULL OR held_until < ?) LIMIT 1',
            [$lane->value, JobState::Waiting->value, JobState::Working->value, $now, $now],
        )) {
            return null;
        }

        return $this->connection->transactional(function () use ($lane, $worker): ?Job {
            $now = $this->clock->now()->getTimestamp();
            $row = $this->connection->fetchAssociative(
                'SELECT j.number, j.project, j.subject, j.kind, j.basis, j.more, j.attempt, j.tries FROM job j LEFT JOIN job_turn t ON t.project = j.project AND t.lane = j.lane
                 WHERE j.lane = ? AND j.state IN (?, ?) AND j.not_before <= ? AND (j.held_until IS NULL OR j.held_until < ?)
                 AND NOT EXISTS (SELECT 1 FROM job o WHERE o.project = j.project AND o.lane = j.lane AND o.held_until >= ?)
                 ORDER BY COALESCE(t.served, 0), j.asked_at, j.number LIMIT 1 FOR UPDATE SKIP LOCKED',
                [$lane->value, JobState::Waiting->value, JobState::Working->value, $now, $now, $now],
            );
            if (false === $row) {
                return null;
            }
            $this->connection->executeStatement(
                'UPDATE job SET state = ?, part = 0, attempt = attempt + 1, tries = tries + 1, held_until = ?, held_by = ? WHERE number = ?',
                [JobState::Working->value, $now + Attempt::LEASE, $worker, $row['number']],
            );
            $this->connection->executeStatement(
                'INSERT INTO job_turn (project, lane, served) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE served = VALUES(served)',
                [$row['project'], $lane->value, (int) (1e6 * microtime(true))],
            );
            $more = json_decode(Raw::text($row['more']), true);

            return new Job(
                (int) Raw::number($row['number']), Raw::text($row['kind']), self::about($row), Raw::text($row['basis']), \is_array($more)
                    ? array_combine(array_map(strval(...), array_keys($more)), $more)
                    : [],
                (int) Raw::number($row['attempt']) + 1, (int) Raw::number($row['tries']) + 1,
            );
        });
    }

    /** A worker that begins lets go of what one of its name held when it was killed: nobody waits for the lease to run out. */
    public function letGo(string $worker): void
    {
        if ('' !== $worker) {
            $this->connection->executeStatement(
                'UPDATE job SET held_until = NULL WHERE held_by = ? AND state = ?',
                [$worker, JobState::Working->value],
            );
        }
    }

    /** Done, unless it was stopped or asked for again meanwhile. */
    public function done(Job $job): void
    {
        $this->end($job, JobState::Done, 1.0, '', '');
    }

    public function fail(Job $job, Failed $why): void
    {
        $this->end($job, JobState::Failed, 0.0, mb_substr($why->getMessage(), 0, 400), $why->reason);
    }

    private function end(Job $job, JobState $state, float $part, string $words, string $reason): void
    {
        $this->connection->executeStatement(
            'UPDATE job SET state = ?, part = ?, words = ?, reason = ?, held_until = NULL WHERE number = ? AND attempt = ?',
            [$state->value, $part, $words, $reason, $job->number, $job->attempt],
        );
    }

    /** It will be tried again, after a pause. */
    public function again(Job $job): void
    {
        $this->connection->executeStatement(
            'UPDATE job SET state = ?, held_until = NULL, not_before = ? WHERE number = ? AND attempt = ?',
            [JobState::Waiting->value, $this->clock->now()->getTimestamp() + $job->tries, $job->number, $job->attempt],
        );
    }

    /** What has ended long ago is told no more. */
    public function tidy(): void
    {
        $this->connection->executeStatement(
            'DELETE FROM job WHERE state NOT IN (?, ?) AND asked_at < ?',
            [JobState::Waiting->value, JobState::Working->value, $this->clock->now()->getTimestamp() - self::KEPT],
        );
    }

    /** @param array<string, mixed> $row */
    private static function progress(array $row): Progress
    {
        return new Progress(
            Raw::text($row['kind']),
            self::about($row),
            JobState::from(Raw::text($row['state'])),
            Raw::text($row['basis']),
            Raw::number($row['part']),
            Raw::text($row['words']),
            Raw::text($row['reason']),
        );
    }

    /** @param array<string, mixed> $row */
    private static function about(array $row): RowId
    {
        return new RowId(Uuid::fromBinary(Raw::text($row['project'])), Uuid::fromBinary(Raw::text($row['subject'])));
    }
}
