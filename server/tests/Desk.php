<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Assert;
use Plinth\Core\Exchange\Json\JsonValue;
use Symfony\Component\Uid\UuidV7;

/** A project under test: makes changes from a revision as a client does, and finds rows in answers. */
final class Desk
{
    public readonly string $id;
    public readonly string $storey;
    public int $revision;
    public ?string $drawing = null;
    public ?string $page = null;

    public function __construct(public readonly Client $client)
    {
        $this->id = self::newId();
        $state = $client->ok('POST', '/api/projects', ['id' => $this->id, 'name' => 'Test']);
        $this->storey = self::rows($state, 'storey')[0]['id'];
        $this->revision = self::int($state['revision']);
    }

    public static function newId(): string
    {
        return (string) new UuidV7();
    }

    /**
     * @param list<array<string, mixed>> $operations
     *
     * @return array<mixed>
     */
    public function change(array $operations, ?int $base = null, ?string $id = null): array
    {
        $state = $this->client->ok('POST', "/api/projects/$this->id/changes", self::body($operations, $base ?? $this->revision, $id));
        $this->revision = max($this->revision, self::int($state['revision']));

        return $state;
    }

    /**
     * @param list<array<string, mixed>> $operations
     *
     * @return array<mixed>
     */
    public function refused(int $status, array $operations, ?int $base = null): array
    {
        return $this->client->refused(
            $status,
            'POST',
            "/api/projects/$this->id/changes",
            self::body($operations, $base ?? $this->revision),
        );
    }

    /**
     * @param list<array<string, mixed>> $operations
     *
     * @return array<string, mixed>
     */
    public static function body(array $operations, int $base, ?string $id = null): array
    {
        return ['id' => $id ?? self::newId(), 'base' => $base, 'title' => 'Test', 'operations' => $operations];
    }

    /**
     * @param list<array{float|int, float|int}> $points
     *
     * @return array{operation: array<string, mixed>, walls: list<string>, nodes: list<string>}
     */
    public function chain(array $points, bool $closed = false, float $thickness = 200.0, string $line = 'centre'): array
    {
        $nodes = array_map(static fn (): string => self::newId(), $points);
        $walls = array_map(static fn (): string => self::newId(), $closed ? $points : \array_slice($points, 1));

        return ['walls' => $walls, 'nodes' => $nodes, 'operation' => ['do' => 'trace', 'trace' => [
            'storey' => $this->storey, 'drawing' => $this->drawing, 'points' => $points, 'nodes' => $nodes, 'walls' => $walls, 'closed' => $closed, 'line' => $line, 'thickness' => $thickness,
        ]]];
    }

    /** @return array<string, mixed> */
    public static function door(string $wall, float $offset, float $width, ?string $id = null): array
    {
        return [
            'do' => 'add',
            'type' => 'opening',
            'id' => $id ?? self::newId(),
            'values' => [
                'wall' => $wall,
                'kind' => 'door',
                'offset' => $offset,
                'width' => $width,
                'sill' => 0,
                'hand' => 'left',
                'swing' => 'left',
                'number' => 'D01',
            ],
        ];
    }

    /**
     * @param array<string, string|\CURLFile> $more fields of the form
     *
     * @return array<mixed> the answer
     */
    public function bringIn(string $path, string $name = 'ground.jpg', ?string $change = null, array $more = []): array
    {
        [$status, $state] = $this->send($path, $name, $change, $more);
        Assert::assertSame(200, $status, (string) json_encode($state));
        $this->revision = self::int($state['revision']);
        $this->drawing = self::rows($state, 'drawing')[0]['id'] ?? $this->drawing;
        $this->page = self::rows($state, 'page')[0]['id'];

        return $state;
    }

    /**
     * @param array<string, string|\CURLFile> $more fields of the form
     *
     * @return array{int, array<mixed>} status and answer, whatever they are
     */
    public function send(string $path, string $name, ?string $change = null, array $more = []): array
    {
        [$status, $answer] = $this->client->send(
            'POST',
            "/api/projects/$this->id/sources",
            form: $more + [
                'change' => $change ?? self::newId(),
                'storey' => $this->storey,
                'file' => new \CURLFile($path, 'image/jpeg', $name),
            ],
        );

        return 202 === $status ? $this->looked($answer) : [$status, $answer];
    }

    /**
     * What has become of a file that was sent, once it has been looked at.
     *
     * @param array<mixed> $answer
     *
     * @return array{int, array<mixed>} 200 and the project since then, or 422 and why it was not taken in
     */
    public function looked(array $answer): array
    {
        $id = JsonValue::of($answer, 'answer')->get('arrival')->get('id')->text();

        return Waiting::until(function () use ($id): ?array {
            $arrival = JsonValue::of($this->client->ok('GET', "/api/projects/$this->id/arrivals/$id"), 'answer')->get('arrival');
            $progress = $arrival->get('progress');

            return match ($progress->get('state')->text()) {
                'done' => [
                    200,
                    [
                        'changeRevision' => $revision = (int) $arrival->get('revision')->number(),
                    ] + $this->client->ok('GET', "/api/projects/$this->id/changes?since=".($revision - 1)),
                ],
                'failed' => [422, ['error' => ['code' => $progress->get('reason')->text(), 'message' => $progress->get('words')->text()]]],
                default => null,
            };
        }, 'The file was not looked at');
    }

    /** Where something of the page at hand is: `preview`, `tiles/z/y/x` of the pictures it has now, and others. */
    public function ofPage(string $name): string
    {
        $version = '';
        if (str_starts_with($name, 'tiles/')) {
            foreach (JsonValue::of(
                $this->client->ok('GET', "/api/projects/$this->id/changes?since=$this->revision"),
            )->get('pages')->items() as $page) {
                if ($page->get('page')->text() === $this->page) {
                    $version = $page->get('pictures')->text().'/';
                }
            }
        }

        return "/api/projects/$this->id/pages/$this->page/$version$name";
    }

    /** The folder in which the pictures of the page at hand are kept. */
    public function folder(): string
    {
        $versions = glob(getenv('PLINTH_FILES')."/pages/$this->id/$this->page/*", \GLOB_ONLYDIR);

        return false === $versions || [] === $versions ? '' : $versions[0];
    }

    /** A picture of the page at hand. */
    public function picture(string $name): \GdImage
    {
        [$status, $body] = $this->client->send('GET', $this->ofPage($name));
        Assert::assertSame(200, $status, $name);
        Assert::assertIsString($body['text']);
        $image = imagecreatefromstring($body['text']);
        Assert::assertInstanceOf(\GdImage::class, $image, $name);

        return $image;
    }

    /** @return array<mixed> the whole project as it is now */
    public function state(): array
    {
        $state = $this->client->ok('GET', "/api/projects/$this->id");
        $this->revision = self::int($state['revision']);

        return $state;
    }

    /** How far a piece of long work is. */
    public function progress(string $kind, ?string $about): JsonValue
    {
        return JsonValue::of($this->client->ok('GET', "/api/projects/$this->id/jobs/$kind/$about"), 'progress');
    }

    public function ask(string $kind, ?string $about): void
    {
        $this->client->ok('POST', "/api/projects/$this->id/jobs/$kind/$about");
    }

    /** @return string in which state it is then */
    public function stop(string $kind, ?string $about): string
    {
        return JsonValue::of($this->client->ok('POST', "/api/projects/$this->id/jobs/$kind/$about/stop"), 'progress')->get('state')->text();
    }

    /** How it ended. */
    public function ended(string $kind, ?string $about): JsonValue
    {
        return Waiting::until(function () use ($kind, $about): ?JsonValue {
            $progress = $this->progress($kind, $about);

            return \in_array($progress->get('state')->text(), ['waiting', 'working'], true) ? null : $progress;
        }, "$kind did not end");
    }

    /** @return array<mixed> what was made of the page, how reading it ended (`state`), and why it failed (`message`) */
    public function imported(): array
    {
        $progress = $this->ended('import-page', $this->page);
        $pages = $this->client->ok('GET', "/api/projects/$this->id/changes?since=$this->revision")['pages'];
        Assert::assertIsArray($pages);
        foreach ($pages as $page) {
            Assert::assertIsArray($page);
            if ($page['page'] === $this->page) {
                return ['state' => $progress->get('state')->text(), 'message' => $progress->get('words')->text()] + $page;
            }
        }
        Assert::fail('The page is not told of.');
    }

    /** What the ink of the page at hand says of its turn and slant. */
    public function skew(): JsonValue
    {
        return Waiting::until(function (): ?JsonValue {
            $pages = JsonValue::of($this->client->ok('GET', "/api/projects/$this->id/changes?since=$this->revision"))->get('pages');

            return $pages->items()[0]->optional('made')?->optional('skew');
        }, 'Nobody has looked how the page is turned');
    }

    /**
     * @param list<array{float, float}> $ends page pixels
     *
     * @return list<array<string, mixed>>
     */
    public function knownLength(array $ends, string $text, ?string $id = null): array
    {
        [$a, $b] = [self::newId(), self::newId()];
        $pick = fn (string $id, array $at): array => [
            'do' => 'add',
            'type' => 'pick',
            'id' => $id,
            'values' => ['drawing' => $this->drawing, 'x' => $at[0], 'y' => $at[1], 'sigmaPx' => 0.5],
        ];

        return [$pick($a, $ends[0]), $pick($b, $ends[1]), ['do' => 'add', 'type' => 'knownLength', 'id' => $id ?? self::newId(), 'values' => [
            'drawing' => $this->drawing, 'a' => $a, 'b' => $b, 'text' => $text, 'unit' => 'mm', 'standing' => 'figured', 'ends' => 'outer face', 'along' => 'straight', 'heldOut' => false,
        ]]];
    }

    /**
     * @param array<mixed> $state
     *
     * @return list<array{id: string, revision: int, values: array<string, mixed>}>
     */
    public static function rows(array $state, string $type): array
    {
        $rows = [];
        Assert::assertIsArray($state['rows']);
        foreach ($state['rows'] as $row) {
            Assert::assertIsArray($row);
            Assert::assertIsString($row['id']);
            Assert::assertIsInt($row['revision']);
            Assert::assertIsArray($row['values']);
            if ($row['type'] === $type) {
                /** @var array<string, mixed> $values */
                $values = $row['values'];
                $rows[] = ['id' => $row['id'], 'revision' => $row['revision'], 'values' => $values];
            }
        }

        return $rows;
    }

    public static function float(mixed $value): float
    {
        Assert::assertIsNumeric($value);

        return (float) $value;
    }

    public static function int(mixed $value): int
    {
        Assert::assertIsInt($value);

        return $value;
    }

    public static function text(mixed $value): string
    {
        Assert::assertIsString($value);

        return $value;
    }
}
