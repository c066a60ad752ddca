<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;

/** A second node on the same database and store is the same application. */
final class NodesTest extends TestCase
{
    /** Two nodes that share a database and a store of objects, and no disk: what one reads, the other shows. */
    public function testTwoNodesShareNoDiskWhereTheStoreIsOneOfObjects(): void
    {
        $objects = new Objects();
        $first = new Node(['PLINTH_OBJECTS='.$objects->address]);
        $second = null;
        try {
            $client = $first->client();
            $desk = new Desk($client->signIn());
            $scan = __DIR__.'/../../demo/station-site-sketch.jpg';
            $desk->bringIn($scan);
            Waiting::until(
                static fn (): ?true => '' !== JsonValue::of($client->ok(
                    'GET',
                    "/api/projects/$desk->id",
                ))->get('pages')->items()[0]->get('pictures')->text() ? true : null,
                'The page was not read',
            );
            // The second one begins when all is there already, and has nothing of it.
            $second = new Node([
                'PLINTH_OBJECTS='.$objects->address,
                'PLINTH_DATABASE_URL='.$first->database(),
                'PLINTH_SECRET='.$first->secret(),
            ]);
            $there = $second->client();
            $there->takeSessionOf($client);
            $tile = $desk->ofPage('tiles/0/0/0');
            [$status, $body] = $there->send('GET', $tile);
            self::assertSame(200, $status);
            self::assertSame($client->send('GET', $tile)[1], $body);
            self::assertSame(200, $there->send('GET', $desk->ofPage('preview'))[0]);
            self::assertSame(200, $there->send('GET', $desk->ofPage('found?x=100&y=100&reach=12'))[0], 'Its ink can be looked at.');
            self::assertDirectoryExists($second->folder.'/files/pages');
            $stored = static fn (): array => (array) glob($objects->folder.'/plinth/sources/*/*_object');
            $before = \count($stored());
            // Sent to one, taken in by the worker of either, and the same bytes stored once.
            $again = new Desk($there);
            $again->bringIn($scan);
            Waiting::until(
                static fn (): ?true => '' !== JsonValue::of($there->ok(
                    'GET',
                    "/api/projects/$again->id",
                ))->get('pages')->items()[0]->get('pictures')->text() ? true : null,
                'The page was not read',
            );
            foreach ([$client, $there] as $who) {
                self::assertSame(200, $who->send('GET', $again->ofPage('tiles/0/0/0'))[0]);
            }
            self::assertCount($before, $stored());
        } finally {
            $second?->stop();
            $first->stop();
            $objects->stop();
        }
    }

    public function testTwoNodesServeOneApplication(): void
    {
        $node = new Node([
            'PLINTH_DATABASE_URL='.getenv('DATABASE_URL'),
            'PLINTH_STORE='.getenv('PLINTH_FILES'),
            'PLINTH_SECRET='.getenv('APP_SECRET'),
        ]);
        try {
            $second = $node->client();
            $desk = new Desk(Client::ofStack()->signIn());
            $second->takeSessionOf($desk->client);
            $there = $second->ok('GET', "/api/projects/$desk->id");
            self::assertSame($desk->revision, $there['revision'], 'Signed in at one is signed in at the other.');
            // Edits by both in turn, each from what the other told.
            for ($i = 0; $i < 10; ++$i) {
                $body = Desk::body([$desk->chain([[$i * 1000, 0], [$i * 1000, 3000]])['operation']], $desk->revision);
                $desk->revision = Desk::int(
                    (0 === $i % 2 ? $second : $desk->client)->ok('POST', "/api/projects/$desk->id/changes", $body)['revision'],
                );
            }
            self::assertCount(10, Desk::rows($desk->state(), 'wall'));
            self::assertEquals(
                $desk->client->ok('GET', "/api/projects/$desk->id")['derived'],
                $second->ok('GET', "/api/projects/$desk->id")['derived'],
            );
            // Brought in at one, read by the worker of either, shown by both.
            $desk->bringIn(__DIR__.'/../../demo/station-site-sketch.jpg');
            self::assertSame('done', $desk->imported()['state']);
            foreach ([$desk->client, $second] as $client) {
                self::assertSame(200, $client->send('GET', $desk->ofPage('tiles/0/0/0'))[0]);
            }
            $desk->client->ok('DELETE', '/api/account/sessions');
            $second->refused(401, 'GET', '/api/projects');
        } finally {
            $node->stop();
        }
    }
}
