<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;

/** Storeys above and below, alternatives over one locked drawing, what is traced on them beside walls; and undo of all of it. */
final class StoreysTest extends TestCase
{
    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
    }

    public function testWhatIsUnusualIsSaidUntilSomebodySaysThatItIsSo(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true, 30.0);
        $door = Desk::door($ring['walls'][0], 1000, 540);
        $this->desk->change([$ring['operation'], $door]);
        $doubts = function (): array {
            $answer = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/plausible");
            self::assertSame('common practice', $answer['standing']);
            self::assertIsArray($answer['doubts']);

            return array_map(static fn (mixed $d): string => \is_array($d) ? Desk::text($d['code']) : '', $answer['doubts']);
        };
        self::assertSame(['thin-wall', 'thin-wall', 'thin-wall', 'thin-wall', 'narrow-door'], $doubts());
        $this->desk->change([['do' => 'set', 'type' => 'opening', 'id' => $door['id'], 'values' => ['width' => 910]]]);
        self::assertNotContains('narrow-door', $doubts());
        // Who says so is kept beside it, and goes with the storey; undo takes it back.
        $values = ['storey' => $this->desk->storey, 'code' => 'thin-wall', 'thing' => $ring['walls'][0]];
        $this->desk->change([['do' => 'add', 'type' => 'assurance', 'id' => Desk::newId(), 'values' => $values]]);
        self::assertSame($values, Desk::rows($this->desk->state(), 'assurance')[0]['values']);
        self::assertCount(4, $doubts(), 'Clients tell the two apart.');
        $this->undo();
        self::assertSame([], Desk::rows($this->desk->state(), 'assurance'));
    }

    public function testEachStoreyHasItsOwnShapes(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $upper = $this->storey('Loft', 2700);
        $above = $this->copied($upper['id'], [[0, 0], [6000, 0], [6000, 3000], [0, 3000]]);
        $this->desk->change([$ring['operation'], $upper, ...$above]);
        $state = $this->desk->state();
        self::assertEqualsWithDelta([2.8 * 5.8, 3.8 * 5.8], $this->netAreas($state), 1e-9);
        // An edit above says nothing of the storey below.
        $edited = $this->desk->change([['do' => 'shift', 'shift' => ['wall' => $above[4]['id'], 'left' => -500.0]]]);
        self::assertIsArray($edited['derived']);
        self::assertSame([$upper['id']], array_column($edited['derived'], 'storey'));
        $walls = \array_slice($above, 4);
        $this->desk->change([
            ...array_map(static fn (array $wall): array => ['do' => 'remove', 'type' => 'wall', 'id' => $wall['id']], $walls),
            ['do' => 'remove', 'type' => 'storey', 'id' => $upper['id']],
        ]);
        self::assertCount(1, Desk::rows($this->desk->state(), 'storey'));
        $this->undo();
        self::assertEqualsWithDelta(
            [3.3 * 5.8, 3.8 * 5.8],
            $this->netAreas($this->desk->state()),
            1e-9,
            'The storey and its room are back.',
        );
    }

    public function testAWallGoesToAnotherStoreyWithItsDoorAndBothStoreysAreToldAndBack(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $inner = $this->desk->chain([[3000, 0], [3000, 4000]]);
        $upper = $this->storey('Loft', 2700);
        $this->desk->change([$ring['operation'], $inner['operation'], Desk::door($inner['walls'][0], 1200, 900), $upper]);
        self::assertCount(2, $this->netAreas($before = $this->desk->state()));
        $nodes = array_map(
            static fn (string $id): array => ['do' => 'set', 'type' => 'node', 'id' => $id, 'values' => ['storey' => $upper['id']]],
            $inner['nodes'],
        );
        $moved = $this->desk->change([...$nodes, [
            'do' => 'set',
            'type' => 'wall',
            'id' => $inner['walls'][0],
            'values' => ['storey' => $upper['id']],
        ]]);
        self::assertIsArray($moved['derived']);
        self::assertEqualsCanonicalizing([$this->desk->storey, $upper['id']], array_column($moved['derived'], 'storey'));
        $state = $this->desk->state();
        self::assertEqualsWithDelta([3.8 * 5.8], $this->netAreas($state), 1e-9);
        self::assertSame([[3000.0, 1200.0], [3000.0, 2100.0]], self::jambs($this->shapes($state, $upper['id'])));
        $this->undo();
        self::assertEquals($this->shapes($before, $this->desk->storey), $this->shapes($this->desk->state(), $this->desk->storey));
    }

    public function testAnAlternativeIsOneOfAnotherStoreyAndKeepsIt(): void
    {
        $own = $this->storey('B', 0);
        $own['values']['alternativeOf'] = $own['id'];
        $refused = $this->desk->refused(422, [$own]);
        self::assertSame(['own-alternative', 'operations/0/values/alternativeOf'], [$refused['code'], $refused['at']]);
        $gone = $this->storey('B', 0);
        $gone['values']['alternativeOf'] = Desk::newId();
        self::assertSame('gone', $this->desk->refused(409, [$gone])['code']);
        $other = $this->storey('B', 0);
        $other['values']['alternativeOf'] = $this->desk->storey;
        $this->desk->change([$other]);
        self::assertSame(
            'in-use',
            $this->desk->refused(409, [['do' => 'remove', 'type' => 'storey', 'id' => $this->desk->storey]])['code'],
            'What it is an alternative of stays.',
        );
    }

    public function testUndoGivesBackTheShapesOfEveryStep(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $inner = $this->desk->chain([[3000, 0], [3000, 4000]]);
        $storey = $this->desk->storey;
        $room = [
            'do' => 'add',
            'type' => 'room',
            'id' => Desk::newId(),
            'values' => ['storey' => $storey, 'drawing' => null, 'name' => 'Hall', 'number' => '1', 'x' => 1000, 'y' => 2000],
        ];
        $column = [
            'do' => 'add',
            'type' => 'column',
            'id' => Desk::newId(),
            'values' => ['storey' => $storey, 'x' => 4500, 'y' => 2000, 'width' => 400, 'depth' => 400, 'round' => true],
        ];
        $steps = [
            [$ring['operation']],
            [$inner['operation'], Desk::door($inner['walls'][0], 1200, 900)],
            [$room, $column],
            [['do' => 'shift', 'shift' => ['wall' => $inner['walls'][0], 'left' => 400.0]]],
            [['do' => 'set', 'type' => 'wall', 'id' => $ring['walls'][1], 'values' => ['rise' => -800]]],
            [['do' => 'shift', 'shift' => ['walls' => $ring['walls'], 'thickness' => 365.0]]],
            [[
                'do' => 'rework',
                'rework' => [
                    'kind' => 'split',
                    'wall' => $ring['walls'][0],
                    'along' => 2000.0,
                    'node' => Desk::newId(),
                    'newWall' => Desk::newId(),
                ],
            ]],
            [['do' => 'set', 'type' => 'column', 'id' => $column['id'], 'values' => ['x' => 3900]]],
            [['do' => 'remove', 'type' => 'wall', 'id' => $ring['walls'][2]]],
        ];
        $was = [$this->desk->state()];
        foreach ($steps as $step) {
            $this->desk->change($step);
            $was[] = $this->desk->state();
        }
        for ($i = \count($steps) - 1; $i > 0; --$i) {
            $this->undo();
            self::assertEqualsWithDelta($this->shapes($was[$i], $storey), $this->shapes($this->desk->state(), $storey), 1e-6, "Step $i");
        }
        for ($i = 2; $i <= \count($steps); ++$i) {
            $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/redo", ['id' => Desk::newId()]);
            self::assertEqualsWithDelta(
                $this->shapes($was[$i], $storey),
                $this->shapes($this->desk->state(), $storey),
                1e-6,
                "Step $i again",
            );
        }
    }

    public function testWhoComesBackIsToldWhatDiffersAndHasTheWholeByIt(): void
    {
        $storey = $this->desk->storey;
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $inner = $this->desk->chain([[3000, 0], [3000, 4000]]);
        $this->desk->change([$ring['operation'], $inner['operation'], Desk::door($inner['walls'][0], 1200, 900)]);
        $kept = $this->shapes($this->desk->state(), $storey);
        $since = $this->desk->revision;
        $this->desk->change([['do' => 'shift', 'shift' => ['wall' => $inner['walls'][0], 'left' => 400.0]]]);
        $this->desk->change([['do' => 'remove', 'type' => 'wall', 'id' => $ring['walls'][1]]]);
        $this->desk->change([$this->desk->chain([[6000, 0], [6500, 4000], [6000, 4000]])['operation']]);
        $told = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/changes?since=$since");
        self::assertIsArray($told['derived']);
        self::assertIsArray($told['derived'][0]);
        $removed = $told['derived'][0]['removed'];
        self::assertIsArray($removed);
        foreach ($this->shapes($told, $storey) as $kind => $shapes) {
            self::assertIsArray($removed[$kind] ?? []);
            $kept[$kind] = $shapes + array_diff_key($kept[$kind] ?? [], array_flip(array_filter($removed[$kind] ?? [], is_string(...))));
        }
        self::assertEquals($this->shapes($this->desk->state(), $storey), $kept);
    }

    public function testWhatIsWrongWithThingsBesideWallsIsNamedWithItsPlace(): void
    {
        $storey = $this->desk->storey;
        $add = static fn (string $type, array $values): array => [
            'do' => 'add',
            'type' => $type,
            'id' => Desk::newId(),
            'values' => $values,
        ];
        $line = ['storey' => $storey, 'drawing' => null, 'x1' => 0, 'y1' => 0];
        $note = ['storey' => $storey, 'x' => 0, 'y' => 0, 'toX' => null, 'toY' => null, 'assumption' => true];
        foreach ([
            [$add('divider', $line + ['x2' => 0, 'y2' => 0]), 'x2'],
            [$add('divider', $line + ['x2' => 'far', 'y2' => 0]), 'x2'],
            [$add('note', $note + ['words' => ' ']), 'words'],
            [$add('note', ['storey' => null, 'words' => 'Where?'] + $note), 'storey'],
            [$add('note', $note + ['words' => str_repeat('long ', 200)]), 'words'],
            [$add('column', ['storey' => $storey, 'x' => 0, 'y' => 0, 'width' => -1, 'depth' => 300, 'round' => false]), 'width'],
            [$add('column', ['storey' => $storey, 'x' => 0, 'y' => 0, 'width' => 300, 'depth' => 300, 'round' => 'yes']), 'round'],
            [$add('storey', ['name' => 'Wing', 'elevation' => 0, 'height' => 2700, 'wing' => 50]), 'wing'],
            [$add('buildUp', ['name' => '', 'thickness' => 365]), 'name'],
            [$add('buildUp', ['name' => 'Outer', 'thickness' => 99_000]), 'thickness'],
            [
                $add('room', ['storey' => $storey, 'drawing' => null, 'name' => 'Hall', 'number' => '1234567890123', 'x' => 0, 'y' => 0]),
                'number',
            ],
            [
                $add('room', [
                    'storey' => $storey,
                    'drawing' => null,
                    'name' => 'Hall',
                    'number' => '1',
                    'x' => 0,
                    'y' => 0,
                    'height' => 0,
                ]),
                'height',
            ],
            [$add('outline', ['side' => null, 'storey' => null, 'name' => 'Slab', 'kind' => 'slab']), 'storey'],
            [$add('outline', ['side' => null, 'storey' => $storey, 'name' => 'Slab', 'kind' => 'carpet']), 'kind'],
            [
                $add('listedRoom', [
                    'storey' => $storey,
                    'number' => '',
                    'name' => 'Hall',
                    'width' => null,
                    'depth' => null,
                    'areaM2' => -3,
                ]),
                'areaM2',
            ],
            [['do' => 'set', 'type' => 'storey', 'id' => $storey, 'values' => ['height' => 0]], 'height'],
        ] as [$operation, $field]) {
            $refused = $this->desk->refused(422, [$operation]);
            self::assertSame("operations/0/values/$field", $refused['at'], (string) json_encode($operation));
            self::assertIsString($refused['message']);
            self::assertGreaterThan(15, \strlen($refused['message']), 'In words, not by a code.');
        }
    }

    /** All that is traced on a storey, or some walls, copied by one operation: corners that were shared are shared again. */
    public function testAStoreyOrSomeWallsAreCopiedByOneOperation(): void
    {
        $chain = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $this->desk->change([$chain['operation'], Desk::door($chain['walls'][0], 1000, 900),
            [
                'do' => 'add',
                'type' => 'room',
                'id' => Desk::newId(),
                'values' => ['storey' => $this->desk->storey, 'name' => 'Hall', 'number' => '1', 'x' => 3000, 'y' => 2000],
            ],
        ]);
        $above = $this->storey('Upper', 2700.0);
        $state = $this->desk->change([$above, ['do' => 'copy', 'copy' => ['storey' => $this->desk->storey, 'to' => $above['id']]]]);
        $of = static fn (string $type): array => array_values(
            array_filter(Desk::rows($state, $type), static fn (array $r): bool => ($r['values']['storey'] ?? null) === $above['id']),
        );
        self::assertCount(4, $of('wall'));
        self::assertCount(4, $of('node'), 'Shared as before.');
        self::assertCount(1, $of('room'));
        self::assertContains(Desk::rows($state, 'opening')[0]['values']['wall'], array_column($of('wall'), 'id'));
        $derived = array_values(
            array_filter(
                \is_array($state['derived']) ? $state['derived'] : [],
                static fn (mixed $d): bool => \is_array($d) && $above['id'] === $d['storey'],
            ),
        )[0] ?? null;
        self::assertIsArray($derived);
        self::assertCount(1, (array) $derived['regions'], 'The room is there, and enclosed.');

        // Two of the walls beside where they stand, with what is in them.
        $state = $this->desk->change([[
            'do' => 'copy',
            'copy' => [
                'things' => [['type' => 'wall', 'id' => $chain['walls'][0]], ['type' => 'wall', 'id' => $chain['walls'][1]]],
                'to' => $this->desk->storey,
                'by' => [20_000, -500],
            ],
        ]]);
        $nodes = Desk::rows($state, 'node');
        self::assertEqualsCanonicalizing(
            [[20_000.0, -500.0], [26_000.0, -500.0], [26_000.0, 3500.0]],
            array_map(static fn (array $n): array => [Desk::float($n['values']['x']), Desk::float($n['values']['y'])], $nodes),
        );
        self::assertCount(2, Desk::rows($state, 'wall'));
        self::assertCount(1, Desk::rows($state, 'opening'));

        // One of them goes up: its corner with the other is left to that one.
        $state = $this->desk->change([[
            'do' => 'toStorey',
            'toStorey' => ['things' => [['type' => 'wall', 'id' => Desk::rows($state, 'wall')[0]['id']]], 'storey' => $above['id']],
        ]]);
        self::assertSame([$above['id']], array_map(static fn (array $w): mixed => $w['values']['storey'], Desk::rows($state, 'wall')));
        self::assertCount(2, Desk::rows($state, 'node'));
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        self::assertCount(4, Desk::rows($this->desk->state(), 'wall'));
        self::assertSame(
            'gone',
            $this->desk->refused(409, [['do' => 'copy', 'copy' => ['things' => [['type' => 'wall', 'id' => Desk::newId()]], 'to' => $this->desk->storey]]])['code'],
        );
        self::assertSame(
            'gone',
            $this->desk->refused(409, [['do' => 'copy', 'copy' => ['things' => [['type' => 'wall', 'id' => $chain['walls'][0]]], 'to' => Desk::newId()]]])['code'],
        );
    }

    /** A project of many storeys need not be told at once: the first with all that lies on none, then the others, one by one. */
    public function testAProjectIsToldStoreyByStorey(): void
    {
        [$ground, $upper] = [$this->desk->storey, $this->storey('Upper', 2700.0)];
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $note = static fn (string $storey): array => [
            'do' => 'add',
            'type' => 'note',
            'id' => Desk::newId(),
            'values' => [
                'storey' => $storey,
                'x' => 0,
                'y' => 0,
                'toX' => null,
                'toY' => null,
                'words' => 'See the other sheet',
                'assumption' => false,
            ],
        ];
        $this->desk->change([$upper, $ring['operation'], Desk::door($ring['walls'][0], 1000, 900), $note($ground), $note($upper['id'])]);
        $this->desk->change([['do' => 'copy', 'copy' => ['storey' => $ground, 'to' => $upper['id']]]]);
        $whole = $this->desk->state();
        self::assertNull($whole['storeys']);
        $path = "/api/projects/{$this->desk->id}";
        foreach (['first', $ground, Desk::newId()] as $wanted) {
            $first = $this->desk->client->ok('GET', "$path?storey=$wanted");
            self::assertSame([$ground], $first['storeys'], $wanted);
            self::assertCount(2, Desk::rows($first, 'storey'), 'That there is another is known.');
            self::assertSame(
                [4, 4, 1],
                array_map(static fn (string $type): int => \count(Desk::rows($first, $type)), ['wall', 'node', 'opening']),
            );
            self::assertCount(3, Desk::rows($first, 'note'), 'Notes may stand on sides as well, and are all told at once.');
            self::assertSame([$ground], array_column((array) $first['derived'], 'storey'));
        }
        $first = $this->desk->client->ok('GET', "$path?storey=first");
        $then = $this->desk->client->ok('GET', "$path/changes?since={$this->desk->revision}&storey={$upper['id']}");
        self::assertSame([[$upper['id']], $this->desk->revision], [$then['storeys'], $then['revision']]);
        self::assertIsArray($first['rows']);
        self::assertIsArray($then['rows']);
        self::assertIsArray($whole['rows']);
        self::assertEqualsCanonicalizing(
            $whole['rows'],
            [...$first['rows'], ...$then['rows']],
            'Together they are all of it, and nothing twice.',
        );
        foreach ([$ground => $first, $upper['id'] => $then] as $storey => $told) {
            self::assertEquals($this->shapes($whole, $storey), $this->shapes($told, $storey));
        }
        // Beside what has changed meanwhile elsewhere.
        $since = $this->desk->revision;
        $this->desk->change([['do' => 'remove', 'type' => 'wall', 'id' => $ring['walls'][2]]]);
        $later = $this->desk->client->ok('GET', "$path/changes?since=$since&storey={$upper['id']}");
        self::assertIsArray($later['removed']);
        self::assertContains($ring['walls'][2], array_column($later['removed'], 'id'));
        self::assertEqualsCanonicalizing(
            [[$ground, false], [$upper['id'], true]],
            array_map(static fn (mixed $d): array => \is_array($d) ? [$d['storey'], $d['whole']] : [], (array) $later['derived']),
        );
        // One that is not there is told of by nobody.
        self::assertSame([], $this->desk->client->ok('GET', "$path/changes?since=$since&storey=".Desk::newId())['storeys']);
        $this->desk->client->refused(422, 'GET', "$path/changes?since=$since&storey=attic");
    }

    /** Whatever was drawn on a storey is copied or moved to another one by one operation, with what stands on it. */
    public function testAllThatWasDrawnIsCopiedOrMovedWithWhatStandsOnIt(): void
    {
        [$here, $upper] = [$this->desk->storey, $this->storey('Upper', 2700.0)];
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $add = static fn (string $type, array $values): array => [
            'do' => 'add', 'type' => $type, 'id' => Desk::newId(), 'values' => $values,
        ];
        $outline = $add('outline', ['storey' => $here, 'kind' => 'slab', 'name' => 'Floor']);
        $corner = static fn (int $i, float $x, float $y): array => $add('outlineCorner', [
            'outline' => $outline['id'], 'drawing' => null, 'order' => $i, 'x' => $x, 'y' => $y,
        ]);
        $lot = $add('boundary', ['storey' => $here, 'name' => 'Lot', 'x' => 0, 'y' => 0]);
        $note = $add('note', ['storey' => $here, 'x' => 0, 'y' => 0, 'toX' => 500, 'toY' => 0, 'words' => 'Look', 'assumption' => false]);
        $this->desk->change([
            $upper, $ring['operation'], Desk::door($ring['walls'][0], 1000, 900), $outline, $corner(0, 0, 0), $corner(1, 900, 0),
            $corner(2, 0, 900), $lot, $note,
            $add('leg', ['boundary' => $lot['id'], 'order' => 0, 'length' => '20', 'bearing' => '90', 'unit' => 'm']),
            $add('divider', ['storey' => $here, 'drawing' => null, 'x1' => 3000, 'y1' => 0, 'x2' => 3000, 'y2' => 4000, 'rise' => 200]),
            $add('column', ['storey' => $here, 'x' => 1500, 'y' => 2000, 'width' => 300, 'depth' => 300, 'round' => false]),
        ]);
        $this->desk->change([['do' => 'figure', 'figure' => [
            'id' => Desk::newId(), 'a' => $ring['walls'][1], 'b' => $ring['walls'][3], 'aSide' => 'left', 'bSide' => 'left',
            'text' => '5800', 'unit' => 'mm', 'decided' => 'ink', 'reason' => '', 'moves' => 'b',
        ]]]);
        $kinds = ['wall', 'node', 'opening', 'outline', 'outlineCorner', 'boundary', 'leg', 'note', 'divider', 'column', 'figure'];
        $counts = fn (int $times = 1): string => implode(' ', array_map(
            fn (string $type): float => \count(Desk::rows($this->desk->state(), $type)) / $times,
            $kinds,
        ));
        $once = $counts();
        self::assertSame('4 4 1 1 3 1 1 1 1 1 1', $once);
        $on = fn (string $storey, string $type): int => \count(array_filter(
            Desk::rows($this->desk->state(), $type),
            static fn (array $r): bool => $storey === $r['values']['storey'],
        ));
        $this->desk->change([['do' => 'copy', 'copy' => ['storey' => $here, 'to' => $upper['id'], 'by' => [100, 50]]]]);
        self::assertSame($once, $counts(2));
        $copied = array_values(array_filter(
            Desk::rows($this->desk->state(), 'note'),
            static fn (array $r): bool => $upper['id'] === $r['values']['storey'],
        ))[0]['values'];
        self::assertSame([100.0, 50.0, 600.0], array_map(Desk::float(...), [$copied['x'], $copied['y'], $copied['toX']]));
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        self::assertSame($once, $counts());

        // Some of it: an outline takes its corners along, and a wall that carries half a figure does not leave the other half.
        $this->desk->change([['do' => 'toStorey', 'toStorey' => [
            'things' => [['type' => 'outline', 'id' => $outline['id']], ['type' => 'note', 'id' => $note['id']]], 'storey' => $upper['id'],
        ]]]);
        self::assertSame([1, 1, 0], [$on($upper['id'], 'outline'), $on($upper['id'], 'note'), $on($upper['id'], 'divider')]);
        self::assertSame($once, $counts());
        $half = [
            ['things' => [['type' => 'wall', 'id' => $ring['walls'][1]]]],
            ['things' => [['type' => 'figure', 'id' => Desk::rows($this->desk->state(), 'figure')[0]['id']]]],
        ];
        foreach ($half as $alone) {
            $move = ['do' => 'toStorey', 'toStorey' => $alone + ['storey' => $upper['id']]];
            self::assertSame('stands-on-both', $this->desk->refused(409, [$move])['code']);
        }

        // All of it.
        $before = $this->desk->state();
        $this->desk->change([['do' => 'toStorey', 'toStorey' => ['from' => $here, 'storey' => $upper['id']]]]);
        self::assertSame($once, $counts());
        foreach (['wall', 'node', 'outline', 'boundary', 'note', 'divider', 'column', 'figure'] as $type) {
            self::assertSame(0, $on($here, $type), $type);
        }
        $regions = static fn (array $shapes): array => array_map(
            static fn (mixed $r): mixed => \is_array($r) ? $r['netAreaM2'] : null,
            \is_array($shapes['regions'] ?? null) ? array_values($shapes['regions']) : [],
        );
        self::assertSame([], $regions($this->shapes($this->desk->state(), $here)));
        self::assertEquals($regions($this->shapes($before, $here)), $regions($this->shapes($this->desk->state(), $upper['id'])));
        self::assertSame('not-on-storey', $this->desk->refused(422, [
            ['do' => 'toStorey', 'toStorey' => ['things' => [['type' => 'leg', 'id' => Desk::rows($before, 'leg')[0]['id']]], 'storey' => $here]],
        ])['code']);
    }

    /** A storey goes with all that lies on it, in one change, and comes back with it. */
    public function testAStoreyGoesWithAllThatLiesOnItAndComesBack(): void
    {
        $upper = $this->storey('Upper', 2700.0);
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $here = ['storey' => $this->desk->storey];
        $note = ['x' => 0, 'y' => 0, 'toX' => null, 'toY' => null, 'words' => 'Look', 'assumption' => false];
        $add = static fn (string $type, array $values): array => [
            'do' => 'add', 'type' => $type, 'id' => Desk::newId(), 'values' => $here + $values,
        ];
        $this->desk->change([
            $upper,
            $ring['operation'],
            Desk::door($ring['walls'][0], 1000, 900),
            $add('note', $note),
            $add('divider', ['drawing' => null, 'x1' => 3000, 'y1' => 0, 'x2' => 3000, 'y2' => 4000]),
            $add('room', ['drawing' => null, 'name' => 'Hall', 'number' => '1', 'x' => 1000, 'y' => 1000, 'height' => null]),
            $add('boundary', ['name' => 'Lot', 'x' => 0, 'y' => 0]),
            $add('outline', ['kind' => 'slab', 'name' => 'Floor']),
        ]);
        $before = $this->desk->state();
        $gone = $this->desk->change([['do' => 'remove', 'type' => 'storey', 'id' => $this->desk->storey]]);
        self::assertIsArray($gone['removed']);
        $types = array_count_values(array_filter(array_column($gone['removed'], 'type'), is_string(...)));
        self::assertSame([1, 4, 4, 1, 1], [$types['storey'], $types['wall'], $types['node'], $types['opening'], $types['outline']]);
        self::assertSame([$upper['id']], array_column(Desk::rows($this->desk->state(), 'storey'), 'id'));
        foreach (['wall', 'node', 'opening', 'room', 'divider', 'note', 'boundary', 'outline', 'drawing'] as $type) {
            self::assertSame([], Desk::rows($this->desk->state(), $type), $type);
        }
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        $after = $this->desk->state();
        $unrevised = static fn (array $state): array => array_map(
            static fn (mixed $row): mixed => \is_array($row) ? array_diff_key($row, ['revision' => true]) : $row,
            \is_array($state['rows']) ? $state['rows'] : [],
        );
        self::assertEqualsCanonicalizing($unrevised($before), $unrevised($after));
        self::assertEquals($this->shapes($before, $this->desk->storey), $this->shapes($after, $this->desk->storey));
        self::assertSame('in-use', $this->desk->refused(409, [
            ['do' => 'set', 'type' => 'storey', 'id' => $upper['id'], 'values' => ['alternativeOf' => $this->desk->storey]],
            ['do' => 'remove', 'type' => 'storey', 'id' => $this->desk->storey],
        ])['code'], 'One that another is an alternative of stays.');
    }

    /** What a storey adds up to is kept with it, and is what its shapes say after every edit and every step back. */
    public function testTheAreasThatAreToldAreThoseOfTheShapes(): void
    {
        $storey = $this->desk->storey;
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $inner = $this->desk->chain([[3000, 0], [3000, 4000]]);
        $column = [
            'do' => 'add',
            'type' => 'column',
            'id' => Desk::newId(),
            'values' => ['storey' => $storey, 'x' => 4500, 'y' => 2000, 'width' => 400, 'depth' => 500, 'round' => false],
        ];
        foreach ([
            [[$ring['operation']], 5.8 * 3.8, 6.2 * 4.2 - 5.8 * 3.8],
            [[$inner['operation']], 5.6 * 3.8, 6.2 * 4.2 - 5.6 * 3.8],
            [[$column], 5.6 * 3.8 - 0.2, 6.2 * 4.2 - 5.6 * 3.8 + 0.2],
            [[['do' => 'shift', 'shift' => ['wall' => $inner['walls'][0], 'left' => 400.0]]], 5.6 * 3.8 - 0.2, 6.2 * 4.2 - 5.6 * 3.8 + 0.2],
            [[['do' => 'remove', 'type' => 'wall', 'id' => $inner['walls'][0]]], 5.8 * 3.8 - 0.2, 6.2 * 4.2 - 5.8 * 3.8 + 0.2],
            [null, 5.6 * 3.8 - 0.2, 6.2 * 4.2 - 5.6 * 3.8 + 0.2],
        ] as $i => [$operations, $net, $structure]) {
            null === $operations ? $this->undo() : $this->desk->change($operations);
            $areas = JsonValue::of($this->desk->state()['derived'])->items()[0]->get('areas');
            $told = array_map(static fn (string $key): float => $areas->get($key)->number(), ['netFloorM2', 'structureM2', 'grossFloorM2']);
            self::assertEqualsWithDelta([$net, $structure, $net + $structure], $told, 1e-9, "Step $i");
        }
    }

    public function testTheRoomsTableAndTheCornersOfASideFollowWhatIsTraced(): void
    {
        [$storey, $side] = [$this->desk->storey, Desk::newId()];
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $this->desk->change([$ring['operation'],
            [
                'do' => 'add',
                'type' => 'room',
                'id' => Desk::newId(),
                'values' => ['storey' => $storey, 'drawing' => null, 'name' => 'Hall', 'number' => '7', 'x' => 3000, 'y' => 2000],
            ],
            [
                'do' => 'add',
                'type' => 'listedRoom',
                'id' => Desk::newId(),
                'values' => ['storey' => $storey, 'number' => '7', 'name' => 'Lobby', 'width' => null, 'depth' => null, 'areaM2' => 22.0],
            ],
            [
                'do' => 'add',
                'type' => 'side',
                'id' => $side,
                'values' => ['name' => 'South', 'fromX' => 0.0, 'fromY' => -1000.0, 'toX' => 9000.0, 'toY' => -1000.0],
            ],
        ]);
        $off = fn (): float => JsonValue::of(
            $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/$storey/rooms-table"),
        )->get('rows')->items()[0]->get('areaOffM2')->number();
        $reach = function () use ($side): float {
            $corners = JsonValue::of(
                $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/sides/$side/corners"),
            )->get('corners')->items();

            return max(0.0, ...array_map(static fn (JsonValue $c): float => $c->get('alongMm')->number(), $corners));
        };
        self::assertEqualsWithDelta([5.8 * 3.8 - 22.0, 6100.0], [$off(), $reach()], 1e-9);
        self::assertEqualsWithDelta([5.8 * 3.8 - 22.0, 6100.0], [$off(), $reach()], 1e-9, 'And again.');
        $this->desk->change([['do' => 'shift', 'shift' => ['wall' => $ring['walls'][1], 'left' => -500.0]]]);
        self::assertEqualsWithDelta([6.3 * 3.8 - 22.0, 6600.0], [$off(), $reach()], 1e-9, 'At once.');
        $this->undo();
        self::assertEqualsWithDelta([5.8 * 3.8 - 22.0, 6100.0], [$off(), $reach()], 1e-9, 'And back.');
    }

    /** @return array{do: string, type: string, id: string, values: array<string, mixed>} */
    private function storey(string $name, float $elevation): array
    {
        return [
            'do' => 'add',
            'type' => 'storey',
            'id' => Desk::newId(),
            'values' => ['name' => $name, 'elevation' => $elevation, 'height' => 2700.0, 'alternativeOf' => null],
        ];
    }

    /**
     * @param list<array{int, int}> $points
     *
     * @return list<array{do: string, type: string, id: string, values: array<string, mixed>}> nodes, then the walls that close the ring
     */
    private function copied(string $storey, array $points): array
    {
        $nodes = array_map(
            static fn (array $p): array => [
                'do' => 'add',
                'type' => 'node',
                'id' => Desk::newId(),
                'values' => ['storey' => $storey, 'drawing' => null, 'x' => $p[0], 'y' => $p[1]],
            ],
            $points,
        );
        $walls = [];
        foreach ($nodes as $i => $node) {
            $walls[] = [
                'do' => 'add',
                'type' => 'wall',
                'id' => Desk::newId(),
                'values' => [
                    'storey' => $storey,
                    'fromNode' => $node['id'],
                    'toNode' => $nodes[($i + 1) % \count($nodes)]['id'],
                    'thickness' => 200,
                    'line' => 'centre',
                    'evidence' => 'ink',
                ],
            ];
        }

        return [...$nodes, ...$walls];
    }

    private function undo(): void
    {
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
    }

    /**
     * @param array<mixed> $state
     *
     * @return list<float> of the rooms of all storeys, m², smallest first
     */
    private function netAreas(array $state): array
    {
        $areas = [];
        foreach (\is_array($state['derived']) ? $state['derived'] : [] as $derived) {
            self::assertIsArray($derived);
            self::assertIsArray($derived['regions']);
            array_push($areas, ...array_map(Desk::float(...), array_column($derived['regions'], 'netAreaM2')));
        }
        sort($areas);

        return $areas;
    }

    /**
     * @param array<mixed> $state
     *
     * @return array<string, array<array-key, array<mixed>>> walls by id, regions by key
     */
    private function shapes(array $state, string $storey): array
    {
        foreach (\is_array($state['derived']) ? $state['derived'] : [] as $derived) {
            self::assertIsArray($derived);
            if ($derived['storey'] !== $storey) {
                continue;
            }
            $shapes = [];
            foreach (['walls' => 'id', 'regions' => 'key'] as $kind => $by) {
                self::assertIsArray($derived[$kind]);
                $shapes[$kind] = array_column(array_filter($derived[$kind], is_array(...)), null, $by);
                foreach ($shapes[$kind] as &$shape) {
                    // A ring may begin at another corner; what it bounds is the same.
                    $shape['polygon'] = \is_array($shape['polygon'] ?? null) ? \count($shape['polygon']) : null;
                    if (\is_array($shape['walls'] ?? null)) {
                        sort($shape['walls']);
                    }
                }
                ksort($shapes[$kind]);
            }

            return $shapes;
        }
        self::fail('The storey has no shapes.');
    }

    /**
     * Ends of the only opening along its wall's middle, mm.
     *
     * @param array<string, array<array-key, array<mixed>>> $shapes
     *
     * @return list<array{float, float}>
     */
    private static function jambs(array $shapes): array
    {
        $openings = array_merge(
            ...array_map(
                static fn (array $wall): array => \is_array($wall['openings']) ? $wall['openings'] : [],
                array_values($shapes['walls']),
            ),
        );
        self::assertCount(1, $openings);
        self::assertIsArray($openings[0]);
        self::assertIsArray($openings[0]['polygon']);
        $xs = array_map(Desk::float(...), array_column($openings[0]['polygon'], 0));
        $ys = array_map(Desk::float(...), array_column($openings[0]['polygon'], 1));
        self::assertNotEmpty($ys);
        $x = array_sum($xs) / \count($xs);

        return [[$x, min($ys)], [$x, max($ys)]];
    }
}
