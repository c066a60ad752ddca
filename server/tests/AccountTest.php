<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;

/** Who may do what: everything needs a sign-in, everything is the owner's alone, other sites may not write. */
final class AccountTest extends TestCase
{
    public function testEveryEndpointRefusesTheSignedOutAndStrangers(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(__DIR__.'/../../demo/sallow-fen-ground.jpg');
        $stranger = Client::ofStack()->signIn('stranger@plinth.example');
        $change = Desk::body([], 0);
        $own = [
            ['GET', "/api/projects/$desk->id", null], ['GET', "/api/projects/$desk->id/changes?since=0", null], ['POST', "/api/projects/$desk->id/changes", $change],
            ['POST', "/api/projects/$desk->id/undo", ['id' => Desk::newId()]], ['POST', "/api/projects/$desk->id/redo", ['id' => Desk::newId()]], ['GET', "/api/projects/$desk->id/history", null],
            ['POST', "/api/projects/$desk->id/pages/$desk->page/stop", null], ['POST', "/api/projects/$desk->id/pages/$desk->page/retry", null], ['GET', "/api/projects/$desk->id/pages/$desk->page/preview", null], ['GET', "/api/projects/$desk->id/pages/$desk->page/tiles/0/0/0", null],
            ['GET', "/api/projects/$desk->id/storeys/$desk->storey/plan.dxf", null], ['GET', "/api/projects/$desk->id/storeys/$desk->storey/plan.json", null],
        ];
        foreach ($own as [$method, $path, $body]) {
            self::assertSame(401, Client::ofStack()->send($method, $path, $body, headers: ['csrf-token: csrf-token', 'Sec-Fetch-Site: same-origin'])[0], "$method $path signed out");
            self::assertSame('not-found', $stranger->refused(404, $method, $path, $body)['code'], "$method $path as a stranger");
        }
        [$status] = $stranger->send('POST', "/api/projects/$desk->id/sources", form: ['change' => Desk::newId(), 'storey' => $desk->storey, 'file' => new \CURLFile(__DIR__.'/../../demo/sallow-fen-ground.jpg')]);
        self::assertSame(404, $status);
        self::assertSame(401, Client::ofStack()->send('GET', '/api/projects')[0]);
        self::assertSame(['projects' => []], $stranger->ok('GET', '/api/projects'), 'A stranger sees only what is theirs.');
    }

    public function testAStrangersRowsCannotBeReachedThroughOnesOwnProject(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $chain = $desk->chain([[0, 0], [3000, 0]]);
        $desk->change([$chain['operation']]);
        $theirs = new Desk(Client::ofStack()->signIn('stranger@plinth.example'));
        self::assertSame('gone', $theirs->refused(409, [['do' => 'set', 'type' => 'wall', 'id' => $chain['walls'][0], 'values' => ['thickness' => 5]]], 1000)['code']);
        self::assertSame('gone', $theirs->refused(409, [Desk::door($chain['walls'][0], 100, 900)], 1000)['code']);
        self::assertSame(1, $theirs->revision, 'Nothing was written.');
    }

    public function testAnotherSiteCannotWrite(): void
    {
        $client = Client::ofStack()->signIn();
        $desk = new Desk($client);
        foreach ([[], ['csrf-token: csrf-token', 'Sec-Fetch-Site: cross-site', 'Origin: https://elsewhere.example'], ['Sec-Fetch-Site: same-origin']] as $headers) {
            self::assertSame(403, $client->send('POST', "/api/projects/$desk->id/changes", Desk::body([], $desk->revision), headers: $headers)[0]);
        }
    }

    public function testGuessingPasswordsIsSlowedDown(): void
    {
        $client = Client::ofStack();
        $guess = ['email' => 'guess'.random_int(0, 1_000_000).'@plinth.example', 'password' => 'wrong'];
        for ($i = 0; $i < 8; ++$i) {
            self::assertSame('wrong-credentials', $client->refused(401, 'POST', '/api/sign-in', $guess)['code']);
        }
        self::assertSame('too-many-tries', $client->refused(429, 'POST', '/api/sign-in', $guess)['code']);
    }

    public function testSigningOutEndsTheSession(): void
    {
        $client = Client::ofStack()->signIn();
        $client->ok('GET', '/api/projects');
        $client->ok('POST', '/api/sign-out');
        $client->refused(401, 'GET', '/api/projects');
    }
}
