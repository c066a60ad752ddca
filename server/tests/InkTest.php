<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Figure;
use Plinth\Core\Plan\Model\Line;

/** What the ink of a drawing shows is found, proposed and read; nothing is taken without consent, and what was refused stays refused. */
#[Group('ink')]
final class InkTest extends TestCase
{
    private const SCAN = __DIR__.'/../../demo/sallow-fen-ground';

    private Desk $desk;
    /** @var array<string, mixed> */
    private array $truth;
    private PixelToMm $map;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
        $truth = json_decode((string) file_get_contents(self::SCAN.'.truth.json'), true, 32, \JSON_THROW_ON_ERROR);
        self::assertIsArray($truth);
        /** @var array<string, mixed> $truth */
        $this->truth = $truth;
        $m = $truth['pixelToMm'];
        self::assertIsArray($m);
        $cell = static function (int $i, int $k) use ($m): float {
            self::assertIsArray($m[$i]);

            return Desk::float($m[$i][$k]);
        };
        $this->map = PixelToMm::ofMatrix([
            $cell(0, 0), $cell(0, 1), $cell(0, 2), $cell(1, 0), $cell(1, 1), $cell(1, 2), $cell(2, 0), $cell(2, 1), $cell(2, 2),
        ]);
        $this->desk->bringIn(self::SCAN.'.jpg');
        $this->desk->imported();
        $px = fn (float $x, float $y): array => $this->map->toPixel(new Point($x, $y))->toArray();
        [$a, $b] = [Desk::newId(), Desk::newId()];
        $pick = fn (string $id, array $at): array => [
            'do' => 'add',
            'type' => 'pick',
            'id' => $id,
            'values' => ['drawing' => $this->desk->drawing, 'x' => $at[0], 'y' => $at[1], 'sigmaPx' => 0.3],
        ];
        $this->desk->change([
            ...$this->desk->knownLength(
                [$px(0, 0), $px(13200, 0)],
                '13 200',
            ), ...$this->desk->knownLength([$px(0, 0), $px(0, 8600)], '8 600'),
            $pick($a, $px(0, 0)), $pick($b, $px(13200, 0)), [
                'do' => 'add',
                'type' => 'gridPick',
                'id' => Desk::newId(),
                'values' => ['drawing' => $this->desk->drawing, 'a' => $a, 'b' => $b, 'axis' => 'x'],
            ],
        ]);
    }

    /** @return array<mixed> once the search has left the worker */
    private function searched(string $what): array
    {
        $kind = 'proposals' === $what ? 'find-walls' : 'read-figures';
        $this->desk->ask($kind, $this->desk->drawing);
        $ended = $this->desk->ended($kind, $this->desk->drawing);
        self::assertSame('done', $ended->get('state')->text(), $ended->get('words')->text());
        $answer = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/$what");
        self::assertTrue($answer['found']);

        return $answer;
    }

    /**
     * @param array<mixed> $answer
     *
     * @return list<array<string, mixed>>
     */
    private static function items(array $answer, string $key): array
    {
        self::assertIsArray($answer[$key]);
        $items = [];
        foreach ($answer[$key] as $item) {
            self::assertIsArray($item);
            /** @var array<string, mixed> $item */
            $items[] = $item;
        }

        return $items;
    }

    /**
     * @param array<mixed> $answer
     *
     * @return array<string, mixed> the operation that lays all of it down
     */
    private function laid(array $answer): array
    {
        $walls = self::items($answer, 'walls');
        $index = array_flip(array_map(static fn (array $w): string => Desk::text($w['id']), $walls));

        return ['do' => 'lay', 'lay' => [
            'storey' => $this->desk->storey, 'drawing' => $this->desk->drawing,
            'walls' => array_map(
                static fn (array $w): array => ['from' => $w['from'], 'to' => $w['to'], 'thickness' => $w['thickness'], 'buildUp' => null],
                $walls,
            ),
            'openings' => array_map(
                static fn (array $o): array => [
                    'wall' => $index[Desk::text($o['wall'])],
                    'kind' => $o['kind'],
                    'offset' => $o['offset'],
                    'width' => $o['width'],
                    'sill' => 0.0,
                    'height' => 2100.0,
                    'leafAt' => $o['leafAt'],
                    'leafSide' => $o['leafSide'],
                ],
                self::items($answer, 'openings'),
            ),
            'columns' => [],
        ]];
    }

    public function testProposalsLaidDownInOneChangeMakeTheRoomsOfTheDrawing(): void
    {
        $answer = $this->searched('proposals');
        $walls = self::items($answer, 'walls');
        self::assertIsArray($this->truth['walls']);
        self::assertIsArray($this->truth['rooms']);
        self::assertGreaterThanOrEqual(\count($this->truth['walls']), \count($walls));
        $state = $this->desk->change([$this->laid($answer)]);

        // Within a hundredth of each area of the truth.
        $areas = array_map(
            static fn (array $r): float => Desk::float($r['netAreaM2']),
            self::items(['regions' => self::derived($state)['regions']], 'regions'),
        );
        self::assertCount(\count($this->truth['rooms']), $areas);
        foreach ($this->truth['rooms'] as $room) {
            self::assertIsArray($room);
            $off = array_map(static fn (float $a): float => abs($a / Desk::float($room['netArea']) - 1.0), $areas);
            self::assertLessThan(0.01, min([1.0, ...$off]), Desk::text($room['name']));
        }
        self::assertCount(12, Desk::rows($state, 'opening'));

        // What is traced is proposed no more; taken back it is again.
        self::assertSame(
            [],
            self::items(
                $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/proposals"),
                'walls',
            ),
        );
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId(), 'known' => $this->desk->revision]);
        self::assertCount(
            \count($walls),
            self::items(
                $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/proposals"),
                'walls',
            ),
        );
    }

    public function testOpeningsOfWallsThatAreTracedAlreadyAreOfferedAndLaidInThem(): void
    {
        $path = "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/proposals";
        $bare = $this->laid($this->searched('proposals'));
        self::assertIsArray($bare['lay']);
        $bare['lay']['openings'] = [];
        $state = $this->desk->change([$bare]);
        $walls = array_map(static fn (array $w): string => Desk::text($w['id']), Desk::rows($state, 'wall'));
        self::assertSame([], Desk::rows($state, 'opening'));

        $offered = self::items($this->desk->client->ok('GET', $path), 'inTraced');
        self::assertCount(12, $offered);
        self::assertSame([], array_diff(array_map(static fn (array $o): string => Desk::text($o['wall']), $offered), $walls));

        $refused = $this->desk->client->ok('POST', $path.'/refuse', ['things' => [$offered[0]['id']]]);
        self::assertCount(11, self::items($refused, 'inTraced'));
        $state = $this->desk->change([['do' => 'lay', 'lay' => [
            'storey' => $this->desk->storey, 'drawing' => $this->desk->drawing, 'walls' => [], 'columns' => [],
            'openings' => array_map(
                static fn (array $o): array => [
                    'on' => $o['wall'],
                    'sill' => 900.0,
                    'height' => null,
                    ...array_intersect_key($o, array_flip(['kind', 'offset', 'width', 'leafAt', 'leafSide'])),
                ],
                self::items($refused, 'inTraced'),
            ),
        ]]]);
        $rows = Desk::rows($state, 'opening');
        self::assertCount(11, $rows);
        self::assertCount(11, array_unique(array_map(static fn (array $o): string => Desk::text($o['values']['number']), $rows)));
        self::assertSame([], self::items($this->desk->client->ok('GET', $path), 'inTraced'));
    }

    public function testWhatWasRefusedStaysRefusedWhenItIsFoundAgain(): void
    {
        $walls = self::items($this->searched('proposals'), 'walls');
        $answer = $this->desk->client->ok(
            'POST',
            "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/proposals/refuse",
            ['things' => [$walls[0]['id']]],
        );
        self::assertCount(\count($walls) - 1, self::items($answer, 'walls'));
        self::assertSame(1, $answer['refused']);
        self::assertCount(\count($walls) - 1, self::items($this->searched('proposals'), 'walls'));
        $all = $this->desk->client->ok(
            'POST',
            "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/proposals/refuse",
            ['things' => []],
        );
        self::assertCount(\count($walls), self::items($all, 'walls'));
    }

    public function testAStopInTheMiddleLeavesNothingBehind(): void
    {
        $before = $this->desk->state()['revision'];
        $this->desk->ask('find-walls', $this->desk->drawing);
        $seen = 0.0;
        for ($i = 0; $i < 300 && $seen <= 0.002; ++$i) {
            usleep(40_000);
            $seen = $this->desk->progress('find-walls', $this->desk->drawing)->get('part')->number();
        }
        self::assertGreaterThan(0.0, $seen);
        self::assertLessThan(1.0, $seen, 'It was stopped in the middle.');
        self::assertSame('stopped', $this->desk->stop('find-walls', $this->desk->drawing));
        usleep(1_500_000);
        $answer = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/proposals");
        self::assertSame([false, [], [], []], [$answer['found'], $answer['walls'], $answer['openings'], $answer['columns']]);
        self::assertSame('stopped', $this->desk->progress('find-walls', $this->desk->drawing)->get('state')->text());
        self::assertSame($before, $this->desk->state()['revision']);
    }

    public function testAnotherFitAsksForAnotherSearch(): void
    {
        $this->searched('proposals');
        $px = fn (float $x, float $y): array => $this->map->toPixel(new Point($x, $y))->toArray();
        $this->desk->change($this->desk->knownLength([$px(0, 8600), $px(11000, 8600)], '10 950'));
        self::assertFalse(
            $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/proposals")['found'],
        );
    }

    public function testAClickOnADrawnWallGivesItWithItsThicknessAndBuildUp(): void
    {
        $buildUp = Desk::newId();
        $this->desk->change([[
            'do' => 'add',
            'type' => 'buildUp',
            'id' => $buildUp,
            'values' => ['name' => 'Partition', 'thickness' => 125.0, 'enclosing' => true],
        ]]);
        $fit = Desk::rows($this->desk->state(), 'fit')[0]['values'];
        $own = PixelToMm::ofMatrix([
            Desk::float($fit['m00']), Desk::float($fit['m01']), Desk::float($fit['m02']), Desk::float($fit['m10']),
            Desk::float($fit['m11']), Desk::float($fit['m12']), Desk::float($fit['m20']), Desk::float($fit['m21']),
            Desk::float($fit['m22']),
        ]);
        // In the partition between log room and kitchen.
        $at = $own->toMm($this->map->toPixel(new Point(9010.0, 2000.0)));
        $found = $this->desk->client->ok(
            'GET',
            "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/probe?x={$at->x}&y={$at->y}",
        )['found'];
        self::assertIsArray($found);
        self::assertEqualsWithDelta(120.0, $found['thickness'], 3.0);
        self::assertIsArray($found['buildUp']);
        self::assertSame($buildUp, $found['buildUp']['id'] ?? null);
        $paper = $own->toMm($this->map->toPixel(new Point(7000.0, 3700.0)));
        self::assertNull(
            $this->desk->client->ok(
                'GET',
                "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/probe?x={$paper->x}&y={$paper->y}",
            )['found'],
        );
        $this->desk->client->refused(422, 'GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/probe?x=abc&y=0");
    }

    public function testFiguresAndNamesAreReadAndTakenOnlyWhenStated(): void
    {
        $answer = $this->searched('readings');
        $texts = array_map(static fn (array $f): string => Desk::text($f['text']), self::items($answer, 'figures'));
        self::assertContains('11 000', $texts);
        self::assertContains('13 200', $texts);
        foreach (self::items($answer, 'figures') as $figure) {
            self::assertEqualsWithDelta(
                1.0,
                Desk::float($figure['spanMm']) / Desk::float($figure['mm']),
                0.02,
                Desk::text($figure['text']),
            );
        }
        self::assertIsArray($this->truth['rooms']);
        $names = array_map(static fn (array $r): string => Desk::text($r['name']), self::items($answer, 'rooms'));
        foreach ($this->truth['rooms'] as $room) {
            self::assertIsArray($room);
            self::assertContains(mb_strtoupper(Desk::text($room['name'])), $names);
        }
        self::assertCount(2, Desk::rows($this->desk->state(), 'knownLength'), 'Reading states nothing.');
        [$one, $two] = self::items($answer, 'figures');
        self::assertIsArray($two['a']);
        self::assertIsArray($two['b']);
        // Stated where it was read, it is proposed no more; another fit is another reading.
        $this->desk->change(
            $this->desk->knownLength(
                [[Desk::float($two['a'][0]), Desk::float($two['a'][1])], [Desk::float($two['b'][0]), Desk::float($two['b'][1])]],
                Desk::text($two['text']),
            ),
        );
        $readings = "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/readings";
        $left = self::items($this->desk->client->ok('GET', $readings), 'figures');
        self::assertNotContains($two['text'], array_column($left, 'text'));
        $one = $left[0];
        $rest = $this->desk->client->ok('POST', "$readings/refuse", ['readings' => [$one['id']]]);
        self::assertNotContains($one['id'], array_column(self::items($rest, 'figures'), 'id'));
        self::assertNotContains($one['text'], array_column(self::items($this->searched('readings'), 'figures'), 'text'));
    }

    public function testAFigureTypedOtherwiseThanItIsWrittenIsSaid(): void
    {
        $written = array_values(array_filter(self::items($this->searched('readings'), 'figures'), static fn (array $f): bool => '13 200' === $f['text']))[0];
        [$a, $b] = [JsonValue::of($written['a'])->pair(), JsonValue::of($written['b'])->pair()];
        $slips = fn (string $text): array => self::items($this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/try", [
            'base' => $this->desk->revision, 'operations' => $this->desk->knownLength([$a, $b], $text),
        ]), 'slips');
        self::assertSame([], $slips('13 200'));
        // Two digits swapped, which no factor and no wall explains.
        [$slip] = $slips('12 300');
        self::assertSame(['written', 'Over this stretch 13 200 is written.'], [$slip['code'], $slip['message']]);
        self::assertEqualsWithDelta(13_200.0, $slip['wouldBeMm'], 1e-6);
        // Refused as a reading, it speaks no more; what is stated still does.
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/readings/refuse", ['readings' => [$written['id']]]);
        [$slip] = $slips('12 300');
        self::assertSame('digits', $slip['code']);
    }

    public function testOneActSizesADrawingByItsFigures(): void
    {
        $size = [['do' => 'size', 'size' => ['drawing' => $this->desk->drawing]]];
        $before = Desk::rows($this->desk->state(), 'knownLength');
        $read = \count(self::items($this->searched('readings'), 'figures'));
        self::assertGreaterThan(6, $read);
        $this->desk->change($size);
        $state = $this->desk->state();
        $lengths = array_values(array_udiff(Desk::rows($state, 'knownLength'), $before, static fn (array $a, array $b): int => $a['id'] <=> $b['id']));
        self::assertCount($read, $lengths);
        self::assertNotContains(true, array_column(array_column($lengths, 'values'), 'heldOut'), 'All of them agree.');
        $axes = array_column(array_column(Desk::rows($state, 'gridPick'), 'values'), 'axis');
        sort($axes);
        self::assertSame(['x', 'x', 'y', 'y'], \array_slice($axes, -4), 'It is squared by the longest of either axis.');
        self::assertSame([], self::items($this->searched('readings'), 'figures'), 'None is left to take.');
        self::assertSame('no-figures', $this->desk->refused(422, $size)['code']);
        $fit = Desk::rows($state, 'fit')[0]['values'];
        self::assertLessThan(20.0, Desk::float($fit['plusMinusMmPer10m']));
        self::assertSame('similar', $fit['model'], 'A plain scan is neither stretched nor leaning.');
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        self::assertCount(\count($before), Desk::rows($this->desk->state(), 'knownLength'), 'And one step takes it back.');
    }

    public function testAStoreySettlesAsItWasPreviewedAndOpeningsStay(): void
    {
        $chain = $this->desk->chain([[0, 0], [6000, 12], [6008, 4000], [-5, 3990]], true, 200.0);
        $this->desk->change([$chain['operation'], Desk::door($chain['walls'][0], 1000.0, 900.0)]);
        $preview = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/settled");
        self::assertSame(4, $preview['straightened']);
        self::assertSame([], $preview['contradictions']);
        self::assertGreaterThan(3.0, $preview['largestMm']);
        self::assertLessThan(12.0, $preview['largestMm']);
        $state = $this->desk->change([['do' => 'settle', 'settle' => ['storey' => $this->desk->storey]]]);
        $nodes = array_column(Desk::rows($state, 'node'), 'values', 'id');
        foreach (self::items($preview, 'moves') as $move) {
            self::assertEqualsWithDelta(Desk::float($move['x']), $nodes[Desk::text($move['node'])]['x'], 1e-9);
        }
        self::assertEqualsWithDelta($nodes[$chain['nodes'][0]]['y'], $nodes[$chain['nodes'][1]]['y'], 1e-9);
        // The wall begins 2.5 mm further left; the door has stayed where it was.
        $door = Desk::rows($state, 'opening')[0]['values'];
        self::assertEqualsWithDelta(1000.0, Desk::float($nodes[$chain['nodes'][0]]['x']) + Desk::float($door['offset']), 0.01);
        self::assertSame(
            [],
            $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/settled")['moves'],
        );
    }

    public function testAContradictoryFigureIsNamed(): void
    {
        $outer = $this->desk->chain([[0, 0], [7200, 0], [7200, 5000], [0, 5000]], true, 100.0);
        $middle = $this->desk->chain([[3100, 0], [3100, 5000]], false, 100.0);
        $this->desk->change([$outer['operation'], $middle['operation']]);
        [$west, $east] = [$outer['walls'][3], $outer['walls'][1]];
        $figure = static fn (string $id, string $a, string $b, string $text): array => [
            'do' => 'figure',
            'figure' => [
                'id' => $id,
                'a' => $a,
                'aSide' => 'centre',
                'b' => $b,
                'bSide' => 'centre',
                'text' => $text,
                'unit' => 'mm',
                'decided' => 'open',
            ],
        ];
        [$overall, $left, $right] = [Desk::newId(), Desk::newId(), Desk::newId()];
        $this->desk->change([
            $figure($overall, $west, $east, '7200'),
            $figure($left, $west, $middle['walls'][0], '3100'),
            $figure($right, $middle['walls'][0], $east, '4130'),
        ]);
        // Decided without moving anything, as when two drawings are gone through.
        $this->desk->change(
            array_map(
                static fn (string $id): array => ['do' => 'set', 'type' => 'figure', 'id' => $id, 'values' => ['decided' => 'figure']],
                [$overall, $left, $right],
            ),
        );
        $contradictions = self::items(
            $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/settled"),
            'contradictions',
        );
        self::assertCount(1, $contradictions);
        self::assertSame($right, $contradictions[0]['culprit']);
        self::assertEqualsWithDelta(30.0, abs(Desk::float($contradictions[0]['byMm'])), 1e-6);
    }

    /** Two walls were parallel when the figure was decided, and one has been pulled aside since. */
    public function testAFigureWhoseWallsRunApartIsSaidToHoldNothing(): void
    {
        $outer = $this->desk->chain([[0, 0], [7200, 0], [7200, 5000], [0, 5000]], true, 100.0);
        $this->desk->change([$outer['operation']]);
        $figure = [
            'id' => Desk::newId(),
            'a' => $outer['walls'][3],
            'aSide' => 'centre',
            'b' => $outer['walls'][1],
            'bSide' => 'centre',
            'text' => '7200',
            'unit' => 'mm',
            'decided' => 'figure',
        ];
        $this->desk->change([['do' => 'figure', 'figure' => $figure]]);
        $ask = fn (): array => $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/settled");
        self::assertSame([[$figure['id']], []], [$ask()['held'], $ask()['unheld']]);
        $document = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/plan.json");
        $read = PlanReader::read(json_encode($document, \JSON_THROW_ON_ERROR))->storeys[0]->figures;
        self::assertEquals(
            [new Figure($figure['id'], $figure['a'], Line::Centre, $figure['b'], Line::Centre, 7200.0)],
            $read,
            'It goes out with the plan.',
        );
        $this->desk->change([['do' => 'set', 'type' => 'node', 'id' => $outer['nodes'][2], 'values' => ['x' => 7700.0]]]);
        self::assertSame([], $ask()['held']);
        $unheld = self::items($ask(), 'unheld');
        self::assertSame([$figure['id'], 'not parallel'], [$unheld[0]['figure'], $unheld[0]['why']]);
        self::assertEqualsWithDelta(rad2deg(atan2(500.0, 5000.0)), $unheld[0]['degrees'], 1e-6);
    }

    public function testReadersLookAndMayNotAskAndStrangersSeeNothing(): void
    {
        $stranger = Client::ofStack();
        $stranger->signIn('stranger@plinth.example');
        $stranger->refused(404, 'GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/proposals");
        $stranger->refused(404, 'GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/settled");
        $shares = self::items(
            $this->desk->client->ok('PUT', "/api/projects/{$this->desk->id}/shares", [
                'email' => 'stranger@plinth.example',
                'role' => 'read',
            ]),
            'shares',
        );
        self::assertFalse($stranger->ok('GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/proposals")['found']);
        foreach (['find-walls', 'read-figures'] as $kind) {
            $stranger->refused(403, 'POST', "/api/projects/{$this->desk->id}/jobs/$kind/{$this->desk->drawing}");
        }
        self::assertSame(
            204,
            $this->desk->client->send('DELETE', "/api/projects/{$this->desk->id}/shares/".Desk::text($shares[0]['id']))[0],
        );
    }

    /**
     * @param array<mixed> $state
     *
     * @return array<mixed>
     */
    private static function derived(array $state): array
    {
        self::assertIsArray($state['derived']);
        $first = array_values($state['derived'])[0] ?? null;
        self::assertIsArray($first);

        return $first;
    }
}
