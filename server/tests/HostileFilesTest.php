<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/**
 * Whatever is thrown at it, the application says in words what is wrong, keeps nothing half done, leaves no process behind and
 * goes on working.
 */
#[Group('hostile')]
final class HostileFilesTest extends TestCase
{
    public function testHostileFilesAreAnsweredInWordsAndLeaveNothingBehind(): void
    {
        $files = new Files();
        $desk = new Desk(Client::ofStack()->signIn());
        $tried = 0;
        $pages = [];
        foreach ((new HostileFiles($files))->all() as $what => [$bytes, $name]) {
            ++$tried;
            $before = $desk->revision;
            [$status, $answer] = $desk->send($files->write('hostile', $bytes), $name);
            if (200 === $status) {
                $desk->revision = Desk::int($answer['revision']);
                foreach (Desk::rows($answer, 'page') as $page) {
                    $pages[$page['id']] = $what;
                }
                foreach (Desk::rows($answer, 'source') as $source) {
                    self::assertIsString($source['values']['name']);
                    self::assertDoesNotMatchRegularExpression('/[\x00-\x1F\x7F\/\\\\]/', $source['values']['name'], $what);
                }
                continue;
            }
            self::assertContains($status, [413, 422], "$what: $status ".json_encode($answer));
            self::assertIsArray($answer['error'], $what);
            self::assertIsString($answer['error']['message'], $what);
            self::assertMatchesRegularExpression('/^[A-Z].{15,}\.$/u', $answer['error']['message'], $what);
            self::assertSame(
                $before,
                $desk->client->ok('GET', "/api/projects/$desk->id/changes?since=$before")['revision'],
                "$what changed the project",
            );
        }
        self::assertGreaterThanOrEqual(150, $tried);
        foreach ($pages as $page => $what) {
            $desk->page = $page;
            $progress = $desk->imported();
            if ('failed' === $progress['state']) {
                self::assertIsString($progress['message']);
                self::assertMatchesRegularExpression('/^[A-Z].{15,}\.$/u', $progress['message'], $what);
            } else {
                self::assertSame('done', $progress['state'], $what);
                self::assertGreaterThan(0, imagesx($desk->picture('preview')), $what);
            }
        }
        self::assertSame([], glob(getenv('PLINTH_FILES').'/pages/*/*.part*'), 'Nothing half made is left.');
        self::assertFileDoesNotExist(getenv('PLINTH_FILES').'/../../etc/passwd');
        exec('pgrep -P 1 -f '.escapeshellarg('^(bwrap|vips|pdftoppm|pdfinfo|pdfimages|pdftops) .*'.preg_quote((string) getenv('PLINTH_FILES'))), $left);
        self::assertSame([], $left, 'No child is left without its parent.');
        $desk->bringIn("$files->folder/card.png", 'after all.png');
        self::assertSame('done', $desk->imported()['state'], 'The next drawing comes in as ever.');
    }

    /** An address, a file, the database, a program: whatever a file reaches for, nothing is touched, and nothing of it is seen. */
    public function testWhatReachesOutOfItsFileReachesNothing(): void
    {
        $listener = stream_socket_server('tcp://127.0.0.1:0');
        self::assertIsResource($listener);
        stream_set_blocking($listener, false);
        [, $port] = explode(':', (string) stream_socket_get_name($listener, false));
        $files = new Files();
        $canary = $files->write(
            'canary.svg',
            Files::svg('<rect width="800" height="600" fill="#f0f"/><line x1="1" y1="2" x2="313.5" y2="2"/>'),
        );
        chmod($files->folder, 0o755);
        touch($canary, time() - 100, time() - 90_000);
        // In turns, so that workers find something to do in each.
        $desks = array_map(
            static fn (string $who): Desk => new Desk(Client::ofStack()->signIn("$who@plinth.example")),
            ['editor', 'reader', 'stranger'],
        );
        $tried = 0;
        $pages = [];
        foreach ((new ReachingFiles(
            "http://127.0.0.1:$port/canary.svg",
            $canary,
            'MySQL:plinth,user=plinth,password=plinth,host=127.0.0.1,tables=account',
        ))->all() as $what => [$bytes, $name]) {
            $desk = $desks[++$tried % 3];
            [$status, $answer] = $desk->send($files->write('reaching', $bytes), $name);
            self::assertFalse(@stream_socket_accept($listener, 0.0), "$what: somebody called.");
            if (200 === $status) {
                $pages[Desk::rows($answer, 'page')[0]['id']] = [$desk, $what];
                continue;
            }
            self::assertContains($status, [413, 422], "$what: ".json_encode($answer));
            self::assertIsArray($answer['error']);
            self::assertIsString($answer['error']['message']);
            self::assertMatchesRegularExpression('/^[A-Z].{15,}\.$/u', $answer['error']['message'], $what);
        }
        self::assertGreaterThanOrEqual(150, $tried);
        foreach ($pages as $page => [$desk, $what]) {
            [$desk->page, $desk->revision] = [$page, 1];
            if ('done' === $desk->imported()['state']) {
                $picture = $desk->picture('preview');
                $colour = imagecolorat($picture, intdiv(imagesx($picture), 2), intdiv(imagesy($picture), 2));
                self::assertFalse(
                    0xE0 < ($colour >> 16 & 0xFF) && ($colour >> 8 & 0xFF) < 0x20 && 0xE0 < ($colour & 0xFF),
                    "$what: the other file is seen.",
                );
                [$status, $lines] = $desk->client->send('GET', "/api/projects/$desk->id/pages/$page/lines");
                self::assertTrue(
                    404 === $status || !str_contains((string) json_encode($lines), '313.5'),
                    "$what: the other file's lines are told.",
                );
            }
        }
        self::assertFalse(@stream_socket_accept($listener, 0.2), 'Nobody called, not later either.');
        self::assertFileDoesNotExist("$canary.run");
        $desks[0]->bringIn("$files->folder/card.png", 'after all.png');
        self::assertSame('done', $desks[0]->imported()['state'], 'The next drawing comes in as ever.');
    }

    public function testWhatIsLockedTooManyOrTooLargeIsSaid(): void
    {
        $files = new Files();
        $desk = new Desk(Client::ofStack()->signIn());
        $expected = [
            'PDF locked with a password' => 'locked with a password',
            'PDF with 300 pages' => '300 pages',
            'PDF that claims 100 000 pages' => 'no pages',
            'PDF without pages' => 'no pages',
            'PNG that claims 30000 × 30000' => '250 million',
            'PNG that claims 1 × 60000' => 'too small to hold a drawing',
            'SVG of a thousand million laughs' => 'entities',
            'jpg cut after 0 bytes' => 'empty',
        ];
        foreach ((new HostileFiles($files))->all() as $what => [$bytes, $name]) {
            if (isset($expected[$what])) {
                [, $answer] = $desk->send($files->write('hostile', $bytes), $name);
                self::assertIsArray($answer['error'], $what);
                self::assertIsString($answer['error']['message']);
                self::assertStringContainsString($expected[$what], $answer['error']['message']);
                unset($expected[$what]);
            }
        }
        self::assertSame([], $expected);
    }

    public function testAnUploadBrokenOffLeavesNothing(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $before = self::kept();
        $url = parse_url((string) getenv('PLINTH_ADDRESS'));
        self::assertIsArray($url);
        self::assertIsString($url['host'] ?? null);
        self::assertIsInt($url['port'] ?? null);
        $socket = fsockopen($url['host'], $url['port']);
        self::assertIsResource($socket);
        fwrite(
            $socket,
            "POST /api/projects/$desk->id/sources HTTP/1.1\r\nHost: {$url['host']}:{$url['port']}\r\ncsrf-token: csrf-token\r\nSec-Fetch-Site: same-origin\r\nContent-Type: multipart/form-data; boundary=x\r\nContent-Length: 5000000\r\n\r\n--x\r\nContent-Disposition: form-data; name=\"file\"; filename=\"a.png\"\r\n\r\n".str_repeat('x', 100_000),
        );
        fclose($socket);
        usleep(400_000);
        self::assertSame($before, self::kept());
        self::assertSame($desk->revision, $desk->state()['revision']);
    }

    /** @return list<string> */
    private static function kept(): array
    {
        $files = glob(getenv('PLINTH_FILES').'/{sources/*/*,pages/*/*,arrivals/*}', \GLOB_BRACE);

        return false === $files ? [] : $files;
    }
}
