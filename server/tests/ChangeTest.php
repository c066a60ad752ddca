<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;

/** Changes: each whole or not at all, conflicts only where two touch the same thing, undo and redo for ever. */
final class ChangeTest extends TestCase
{
    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
    }

    public function testTwoClientsOnDifferentWallsBothSucceedAndOnTheSameTheSecondIsTold(): void
    {
        $chain = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $this->desk->change([$chain['operation']]);
        $base = $this->desk->revision;
        $other = Client::ofStack()->signIn();
        $thicker = static fn (int $wall, int $mm): array => [[
            'do' => 'set',
            'type' => 'wall',
            'id' => $chain['walls'][$wall],
            'values' => ['thickness' => $mm],
        ]];
        $this->desk->change($thicker(0, 300), $base);
        $other->ok('POST', "/api/projects/{$this->desk->id}/changes", Desk::body($thicker(1, 250), $base));
        $refused = $other->refused(409, 'POST', "/api/projects/{$this->desk->id}/changes", Desk::body($thicker(0, 100), $base));
        self::assertSame('changed-since', $refused['code']);
        self::assertIsArray($refused['rows']);
        self::assertIsArray($refused['rows'][0]);
        self::assertIsArray($refused['rows'][0]['values']);
        self::assertSame(300, $refused['rows'][0]['values']['thickness'], 'The answer holds the wall as it is now.');
        $state = $other->ok('GET', "/api/projects/{$this->desk->id}/changes?since=$base");
        self::assertEqualsCanonicalizing(
            [300, 250],
            array_map(static fn (array $w): mixed => $w['values']['thickness'], Desk::rows($state, 'wall')),
        );
    }

    public function testWhatRefersToARowRemovedSinceIsToldSo(): void
    {
        $chain = $this->desk->chain([[0, 0], [6000, 0]]);
        $this->desk->change([$chain['operation']]);
        $base = $this->desk->revision;
        $this->desk->change([['do' => 'remove', 'type' => 'wall', 'id' => $chain['walls'][0]]]);
        self::assertSame('gone', $this->desk->refused(409, [Desk::door($chain['walls'][0], 100, 900)], $base)['code']);
    }

    public function testAWallTakesItsDoorsAlongButNotThoseThatSomebodyAddsMeanwhile(): void
    {
        $chain = $this->desk->chain([[0, 0], [6000, 0]]);
        $this->desk->change([$chain['operation'], Desk::door($chain['walls'][0], 100, 900)]);
        $remove = [['do' => 'remove', 'type' => 'wall', 'id' => $chain['walls'][0]]];
        $base = $this->desk->revision;
        $this->desk->change([Desk::door($chain['walls'][0], 3000, 900)]);
        self::assertSame('changed-since', $this->desk->refused(409, $remove, $base)['code']);
        $removed = $this->desk->change($remove)['removed'];
        self::assertIsArray($removed);
        self::assertSame(['node' => 2, 'opening' => 2, 'wall' => 1], array_count_values(array_column(self::sorted($removed), 'type')));
        $this->step('undo');
        self::assertCount(2, Desk::rows($this->desk->state(), 'opening'));
    }

    /**
     * @param array<mixed> $removed
     *
     * @return list<array{type: string}>
     */
    private static function sorted(array $removed): array
    {
        $types = [];
        foreach ($removed as $row) {
            self::assertIsArray($row);
            self::assertIsString($row['type']);
            $types[] = ['type' => $row['type']];
        }
        sort($types);

        return $types;
    }

    public function testWhatIsComposedOnOwnChangesStandsOnThemAndStillGoesOverNobody(): void
    {
        $chain = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000]]);
        $this->desk->change([$chain['operation']]);
        [$composed, $own] = [$this->desk->revision, Desk::newId()];
        $set = static fn (string $wall, int $mm): array => [[
            'do' => 'set',
            'type' => 'wall',
            'id' => $wall,
            'values' => ['thickness' => $mm],
        ]];
        $later = static fn (string $wall, int $mm): array => Desk::body($set($wall, $mm), $composed) + ['after' => [$own]];
        $this->desk->change($set($chain['walls'][0], 110), $composed, $own);
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/changes", $later($chain['walls'][0], 120));
        self::assertSame(
            'changed-since',
            $this->desk->refused(409, $set($chain['walls'][0], 130), $composed)['code'],
            'Without naming it, one’s own is another’s.',
        );
        // Somebody else's on another wall is no matter; on the same one it is.
        $this->desk->change($set($chain['walls'][1], 140));
        $refused = $this->desk->client->refused(409, 'POST', "/api/projects/{$this->desk->id}/changes", $later($chain['walls'][1], 150));
        self::assertSame('changed-since', $refused['code']);
        self::assertIsArray($refused['by']);
        self::assertSame(['Demo Desk', 'Test'], [$refused['by']['name'], $refused['by']['title']]);
        $this->desk->change([['do' => 'remove', 'type' => 'wall', 'id' => $chain['walls'][1]]]);
        $gone = $this->desk->client->refused(409, 'POST', "/api/projects/{$this->desk->id}/changes", $later($chain['walls'][1], 150));
        self::assertSame('gone', $gone['code']);
        self::assertIsArray($gone['by']);
        self::assertSame('Test', $gone['by']['title']);
    }

    public function testAnUndoTakesBackWhatItsAuthorWasToldOrNothing(): void
    {
        $first = $this->desk->change([$this->desk->chain([[0, 0], [6000, 0]])['operation']]);
        self::assertIsArray($first['steps']);
        self::assertSame(['id' => $first['change'], 'title' => 'Test'], $first['steps']['undo']);
        $this->desk->change([$this->desk->chain([[0, 9000], [6000, 9000]])['operation']]);
        $undo = static fn (mixed $target): array => ['id' => Desk::newId(), 'target' => $target];
        self::assertSame(
            'other-step',
            $this->desk->client->refused(409, 'POST', "/api/projects/{$this->desk->id}/undo", $undo($first['change']))['code'],
        );
        self::assertCount(2, Desk::rows($this->desk->state(), 'wall'));
    }

    public function testWorkKeptWhileSignedOutIsNotDoneInAnothersName(): void
    {
        $body = Desk::body([$this->desk->chain([[0, 0], [6000, 0]])['operation']], $this->desk->revision);
        $refused = $this->desk->client->refused(
            401,
            'POST',
            "/api/projects/{$this->desk->id}/changes",
            $body + ['account' => Desk::newId()],
        );
        self::assertSame('other-account', $refused['code']);
    }

    public function testTheSameChangeIdIsAnsweredWithTheFirstAnswer(): void
    {
        $chain = $this->desk->chain([[0, 0], [6000, 0]]);
        $id = Desk::newId();
        $first = $this->desk->change([$chain['operation']], null, $id);
        $again = $this->desk->change([$chain['operation']], null, $id);
        self::assertSame($first['changeRevision'], $again['changeRevision']);
        self::assertSame($first['rows'], $again['rows']);
        self::assertSame($first['revision'], $again['revision'], 'Nothing was done twice.');
    }

    public function testAChangeThatFailsInTheMiddleLeavesNothing(): void
    {
        $chain = $this->desk->chain([[0, 0], [6000, 0]]);
        $refused = $this->desk->refused(422, [$chain['operation'], Desk::door($chain['walls'][0], 0, 9000)]);
        self::assertSame('opening-too-wide', $refused['code']);
        $state = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}");
        self::assertSame([], Desk::rows($state, 'wall'));
        self::assertSame($this->desk->revision, $state['revision']);
    }

    public function testUndoAndRedoWalkTheWholeHistoryAndShapesFollow(): void
    {
        $chain = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true, 300, 'right');
        $this->desk->change([$chain['operation']]);
        $this->desk->change([Desk::door($chain['walls'][0], 1000.123456789012, 900)]);
        $before = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}");
        for ($i = 0; $i < 2; ++$i) {
            $this->step('undo');
        }
        self::assertSame(
            'nothing-left',
            $this->desk->client->refused(409, 'POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()])['code'],
        );
        self::assertSame([], Desk::rows($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}"), 'wall'));
        for ($i = 0; $i < 2; ++$i) {
            $this->step('redo');
        }
        $after = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}");
        foreach (['node', 'wall', 'opening'] as $type) {
            $values = static fn (array $state): array => array_column(Desk::rows($state, $type), 'values', 'id');
            self::assertEquals($values($before), $values($after), 'Every value is the same to the last digit.');
        }
        $shapes = static fn (array $state): mixed => \is_array($state['derived']) ? $state['derived'][0] : null;
        self::assertEqualsCanonicalizing($shapes($before), $shapes($after));
    }

    public function testGoingOnAfterAnUndoLeavesNothingToRedo(): void
    {
        $chain = $this->desk->chain([[0, 0], [6000, 0]]);
        $this->desk->change([$chain['operation']]);
        $this->desk->change([['do' => 'set', 'type' => 'wall', 'id' => $chain['walls'][0], 'values' => ['thickness' => 111]]]);
        $this->step('undo');
        $this->desk->change([['do' => 'set', 'type' => 'wall', 'id' => $chain['walls'][0], 'values' => ['thickness' => 99]]]);
        self::assertSame(
            'nothing-left',
            $this->desk->client->refused(409, 'POST', "/api/projects/{$this->desk->id}/redo", ['id' => Desk::newId()])['code'],
        );
    }

    public function testWallsLongerThanFiveMetresAreOneQuery(): void
    {
        $this->desk->change([$this->desk->chain([[0, 0], [6000, 0], [6000, 4000]])['operation']]);
        $pdo = Database::open();
        $found = $pdo->query(
            "SELECT COUNT(*) FROM wall w JOIN node f ON f.id = w.from_node JOIN node t ON t.id = w.to_node WHERE w.project = UNHEX('".str_replace('-', '', $this->desk->id)."') AND SQRT(POW(t.x - f.x, 2) + POW(t.y - f.y, 2)) > 5000",
        );
        self::assertNotFalse($found);
        self::assertEquals(1, $found->fetchColumn());
    }

    public function testEveryMistakeIsNamedWithItsPlace(): void
    {
        $chain = $this->desk->chain([[0, 0], [6000, 0]]);
        $this->desk->change([$chain['operation']]);
        $wall = $chain['walls'][0];
        $set = static fn (array $values): array => ['do' => 'set', 'type' => 'wall', 'id' => $wall, 'values' => $values];
        foreach ([
            [$set(['thickness' => 0]), 'operations/0/values/thickness'],
            [$set(['thickness' => 'thick']), 'operations/0/values/thickness'],
            [$set(['colour' => 'red']), 'operations/0/values/colour'],
            [$set(['xMin' => 5]), 'operations/0/values/xMin'],
            [$set(['toNode' => $chain['nodes'][0]]), 'operations/0/values/toNode'],
            [['do' => 'fly'], 'operations/0/do'],
            [['do' => 'add', 'type' => 'fit', 'id' => Desk::newId(), 'values' => []], 'operations/0/type'],
            [['do' => 'set', 'type' => 'wall', 'id' => 'x', 'values' => []], 'operations/0/id'],
            [['do' => 'set', 'type' => 'node', 'id' => $chain['nodes'][1], 'values' => ['x' => 0.2, 'y' => 0]], $wall],
            [
                [
                    'do' => 'trace',
                    'trace' => [
                        'points' => [[0, 0], [0, 0.5]],
                        'nodes' => [Desk::newId(), Desk::newId()],
                        'walls' => [Desk::newId()],
                    ] + self::trace($this->desk),
                ],
                'operations/0/trace/points/1',
            ],
        ] as [$operation, $at]) {
            self::assertSame($at, $this->desk->refused(422, [$operation])['at'], (string) json_encode($operation));
        }
        self::assertSame(
            'unreadable',
            $this->desk->client->refused(422, 'POST', "/api/projects/{$this->desk->id}/changes", ['id' => 'x'])['code'],
        );
    }

    /** @return array<string, mixed> */
    private static function trace(Desk $desk): array
    {
        return ['storey' => $desk->storey, 'line' => 'centre', 'thickness' => 100];
    }

    private function step(string $which): void
    {
        $this->desk->revision = Desk::int(
            $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/$which", ['id' => Desk::newId()])['revision'],
        );
    }
}
