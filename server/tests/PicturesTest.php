<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;

/** Pictures are made from source files and can be lost without loss: whoever misses them has them made again. */
final class PicturesTest extends TestCase
{
    private const SCAN = __DIR__.'/../../demo/sallow-fen-ground.jpg';

    public function testMissingPicturesAreMadeAgainByWhoeverMissesThem(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(self::SCAN);
        $desk->imported();
        foreach (['tiles/0/0/0', 'preview', 'found?x=100&y=100&reach=12'] as $what) {
            $path = $desk->ofPage($what);
            exec('rm -rf '.escapeshellarg($desk->folder()));
            self::assertSame('not-ready', $desk->client->refused(409, 'GET', $path)['code'], $what);
            self::assertSame('', $desk->folder(), 'Looking makes nothing.');
            $desk->client->ok('POST', "/api/projects/$desk->id/pages/$desk->page/pictures");
            self::assertSame('done', $desk->imported()['state'], $what);
            self::assertSame(200, $desk->client->send('GET', $desk->ofPage($what))[0], $what);
        }
        // "Try again" works from every state: also where nothing is wrong.
        $desk->ask('import-page', $desk->page);
        self::assertSame('done', $desk->imported()['state']);
    }

    /** What bin/backup saves makes a new instance: people, projects, history and, made again, the pictures. */
    public function testABackupMakesANewInstance(): void
    {
        $desk = new Desk(Client::ofStack()->signIn('editor@plinth.example'));
        $desk->bringIn(self::SCAN);
        $desk->imported();
        $desk->change([$desk->chain([[0, 0], [3000, 0]])['operation']]);
        $root = \dirname(__DIR__, 2);
        $folder = sys_get_temp_dir().'/plinth-restore-'.bin2hex(random_bytes(4));
        mkdir($folder, 0o700);
        exec(escapeshellarg("$root/bin/backup")." $folder/saved 2>&1", $out, $code);
        self::assertSame(0, $code, implode("\n", $out));
        exec(
            "env -u DATABASE_URL -u APP_SECRET PLINTH_VAR=$folder/var ".escapeshellarg("$root/bin/restore")." $folder/saved 2>&1",
            $out,
            $code,
        );
        self::assertSame(0, $code, implode("\n", $out));
        // Started as bin/start does, without building anything anew.
        $port = trim((string) file_get_contents("$folder/var/web.port"));
        $process = proc_open(
            [
                'setsid',
                'env',
                '-u',
                'DATABASE_URL',
                '-u',
                'APP_SECRET',
                "PLINTH_VAR=$folder/var",
                "$root/ops/stack",
                "$folder/var",
                $port,
                getenv('PLINTH_VAR').'/web',
                'sleep',
                'infinity',
            ],
            [],
            $pipes,
        );
        self::assertIsResource($process);
        try {
            $there = new Client("http://127.0.0.1:$port");
            Waiting::until(static fn (): ?true => 200 === $there->send('GET', '/api/health')[0] ? true : null, 'The copy did not start');
            $there->signIn('editor@plinth.example');
            $state = $there->ok('GET', "/api/projects/$desk->id");
            self::assertSame($desk->state()['revision'], $state['revision']);
            self::assertEquals(Desk::rows($desk->state(), 'wall'), Desk::rows($state, 'wall'));
            $there->refused(409, 'GET', $desk->ofPage('tiles/0/0/0')); // looking makes nothing
            self::assertSame(204, $there->send('POST', "/api/projects/$desk->id/pages/$desk->page/pictures", [])[0]);
            Waiting::until(static function () use ($there, $desk): ?true {
                $page = JsonValue::of($there->ok('GET', "/api/projects/$desk->id"))->get('pages')->items()[0];
                $tile = "/api/projects/$desk->id/pages/$desk->page/{$page->get('pictures')->text()}/tiles/0/0/0";

                return 200 === $there->send('GET', $tile)[0] ? true : null;
            }, 'A tile of its scan is not there', static fn (): string => (string) shell_exec('find '.escapeshellarg("$folder/var/files").' | wc -l'));
        } finally {
            $status = proc_get_status($process);
            posix_kill($status['pid'], 15);
            proc_close($process);
            exec('rm -rf '.escapeshellarg($folder));
        }
    }

    /** A log that cannot be written fails no request. */
    public function testALogOnAFullDiskFailsNoRequest(): void
    {
        $log = getenv('PLINTH_VAR').'/log/server.log';
        $kept = is_file($log) && rename($log, "$log.kept");
        symlink('/dev/full', $log);
        try {
            $desk = new Desk(Client::ofStack()->signIn());
            // What is refused for coming from elsewhere is logged.
            self::assertSame(
                403,
                $desk->client->send('POST', "/api/projects/$desk->id/changes", [], headers: ['Sec-Fetch-Site: cross-site'])[0],
            );
            for ($i = 0; $i < 20; ++$i) {
                $desk->change([$desk->chain([[$i * 1000, 0], [$i * 1000, 3000]])['operation']]);
            }
        } finally {
            unlink($log);
            if ($kept) {
                rename("$log.kept", $log);
            }
        }
        self::assertSame(21, $desk->revision);
    }
}
