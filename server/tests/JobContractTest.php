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
    private const SCAN = __DIR__.'/../../demo/station-site-sketch.jpg';
    /** what kinds need to know beside the row they are about */
    private const MORE = ['basis' => 'of nothing', 'shape' => 'ffffffffffffffffffffffffffffffffffffffff', 'pairs' => []];
    /** Work that is about no row that says how far it is: where it fails, there is only the log to tell. */
    private const SILENT = ['find-skew', 'scan-page'];

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
            $class = $file instanceof \SplFileInfo ? 'Plinth\\Server\\'.strtr(substr($file->getPathname(), \strlen($root) + 1, -4), '/', '\\') : '';
            if ($file instanceof \SplFileInfo && str_contains((string) @file_get_contents($file->getPathname()), 'implements JobKind') && is_subclass_of($class, JobKind::class)) {
                yield $class::name() => [$class::name(), $class::lane()];
            }
        }
    }

    /** Asked for about something that has gone meanwhile, it ends and leaves nothing. */
    #[DataProvider('kinds')]
    public function testAboutWhatIsGoneItEndsWithoutAWord(string $kind, Lane $lane): void
    {
        $said = self::logged();
        $number = $this->ask($kind, $lane, new UuidV7(), new UuidV7());
        $this->ended($number);
        self::assertSame($said, self::logged(), 'Nothing to write into the log.');
    }

    /** Begun again after it was done, as when a worker died before it could say so, it ends as it did. */
    #[DataProvider('kinds')]
    public function testDoneTwiceItIsAsIfItWereDoneOnce(string $kind, Lane $lane): void
    {
        $desk = $this->desk();
        $before = $this->told($desk);
        $said = self::logged();
        for ($i = 0; $i < 2; ++$i) {
            $this->ended($this->ask($kind, $lane, Uuid::fromString($desk->id), Uuid::fromString((string) ('rectify-drawing' === $kind || str_starts_with($kind, 'find-w') || str_starts_with($kind, 'read-') ? $desk->drawing : $desk->page))));
        }
        // What comes of it in turn has ended as well.
        Waiting::until(fn (): ?true => 0 === $this->left($desk) ? true : null, 'What it asks for does not end');
        self::assertSame($said, self::logged());
        self::assertEquals($before, $this->told($desk));
        self::assertSame($desk->revision, $desk->state()['revision'], 'It is no change.');
    }

    /** Whoever had begun it was gone each time: it is given up, and where people look it says so. */
    #[DataProvider('kinds')]
    public function testGivenUpItSaysSoWherePeopleLook(string $kind, Lane $lane): void
    {
        if (\in_array($kind, self::SILENT, true)) {
            $this->ended($this->ask($kind, $lane, new UuidV7(), new UuidV7(), 99));
            $this->addToAssertionCount(1);

            return;
        }
        $desk = $this->desk();
        $path = "/api/projects/$desk->id/drawings/$desk->drawing";
        [$subject, $words] = match ($kind) {
            'import-page' => [$desk->page, static fn (): string => JsonValue::of($desk->imported())->get('message')->text()],
            'match-pages' => [$desk->page, static fn (): string => JsonValue::of($desk->imported())->get('registration')->get('words')->text()],
            'find-walls' => [$desk->drawing, static fn (): string => JsonValue::of($desk->client->ok('GET', "$path/proposals"))->get('message')->text()],
            'read-figures' => [$desk->drawing, static fn (): string => JsonValue::of($desk->client->ok('GET', "$path/readings"))->get('message')->text()],
            default => [null, null],
        };
        if (null === $subject || null === $words) {
            self::assertContains($kind, ['look-at-arrival', 'rectify-drawing'], 'Say here where this kind of work tells people that it was given up.');
            $this->ended($this->ask($kind, $lane, Uuid::fromString($desk->id), new UuidV7(), 99));

            return;
        }
        $basis = 'of nothing';
        if (str_starts_with($kind, 'find-') || str_starts_with($kind, 'read-')) {
            $desk->client->ok('POST', $path.('find-walls' === $kind ? '/proposals' : '/readings'));
            $asked = $this->database->query('SELECT basis FROM finding WHERE project = UNHEX(REPLACE("'.$desk->id.'", "-", "")) ORDER BY basis LIMIT 1');
            self::assertNotFalse($asked);
            self::assertIsString($basis = $asked->fetchColumn());
        }
        $this->ended($this->ask($kind, $lane, Uuid::fromString($desk->id), Uuid::fromString($subject), 99, ['basis' => $basis]));
        self::assertStringContainsString('broke off each time', $words());
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
        $desk->bringIn(self::SCAN);
        $desk->imported();
        Waiting::until(fn (): ?true => 0 === $this->left($desk) ? true : null, 'Its pages are not looked at');

        return $desk;
    }

    private function left(Desk $desk): int
    {
        $count = $this->database->query('SELECT COUNT(*) FROM job WHERE project = UNHEX(REPLACE("'.$desk->id.'", "-", ""))');
        self::assertNotFalse($count);

        return (int) Desk::float($count->fetchColumn());
    }

    /** @param array<string, mixed> $more */
    private function ask(string $kind, Lane $lane, Uuid $project, Uuid $about, int $tries = 0, array $more = []): int
    {
        $this->database->prepare('INSERT INTO job (project, subject, kind, lane, more, attempt, tries, asked_at, not_before, held_until, held_by) VALUES (?, ?, ?, ?, ?, ?, ?, 0, 0, NULL, "") ON DUPLICATE KEY UPDATE more = VALUES(more), attempt = attempt + 1, tries = VALUES(tries), held_until = NULL')
            ->execute([$project->toBinary(), $about->toBinary(), $kind, $lane->value, json_encode($more + self::MORE, \JSON_THROW_ON_ERROR), $tries, $tries]);
        $number = $this->database->prepare('SELECT number FROM job WHERE project = ? AND subject = ? AND kind = ?');
        $number->execute([$project->toBinary(), $about->toBinary(), $kind]);
        $found = $number->fetchColumn();

        return is_numeric($found) ? (int) $found : 0;
    }

    private function ended(int $number): void
    {
        Waiting::until(function () use ($number): ?true {
            $there = $this->database->query("SELECT 1 FROM job WHERE number = $number");
            self::assertNotFalse($there);

            return false === $there->fetchColumn() ? true : null;
        }, 'It did not end');
    }

    private static function logged(): int
    {
        clearstatcache();

        return (int) @filesize(getenv('PLINTH_VAR').'/log/server.log');
    }
}
