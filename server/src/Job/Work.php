<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Exception\RetryableException;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\Persistence\ManagerRegistry;
use Plinth\Server\Http\DatabaseTrouble;
use Psr\Clock\ClockInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\Console\Attribute\Argument;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Attribute\Option;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** A worker: takes jobs of one lane until it is told to stop, has worked for an hour, or has grown large. */
#[AsCommand('plinth:work', 'Does the long work of one lane: quick or slow. As many may run as are wanted, on any machine.')]
final class Work
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
    public function __construct(private readonly Jobs $jobs, private readonly Connection $connection, private readonly EntityManagerInterface $entities, private readonly ManagerRegistry $doctrine, private readonly ClockInterface $clock, private readonly LoggerInterface $logger, #[AutowireIterator('plinth.job')] iterable $kinds)
    {
        foreach ($kinds as $kind) {
            $this->kinds[$kind::name()] = $kind;
        }
    }

    public function __invoke(#[Argument] string $lane, #[Option('A name that no other worker has: what one of that name left undone is taken up at once')] string $name = ''): int
    {
        $this->jobs->letGo($name);
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
            $this->jobs->end($job); // of an older release

            return;
        }
        if ($this->jobs->tries($job) > self::MOST_TRIES) {
            // Whoever began it was gone each time before it could say why.
            $kind->giveUp($job, 'This was begun several times and broke off each time. Try again, or bring the file in saved another way.');
            $this->jobs->end($job);

            return;
        }
        try {
            $kind->run($job, new Attempt($this->connection, $this->clock, $job));
            $this->jobs->end($job);
        } catch (Superseded) {
            $this->jobs->end($job); // there is nothing left of it, unless it was asked for again
        } catch (TryAgain $e) {
            if (!$this->jobs->again($job, self::MOST_TRIES)) {
                $kind->giveUp($job, $e->getMessage());
                $this->jobs->end($job);
            }
        } catch (\Throwable $e) {
            $this->logger->critical($e->getMessage(), ['exception' => $e, 'job' => $job->kind, 'about' => $job->about->id->toRfc4122()]);
            // That the database went away is nobody's fault here.
            $mostTries = DatabaseTrouble::isAway($e) || $e instanceof RetryableException ? self::MOST_TRIES : self::MOST_FAULTS;
            if (!$this->connection->isTransactionActive() && $this->jobs->again($job, $mostTries)) {
                return;
            }
            $kind->giveUp($job, 'This went wrong on our side and is in the log. Try again.');
            $this->jobs->end($job);
        }
    }
}
