<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Uid\Uuid;

/** Whoever asks for what is new is answered with little while nothing is, and never with less than there is. */
final class PollTest extends TestCase
{
    private const SCAN = __DIR__.'/../../demo/sallow-fen-ground.jpg';

    private Client $client;
    private Desk $desk;

    protected function setUp(): void
    {
        $this->client = Client::ofStack()->signIn();
        $this->desk = new Desk($this->client);
    }

    public function testNothingIsToldWhileNothingHasChanged(): void
    {
        $tag = $this->tag();
        for ($i = 0; $i < 3; ++$i) {
            self::assertSame([304, []], $this->ask($tag));
        }
        self::assertSame(200, $this->ask(null)[0], 'Without its tag everything is told.');
    }

    public function testEveryChangeOfAnybodyIsTold(): void
    {
        $editor = $this->shared('editor@plinth.example', 'edit');
        $known = $this->desk->revision;
        $tag = $this->tag();
        $editor->ok(
            'POST',
            "/api/projects/{$this->desk->id}/changes",
            Desk::body([$this->desk->chain([[0, 0], [6000, 0]])['operation']], $known),
        );
        [$status, $told] = $this->ask($tag, $known);
        self::assertSame(200, $status);
        self::assertCount(1, Desk::rows($told, 'wall'));
        $this->desk->revision = Desk::int($told['revision']);
        self::assertSame(304, $this->ask($this->tag())[0]);
        // An undo is a change like any other.
        $tag = $this->tag();
        $editor->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        [$status, $told] = $this->ask($tag);
        self::assertSame(200, $status);
        self::assertNotSame([], $told['removed']);
    }

    public function testWhoAsksFromAnEarlierRevisionIsToldAllTheSame(): void
    {
        $this->desk->change([$this->desk->chain([[0, 0], [6000, 0]])['operation']]);
        $tag = $this->tag();
        self::assertSame(200, $this->ask($tag, $this->desk->revision - 1)[0]);
        self::assertSame(304, $this->ask($tag)[0]);
    }

    /** Who else is there, and where, is told at once; that one is there oneself asks nobody anything. */
    public function testWhoElseIsThereIsTold(): void
    {
        $path = "/api/projects/{$this->desk->id}";
        $mine = Desk::newId();
        $this->desk->client->ok('PUT', "$path/presence/$mine", ['place' => $this->desk->storey]);
        $tag = $this->tag();
        $this->desk->client->ok('PUT', "$path/presence/$mine", ['place' => null]);
        self::assertSame(304, $this->ask($tag)[0]);
        $other = Client::ofStack()->signIn('editor@plinth.example');
        $this->desk->client->ok('PUT', "$path/shares", ['email' => 'editor@plinth.example', 'role' => 'read']);
        $tag = $this->tag();
        $theirs = Desk::newId();
        $other->ok('PUT', "$path/presence/$theirs", ['place' => $this->desk->storey]);
        [$status, $answer] = $this->ask($tag);
        self::assertSame(200, $status);
        $places = array_column((array) $answer['present'], 'place', 'page');
        self::assertSame([$this->desk->storey, null], [$places[$theirs] ?? null, $places[$mine] ?? null]);
        // Said again from where one is, it is no news; from elsewhere it is.
        $tag = $this->tag();
        $other->ok('PUT', "$path/presence/$theirs", ['place' => $this->desk->storey]);
        self::assertSame(304, $this->ask($tag)[0]);
        $other->ok('PUT', "$path/presence/$theirs", ['place' => null]);
        self::assertSame(200, $this->ask($tag)[0]);
        $tag = $this->tag();
        $other->ok('DELETE', "$path/presence/$theirs");
        [$status, $answer] = $this->ask($tag);
        self::assertSame([200, [$mine]], [$status, array_column((array) $answer['present'], 'page')]);
        // Who says nothing for a while has gone.
        $other->ok('PUT', "$path/presence/$theirs", ['place' => null]);
        $tag = $this->tag();
        Database::open()->exec('UPDATE presence SET seen_at = seen_at - 40');
        [, $answer] = $this->ask($tag);
        self::assertSame([], $answer['present']);
        $other->refused(422, 'PUT', "$path/presence/$theirs", ['place' => 'upstairs']);
        Client::ofStack()->signIn('stranger@plinth.example')->refused(404, 'PUT', "$path/presence/$theirs", ['place' => null]);
    }

    public function testWhatWasDoneIsToldWithWhoDidIt(): void
    {
        $other = Client::ofStack()->signIn('editor@plinth.example');
        $this->desk->client->ok('PUT', "/api/projects/{$this->desk->id}/shares", ['email' => 'editor@plinth.example', 'role' => 'edit']);
        $since = $this->desk->revision;
        $other->ok('POST', "/api/projects/{$this->desk->id}/changes", ['title' => 'Move a wall'] + Desk::body(
            [['do' => 'set', 'type' => 'project', 'id' => $this->desk->id, 'values' => ['purpose' => 'construction']]],
            $since,
        ));
        $news = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/changes?since=$since")['news'];
        self::assertIsArray($news);
        self::assertSame(['Move a wall'], array_column($news, 'title'));
        self::assertNotSame([''], array_column($news, 'name'));
        $this->desk->revision = $since + 1;
    }

    public function testATagServesNobodyElse(): void
    {
        $tag = $this->tag();
        self::assertSame(401, $this->ask($tag, client: Client::ofStack())[0], 'signed out');
        self::assertSame(404, $this->ask($tag, client: Client::ofStack()->signIn('stranger@plinth.example'))[0]);
        self::assertSame(
            200,
            $this->ask($tag, client: Client::ofStack()->signIn())[0],
            'Another session of the same account is told itself.',
        );
        foreach ([
            '"x"',
            '"'.Desk::newId().'.'.Desk::newId().'.'.str_repeat('a', 40).'"',
            str_replace('.', '..', $tag),
            substr($tag, 0, -2).('0' === $tag[-2] ? '1"' : '0"'),
        ] as $made) {
            self::assertSame(200, $this->ask($made)[0], $made);
        }
    }

    public function testWhoIsSignedOutOrMayNoMoreIsToldSo(): void
    {
        $reader = $this->shared('reader@plinth.example', 'read');
        $tag = $this->tag($reader);
        self::assertSame(304, $this->ask($tag, client: $reader)[0]);
        $shares = $this->client->ok('GET', "/api/projects/{$this->desk->id}/shares")['shares'];
        self::assertIsArray($shares);
        self::assertIsArray($shares[0]);
        // Another role is told at once.
        $this->client->ok('PUT', "/api/projects/{$this->desk->id}/shares", ['email' => 'reader@plinth.example', 'role' => 'edit']);
        [$status, $told] = $this->ask($tag, client: $reader);
        self::assertSame([200, 'edit'], [$status, $told['role'] ?? null]);
        $tag = $this->tag($reader);
        $this->client->send('DELETE', "/api/projects/{$this->desk->id}/shares/".Desk::text($shares[0]['id']));
        self::assertSame(404, $this->ask($tag, client: $reader)[0]);
        $tag = $this->tag();
        $this->client->send('POST', '/api/sign-out');
        self::assertSame(401, $this->ask($tag)[0]);
    }

    public function testPagesThatComeOnAreToldWithoutAChangeAndThoseThatRestAreNot(): void
    {
        $this->desk->bringIn(self::SCAN);
        $this->desk->imported();
        $told = Waiting::until(function (): ?array {
            $told = $this->client->ok('GET', "/api/projects/{$this->desk->id}/changes?since={$this->desk->revision}");
            $pages = $told['pages'];
            self::assertIsArray($pages);
            self::assertIsArray($pages[0]);
            self::assertIsArray($made = $pages[0]['made']);

            return isset($made['skew']) ? $told : null;
        }, 'Nobody has looked how the page is turned');
        $later = Desk::float($told['heard']) + 60.0;
        self::assertSame(
            [],
            $this->client->ok('GET', "/api/projects/{$this->desk->id}/changes?since={$this->desk->revision}&heard=$later")['pages'],
            'It has rested for a while.',
        );
        $tag = $this->tag();
        $this->desk->ask('import-page', $this->desk->page);
        [$status, $now] = $this->ask($tag);
        self::assertSame(200, $status, 'Read anew, it is told of.');
        self::assertSame($this->desk->revision, $now['revision']);
        $this->desk->imported();
    }

    /** What one has done oneself is told by its answer, with the tag of the next question. */
    public function testAfterAChangeOfOnesOwnNothingIsAskedForTwice(): void
    {
        $body = Desk::body([$this->desk->chain([[0, 0], [3000, 0]])['operation']], $this->desk->revision) + ['heard' => 1e9];
        $told = $this->client->ok('POST', "/api/projects/{$this->desk->id}/changes", $body);
        $this->desk->revision = Desk::int($told['revision']);
        self::assertSame(1, preg_match('/^etag: (?:W\/)?("[^"]+")/im', $this->client->head, $m), $this->client->head);
        self::assertSame(304, $this->answered($m[1]));
        // Somebody else's is told.
        $other = $this->shared('editor@plinth.example', 'edit');
        $other->ok(
            'POST',
            "/api/projects/{$this->desk->id}/changes",
            Desk::body([$this->desk->chain([[0, 900], [3000, 900]])['operation']], $this->desk->revision),
        );
        $now = $this->ask($m[1])[1];
        self::assertSame($this->desk->revision + 1, $now['revision'] ?? null);
        $this->desk->revision = Desk::int($now['revision']);
        $undone = $this->client->ok('POST', "/api/projects/{$this->desk->id}/undo", [
            'id' => Desk::newId(),
            'known' => $this->desk->revision,
            'heard' => $now['heard'],
        ]);
        $this->desk->revision = Desk::int($undone['revision']);
        self::assertSame(1, preg_match('/^etag: (?:W\/)?("[^"]+")/im', $this->client->head, $m));
        self::assertSame(304, $this->answered($m[1]));
        // A storey that is asked for is told, whatever has changed.
        self::assertSame(
            200,
            $this->client->send(
                'GET',
                "/api/projects/{$this->desk->id}/changes?since={$this->desk->revision}&storey={$this->desk->storey}",
                headers: ["If-None-Match: $m[1]"],
            )[0],
        );
    }

    /** Who was away for long is told the whole, which is bounded, and not all that has come and gone. */
    public function testWhoHasMissedTooMuchIsToldTheWhole(): void
    {
        $this->desk->change([$this->desk->chain([[0, 0], [3000, 0]])['operation']]);
        $since = $this->desk->revision;
        $database = Database::open();
        $project = Uuid::fromString($this->desk->id)->toBinary();
        $copy = $database->prepare(
            "INSERT INTO project_change (state, project, id, revision, account, title, touches, at) SELECT 'left', project, ?, ?, account, title, '[]', at FROM project_change WHERE project = ? AND revision = ?",
        );
        for ($revision = $since + 1; $revision <= $since + 1001; ++$revision) {
            $copy->execute([Uuid::v7()->toBinary(), $revision, $project, $since]);
        }
        $database->prepare('UPDATE project SET head = ? WHERE id = ?')->execute([$since + 1001, $project]);
        $told = $this->client->ok('GET', "/api/projects/{$this->desk->id}/changes?since=$since");
        self::assertSame([0, $since + 1001], [$told['since'], $told['revision']]);
        self::assertCount(1, Desk::rows($told, 'wall'));
        self::assertSame(
            $since + 1,
            $this->client->ok('GET', "/api/projects/{$this->desk->id}/changes?since=".($since + 1))['since'],
            'One less is told as ever.',
        );
    }

    public function testTilesGoToWhoMaySeeThemAlone(): void
    {
        $this->desk->bringIn(self::SCAN);
        $this->desk->imported();
        $tile = $this->desk->ofPage('tiles/0/0/0');
        for ($i = 0; $i < 3; ++$i) {
            [$status, $body] = $this->client->send('GET', $tile);
            self::assertSame(200, $status);
            self::assertNotFalse(imagecreatefromstring(Desk::text($body['text'])));
            self::assertSame(401, Client::ofStack()->send('GET', $tile)[0]);
            self::assertSame(404, Client::ofStack()->signIn('stranger@plinth.example')->send('GET', $tile)[0]);
        }
        self::assertStringContainsString('nosniff', $this->client->head);
        foreach (['99/0/0', '0/0/7', '0/7/0'] as $none) {
            self::assertSame(404, $this->client->send('GET', $this->desk->ofPage("tiles/$none"))[0], $none);
        }
        // Paths that the contract does not know, as they stand.
        $cookies = $this->client->cookies();
        self::assertNotSame('', $cookies);
        foreach ([
            '../../../preview.jpg',
            '0/0/..%2f..%2fpreview.jpg',
            '0/0/0.jpg',
            '0/0/0/made.json',
            '..%2f..%2f..%2f..%2f..%2fsecret',
        ] as $elsewhere) {
            $curl = curl_init(getenv('PLINTH_ADDRESS').$this->desk->ofPage("tiles/$elsewhere"));
            self::assertNotFalse($curl);
            curl_setopt_array($curl, [\CURLOPT_RETURNTRANSFER => true, \CURLOPT_PATH_AS_IS => true, \CURLOPT_COOKIE => $cookies]);
            curl_exec($curl);
            self::assertContains(curl_getinfo($curl, \CURLINFO_RESPONSE_CODE), [400, 404], $elsewhere);
        }
        // A no is not remembered: whoever is let in sees it at once.
        $reader = Client::ofStack()->signIn('reader@plinth.example');
        self::assertSame(404, $reader->send('GET', $tile)[0]);
        $this->client->ok('PUT', "/api/projects/{$this->desk->id}/shares", ['email' => 'reader@plinth.example', 'role' => 'read']);
        self::assertSame(200, $reader->send('GET', $tile)[0]);
    }

    public function testWhoOnlyLooksWritesNothing(): void
    {
        $this->desk->bringIn(self::SCAN);
        $this->desk->imported();
        $this->desk->change([$this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true)['operation']]);
        Waiting::until(
            fn (): ?true => 0 === Desk::int($this->client->ok('GET', '/api/work')['working']) ? true : null,
            'The workers do not rest',
        );
        $this->client->ok('GET', "/api/projects/{$this->desk->id}");
        $before = self::written();
        foreach ([
            '',
            '/changes?since=0',
            '/history',
            '/shares',
            "/pages/{$this->desk->page}/preview",
            "/pages/{$this->desk->page}/found?x=100&y=100&reach=12",
            "/drawings/{$this->desk->drawing}/fits",
            "/drawings/{$this->desk->drawing}/proposals",
            "/drawings/{$this->desk->drawing}/misfit",
            "/storeys/{$this->desk->storey}/rooms-table",
            "/jobs/import-page/{$this->desk->page}",
            "/storeys/{$this->desk->storey}/plan.json",
            "/storeys/{$this->desk->storey}/plan.dxf",
        ] as $path) {
            self::assertSame(200, $this->client->send('GET', "/api/projects/{$this->desk->id}$path")[0], $path);
        }
        self::assertSame($before, self::written());
    }

    /** @return list<mixed> rows inserted, changed and removed since the database began */
    private static function written(): array
    {
        $rows = Database::open()->query(
            "SHOW GLOBAL STATUS WHERE Variable_name IN ('Innodb_rows_inserted', 'Innodb_rows_updated', 'Innodb_rows_deleted')",
        );
        self::assertNotFalse($rows);

        return array_values($rows->fetchAll(\PDO::FETCH_NUM));
    }

    private function shared(string $email, string $role): Client
    {
        $this->client->ok('PUT', "/api/projects/{$this->desk->id}/shares", ['email' => $email, 'role' => $role]);

        return Client::ofStack()->signIn($email);
    }

    private function tag(?Client $client = null): string
    {
        $client ??= $this->client;
        $client->ok('GET', "/api/projects/{$this->desk->id}/changes?since={$this->desk->revision}");
        self::assertSame(1, preg_match('/^etag: (?:W\/)?("[^"]+")/im', $client->head, $m), $client->head);

        return $m[1];
    }

    private function answered(string $tag): int
    {
        return $this->ask($tag)[0];
    }

    /** @return array{int, array<mixed>} */
    private function ask(?string $tag, ?int $since = null, ?Client $client = null): array
    {
        $since ??= $this->desk->revision;

        return ($client ?? $this->client)->send(
            'GET',
            "/api/projects/{$this->desk->id}/changes?since=$since",
            headers: ['Sec-Fetch-Site: same-origin', ...(null === $tag ? [] : ["If-None-Match: $tag"])],
        );
    }
}
