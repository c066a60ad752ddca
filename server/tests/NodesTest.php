<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;

/** A second node on the same database and store is the same application. */
final class NodesTest extends TestCase
{
    public function testTwoNodesServeOneApplication(): void
    {
        $root = \dirname(__DIR__, 2);
        $var = (string) getenv('PLINTH_VAR');
        $folder = sys_get_temp_dir().'/plinth-node-'.bin2hex(random_bytes(4));
        mkdir($folder, 0o700);
        $port = trim((string) shell_exec('bash -c '.escapeshellarg("VAR=$folder; . $root/ops/lib.sh; free_port")));
        $environment = ['PLINTH_VAR='.$folder, 'PLINTH_DATABASE_URL='.getenv('DATABASE_URL'), 'PLINTH_STORE='.getenv('PLINTH_FILES'), 'PLINTH_SECRET='.getenv('APP_SECRET'), 'PLINTH_DEMO=1', 'PLINTH_TRUSTED_PROXIES=127.0.0.1'];
        $process = proc_open(['env', ...$environment, "$root/ops/stack", $folder, $port, "$var/web", 'sleep', 'infinity'], [], $pipes);
        self::assertIsResource($process);
        try {
            $second = new Client("http://127.0.0.1:$port");
            Waiting::until(static fn (): ?true => 200 === $second->send('GET', '/api/health')[0] ? true : null, 'The second node did not start');
            $desk = new Desk(Client::ofStack()->signIn());
            $second->takeSessionOf($desk->client);
            $there = $second->ok('GET', "/api/projects/$desk->id");
            self::assertSame($desk->revision, $there['revision'], 'Signed in at one is signed in at the other.');
            // Edits by both in turn, each from what the other told.
            for ($i = 0; $i < 10; ++$i) {
                $body = Desk::body([$desk->chain([[$i * 1000, 0], [$i * 1000, 3000]])['operation']], $desk->revision);
                $desk->revision = Desk::int((0 === $i % 2 ? $second : $desk->client)->ok('POST', "/api/projects/$desk->id/changes", $body)['revision']);
            }
            self::assertCount(10, Desk::rows($desk->state(), 'wall'));
            self::assertEquals($desk->client->ok('GET', "/api/projects/$desk->id")['derived'], $second->ok('GET', "/api/projects/$desk->id")['derived']);
            // Brought in at one, read by the worker of either, shown by both.
            $desk->bringIn(__DIR__.'/../../demo/station-site-sketch.jpg');
            self::assertSame('ready', $desk->imported()['state']);
            foreach ([$desk->client, $second] as $client) {
                self::assertSame(200, $client->send('GET', "/api/projects/$desk->id/pages/$desk->page/tiles/0/0/0")[0]);
            }
            $desk->client->ok('DELETE', '/api/account/sessions');
            $second->refused(401, 'GET', '/api/projects');
        } finally {
            posix_kill(proc_get_status($process)['pid'], 15);
            proc_close($process);
            exec('rm -rf '.escapeshellarg($folder));
        }
    }
}
