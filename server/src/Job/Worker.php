<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Exception\RetryableException;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\Persistence\ManagerRegistry;
use Plinth\Server\Http\DatabaseTrouble;
use Plinth\Server\Http\Refusal;
use Psr\Clock\ClockInterface;
use Psr\Log\LoggerInterface;
use Psr\Log\LogLevel;
use Symfony\Component\Console\Attribute\Argument;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Attribute\Option;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** A worker: takes jobs of one lane until it is told to stop, has worked for an hour, or has grown large. */
#[AsCommand('plinth:work', 'Does the long work of one lane: quick, slow or idle. As many may run as are wanted, on any machine.')]
final class Worker
{
    private const PAUSE_MICROSECONDS = 60_000;
    private const SECONDS = 3600;
    private const MEMORY_BYTES = 512_000_000;
    /** a job whose tool is ended from outside, or whose worker dies, is begun this often in all */
    private const MOST_TRIES = 8;
    /** one that fails by a fault of ours */
    private const MOST_FAULTS = 2;

    private bool $stop = false;
    /** @var array<string, JobKind> */
    private array $kinds = [];

    /** @param iterable<JobKind> $kinds */
    public function __construct(
        private readonly Jobs $jobs,
        private readonly Connection $connection,
        private readonly EntityManagerInterface $entities,
        private readonly ManagerRegistry $doctrine,
        private readonly ClockInterface $clock,
        private readonly LoggerInterface $logger,
        #[AutowireIterator('plinth.job')] iterable $kinds,
    ) {
        foreach ($kinds as $kind) {
            $this->kinds[$kind::name()] = $kind;
        }
    }

    public function __invoke(
        #[Argument] string $lane,
        #[Option('A name that no other worker has: what one of that name left undone is taken up at once')] string $name = '',
    ): int {
        $this->jobs->letGo($name);
        $this->jobs->tidy();
        pcntl_async_signals(true);
        foreach ([\SIGTERM, \SIGINT] as $signal) {
            pcntl_signal($signal, function (): void {
                $this->stop = true; // what is under way is finished first
            });
        }
        $until = time() + self::SECONDS;
        while (!$this->stop && time() < $until && memory_get_usage(true) < self::MEMORY_BYTES) {
            try {
                $job = $this->jobs->take(Lane::from($lane), $name);
            } catch (RetryableException) {
                $job = null; // several reached for the same one
            }
            if (null === $job) {
                usleep(self::PAUSE_MICROSECONDS);
            } else {
                $this->do($job);
            }
        }

        return 0;
    }

    private function do(Job $job): void
    {
        $kind = $this->kinds[$job->kind] ?? null;
        if (!$this->entities->isOpen()) {
            $this->doctrine->resetManager(); // a change that was refused has closed it
        }
        $this->entities->clear();
        if (null === $kind) {
            $this->jobs->done($job); // of an older release

            return;
        }
        try {
            if ($job->tries > self::MOST_TRIES) {
                throw Failed::eachTime(); // whoever began it was gone before it could say why
            }
            $kind->run($job, new Attempt($this->connection, $this->clock, $job));
            $this->jobs->done($job);
        } catch (Superseded) {
            // Whoever took it away has said how it goes on.
        } catch (\Throwable $e) {
            $this->fail($kind, $job, $e);
        }
    }

    private function fail(JobKind $kind, Job $job, \Throwable $e): void
    {
        $why = match (true) {
            $e instanceof Failed => $e,
            $e instanceof Refusal => Failed::refused($e),
            default => Failed::byUs(),
        };
        $mostTries = match (true) {
            // That the database went away is nobody's fault here.
            $why->mayTryAgain, DatabaseTrouble::isAway($e), $e instanceof RetryableException => self::MOST_TRIES,
            $e === $why || $e instanceof Refusal => 0,
            default => self::MOST_FAULTS,
        };
        $goesAgain = $job->tries < $mostTries && !$this->connection->isTransactionActive();
        if ($why->reason === Failed::byUs()->reason) {
            // Two that reached for the same rows at once: one of them begins again, and nobody has to look into it.
            $level = $goesAgain && $e instanceof RetryableException ? LogLevel::NOTICE : LogLevel::CRITICAL;
            $this->logger->log($level, $e->getMessage(), ['exception' => $e, 'job' => $job->kind, 'about' => $job->about->id->toRfc4122()]);
        }
        if ($goesAgain) {
            $this->jobs->again($job);

            return;
        }
        if ($kind instanceof PutsBack) {
            $kind->putBack($job);
        }
        $this->jobs->fail($job, $why);
    }
}
