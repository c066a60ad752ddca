<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\Enclosure;
use Plinth\Core\Plan\Model\EscapeLimit;
use Plinth\Core\Plan\Model\EscapeMeasure;
use Plinth\Core\Plan\Model\FireClass;
use Plinth\Core\Plan\Model\FireSafety;
use Plinth\Core\Plan\Model\Hatch;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Tests\Bodies\House;
use Plinth\Core\Tests\Plan\Plans;

final class PlanDocumentTest extends TestCase
{
    private const WALL = ['id' => 'a', 'from' => [0, 0], 'to' => [6000, 0], 'thickness' => 300];

    public function testWrittenAndReadBackItIsTheSame(): void
    {
        $json = json_encode(
            $this->document([
                'walls' => [self::WALL, ['id' => 'arc', 'rise' => 500, 'enclosing' => false] + self::WALL],
                'dividers' => [['id' => 'd', 'from' => [0, 0], 'to' => [0, 900]]],
                'columns' => [['id' => 'c', 'at' => [5, 6], 'width' => 300, 'depth' => 400, 'round' => true]],
                'openings' => [['id' => 'o', 'wall' => 'a', 'kind' => 'door', 'offset' => 1000, 'width' => 900]],
                'rooms' => [['id' => 'r', 'name' => 'Hütte', 'number' => '1', 'anchor' => [1, 2]]],
            ]),
            \JSON_THROW_ON_ERROR,
        );
        $plan = PlanReader::read($json);
        $again = json_encode(PlanWriter::document($plan, ['Sizes are a guess.']), \JSON_THROW_ON_ERROR);
        self::assertStringContainsString('"remarks":["Sizes are a guess."]', $again);
        self::assertEquals($plan, PlanReader::read($again));
        self::assertTrue($this->schemaAccepts($again), 'What is written keeps to the published schema.');
    }

    public function testAWholeBuildingIsReadBackAsItWas(): void
    {
        $plan = (new House(30.0, 40.0, 17.0))->plan();
        $json = json_encode(PlanWriter::document($plan), \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
        self::assertEquals($plan, PlanReader::read($json));
        self::assertTrue($this->schemaAccepts($json), 'What is written keeps to the published schema.');
    }

    /** What things are called on drawings goes along, and is what tables and the key say of a plan that came from a document. */
    public function testNumbersAndBuildUpsAreReadBackAndTold(): void
    {
        $house = (new House())->plan();
        $ground = $house->storeys[0];
        [$wall, $opening] = [$ground->walls[0]->id, $ground->openings[0]->id];
        $plan = new Plan($house->storeys, $house->finishes, $house->stairLimits, [$opening => '=D7'], [$wall => 'Wäsche “12”']);
        $json = json_encode(PlanWriter::document($plan), \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
        self::assertTrue($this->schemaAccepts($json));
        $read = PlanReader::read($json);
        self::assertEquals($plan, $read);
        $subject = new SheetSubject('House', $read);
        self::assertSame(['=D7', [$wall => 'Wäsche “12”'], [$wall => 0]], [$subject->numbers[$opening], $subject->buildUps, $subject->hatches]);
        // What a project says itself goes before.
        self::assertSame('D01', (new SheetSubject('House', $read, numbers: [$opening => 'D01']))->numbers[$opening]);
        $this->assertRefusedAt('storeys/0/openings/0/number', json_encode($this->document(['openings' => [
            ['id' => 'o', 'wall' => 'a', 'kind' => 'door', 'offset' => 0, 'width' => 900, 'number' => 'longer than twelve'],
        ]]), \JSON_THROW_ON_ERROR));
    }

    /** Where a door leads to for who escapes, and its class as it was typed. */
    public function testExitsAndRatedDoorsAreReadBack(): void
    {
        $wall = Plans::wall('a', 0, 0, 4000, 0);
        $doors = [
            new Opening('out', 'a', OpeningKind::Door, 100.0, 900.0, exit: DoorExit::Final, rated: 'FD 30-S'),
            new Opening('to stair', 'a', OpeningKind::Opening, 1500.0, 900.0, exit: DoorExit::Storey),
            new Opening('in', 'a', OpeningKind::Door, 2800.0, 900.0),
        ];
        $json = json_encode(PlanWriter::document(new Plan([Plans::storey([$wall], $doors)])), \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
        self::assertTrue($this->schemaAccepts($json));
        self::assertEquals($doors, PlanReader::read($json)->storeys[0]->openings);
        self::assertStringNotContainsString('none', $json, 'What is as usual is not said.');
        foreach ([['exit' => 'window'], ['rated' => str_repeat('R', 41)]] as $wrong) {
            $document = json_encode($this->document(['openings' => [
                ['id' => 'o', 'wall' => 'a', 'kind' => 'door', 'offset' => 0, 'width' => 900] + $wrong,
            ]]), \JSON_THROW_ON_ERROR);
            $this->assertRefusedAt('storeys/0/openings/0/'.array_key_first($wrong), $document);
            self::assertFalse($this->schemaAccepts($document));
        }
    }

    public function testWhatIsSaidOfFireIsReadBackAndAClassIsReadOnceHoweverItIsSpelled(): void
    {
        $storey = new Storey('s', 'Ground', 0.0, 2700.0, [new Wall('a', new Point(0.0, 0.0), new Point(4000.0, 0.0), 100.0)], rooms: [new Room('r', 'Hall', '', new Point(1.0, 1.0))]);
        $outline = new Contour([new Point(0.0, 0.0), new Point(1000.0, 0.0), new Point(1000.0, 500.0)], [0.0, 40.0, 0.0]);
        $fire = new FireSafety(
            [new FireClass('60', 'REI 60', '#d55e00', Hatch::Falling), new FireClass('30', 'EI 30', '#0072b2', Hatch::Crossed)],
            [new Enclosure('e', 's', '60', ['r']), new Enclosure('o', 's', '30', outline: $outline)],
            [['60', '30']],
            [new EscapeLimit(EscapeMeasure::Single, 10_000.0, 'the brief')],
        );
        $json = json_encode(PlanWriter::document(new Plan([$storey], fire: $fire)), \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
        self::assertEquals($fire, PlanReader::read($json)->fire);
        self::assertTrue($this->schemaAccepts($json));
        $document = static fn (string $fire): string => '{"format":"zesty-plinth/plan","version":2,"units":"mm","fire":'.$fire.',"storeys":[{"id":"s","rooms":[{"id":"r","name":"Hall","anchor":[1,1]}]}]}';
        $read = PlanReader::read($document('{"classes":[{"id":"a","name":"REI 60"},{"id":"b","name":"rei-60"},{"id":"c","name":"REI 90"}],"enclosures":[{"id":"x","storey":"s","class":"b","rooms":["r"]}]}'))->fire;
        self::assertSame([['a', 'REI 60'], ['c', 'REI 90']], array_map(static fn (FireClass $c): array => [$c->id, $c->name], $read->classes));
        self::assertSame('a', $read->enclosures[0]->class);
        foreach ([
            'fire/classes/0/name' => '{"classes":[{"id":"a","name":" - "}]}',
            'fire/classes/0/colour' => '{"classes":[{"id":"a","name":"A","colour":"red"}]}',
            'fire/enclosures/0/class' => '{"enclosures":[{"id":"x","storey":"s","class":"none","rooms":["r"]}]}',
            'fire/enclosures/0/storey' => '{"classes":[{"id":"a","name":"A"}],"enclosures":[{"id":"x","storey":"t","class":"a","rooms":["r"]}]}',
            'fire/enclosures/0/rooms/0' => '{"classes":[{"id":"a","name":"A"}],"enclosures":[{"id":"x","storey":"s","class":"a","rooms":["q"]}]}',
            'fire/enclosures/0/outline' => '{"classes":[{"id":"a","name":"A"}],"enclosures":[{"id":"x","storey":"s","class":"a"}]}',
            'fire/enclosures/1/outline' => '{"classes":[{"id":"a","name":"A"}],"enclosures":[{"id":"w","storey":"s","class":"a","rooms":["r"]},{"id":"x","storey":"s","class":"a","outline":[[0,0],[900,0],[0,0]]}]}',
            'fire/together/0' => '{"classes":[{"id":"a","name":"A"}],"together":[["a"]]}',
            'fire/limits/0/bound' => '{"limits":[{"measure":"angle","bound":181,"standing":"brief"}]}',
        ] as $at => $wrong) {
            $this->assertRefusedAt($at, $document($wrong));
        }
    }

    public function testWhatNoSchemaSaysIsRefusedWithItsPlaceToo(): void
    {
        $ring = [[0, 0], [6000, 0], [6000, 4000]];
        foreach ([
            'storeys/0/floors/0/finish' => ['floors' => [['id' => 'f', 'outline' => $ring, 'thickness' => 200, 'finish' => 300]]],
            'storeys/0/roofs/0/pitches' => [
                'roofs' => [['id' => 'r', 'outline' => $ring, 'pitches' => [30, null], 'eaves' => 2500, 'thickness' => 200]],
            ],
            'storeys/0/chimneys/0/top' => ['chimneys' => [['id' => 'c', 'outline' => $ring, 'base' => 3000, 'top' => 2000]]],
        ] as $at => $storey) {
            $this->assertRefusedAt($at, json_encode($this->document($storey), \JSON_THROW_ON_ERROR));
        }
    }

    public function testAnEarlierDocumentIsReadAndHoldsNothingOfALaterOne(): void
    {
        $first = ['version' => 1] + $this->document(['walls' => [self::WALL]]);
        self::assertCount(1, PlanReader::read(json_encode($first, \JSON_THROW_ON_ERROR))->storeys[0]->walls);
        foreach (['floors' => [], 'walls' => [['buildUp' => 'brick'] + self::WALL]] as $key => $value) {
            try {
                PlanReader::read(json_encode(['version' => 1] + $this->document([$key => $value]), \JSON_THROW_ON_ERROR));
                self::fail("$key is none of version 1.");
            } catch (UnreadableDocument $e) {
                self::assertStringStartsWith("storeys/0/$key", $e->at());
            }
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function breaches(): iterable
    {
        $ring = [[0, 0], [6000, 0], [6000, 4000]];
        yield 'a floor of two corners' => [['floors' => [['id' => 'f', 'outline' => [[0, 0], [1, 0]], 'thickness' => 200]]], 'storeys/0/floors/0/outline'];
        yield 'unknown key' => [['walls' => [self::WALL + ['colour' => 'red']]], 'storeys/0/walls/0/colour'];
        yield 'missing thickness' => [['walls' => [['id' => 'a', 'from' => [0, 0], 'to' => [1, 9]]]], 'storeys/0/walls/0/thickness'];
        yield 'thickness of zero' => [['walls' => [['thickness' => 0] + self::WALL]], 'storeys/0/walls/0/thickness'];
        yield 'a point of three' => [['walls' => [['from' => [0, 0, 0]] + self::WALL]], 'storeys/0/walls/0/from'];
        yield 'unknown line' => [['walls' => [['line' => 'middle'] + self::WALL]], 'storeys/0/walls/0/line'];
        yield 'leaf unknown' => [
            ['openings' => [['id' => 'o', 'wall' => 'a', 'kind' => 'door', 'offset' => 0, 'width' => 900, 'leaf' => 'triple']]],
            'storeys/0/openings/0/leaf',
        ];
        yield 'column without depth' => [['columns' => [['id' => 'c', 'at' => [5, 6], 'width' => 300]]], 'storeys/0/columns/0/depth'];
        yield 'a place beyond every grid' => [['walls' => [['to' => [0, 1.1e9]] + self::WALL]], 'storeys/0/walls/0/to/1'];
        yield 'an arc that hardly rises' => [['walls' => [['rise' => 1e-10] + self::WALL]], 'storeys/0/walls/0/rise'];
        yield 'text for a number' => [['elevation' => 'low'], 'storeys/0/elevation'];
    }

    /** @param array<string, mixed> $storey */
    #[DataProvider('breaches')]
    public function testReaderAndSchemaRefuseTheSame(array $storey, string $at): void
    {
        $json = json_encode($this->document($storey), \JSON_THROW_ON_ERROR);
        self::assertFalse($this->schemaAccepts($json));
        $this->assertRefusedAt($at, $json);
    }

    public function testWhatASchemaCannotSayIsRefusedToo(): void
    {
        foreach ([
            'storeys/0/walls/0/to' => ['walls' => [['to' => [0.5, 0]] + self::WALL]],
            'storeys/0/openings/0/wall' => ['openings' => [['id' => 'o', 'wall' => 'z', 'kind' => 'door', 'offset' => 0, 'width' => 900]]],
            'storeys/0/openings/0/width' => [
                'openings' => [['id' => 'o', 'wall' => 'a', 'kind' => 'door', 'offset' => 0, 'width' => 9000]],
            ],
            'storeys/0/rooms/0/id' => ['rooms' => [['id' => 'a', 'anchor' => [1, 2]]]],
            'storeys/0/dividers/0/to' => ['dividers' => [['id' => 'd', 'from' => [0, 0], 'to' => [0, 0.5]]]],
        ] as $at => $storey) {
            $this->assertRefusedAt($at, json_encode($this->document($storey), \JSON_THROW_ON_ERROR));
        }
        $this->assertRefusedAt(
            'storeys/0/walls/0/to',
            json_encode(
                $this->document(['walls' => [['from' => [5, 5], 'to' => [5, 5], 'rise' => 100] + self::WALL]]),
                \JSON_THROW_ON_ERROR,
            ),
        );
        $this->assertRefusedAt(
            'storeys/0/walls/0/to/0',
            str_replace('6000', '1e400', json_encode($this->document([]), \JSON_THROW_ON_ERROR)),
        );
        $this->assertRefusedAt('', '{"format":');
    }

    private function assertRefusedAt(string $at, string $json): void
    {
        try {
            PlanReader::read($json);
            self::fail("$at was accepted.");
        } catch (UnreadableDocument $e) {
            self::assertSame($at, $e->at());
        }
    }

    private function schemaAccepts(string $json): bool
    {
        $schema = json_decode(
            (string) file_get_contents(__DIR__.'/../../../docs/plan-format.schema.json'),
            false,
            64,
            \JSON_THROW_ON_ERROR,
        );
        self::assertIsObject($schema);

        return (new Validator())->validate(json_decode($json, false, 64, \JSON_THROW_ON_ERROR), $schema)->isValid();
    }

    /**
     * @param array<string, mixed> $storey
     *
     * @return array<string, mixed>
     */
    private function document(array $storey): array
    {
        return [
            'format' => 'zesty-plinth/plan',
            'version' => 2,
            'units' => 'mm',
            'storeys' => [$storey + ['id' => 's', 'name' => 'Ground', 'elevation' => 0, 'height' => 2700, 'walls' => [self::WALL]]],
        ];
    }
}
