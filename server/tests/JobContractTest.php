<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Job\JobKind;
use Plinth\Server\Job\Lane;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/** What every kind of long work promises, held against the workers of the running instance. */
final class JobContractTest extends TestCase
{
    /** kinds that people ask for and stop */
    private const OF_DRAWINGS = ['rectify-drawing', 'find-walls', 'find-openings', 'read-figures'];
    private const ASKED = ['import-page', 'find-way-up', 'rectify-drawing', 'find-walls', 'find-openings', 'read-figures', 'print-sheets'];

    private \PDO $database;

    protected function setUp(): void
    {
        $this->database = Database::open();
    }

    /** @return iterable<string, array{string, Lane}> */
    public static function kinds(): iterable
    {
        $root = \dirname(__DIR__).'/src';
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($root, \FilesystemIterator::SKIP_DOTS)) as $file) {
            $class = $file instanceof \SplFileInfo ? 'Plinth\\Server\\'.strtr(
                substr($file->getPathname(), \strlen($root) + 1, -4),
                '/',
                '\\',
            ) : '';
            if (
                $file instanceof \SplFileInfo
                && str_contains((string) @file_get_contents($file->getPathname()), 'public static function lane(): Lane')
                && is_subclass_of($class, JobKind::class)
                && (new \ReflectionClass($class))->isInstantiable()
            ) {
                yield $class::name() => [$class::name(), $class::lane()];
            }
        }
    }

    /** Asked for about something that has gone meanwhile, it ends and leaves nothing. */
    #[DataProvider('kinds')]
    public function testAboutWhatIsGoneItEndsWithoutAWord(string $kind, Lane $lane): void
    {
        $said = self::logged();
        self::assertSame('done', $this->ended($this->ask($kind, $lane, new UuidV7(), new UuidV7()))['state']);
        self::assertSame('', self::loggedSince($said), 'Nothing to write into the log.');
    }

    /**
     * Its worker was killed after it had written and before it could say so: when the lease has run out another takes it up, and it
     * ends as it did.
     */
    #[DataProvider('kinds')]
    public function testDoneTwiceItIsAsIfItWereDoneOnce(string $kind, Lane $lane): void
    {
        $desk = $this->desk();
        $subject = $this->subject($desk, $kind);
        $before = $this->told($desk);
        $said = self::logged();
        if (\in_array($kind, self::ASKED, true) && 'rectify-drawing' !== $kind) {
            // As people ask for it, so that it has something to work on.
            $desk->ask($kind, $subject->toRfc4122());
            self::assertSame('done', $desk->ended($kind, $subject->toRfc4122())->get('state')->text());
        } else {
            $this->ended($this->ask($kind, $lane, Uuid::fromString($desk->id), $subject));
        }
        $found = $this->found($desk, $kind);
        // What it has found of the page is told with it, and stays.
        $before = 'find-way-up' === $kind ? $this->told($desk) : $before;
        $ended = $this->ended($this->ask($kind, $lane, Uuid::fromString($desk->id), $subject, tries: 1, isHeld: true));
        self::assertGreaterThanOrEqual(3, $ended['attempt'], 'By a new one.');
        self::assertSame(['done', ''], [$ended['state'], $ended['reason']]);
        // What comes of it in turn has ended as well.
        Waiting::until(fn (): ?true => 0 === $this->left($desk) ? true : null, 'What it asks for does not end');
        self::assertSame('', self::loggedSince($said));
        self::assertEquals($before, $this->told($desk));
        self::assertEquals($found, $this->found($desk, $kind));
        self::assertSame($desk->revision, $desk->state()['revision'], 'It is no change.');
    }

    /** Whoever had begun it was gone each time: it is given up, and everybody in the project is told so. */
    #[DataProvider('kinds')]
    public function testGivenUpItSaysSoWherePeopleLook(string $kind, Lane $lane): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $about = Desk::newId();
        $this->ended($this->ask($kind, $lane, Uuid::fromString($desk->id), Uuid::fromString($about), tries: 99));
        $whole = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id"))->get('work')->items();
        self::assertCount(1, $whole);
        self::assertSame(
            [$kind, $about, 'failed', 'broke-off'],
            array_map(static fn (string $key): string => $whole[0]->get($key)->text(), ['kind', 'about', 'state', 'reason']),
        );
        self::assertStringContainsString('broke off each time', $whole[0]->get('words')->text());
    }

    /** @return iterable<string, array{string}> */
    public static function asked(): iterable
    {
        foreach (self::ASKED as $kind) {
            yield $kind => [$kind];
        }
    }

    /** Stopped before or while it is done, it stays so and writes nothing; asked for again it is done. */
    #[DataProvider('asked')]
    public function testStoppedItStaysSoAndCanBeWantedAfterAll(string $kind): void
    {
        $desk = $this->desk();
        $about = $this->subject($desk, $kind)->toRfc4122();
        $path = "/api/projects/$desk->id/jobs/$kind/$about";
        if ('rectify-drawing' === $kind) {
            self::assertSame(
                'not-slanted',
                $desk->client->refused(409, 'POST', $path)['code'],
                'Where there is nothing to do it says so at once.',
            );
            self::assertSame('missing', $desk->stop($kind, $about));

            return;
        }
        $desk->ask($kind, $about);
        $stopped = $desk->stop($kind, $about);
        self::assertContains($stopped, ['stopped', 'done'], 'On a fast machine it may have been done already.');
        usleep(700_000);
        self::assertSame($stopped, $desk->progress($kind, $about)->get('state')->text());
        $desk->ask($kind, $about);
        self::assertSame('done', $desk->ended($kind, $about)->get('state')->text());
        self::assertEqualsWithDelta(1.0, $desk->progress($kind, $about)->get('part')->number(), 1e-12);
        $desk->client->refused(404, 'POST', "/api/projects/$desk->id/jobs/$kind/".Desk::newId());
    }

    /** @return list<array<mixed>> what the searches of its drawing have found */
    private function found(Desk $desk, string $kind): array
    {
        return array_map(
            static fn (string $what): array => $desk->client->ok('GET', "/api/projects/$desk->id/drawings/$desk->drawing/$what"),
            'find-openings' === $kind ? ['facade'] : ['proposals', 'readings'],
        );
    }

    /** What a kind is about on a desk with one page and its drawing. */
    private function subject(Desk $desk, string $kind): Uuid
    {
        if ('find-openings' === $kind) {
            $side = Desk::newId();
            $desk->change([
                ['do' => 'add', 'type' => 'side', 'id' => $side, 'values' => ['name' => 'South']],
                ['do' => 'set', 'type' => 'drawing', 'id' => $desk->drawing, 'values' => ['side' => $side, 'storey' => null]],
            ]);
        }
        if ('print-sheets' === $kind) {
            $desk->change([['do' => 'add', 'type' => 'printSheet', 'id' => Desk::newId(), 'values' => ['order' => 0, 'width' => 420, 'height' => 297]]]);

            return Uuid::fromString($desk->id);
        }

        return Uuid::fromString((string) (\in_array($kind, self::OF_DRAWINGS, true) ? $desk->drawing : $desk->page));
    }

    /** @return array<mixed> what is told of its page and drawing */
    private function told(Desk $desk): array
    {
        $state = $desk->client->ok('GET', "/api/projects/$desk->id");

        return [$state['pages'], $state['rows'], $state['derived']];
    }

    private function desk(): Desk
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $plan = imagecreatetruecolor(600, 400);
        imagefill($plan, 0, 0, 0xFFFFFF);
        foreach ([
            [60, 60, 540, 72], [60, 328, 540, 340], [60, 60, 72, 340], [528, 60, 540, 340], [300, 60, 308, 340],
        ] as [$left, $top, $right, $bottom]) {
            imagefilledrectangle($plan, $left, $top, $right, $bottom, 0x202020);
        }
        imagestring($plan, 5, 120, 190, '24 000', 0x202020);
        $file = (string) tempnam(sys_get_temp_dir(), 'plan');
        imagepng($plan, $file);
        $desk->bringIn($file, 'plan.png');
        unlink($file);
        $desk->imported();
        Waiting::until(fn (): ?true => 0 === $this->left($desk) ? true : null, 'Its pages are not looked at');

        return $desk;
    }

    private function left(Desk $desk): int
    {
        $count = $this->database->query(
            'SELECT COUNT(*) FROM job WHERE state IN ("waiting", "working") AND lane <> "idle" AND project = UNHEX(REPLACE("'.$desk->id.'", "-", ""))',
        );
        self::assertNotFalse($count);

        return (int) Desk::float($count->fetchColumn());
    }

    private function ask(string $kind, Lane $lane, Uuid $project, Uuid $about, int $tries = 0, bool $isHeld = false): int
    {
        $this->database->prepare(
            'INSERT INTO job (project, subject, kind, lane, basis, more, state, attempt, tries, asked_at, not_before, held_until, held_by) VALUES (?, ?, ?, ?, "of nothing", "{}", ?, ?, ?, 0, 0, ?, "gone") ON DUPLICATE KEY UPDATE lane = VALUES(lane), state = VALUES(state), attempt = attempt + 2, tries = VALUES(tries), held_until = VALUES(held_until), held_by = VALUES(held_by)',
        )
            ->execute([
                $project->toBinary(),
                $about->toBinary(),
                $kind,
                $lane->value,
                $isHeld ? 'working' : 'waiting',
                $tries + 1,
                $tries,
                $isHeld ? time() - 1 : null,
            ]);
        $number = $this->database->prepare('SELECT number FROM job WHERE project = ? AND subject = ? AND kind = ?');
        $number->execute([$project->toBinary(), $about->toBinary(), $kind]);
        $found = $number->fetchColumn();

        return is_numeric($found) ? (int) $found : 0;
    }

    /** @return array{state: string, words: string, reason: string, attempt: int} */
    private function ended(int $number): array
    {
        return Waiting::until(function () use ($number): ?array {
            $row = $this->database->query("SELECT state, words, reason, attempt FROM job WHERE number = $number");
            self::assertNotFalse($row);
            $at = JsonValue::of($row->fetch(\PDO::FETCH_ASSOC), 'job');
            $state = $at->get('state')->text();

            return \in_array($state, ['waiting', 'working'], true) ? null : [
                'state' => $state,
                'words' => $at->get('words')->text(),
                'reason' => $at->get('reason')->text(),
                'attempt' => (int) $at->get('attempt')->number(),
            ];
        }, 'It did not end');
    }

    private static function logged(): int
    {
        clearstatcache();

        return (int) @filesize(getenv('PLINTH_VAR').'/log/server.log');
    }

    private static function loggedSince(int $length): string
    {
        return substr((string) @file_get_contents(getenv('PLINTH_VAR').'/log/server.log'), $length);
    }
}
