<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A change has a price, and what costs too much is judged before anybody waits for it; what is merely large is made. */
final class PriceTest extends TestCase
{
    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
    }

    /** @return iterable<string, array{callable(Desk): list<array<string, mixed>>}> */
    public static function prohibited(): iterable
    {
        yield 'a wall of 14 km' => [static fn (Desk $d): array => [$d->chain([[-4.9e6, -4.9e6], [5e6, 5e6]])['operation']]];
        yield 'a wall beyond any site' => [static fn (Desk $d): array => [$d->chain([[9e8, 0], [9e8, 900]])['operation']]];
        yield 'a divider of 14 km' => [
            static fn (Desk $d): array => [[
                'do' => 'add',
                'type' => 'divider',
                'id' => Desk::newId(),
                'values' => ['storey' => $d->storey, 'x1' => -4.9e6, 'y1' => -4.9e6, 'x2' => 5e6, 'y2' => 5e6],
            ]],
        ];
        yield 'a chain of 30 000 points' => [
            static fn (Desk $d): array => [
                $d->chain(array_map(static fn (int $i): array => [$i * 100, ($i % 2) * 3000], range(0, 29_999)))['operation'],
            ],
        ];
        yield '1200 walls that all cross' => [
            static fn (Desk $d): array => array_map(
                static fn (int $i): array => $d->chain([
                    [-9e4 * cos($i / 382), -9e4 * sin($i / 382)],
                    [9e4 * cos($i / 382), 9e4 * sin($i / 382)],
                ])['operation'],
                range(1, 1200),
            ),
        ];
        yield 'a lattice of 600 by 600' => [
            static fn (Desk $d): array => [
                ...array_map(static fn (int $i): array => $d->chain([[0, $i * 300], [2e5, $i * 300]])['operation'], range(0, 599)),
                ...array_map(static fn (int $i): array => $d->chain([[$i * 300, 0], [$i * 300, 2e5]])['operation'], range(0, 599)),
            ],
        ];
        yield '1500 dividers on one spot' => [
            static fn (Desk $d): array => array_map(
                static fn (int $i): array => [
                    'do' => 'add',
                    'type' => 'divider',
                    'id' => Desk::newId(),
                    'values' => ['storey' => $d->storey, 'x1' => 0, 'y1' => $i, 'x2' => 5000, 'y2' => 5000 - $i],
                ],
                range(0, 1499),
            ),
        ];
        yield '2500 operations' => [
            static fn (Desk $d): array => array_fill(0, 2500, ['do' => 'settle', 'settle' => ['storey' => $d->storey]]),
        ];
        yield 'walls laid 800 times over' => [
            static fn (Desk $d): array => [[
                'do' => 'lay',
                'lay' => [
                    'storey' => $d->storey,
                    'drawing' => null,
                    'walls' => array_fill(0, 800, ['from' => [0, 0], 'to' => [9000, 9000], 'thickness' => 200]),
                ],
            ]],
        ];
    }

    /** @param callable(Desk): list<array<string, mixed>> $operations */
    #[DataProvider('prohibited')]
    public function testWhatCostsTooMuchIsJudgedAndNothingOfItIsMade(callable $operations): void
    {
        $body = Desk::body($operations($this->desk), $this->desk->revision);
        $start = microtime(true);
        [$status, $answer] = $this->desk->client->send('POST', "/api/projects/{$this->desk->id}/changes", $body);
        self::assertContains($status, [413, 422], (string) json_encode($answer));
        self::assertIsArray($answer['error']);
        self::assertIsString($answer['error']['message']);
        self::assertMatchesRegularExpression('/^\S.{15,}\.$/u', $answer['error']['message']);
        // No timed promise: many times what it takes, and a small part of what it took before it was judged.
        self::assertLessThan(20.0, microtime(true) - $start);
        self::assertSame($this->desk->revision, $this->desk->state()['revision']);
    }

    public function testARequestOfManyMegabytesIsNotRead(): void
    {
        [$status, $answer] = $this->desk->client->raw(
            'POST',
            "/api/projects/{$this->desk->id}/changes",
            json_encode(['title' => str_repeat('x', 9_000_000)], \JSON_THROW_ON_ERROR),
        );
        self::assertSame(413, $status, (string) json_encode($answer));
    }

    /** Lines that cross what is there already count as well. */
    public function testWhatCrossesWhatIsThereCountsToo(): void
    {
        $this->desk->change(
            array_map(fn (int $i): array => $this->desk->chain([[0, $i * 300], [2e5, $i * 300]])['operation'], range(0, 299)),
        );
        self::assertSame(
            'too-much',
            $this->desk->refused(
                413,
                array_map(fn (int $i): array => $this->desk->chain([[$i * 300, -100], [$i * 300, 2e5]])['operation'], range(0, 299)),
            )['code'],
        );
        $this->desk->change(
            array_map(fn (int $i): array => $this->desk->chain([[$i * 300, -100], [$i * 300, 2e5]])['operation'], range(0, 9)),
        );
    }

    /** What is large and sound is made: a long wall at any angle, and many walls removed, set, moved and brought back as one change. */
    public function testWhatIsLargeAndSoundIsMade(): void
    {
        $this->desk->change([$this->desk->chain([[0, 0], [7e5, 7e5]])['operation']]);
        $walls = [];
        $nodes = [];
        $operations = [];
        for ($i = 0; $i < 100; ++$i) {
            $x = 6000 * ($i % 10) - 70_000;
            $y = 5000 * intdiv($i, 10) - 60_000;
            $chain = $this->desk->chain([[$x, $y], [$x + 4000, $y], [$x + 4000, $y + 3000], [$x, $y + 3000]], true);
            $operations[] = $chain['operation'];
            array_push($walls, ...$chain['walls']);
            array_push($nodes, ...$chain['nodes']);
        }
        $this->desk->change($operations);
        $this->desk->change([Desk::door($walls[0], 1000, 900), Desk::door($walls[399], 1000, 900)]);
        $before = self::drawn($this->desk->state());
        self::assertCount(401, $before['wall']);
        $this->desk->change([['do' => 'setMany', 'type' => 'wall', 'ids' => $walls, 'values' => ['thickness' => 123]]]);
        self::assertSame(
            [123.0],
            array_values(
                array_unique(
                    array_map(
                        static fn (array $w): float => Desk::float($w['thickness']),
                        array_intersect_key(self::drawn($this->desk->state())['wall'], array_flip($walls)),
                    ),
                ),
            ),
        );
        $this->desk->change([['do' => 'move', 'type' => 'node', 'ids' => $nodes, 'by' => [-250.5, 1000]]]);
        $moved = self::drawn($this->desk->state());
        foreach ($nodes as $node) {
            self::assertEqualsWithDelta(-250.5, Desk::float($moved['node'][$node]['x']) - Desk::float($before['node'][$node]['x']), 1e-9);
            self::assertEqualsWithDelta(1000.0, Desk::float($moved['node'][$node]['y']) - Desk::float($before['node'][$node]['y']), 1e-9);
        }
        $this->desk->change([['do' => 'removeMany', 'type' => 'wall', 'ids' => $walls]]);
        $gone = self::drawn($this->desk->state());
        self::assertCount(1, $gone['wall']);
        self::assertCount(2, $gone['node']);
        self::assertSame([], $gone['opening']);
        for ($i = 0; $i < 3; ++$i) {
            $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        }
        self::assertEquals($before, self::drawn($this->desk->state()), 'All of it came back.');
        self::assertSame(
            'no-place',
            $this->desk->refused(422, [['do' => 'move', 'type' => 'wall', 'ids' => [$walls[0]], 'by' => [1, 1]]])['code'],
        );
    }

    /**
     * @param array<mixed> $state
     *
     * @return array<string, array<string, array<string, mixed>>> values by kind of row and id
     */
    private static function drawn(array $state): array
    {
        $drawn = [];
        foreach (['wall', 'node', 'opening'] as $type) {
            $drawn[$type] = [];
            foreach (Desk::rows($state, $type) as $row) {
                $drawn[$type][$row['id']] = $row['values'];
            }
            ksort($drawn[$type]);
        }

        return $drawn;
    }
}
