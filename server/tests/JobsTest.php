<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\DriverManager;
use Doctrine\DBAL\Tools\DsnParser;
use PHPUnit\Framework\TestCase;
use Plinth\Server\Change\RowId;
use Plinth\Server\Ink\FindWalls;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Job\Lane;
use Plinth\Server\Job\Superseded;
use Plinth\Server\Source\Making\FindSkew;
use Plinth\Server\Source\Making\ImportPage;
use Symfony\Component\Clock\MockClock;
use Symfony\Component\Uid\UuidV7;

/** Long work waits in turns, is done by one, and is written by the newest attempt alone. In a transaction of its own, unseen by the workers. */
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
        $this->jobs->end($second);
        $this->jobs->ask(ImportPage::class, new RowId($other, new UuidV7()));
        $this->jobs->end($first);
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

    /** A worker that was stopped for longer than its lease finds out before it writes. */
    public function testOnlyTheNewestAttemptWrites(): void
    {
        $this->jobs->ask(FindWalls::class, new RowId(new UuidV7(), new UuidV7()), ['basis' => 'b']);
        $stalled = $this->take(Lane::Slow);
        $old = new Attempt($this->connection, $this->clock, $stalled);
        $old->write(fn () => $this->connection->executeStatement('UPDATE job SET more = ? WHERE number = ?', ['{"basis":"b"}', $stalled->number]));
        self::assertNull($this->jobs->take(Lane::Slow));
        $this->clock->sleep(Attempt::LEASE + 1);
        $newer = $this->take(Lane::Slow);
        self::assertSame([$stalled->number, 'b'], [$newer->number, $newer->text('basis')]);
        self::assertGreaterThan($stalled->attempt, $newer->attempt);
        $this->jobs->end($stalled);
        // The old one has ended nothing.
        $written = (new Attempt($this->connection, $this->clock, $newer))->write(fn () => $this->connection->executeStatement('UPDATE job SET more = ? WHERE number = ?', ['{"basis":"c"}', $newer->number]));
        self::assertEquals(1, $written);
        $this->expectException(Superseded::class);
        $old->write(static fn () => self::fail('It wrote.'));
    }

    /** A worker that was killed is started again under its name, and nobody waits for what it held. */
    public function testWhatAKilledWorkerHeldIsTakenUpAtOnce(): void
    {
        $this->jobs->ask(FindWalls::class, new RowId(new UuidV7(), new UuidV7()), ['basis' => 'b']);
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
        $this->jobs->ask(FindWalls::class, $about, ['basis' => 'first']);
        $first = $this->take(Lane::Slow);
        $this->jobs->ask(FindWalls::class, $about, ['basis' => 'second']);
        $this->jobs->end($first);
        $second = $this->take(Lane::Slow);
        self::assertSame('second', $second->text('basis'));
        self::assertNull($this->jobs->take(Lane::Slow), 'Once, not twice.');
        try {
            (new Attempt($this->connection, $this->clock, $first))->write(static fn () => self::fail('It wrote.'));
        } catch (Superseded) {
        }
        $this->jobs->end($second);
        self::assertNull($this->jobs->take(Lane::Slow));
    }

    public function testWhatBreaksOffIsTriedAgainAfterAPauseAndNotForEver(): void
    {
        $this->jobs->ask(FindSkew::class, new RowId(new UuidV7(), new UuidV7()));
        for ($try = 1; $try < 4; ++$try) {
            $job = $this->take(Lane::Quick);
            self::assertSame($try, $this->jobs->tries($job));
            self::assertTrue($this->jobs->again($job, 4));
            self::assertNull($this->jobs->take(Lane::Quick), 'Not at once.');
            $this->clock->sleep($try);
        }
        self::assertFalse($this->jobs->again($this->take(Lane::Quick), 4));
    }

    private function take(Lane $lane): Job
    {
        $job = $this->jobs->take($lane);
        self::assertNotNull($job);

        return $job;
    }
}
