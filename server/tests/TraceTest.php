<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Tests\Fitting\Noise;
use Plinth\Core\Tests\Plan\Plans;

/** Walls are moved, figured, split and joined with all that hangs on them, and clients are told what differs. */
final class TraceTest extends TestCase
{
    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
    }

    /** A wall traced twice, with its door; one too near beside another; and what mends them. */
    public function testWallsThatLieOnEachOtherAreMendedByOneAct(): void
    {
        $outer = $this->desk->chain([[0, 0], [8000, 0], [8000, 5000], [0, 5000]], true);
        $again = $this->desk->chain([[9000, 6], [-3, -4]]);
        $beside = $this->desk->chain([[2000, 4850], [6000, 4850]]);
        $this->desk->change([
            $outer['operation'],
            $again['operation'],
            $beside['operation'],
            Desk::door($outer['walls'][0], 1000.0, 900.0),
            Desk::door($again['walls'][0], 7100.0, 900.0),
            Desk::door($again['walls'][0], 3000.0, 900.0),
        ]);
        $found = function (): array {
            $mends = [];
            foreach (self::told($this->desk->state(), 'walls') as $wall) {
                self::assertIsArray($wall['findings']);
                foreach ($wall['findings'] as $finding) {
                    self::assertIsArray($finding);
                    if (null !== $finding['mend']) {
                        $mends[] = $finding['mend'];
                    }
                }
            }

            return $mends;
        };
        self::assertEqualsCanonicalizing(['merge', 'beside'], $found());
        $mend = static fn (string $a, string $b): array => ['do' => 'rework', 'rework' => ['kind' => 'mend', 'wall' => $a, 'other' => $b]];
        $this->desk->change([$mend($outer['walls'][0], $again['walls'][0]), $mend($beside['walls'][0], $outer['walls'][2])]);
        self::assertSame([], $found());
        self::assertNotContains(
            $outer['walls'][0],
            array_column(Desk::rows($this->desk->state(), 'wall'), 'id'),
            'The shorter of two that are one has gone.',
        );
        $doors = array_map(static fn (array $row): array => $row['values'], Desk::rows($this->desk->state(), 'opening'));
        self::assertCount(2, $doors, 'The door that both had is there once.');
        foreach ($doors as $door) {
            self::assertSame($again['walls'][0], $door['wall']);
        }
        $nodes = array_column(Desk::rows($this->desk->state(), 'node'), 'values', 'id');
        self::assertEqualsWithDelta(5000.0 - 200.0 - 0.01, $nodes[$beside['nodes'][0]]['y'], 1e-6);
        $this->desk->refused(422, [$mend($again['walls'][0], $again['walls'][0])]);
    }

    public function testAnEditTellsOnlyTheShapesThatDifferAndTheyAddUpToTheWhole(): void
    {
        // A row of ten rooms.
        $operations = [];
        for ($i = 0; $i < 10; ++$i) {
            $operations[] = $this->desk->chain([[$i * 4000, 0], [$i * 4000 + 4000, 0]])['operation'];
            $operations[] = $this->desk->chain([[$i * 4000, 5000], [$i * 4000 + 4000, 5000]])['operation'];
        }
        $inner = [];
        for ($i = 0; $i <= 10; ++$i) {
            $chain = $this->desk->chain([[$i * 4000, 0], [$i * 4000, 5000]]);
            $operations[] = $chain['operation'];
            $inner[] = $chain['walls'][0];
        }
        $state = $this->desk->change($operations);
        self::assertCount(10, self::told($state, 'regions'));
        $moved = $this->desk->change([['do' => 'shift', 'shift' => ['wall' => $inner[3], 'left' => 250.0]]]);
        self::assertCount(2, self::told($moved, 'regions'), 'The rooms on both sides.');
        self::assertCount(2, self::removed($moved, 'regions'));
        self::assertLessThan(12, \count(self::told($moved, 'walls')), 'Those that meet it, of thirty-one.');
        $whole = $this->desk->state();
        self::assertCount(10, self::told($whole, 'regions'));
        self::assertContains(self::told($moved, 'regions')[0]['key'] ?? '', array_column(self::told($whole, 'regions'), 'key'));
        // What is left out of one answer was the same before.
        $step = $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", [
            'id' => Desk::newId(),
            'known' => $this->desk->revision,
        ]);
        self::assertEqualsCanonicalizing(self::removed($moved, 'regions'), array_column(self::told($step, 'regions'), 'key'));
    }

    public function testAfterManyEditsWhatIsKeptIsWhatTheWholePlanGives(): void
    {
        $operations = $walls = $nodes = [];
        foreach (Plans::shaken(31, 5, 4) as $wall) {
            $ends = [];
            foreach ([$wall->from, $wall->to] as $p) {
                $key = \sprintf('%.3f,%.3f', $p->x, $p->y);
                if (!isset($nodes[$key])) {
                    $nodes[$key] = Desk::newId();
                    $operations[] = [
                        'do' => 'add',
                        'type' => 'node',
                        'id' => $nodes[$key],
                        'values' => ['storey' => $this->desk->storey, 'drawing' => null, 'x' => $p->x, 'y' => $p->y],
                    ];
                }
                $ends[] = $nodes[$key];
            }
            $walls[] = $id = Desk::newId();
            $operations[] = [
                'do' => 'add',
                'type' => 'wall',
                'id' => $id,
                'values' => [
                    'storey' => $this->desk->storey,
                    'fromNode' => $ends[0],
                    'toNode' => $ends[1],
                    'thickness' => $wall->thickness,
                    'line' => 'centre',
                    'evidence' => 'ink',
                ],
            ];
        }
        $this->desk->change($operations);
        Noise::seed(77);
        for ($i = 0; $i < 56; ++$i) {
            $k = (int) Noise::uniform(0, \count($walls) - 0.01);
            [$x, $y] = [Noise::uniform(1000, 19_000), Noise::uniform(1000, 13_000)];
            $piece = Desk::newId();
            $this->desk->change([match ($i % 7) {
                0 => ['do' => 'shift', 'shift' => ['wall' => $walls[$k], 'left' => Noise::uniform(-150, 150)]],
                1 => ['do' => 'set', 'type' => 'wall', 'id' => $walls[$k], 'values' => ['thickness' => Noise::uniform(80, 400)]],
                2 => ['do' => 'remove', 'type' => 'wall', 'id' => array_splice($walls, $k, 1)[0]],
                3 => $this->desk->chain([[$x, $y], [$x + 900, $y + 200]])['operation'],
                4 => [
                    'do' => 'add',
                    'type' => 'divider',
                    'id' => Desk::newId(),
                    'values' => [
                        'storey' => $this->desk->storey,
                        'drawing' => null,
                        'x1' => $x,
                        'y1' => $y,
                        'x2' => $x + 4000,
                        'y2' => $y + 300,
                    ],
                ],
                5 => [
                    'do' => 'rework',
                    'rework' => ['kind' => 'split', 'wall' => $walls[$k], 'along' => 450.0, 'node' => Desk::newId(), 'newWall' => $piece],
                ],
                default => [
                    'do' => 'add',
                    'type' => 'room',
                    'id' => Desk::newId(),
                    'values' => [
                        'storey' => $this->desk->storey,
                        'drawing' => null,
                        'name' => "Room $i",
                        'number' => '',
                        'x' => $x,
                        'y' => $y,
                    ],
                ],
            }]);
            if (5 === $i % 7) {
                $walls[] = $piece;
            }
        }
        $state = $this->desk->state();
        $document = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/plan.json");
        $plan = Derivation::of(PlanReader::read(json_encode($document, \JSON_THROW_ON_ERROR))->storeys[0]);
        $kept = array_map(
            static fn (array $r): string => \sprintf('%.4f %s', Desk::float($r['netAreaM2']), self::boundBy($r['id'], $r['walls'])),
            self::told($state, 'regions'),
        );
        $given = array_map(
            static fn (Region $r): string => \sprintf('%.4f %s', $r->netAreaMm2 / 1e6, self::boundBy($r->room?->id, $r->walls)),
            $plan->regions,
        );
        sort($given, \SORT_STRING);
        sort($kept, \SORT_STRING);
        self::assertSame($given, $kept);
        self::assertSameSize($plan->walls, self::told($state, 'walls'));
        self::assertIsArray($state['derived']);
        self::assertIsArray($state['derived'][0]);
        self::assertIsArray($state['derived'][0]['areas']);
        self::assertEqualsWithDelta($plan->areasMm2['grossFloor'] / 1e6, Desk::float($state['derived'][0]['areas']['grossFloorM2']), 1e-4);
    }

    public function testAWallThatIsMovedTakesItsCornersAlongAndOpeningsStayWithIt(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $middle = $this->desk->chain([[3000, 0], [3000, 4000]]);
        $this->desk->change([$ring['operation'], $middle['operation'], Desk::door($ring['walls'][2], 1000, 900, $door = Desk::newId())]);
        $this->desk->change([['do' => 'shift', 'shift' => ['wall' => $ring['walls'][2], 'left' => -500.0]]]);
        $nodes = array_column(Desk::rows($this->desk->state(), 'node'), 'values', 'id');
        self::assertEqualsWithDelta(4500.0, Desk::float($nodes[$ring['nodes'][2]]['y']), 1e-9);
        self::assertEqualsWithDelta(6000.0, Desk::float($nodes[$ring['nodes'][2]]['x']), 1e-9);
        self::assertEqualsWithDelta(4500.0, Desk::float($nodes[$middle['nodes'][1]]['y']), 1e-9, 'What ends on it follows.');
        $opening = array_column(Desk::rows($this->desk->state(), 'opening'), 'values', 'id')[$door];
        self::assertSame([$ring['walls'][2], 1000], [$opening['wall'], $opening['offset']]);
        // And a door that is moved alone changes the shape of its wall, no other.
        $state = $this->desk->change([['do' => 'set', 'type' => 'opening', 'id' => $door, 'values' => ['offset' => 2000]]]);
        self::assertSame([$ring['walls'][2]], array_column(self::told($state, 'walls'), 'id'));
        self::assertStringContainsString(
            '"polygon":[[4000,4600],[3100,4600],[3100,4400],[4000,4400]]',
            (string) json_encode(self::told($state, 'walls')),
        );
    }

    public function testADoorSaysWhereItLeadsForWhoEscapesAndHowItIsRated(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $state = $this->desk->change([$ring['operation'], Desk::door($ring['walls'][0], 1000, 900, $door = Desk::newId())]);
        $values = array_column(Desk::rows($state, 'opening'), 'values', 'id')[$door];
        self::assertSame(['none', ''], [$values['exit'], $values['rated']]);
        $this->desk->change([['do' => 'set', 'type' => 'opening', 'id' => $door, 'values' => ['exit' => 'final', 'rated' => ' FD 30 ']]]);
        $values = array_column(Desk::rows($this->desk->state(), 'opening'), 'values', 'id')[$door];
        self::assertSame(['final', 'FD 30'], [$values['exit'], $values['rated']]);
        $plan = JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/plan.json"));
        $told = $plan->get('storeys')->items()[0]->get('openings')->items()[0];
        self::assertSame(['final', 'FD 30'], [$told->get('exit')->text(), $told->get('rated')->text()]);
        foreach ([['exit' => 'roof'], ['rated' => str_repeat('R', 41)]] as $wrong) {
            $body = Desk::body([['do' => 'set', 'type' => 'opening', 'id' => $door, 'values' => $wrong]], $this->desk->revision);
            self::assertSame(422, $this->desk->client->send('POST', "/api/projects/{$this->desk->id}/changes", $body)[0]);
        }
    }

    /** Whichever end of a wall goes elsewhere: what was traced over a window stays over it, there and in the walls that it meets. */
    public function testOpeningsKeepTheirPlaceInTheBuildingWhereTheirWallBeginsElsewhere(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        [$south, $east] = $ring['walls'];
        $doors = [Desk::door($south, 1000, 900, $a = Desk::newId()), Desk::door($east, 1000, 900, $b = Desk::newId())];
        $this->desk->change([$ring['operation'], ...$doors]);
        // East along the south wall, north along the east wall.
        $places = function () use ($ring, $a, $b): array {
            $state = $this->desk->state();
            $openings = array_column(Desk::rows($state, 'opening'), 'values', 'id');
            $nodes = array_column(Desk::rows($state, 'node'), 'values', 'id');

            return [
                Desk::float($nodes[$ring['nodes'][0]]['x']) + Desk::float($openings[$a]['offset']),
                Desk::float($nodes[$ring['nodes'][1]]['y']) + Desk::float($openings[$b]['offset']),
            ];
        };
        $this->desk->change([['do' => 'shift', 'shift' => ['nodes' => [['id' => $ring['nodes'][0], 'x' => -500, 'y' => 0]]]]]);
        self::assertEqualsWithDelta([1000.0, 1000.0], $places(), 1e-9, 'The south wall was dragged half a metre out at its start.');
        $this->desk->change([['do' => 'shift', 'shift' => ['wall' => $south, 'left' => -300]]]);
        self::assertEqualsWithDelta([1000.0, 1000.0], $places(), 1e-9, 'The east wall begins further down; its door has not moved.');
        $all = array_map(static fn (array $n): array => [
            'id' => $n['id'], 'x' => Desk::float($n['values']['x']) + 700, 'y' => Desk::float($n['values']['y']) + 700,
        ], Desk::rows($this->desk->state(), 'node'));
        $this->desk->change([['do' => 'shift', 'shift' => ['nodes' => $all]]]);
        self::assertEqualsWithDelta([1700.0, 1700.0], $places(), 1e-9, 'What goes as a whole takes its openings along.');
    }

    /** A figure of an opening's width, and one along a wall, are kept like those between faces. */
    public function testAFigureOfAnOpeningOrAlongAWallIsKeptWithWhatWasDecided(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $door = Desk::door($ring['walls'][0], 1000, 900);
        $this->desk->change([$ring['operation'], $door]);
        $of = Desk::newId();
        $state = $this->desk->change([['do' => 'figure', 'figure' => [
            'id' => $of, 'opening' => $door['id'], 'text' => '885', 'unit' => 'mm', 'decided' => 'figure',
        ]]]);
        $opening = Desk::rows($state, 'opening')[0]['values'];
        self::assertSame([885.0, 1007.5], [Desk::float($opening['width']), Desk::float($opening['offset'])], 'Its middle stays.');
        $figure = Desk::rows($state, 'figure')[0]['values'];
        self::assertSame([$ring['walls'][0], $door['id']], [$figure['a'], $figure['opening']]);
        self::assertSame(900.0, Desk::float($figure['tracedMm']));
        // The ink holds after all, and then what was measured.
        $state = $this->desk->change([['do' => 'figure', 'figure' => ['id' => $of, 'decided' => 'ink']]]);
        self::assertSame(900.0, Desk::float(Desk::rows($state, 'opening')[0]['values']['width']));
        $state = $this->desk->change([['do' => 'figure', 'figure' => [
            'id' => $of, 'siteText' => '892', 'unit' => 'mm', 'decided' => 'site', 'reason' => 'taped',
        ]]]);
        self::assertSame(892.0, Desk::float(Desk::rows($state, 'opening')[0]['values']['width']));
        // Along the wall its end moves, and the door stays where it is in the building.
        $along = Desk::newId();
        $state = $this->desk->change([['do' => 'figure', 'figure' => [
            'id' => $along, 'a' => $ring['walls'][0], 'aSide' => 'centre', 'b' => $ring['walls'][0], 'bSide' => 'centre', 'text' => '6100',
            'unit' => 'mm', 'decided' => 'figure', 'moves' => 'a',
        ]]]);
        $node = array_column(Desk::rows($state, 'node'), 'values', 'id')[$ring['nodes'][0]];
        self::assertSame(-100.0, Desk::float($node['x']));
        self::assertEqualsWithDelta(1104.0, Desk::float(Desk::rows($state, 'opening')[0]['values']['offset']), 1e-9);
        // Settling asks nothing of them, and they go with what they tell of.
        $this->desk->change([['do' => 'settle', 'settle' => ['storey' => $this->desk->storey]]]);
        $gone = $this->desk->change([['do' => 'remove', 'type' => 'opening', 'id' => $door['id']]]);
        self::assertIsArray($gone['removed']);
        self::assertContains($of, array_column($gone['removed'], 'id'));
        self::assertSame([$along], array_column(Desk::rows($this->desk->state(), 'figure'), 'id'));
        self::assertSame('gone', $this->desk->refused(409, [['do' => 'figure', 'figure' => [
            'id' => Desk::newId(), 'opening' => $door['id'], 'text' => '885', 'unit' => 'mm', 'decided' => 'figure',
        ]]])['code']);
    }

    public function testAFigureBetweenFacesMovesTheWallThatIsNotHeldAndItsDecisionIsKept(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $this->desk->change([$ring['operation']]);
        $id = Desk::newId();
        // Inner faces of south and north: 3800 apart by the ink. The ring runs counter-clockwise, so inside is left.
        $figure = [
            'id' => $id,
            'a' => $ring['walls'][0],
            'aSide' => 'left',
            'b' => $ring['walls'][2],
            'bSide' => 'left',
            'text' => '3.85 m',
            'unit' => 'mm',
            'decided' => 'figure',
            'reason' => 'figured twice',
            'moves' => 'b',
        ];
        $this->desk->change([['do' => 'figure', 'figure' => $figure]]);
        $y = fn (int $i): float => Desk::float(
            array_column(Desk::rows($this->desk->state(), 'node'), 'values', 'id')[$ring['nodes'][$i]]['y'],
        );
        self::assertEqualsWithDelta(0.0, $y(0), 1e-9);
        self::assertEqualsWithDelta(4050.0, $y(2), 1e-9);
        $row = Desk::rows($this->desk->state(), 'figure')[0]['values'];
        self::assertEqualsWithDelta(3800.0, Desk::float($row['tracedMm']), 1e-9);
        self::assertSame(['figure', 'figured twice'], [$row['decided'], $row['reason']]);
        self::assertSame('figure', array_column(Desk::rows($this->desk->state(), 'wall'), 'values', 'id')[$ring['walls'][2]]['evidence']);
        // Measured on site it is something else, and that is decided; then the ink after all.
        $this->desk->change([[
            'do' => 'figure',
            'figure' => ['id' => $id, 'siteText' => '3 812', 'decided' => 'site', 'moves' => 'b', 'reason' => 'taped in March'],
        ]]);
        self::assertEqualsWithDelta(4012.0, $y(2), 1e-9);
        $this->desk->change([['do' => 'figure', 'figure' => ['id' => $id, 'decided' => 'ink', 'moves' => 'a']]]);
        self::assertEqualsWithDelta(12.0, $y(0), 1e-9);
        self::assertSame(
            'not-parallel',
            $this->desk->refused(422, [[
                'do' => 'figure',
                'figure' => ['id' => Desk::newId(), 'b' => $ring['walls'][1]] + $figure,
            ]])['code'],
        );
        self::assertSame(
            'unreadable-length',
            $this->desk->refused(422, [['do' => 'figure', 'figure' => ['text' => 'about four'] + $figure]])['code'],
        );
    }

    public function testWallsAreSplitJoinedTurnedRoundEndedAndCopied(): void
    {
        $wall = $this->desk->chain([[0, 0], [6000, 0]], false, 200, 'left');
        $across = $this->desk->chain([[2000, -3000], [2000, -800]]);
        $this->desk->change([
            $wall['operation'],
            $across['operation'],
            Desk::door($wall['walls'][0], 500, 900, $first = Desk::newId()),
            Desk::door($wall['walls'][0], 4500, 900, $second = Desk::newId()),
        ]);
        $opening = fn (string $id): array => array_column(Desk::rows($this->desk->state(), 'opening'), 'values', 'id')[$id];
        $split = ['kind' => 'split', 'wall' => $wall['walls'][0], 'node' => Desk::newId(), 'newWall' => $new = Desk::newId()];
        self::assertSame(
            'opening-on-cut',
            $this->desk->refused(422, [['do' => 'rework', 'rework' => ['along' => 4800.0] + $split]])['code'],
        );
        self::assertSame('off-wall', $this->desk->refused(422, [['do' => 'rework', 'rework' => ['along' => 6000.0] + $split]])['code']);
        $this->desk->change([['do' => 'rework', 'rework' => ['along' => 4000.0] + $split]]);
        self::assertSame([$new, 500], [$opening($second)['wall'], $opening($second)['offset']]);
        // Turned round first, so that the two meet head to head, they become one all the same.
        $this->desk->change([['do' => 'rework', 'rework' => ['kind' => 'reverse', 'wall' => $new]]]);
        self::assertSame([600, 'right', 'right'], [$opening($second)['offset'], $opening($second)['hand'], $opening($second)['swing']]);
        $this->desk->change([['do' => 'rework', 'rework' => ['kind' => 'join', 'wall' => $wall['walls'][0], 'other' => $new]]]);
        self::assertSame([$wall['walls'][0], 4500, 'left'], [
            $opening($second)['wall'],
            $opening($second)['offset'],
            $opening($second)['hand'],
        ]);
        self::assertSame(500, $opening($first)['offset']);
        // Drawn on to the first wall.
        $end = [[
            'do' => 'rework',
            'rework' => ['kind' => 'end', 'wall' => $across['walls'][0], 'atStart' => false, 'other' => $wall['walls'][0]],
        ]];
        $this->desk->change($end);
        self::assertSame('ends-there', $this->desk->refused(422, $end)['code'], 'Again it would change nothing.');
        $node = array_column(Desk::rows($this->desk->state(), 'node'), 'values', 'id')[$across['nodes'][1]];
        self::assertEqualsWithDelta(
            -100.0,
            Desk::float($node['y']),
            1e-9,
            'The left face was traced: the centre lies half a thickness to the right.',
        );
        $copy = $this->desk->change([[
            'do' => 'rework',
            'rework' => [
                'kind' => 'beside',
                'wall' => $across['walls'][0],
                'left' => 1500.0,
                'node' => Desk::newId(),
                'secondNode' => Desk::newId(),
                'newWall' => Desk::newId(),
            ],
        ]]);
        self::assertEqualsWithDelta(500.0, Desk::float(Desk::rows($copy, 'node')[0]['values']['x']), 1e-9);
        self::assertSame(
            'not-straight-on',
            $this->desk->refused(422, [[
                'do' => 'rework',
                'rework' => ['kind' => 'join', 'wall' => $wall['walls'][0], 'other' => $across['walls'][0]],
            ]])['code'],
        );
    }

    public function testATypedLengthMovesOneEndAndDoorsStayWhereTheyAre(): void
    {
        $wall = $this->desk->chain([[0, 0], [6000, 0]]);
        $this->desk->change([$wall['operation'], Desk::door($wall['walls'][0], 4000, 900)]);
        $this->desk->change([['do' => 'shift', 'shift' => ['wall' => $wall['walls'][0], 'length' => 5500.0, 'holds' => 'to']]]);
        $state = $this->desk->state();
        self::assertEqualsWithDelta(
            500.0,
            Desk::float(array_column(Desk::rows($state, 'node'), 'values', 'id')[$wall['nodes'][0]]['x']),
            1e-9,
        );
        self::assertEqualsWithDelta(3500.0, Desk::float(Desk::rows($state, 'opening')[0]['values']['offset']), 1e-9);
        self::assertSame('figure', Desk::rows($state, 'wall')[0]['values']['evidence']);
    }

    public function testAnotherThicknessLeavesTheTracedFaceWhereItIs(): void
    {
        $wall = $this->desk->chain([[0, 0], [6000, 0]], false, 200, 'left');
        $this->desk->change([$wall['operation']]);
        $this->desk->change([['do' => 'shift', 'shift' => ['walls' => $wall['walls'], 'thickness' => 300.0]]]);
        $node = array_column(Desk::rows($this->desk->state(), 'node'), 'values', 'id')[$wall['nodes'][0]];
        self::assertEqualsWithDelta(-150.0, Desk::float($node['y']), 1e-9);
    }

    public function testDividersColumnsAndArcsShapeRooms(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $this->desk->change([$ring['operation']]);
        $divider = [
            'do' => 'add',
            'type' => 'divider',
            'id' => $id = Desk::newId(),
            'values' => ['storey' => $this->desk->storey, 'drawing' => null, 'x1' => 3000, 'y1' => 100, 'x2' => 3000, 'y2' => 3900],
        ];
        $column = [
            'do' => 'add',
            'type' => 'column',
            'id' => Desk::newId(),
            'values' => ['storey' => $this->desk->storey, 'x' => 1000, 'y' => 1000, 'width' => 300, 'depth' => 300, 'round' => false],
        ];
        $state = $this->desk->change([$divider, $column]);
        $areas = array_map(Desk::float(...), array_column(self::told($state, 'regions'), 'netAreaM2'));
        sort($areas);
        self::assertEqualsWithDelta([2.9 * 3.8 - 0.09, 2.9 * 3.8], $areas, 1e-9);
        $this->desk->change([['do' => 'remove', 'type' => 'divider', 'id' => $id]]);
        // The east wall bulges outward by a metre: a circular segment more, by its inner face.
        $state = $this->desk->change([['do' => 'set', 'type' => 'wall', 'id' => $ring['walls'][1], 'values' => ['rise' => -1000]]]);
        $area = Desk::float(self::told($state, 'regions')[0]['netAreaM2'] ?? 0);
        // Inner radius 2.4 m about a point 1.5 m inside the chord x = 6 m, cut by the faces at ±1.9 m.
        $expected = (6.0 - 1.5 - 0.1) * 3.8 + 1.9 * sqrt(2.4 ** 2 - 1.9 ** 2) + 2.4 ** 2 * asin(1.9 / 2.4) - 0.09;
        self::assertEqualsWithDelta($expected, $area, 1e-4);
    }

    public function testALeakNamesTheEndThatMendsIt(): void
    {
        $open = $this->desk->chain([[0, 3800], [0, 0], [6000, 0], [6000, 4000], [-200, 4000]]);
        $room = [
            'do' => 'add',
            'type' => 'room',
            'id' => Desk::newId(),
            'values' => ['storey' => $this->desk->storey, 'drawing' => null, 'name' => 'Hall', 'number' => '1', 'x' => 3000, 'y' => 2000],
        ];
        $state = $this->desk->change([$open['operation'], $room]);
        $leak = self::told($state, 'unplaced')[0]['leak'] ?? null;
        self::assertIsArray($leak);
        self::assertIsArray($leak['walls']);
        self::assertEqualsWithDelta(100.0, Desk::float($leak['gapMm']), 1e-9);
        $state = $this->desk->change([[
            'do' => 'rework',
            'rework' => [
                'kind' => 'end',
                'wall' => $leak['walls'][0],
                'atStart' => 'from' === $leak['end'],
                'other' => $leak['walls'][1],
                'node' => Desk::newId(),
            ],
        ]]);
        self::assertCount(1, self::removed($state, 'unplaced'));
        self::assertSame($room['id'], self::told($state, 'regions')[0]['id'] ?? null);
    }

    /** A divider that goes part of the way is what is left to be closed, not the gap behind it. */
    public function testALeakEndsWhereSomethingStandsInTheWay(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $inner = $this->desk->chain([[3000, 0], [3000, 2500]]);
        $room = fn (string $number, float $x): array => [
            'do' => 'add',
            'type' => 'room',
            'id' => Desk::newId(),
            'values' => ['storey' => $this->desk->storey, 'drawing' => null, 'name' => 'Cell', 'number' => $number, 'x' => $x, 'y' => 2000],
        ];
        $this->desk->change([$ring['operation'], $inner['operation'], $room('1', 1500), $room('2', 4500)]);
        $gap = function (): float {
            $leaks = array_merge(...array_map(static function (array $r): array {
                self::assertIsArray($r['leaks']);

                return $r['leaks'];
            }, self::told($this->desk->state(), 'regions')));
            self::assertCount(1, $leaks);
            self::assertIsArray($leaks[0]);

            return Desk::float($leaks[0]['gapMm']);
        };
        self::assertEqualsWithDelta(1400.0, $gap(), 1e-6);
        $this->desk->change([[
            'do' => 'add',
            'type' => 'divider',
            'id' => Desk::newId(),
            'values' => ['storey' => $this->desk->storey, 'drawing' => null, 'x1' => 3000, 'y1' => 3300, 'x2' => 3000, 'y2' => 3900],
        ]]);
        self::assertEqualsWithDelta(800.0, $gap(), 1e-6);
    }

    public function testTheDrawingsOwnRoomsTableIsHeldAgainstTheTracing(): void
    {
        $ring = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $room = [
            'do' => 'add',
            'type' => 'room',
            'id' => Desk::newId(),
            'values' => [
                'storey' => $this->desk->storey,
                'drawing' => null,
                'name' => 'Tank room',
                'number' => '3',
                'x' => 3000,
                'y' => 2000,
            ],
        ];
        $this->desk->change([$ring['operation'], $room]);
        $rooms = $this->desk->client->ok('POST', '/api/rooms-table', [
            'text' => "3 Tank room 5.80 x 3.70 21.5 m²\n4 Loft 9 m²",
            'unit' => 'mm',
        ])['rooms'];
        self::assertIsArray($rooms);
        $this->desk->change(
            array_map(
                fn (mixed $r): array => [
                    'do' => 'add',
                    'type' => 'listedRoom',
                    'id' => Desk::newId(),
                    'values' => ['storey' => $this->desk->storey] + (\is_array($r) ? $r : []),
                ],
                array_values($rooms),
            ),
        );
        $rows = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/rooms-table")['rows'];
        self::assertIsArray($rows);
        self::assertIsArray($rows[0]);
        self::assertIsArray($rows[1]);
        self::assertNull($rows[0]['region'], 'The loft is not traced.');
        self::assertEqualsWithDelta([0.54, 0.0, 100.0], [$rows[1]['areaOffM2'], $rows[1]['widthOffMm'], $rows[1]['depthOffMm']], 1e-6);
        self::assertSame($room['id'], $rows[1]['room']);
    }

    public function testAProjectIsSharedToReadOrToEditAndTakenBack(): void
    {
        $stranger = Client::ofStack()->signIn('stranger@plinth.example');
        $project = "/api/projects/{$this->desk->id}";
        $stranger->refused(404, 'GET', $project);
        self::assertSame(
            'no-account',
            $this->desk->client->refused(422, 'PUT', "$project/shares", ['email' => 'nobody@plinth.example', 'role' => 'read'])['code'],
        );
        self::assertSame(
            'one-owner',
            $this->desk->client->refused(422, 'PUT', "$project/shares", ['email' => 'stranger@plinth.example', 'role' => 'owner'])['code'],
        );
        $this->desk->client->ok('PUT', "$project/shares", ['email' => 'stranger@plinth.example', 'role' => 'read']);
        self::assertSame('read', $stranger->ok('GET', $project)['role']);
        $chain = $this->desk->chain([[0, 0], [6000, 0]]);
        $body = Desk::body([$chain['operation']], $this->desk->revision);
        self::assertSame('read-only-project', $stranger->refused(403, 'POST', "$project/changes", $body)['code']);
        self::assertSame('read-only-project', $stranger->refused(403, 'POST', "$project/undo", ['id' => Desk::newId()])['code']);
        self::assertSame(
            'owner-only',
            $stranger->refused(403, 'PUT', "$project/shares", ['email' => 'stranger@plinth.example', 'role' => 'edit'])['code'],
        );
        $shares = $this->desk->client->ok('PUT', "$project/shares", ['email' => 'stranger@plinth.example', 'role' => 'edit'])['shares'];
        self::assertIsArray($shares);
        self::assertIsArray($shares[0]);
        self::assertSame('edit', $shares[0]['role']);
        $stranger->ok('POST', "$project/changes", $body);
        // The owner's next change is told with what came in between.
        $own = $this->desk->chain([[0, 9000], [6000, 9000]]);
        $state = $this->desk->change([$own['operation']]);
        self::assertEqualsCanonicalizing([...$chain['walls'], ...$own['walls']], array_column(Desk::rows($state, 'wall'), 'id'));
        self::assertIsString($shares[0]['id']);
        self::assertSame(204, $this->desk->client->send('DELETE', "$project/shares/{$shares[0]['id']}")[0]);
        $stranger->refused(404, 'GET', $project);
    }

    /** The room's name and what bounds it, in no order. */
    private static function boundBy(mixed $room, mixed $walls): string
    {
        self::assertIsArray($walls);
        $ids = array_filter($walls, is_string(...));
        sort($ids);

        return (\is_string($room) ? $room : '').' '.implode(',', $ids);
    }

    /**
     * @param array<mixed> $state
     *
     * @return list<array<mixed>>
     */
    private static function told(array $state, string $kind): array
    {
        self::assertIsArray($state['derived']);
        self::assertIsArray($state['derived'][0]);
        self::assertIsArray($state['derived'][0][$kind]);

        return array_values(array_filter($state['derived'][0][$kind], is_array(...)));
    }

    /**
     * @param array<mixed> $state
     *
     * @return list<mixed>
     */
    private static function removed(array $state, string $kind): array
    {
        self::assertIsArray($state['derived']);
        self::assertIsArray($state['derived'][0]);
        self::assertIsArray($state['derived'][0]['removed']);
        self::assertIsArray($state['derived'][0]['removed'][$kind]);

        return array_values($state['derived'][0]['removed'][$kind]);
    }
}
