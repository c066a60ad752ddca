<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Driver\PDO\Exception as PdoFault;
use Doctrine\DBAL\DriverManager;
use Doctrine\DBAL\Exception\DeadlockException;
use Doctrine\DBAL\Tools\DsnParser;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\Persistence\ManagerRegistry;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Ink\FindWalls;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Failed;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Job\JobState;
use Plinth\Server\Job\Lane;
use Plinth\Server\Job\Progress;
use Plinth\Server\Job\Superseded;
use Plinth\Server\Job\Worker;
use Plinth\Server\Source\Making\FindSkew;
use Plinth\Server\Source\Making\FindWayUp;
use Plinth\Server\Source\Making\ImportPage;
use Psr\Log\AbstractLogger;
use Psr\Log\LogLevel;
use Symfony\Component\Clock\MockClock;
use Symfony\Component\Uid\UuidV7;

/**
 * Long work waits in turns, is done by one, and is written by the newest attempt alone. In a transaction of its own, unseen by the workers.
 */
final class JobsTest extends TestCase
{
    private Connection $connection;
    private MockClock $clock;
    private Jobs $jobs;

    protected function setUp(): void
    {
        $parameters = (new DsnParser(['mysql' => 'pdo_mysql']))->parse((string) getenv('DATABASE_URL'));
        $this->connection = DriverManager::getConnection($parameters);
        $this->connection->beginTransaction();
        $this->connection->executeStatement('DELETE FROM job');
        $this->clock = new MockClock();
        $this->jobs = new Jobs($this->connection, $this->clock);
    }

    protected function tearDown(): void
    {
        $this->connection->rollBack();
    }

    public function testProjectsTakeTurnsAndNoneHasTwoJobsOfALaneUnderWay(): void
    {
        [$busy, $other] = [new UuidV7(), new UuidV7()];
        for ($i = 0; $i < 3; ++$i) {
            $this->jobs->ask(ImportPage::class, new RowId($busy, new UuidV7()));
        }
        $this->jobs->ask(ImportPage::class, new RowId($other, new UuidV7()));
        $first = $this->take(Lane::Slow);
        self::assertTrue($first->about->project->equals($busy), 'Who asked first.');
        $second = $this->take(Lane::Slow);
        self::assertTrue($second->about->project->equals($other), 'Not behind the others of the first.');
        self::assertNull($this->jobs->take(Lane::Slow), 'One at a time for each.');
        $this->jobs->done($second);
        $this->jobs->ask(ImportPage::class, new RowId($other, new UuidV7()));
        $this->jobs->done($first);
        self::assertTrue($this->take(Lane::Slow)->about->project->equals($busy), 'The one that was served longer ago.');
        self::assertTrue($this->take(Lane::Slow)->about->project->equals($other));
    }

    public function testQuickWorkDoesNotWaitForSlowWork(): void
    {
        $project = new UuidV7();
        $this->jobs->ask(ImportPage::class, new RowId($project, new UuidV7()));
        $this->take(Lane::Slow);
        $this->jobs->ask(FindSkew::class, new RowId($project, $page = new UuidV7()));
        self::assertTrue($this->take(Lane::Quick)->about->id->equals($page));
    }

    public function testWhatNobodyAskedForWaitsInALaneOfItsOwnUntilSomebodyDoes(): void
    {
        [$wanted, $other] = [new RowId($project = new UuidV7(), new UuidV7()), new RowId($project, new UuidV7())];
        $this->jobs->ask(FindWayUp::class, $wanted, 'as it is', lane: Lane::Idle);
        $this->jobs->ask(FindWayUp::class, $other, 'as it is', lane: Lane::Idle);
        self::assertNull($this->jobs->take(Lane::Slow));
        $this->jobs->want(FindWayUp::class, $wanted, 'as it is');
        self::assertTrue($this->take(Lane::Slow)->about->id->equals($wanted->id), 'It waits no longer behind the others.');
        $begun = $this->take(Lane::Idle);
        self::assertTrue($begun->about->id->equals($other->id));
        $this->jobs->want(FindWayUp::class, $other, 'as it is');
        self::assertNull($this->jobs->take(Lane::Slow), 'What is begun goes on where it is.');
    }

    public function testWhatIsFoundOfARowByWorkAboutAnotherIsToldAnew(): void
    {
        $page = new RowId($project = new UuidV7(), new UuidV7());
        $this->jobs->ask(FindSkew::class, $page);
        $this->jobs->ask(FindSkew::class, new RowId($project, new UuidV7()));
        $moved = fn (float $after): array => array_map(static fn (Progress $p): string => $p->about->id->toRfc4122(), $this->jobs->moved($project, $after));
        usleep(20_000);
        $since = Raw::number($this->connection->fetchOne('SELECT UNIX_TIMESTAMP(CURRENT_TIMESTAMP(6))'));
        self::assertSame([], $moved($since));
        $this->jobs->foundAbout($page);
        self::assertSame([$page->id->toRfc4122()], $moved($since));
    }

    /** A worker that was stopped for longer than its lease finds out before it writes. */
    public function testOnlyTheNewestAttemptWrites(): void
    {
        $this->jobs->ask(FindWalls::class, new RowId(new UuidV7(), new UuidV7()), 'b');
        $stalled = $this->take(Lane::Slow);
        $old = new Attempt($this->connection, $this->clock, $stalled);
        $old->write(
            fn () => $this->connection->executeStatement('UPDATE job SET more = ? WHERE number = ?', ['{"basis":"b"}', $stalled->number]),
        );
        self::assertNull($this->jobs->take(Lane::Slow));
        $this->clock->sleep(Attempt::LEASE + 1);
        $newer = $this->take(Lane::Slow);
        self::assertSame([$stalled->number, 'b'], [$newer->number, $newer->basis]);
        self::assertGreaterThan($stalled->attempt, $newer->attempt);
        $this->jobs->done($stalled);
        // The old one has ended nothing.
        $written = (new Attempt($this->connection, $this->clock, $newer))->write(
            fn () => $this->connection->executeStatement('UPDATE job SET more = ? WHERE number = ?', ['{"basis":"c"}', $newer->number]),
        );
        self::assertEquals(1, $written);
        $this->expectException(Superseded::class);
        $old->write(static fn () => self::fail('It wrote.'));
    }

    /** A worker that was killed is started again under its name, and nobody waits for what it held. */
    public function testWhatAKilledWorkerHeldIsTakenUpAtOnce(): void
    {
        $this->jobs->ask(FindWalls::class, new RowId(new UuidV7(), new UuidV7()), 'b');
        $killed = $this->jobs->take(Lane::Slow, 'here:slow1');
        self::assertNotNull($killed);
        $this->jobs->letGo('here:slow2');
        self::assertNull($this->jobs->take(Lane::Slow, 'here:slow2'), 'Another’s is its own.');
        $this->jobs->letGo('here:slow1');
        self::assertSame($killed->number, $this->jobs->take(Lane::Slow, 'here:slow1')?->number);
        $this->expectException(Superseded::class);
        (new Attempt($this->connection, $this->clock, $killed))->write(static fn () => self::fail('It wrote.'));
    }

    public function testAskedForAgainWhileItIsUnderWayItIsDoneAgainAfterwards(): void
    {
        $about = new RowId(new UuidV7(), new UuidV7());
        $this->jobs->ask(FindWalls::class, $about, 'first');
        $first = $this->take(Lane::Slow);
        $this->jobs->ask(FindWalls::class, $about, 'second');
        $this->jobs->done($first);
        $second = $this->take(Lane::Slow);
        self::assertSame('second', $second->basis);
        self::assertNull($this->jobs->take(Lane::Slow), 'Once, not twice.');
        try {
            (new Attempt($this->connection, $this->clock, $first))->write(static fn () => self::fail('It wrote.'));
        } catch (Superseded) {
        }
        $this->jobs->done($second);
        self::assertNull($this->jobs->take(Lane::Slow));
    }

    public function testWhatBreaksOffIsTriedAgainAfterAPause(): void
    {
        $this->jobs->ask(FindSkew::class, new RowId(new UuidV7(), new UuidV7()));
        for ($try = 1; $try < 4; ++$try) {
            $job = $this->take(Lane::Quick);
            self::assertSame($try, $job->tries);
            $this->jobs->again($job);
            self::assertNull($this->jobs->take(Lane::Quick), 'Not at once.');
            $this->clock->sleep($try);
        }
    }

    public function testAskedForTwiceOfTheSameItIsUnderWayOnceAndOfAnotherAnew(): void
    {
        $about = new RowId(new UuidV7(), new UuidV7());
        self::assertSame(JobState::Waiting, $this->jobs->want(FindWalls::class, $about, 'one fit')->state);
        $first = $this->take(Lane::Slow);
        $attempt = $this->attempt($first);
        self::assertSame(JobState::Working, $this->jobs->want(FindWalls::class, $about, 'one fit')->state);
        $attempt->write(static fn () => null);
        self::assertSame(JobState::Waiting, $this->jobs->want(FindWalls::class, $about, 'another fit')->state);
        $this->expectException(Superseded::class);
        $attempt->write(static fn () => self::fail('It wrote.'));
    }

    public function testStoppedItFindsOutAtItsNextWordWritesNothingAndStaysStopped(): void
    {
        $about = new RowId(new UuidV7(), new UuidV7());
        $this->jobs->ask(FindWalls::class, $about);
        $job = $this->take(Lane::Slow);
        $attempt = $this->attempt($job);
        $attempt->goesOn(0.25);
        self::assertSame([JobState::Working, 0.25], [
            $this->jobs->of(FindWalls::class, $about)->state,
            $this->jobs->of(FindWalls::class, $about)->part,
        ]);
        self::assertSame(JobState::Stopped, $this->jobs->stop(FindWalls::class, $about)->state);
        try {
            $this->attempt($job)->goesOn(0.5);
            self::fail('It went on.');
        } catch (Superseded) {
        }
        try {
            $attempt->write(static fn () => self::fail('It wrote.'));
        } catch (Superseded) {
        }
        $this->jobs->done($job);
        $this->jobs->fail($job, Failed::byUs());
        self::assertSame([JobState::Stopped, ''], [
            $this->jobs->of(FindWalls::class, $about)->state,
            $this->jobs->of(FindWalls::class, $about)->words,
        ]);
        self::assertNull($this->jobs->take(Lane::Slow));
        self::assertSame(JobState::Stopped, $this->jobs->stop(FindWalls::class, $about)->state, 'Twice is as once.');
        $this->jobs->want(FindWalls::class, $about);
        $this->jobs->done($this->take(Lane::Slow));
        self::assertSame(JobState::Done, $this->jobs->stop(FindWalls::class, $about)->state, 'What is done cannot be stopped.');
    }

    public function testWhatMovesIsToldAndWhatEndedLongAgoIsForgotten(): void
    {
        [$about, $other] = [new RowId($project = new UuidV7(), new UuidV7()), new RowId(new UuidV7(), new UuidV7())];
        foreach ([$about, $other] as $id) {
            $this->jobs->ask(FindSkew::class, $id);
        }
        self::assertCount(1, $this->jobs->moved($project, null));
        self::assertCount(1, $this->jobs->moved($project, microtime(true) - 60.0));
        self::assertSame([], $this->jobs->moved($project, microtime(true) + 60.0));
        $this->jobs->done($this->take(Lane::Quick));
        self::assertSame([], $this->jobs->moved($project, null), 'Of all that there is, what is done is not told.');
        self::assertSame(JobState::Done, $this->jobs->moved($project, microtime(true) - 60.0)[0]->state);
        $this->clock->sleep(31 * 86_400);
        $this->jobs->tidy();
        self::assertNull($this->jobs->of(FindSkew::class, $about)->state);
        self::assertSame(JobState::Waiting, $this->jobs->of(FindSkew::class, $other)->state, 'What waits is not forgotten.');
    }

    /** @return iterable<string, array{\Throwable, string, string, bool}> */
    public static function thrown(): iterable
    {
        yield 'a fault of the file' => [Failed::because('The file is damaged.'), 'failed', 'The file is damaged.', false];
        yield 'a refusal' => [Refusal::conflict('gone', 'The storey has gone.'), 'gone', 'The storey has gone.', false];
        yield 'a fault of ours' => [
            new \DomainException('x < 0'),
            'fault',
            'This went wrong on our side and is in the log. Try again.',
            true,
        ];
        yield 'an error of the language' => [
            new \TypeError('null given'),
            'fault',
            'This went wrong on our side and is in the log. Try again.',
            true,
        ];
    }

    /** Whatever is thrown is caught, told in words, and what was taken is put back. */
    #[DataProvider('thrown')]
    public function testWhateverIsThrownIsToldInWords(\Throwable $what, string $reason, string $words, bool $isLogged): void
    {
        $kind = new ThrowingKind($what);
        $about = new RowId(new UuidV7(), new UuidV7());
        $this->jobs->ask($kind::class, $about);
        $said = $this->logged($kind, $this->connection);
        $told = $this->jobs->of($kind::class, $about);
        self::assertSame([JobState::Failed, $reason, $words], [$told->state, $told->reason, $told->words]);
        self::assertTrue($kind->isBack);
        self::assertSame($isLogged ? [LogLevel::CRITICAL] : [], $said);
    }

    /** Two workers that reached for the same rows: it begins again, and nobody who watches the log is woken. */
    public function testWhatMetAnotherTransactionBeginsAgainWithoutAnAlarm(): void
    {
        $met = new DeadlockException(PdoFault::new(new \PDOException('Deadlock found')), null);
        $kind = new ThrowingKind($met);
        $about = new RowId(new UuidV7(), new UuidV7());
        $this->jobs->ask($kind::class, $about);
        self::assertSame([LogLevel::NOTICE], $this->logged($kind, self::createStub(Connection::class)));
        self::assertSame(JobState::Waiting, $this->jobs->of($kind::class, $about)->state);
        self::assertFalse($kind->isBack);
    }

    /** @return list<mixed> at which levels a worker that does it writes into the log */
    private function logged(ThrowingKind $kind, Connection $connection): array
    {
        $logger = new class extends AbstractLogger {
            /** @var list<mixed> */
            public array $levels = [];

            public function log(mixed $level, string|\Stringable $message, array $context = []): void
            {
                $this->levels[] = $level;
            }
        };
        $entities = self::createStub(EntityManagerInterface::class);
        $entities->method('isOpen')->willReturn(true);
        (new Worker(
            $this->jobs,
            $connection,
            $entities,
            self::createStub(ManagerRegistry::class),
            $this->clock,
            $logger,
            [$kind],
        ))('quick');
        foreach ([\SIGTERM, \SIGINT] as $signal) {
            pcntl_signal($signal, \SIG_DFL);
        }

        return $logger->levels;
    }

    private function attempt(Job $job): Attempt
    {
        return new Attempt($this->connection, $this->clock, $job);
    }

    private function take(Lane $lane): Job
    {
        $job = $this->jobs->take($lane);
        self::assertNotNull($job);

        return $job;
    }
}
