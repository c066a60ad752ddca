<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;

/** A script reads one project with a token that its owner makes and withdraws; it reads nothing else, and changes nothing. */
final class TokenTest extends TestCase
{
    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
        $this->desk->change([$this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true)['operation']]);
    }

    /** @return array{string, string} id and words */
    private function made(string $name = 'nightly model'): array
    {
        $made = $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/tokens", ['name' => $name]);

        return [JsonValue::of($made['token'])->get('id')->text(), Desk::text($made['words'])];
    }

    /** @return array{int, array<mixed>} what a script without cookies is answered */
    private static function asked(string $path, string $words, string $method = 'GET', ?Client $with = null): array
    {
        return ($with ?? new Client((string) getenv('PLINTH_ADDRESS')))->send(
            $method,
            $path,
            'GET' === $method ? null : [],
            headers: ["Authorization: Bearer $words", 'csrf-token: csrf-token', 'Sec-Fetch-Site: same-origin'],
        );
    }

    public function testAScriptTakesEveryFileOfTheProjectUntilItsTokenIsWithdrawn(): void
    {
        $project = "/api/projects/{$this->desk->id}";
        [$id, $words] = $this->made();
        self::assertNull(JsonValue::of($this->desk->client->ok('GET', "$project/tokens"))->list('tokens')[0]->optional('usedAt'));
        foreach (['', '/building.ifc', '/building.dxf', '/tables.zip', '/plan.json', '/plan.geojson', '/archive.zip', '/building.glb'] as $file) {
            $script = new Client((string) getenv('PLINTH_ADDRESS'));
            self::assertSame(200, self::asked($project.$file, $words, with: $script)[0], $file);
            self::assertSame('', $script->cookies(), 'Nobody is signed in.');
        }
        $told = JsonValue::of($this->desk->client->ok('GET', "$project/tokens"))->list('tokens')[0];
        self::assertSame([$id, 'nightly model'], [$told->get('id')->text(), $told->get('name')->text()]);
        self::assertNotNull($told->optional('usedAt'));
        self::assertStringNotContainsString($words, json_encode($told->map(), \JSON_THROW_ON_ERROR));
        $this->desk->client->send('DELETE', "$project/tokens/$id");
        [$status, $answer] = self::asked("$project/building.ifc", $words);
        self::assertSame([401, 'no-token'], [$status, JsonValue::of($answer)->get('error')->get('code')->text()]);
    }

    public function testItReadsNothingElseAndChangesNothing(): void
    {
        [, $words] = $this->made();
        $other = new Desk($this->desk->client);
        $project = "/api/projects/{$this->desk->id}";
        foreach ([
            ['GET', "/api/projects/$other->id"],
            ['GET', "/api/projects/$other->id/building.ifc"],
            ['GET', '/api/projects'],
            ['GET', '/api/account'],
            ['GET', '/api/work'],
            ['GET', "$project/tokens"],
            ['POST', "$project/tokens"],
            ['POST', "$project/changes"],
            ['POST', "$project/copies"],
            ['PUT', "$project/bin"],
        ] as [$method, $path]) {
            [$status, $answer] = self::asked($path, $words, $method);
            self::assertSame([403, 'token-reads'], [$status, JsonValue::of($answer)->get('error')->get('code')->text()], "$method $path");
        }
        foreach (['plinth_'.str_repeat('0', 48), 'x', 'not; one'] as $guess) {
            self::assertSame(401, self::asked($project, $guess)[0]);
        }
        $this->desk->client->refused(422, 'POST', "$project/tokens", ['name' => ' ']);
    }

    /** The web server remembers who may see pictures: not from a script for whoever comes next without one. */
    public function testPicturesThatAScriptHasSeenAreShownToNobodyElse(): void
    {
        $this->desk->bringIn(__DIR__.'/../../demo/station-site-sketch.jpg');
        $this->desk->imported();
        [, $words] = $this->made();
        $tile = $this->desk->ofPage('tiles/0/0/0');
        self::assertSame(200, self::asked($tile, $words)[0]);
        self::assertSame(401, (new Client((string) getenv('PLINTH_ADDRESS')))->send('GET', $tile)[0]);
    }

    public function testACopyAndAnArchiveHaveNoTokens(): void
    {
        $this->made();
        $copy = Desk::newId();
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/copies", ['id' => $copy, 'name' => 'Copy']);
        self::assertSame([], JsonValue::of($this->desk->client->ok('GET', "/api/projects/$copy/tokens"))->get('tokens')->items());
    }
}
