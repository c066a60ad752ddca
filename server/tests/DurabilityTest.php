<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;

/** What was acknowledged is there afterwards, whatever is killed in between. */
final class DurabilityTest extends TestCase
{
    public function testTwoHundredEditsSurviveKillsOfServerWorkerAndDatabase(): void
    {
        $var = getenv('PLINTH_VAR');
        self::assertIsString($var);
        $desk = new Desk(Client::ofStack()->signIn());
        $acknowledged = [];
        $retries = 0;
        for ($i = 0; $i < 200; ++$i) {
            if (19 === $i % 20) {
                $this->kill($var, ['php', 'database', 'slow1'][intdiv($i, 20) % 3]);
            }
            $chain = $desk->chain([[$i * 100, 0], [$i * 100, 3000.0 + $i]]);
            $body = Desk::body([$chain['operation']], $desk->revision);
            for ($try = 0;; ++$try) {
                self::assertLessThan(300, $try, 'The stack did not come back within a minute.');
                [$status, $answer] = $desk->client->send('POST', "/api/projects/$desk->id/changes", $body);
                if (200 === $status) {
                    $desk->revision = Desk::int($answer['revision']);
                    $acknowledged[$chain['walls'][0]] = 3000.0 + $i;
                    break;
                }
                // Nothing but "away for now" is an answer while something is down; the same id goes out again.
                self::assertContains($status, [0, 502, 503, 504], (string) json_encode($answer));
                ++$retries;
                usleep(200_000);
            }
        }
        self::assertGreaterThan(0, $retries, 'The kills were felt.');
        $state = $desk->client->ok('GET', "/api/projects/$desk->id");
        self::assertSame(
            array_keys($acknowledged),
            array_values(array_intersect(array_keys($acknowledged), array_column(Desk::rows($state, 'wall'), 'id'))),
        );
        self::assertCount(200, Desk::rows($state, 'wall'), 'None was done twice.');
        self::assertSame(201, $state['revision']);
    }

    public function testAnImportWhoseWorkerIsKilledIsTakenUpAgain(): void
    {
        $var = getenv('PLINTH_VAR');
        self::assertIsString($var);
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(__DIR__.'/../../demo/sallow-fen-ground.jpg');
        usleep(900_000);
        foreach (['slow1', 'slow2'] as $worker) {
            $this->kill($var, $worker);
        }
        self::assertSame('done', $desk->imported()['state']);
    }

    /** Kills a child of the stack and everything in its process group, without warning. */
    private function kill(string $var, string $name): void
    {
        $pid = (int) file_get_contents("$var/run/$name.child");
        self::assertGreaterThan(1, $pid);
        posix_kill(-$pid, 9);
    }
}
