<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;

/** What a class of fire resistance is given to is enclosed; the key has it once, and what breaks it is told with what would mend it. */
final class EnclosureTest extends TestCase
{
    private Desk $desk;
    /** @var array<string, string> ids of rooms by name */
    private array $rooms = [];

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
        $ring = $this->desk->chain([[0, 0], [9000, 0], [9000, 4000], [0, 4000]], true);
        $inner = $this->desk->chain([[6000, 0], [6000, 4000]]);
        $rooms = [];
        foreach (['Hall' => 3000, 'Store' => 7500] as $name => $x) {
            $rooms[] = self::add('room', ['storey' => $this->desk->storey, 'name' => $name, 'number' => '', 'x' => $x, 'y' => 2000], $this->rooms[$name] = Desk::newId());
        }
        $this->desk->change([
            $ring['operation'], $inner['operation'], Desk::door($ring['walls'][0], 600, 1000, Desk::newId()), Desk::door($inner['walls'][0], 1500, 900, Desk::newId()),
            ...$rooms,
        ]);
    }

    /**
     * @param array<string, mixed> $values
     *
     * @return array<string, mixed>
     */
    private static function add(string $type, array $values, ?string $id = null): array
    {
        return ['do' => 'add', 'type' => $type, 'id' => $id ?? Desk::newId(), 'values' => $values];
    }

    /** @return array<string, mixed> */
    private static function class(string $name, string $id): array
    {
        return self::add('fireClass', ['name' => $name, 'colour' => '#d55e00', 'hatch' => 'rising'], $id);
    }

    /** @return list<array<string, mixed>> */
    private function enclosed(string $class, string $id, string ...$rooms): array
    {
        return [
            self::add('enclosure', ['storey' => $this->desk->storey, 'fireClass' => $class, 'line' => ''], $id),
            ...array_map(fn (string $room): array => self::add('enclosedRoom', ['enclosure' => $id, 'room' => $this->rooms[$room]]), array_values($rooms)),
        ];
    }

    /** @param list<array<string, mixed>> $operations */
    private function why(array $operations): string
    {
        return JsonValue::of($this->desk->refused(409, $operations))->get('error')->get('code')->text();
    }

    private function told(): JsonValue
    {
        return JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/enclosures"));
    }

    public function testAClassIsThereOnceAndWhatItEnclosesIsTold(): void
    {
        [$sixty, $ninety, $one, $other] = [Desk::newId(), Desk::newId(), Desk::newId(), Desk::newId()];
        $this->desk->change([self::class('REI 60', $sixty), self::class('REI 90', $ninety), ...$this->enclosed($sixty, $one, 'Hall')]);
        self::assertSame('class-is-there', $this->why([self::class('rei – 60', Desk::newId())]));
        self::assertSame('class-is-there', $this->why([['do' => 'set', 'type' => 'fireClass', 'id' => $ninety, 'values' => ['name' => 'rei60']]]));
        $this->desk->change([['do' => 'set', 'type' => 'fireClass', 'id' => $sixty, 'values' => ['name' => 'REI-60']]]);
        $told = $this->told();
        $inner = 5900.0 * 3800.0;
        self::assertEqualsWithDelta($told->get('areas')->items()[0]->get('areaM2')->number(), $told->get('totals')->items()[0]->get('areaM2')->number(), 1e-9);
        self::assertGreaterThan(0.95 * $inner / 1e6, $told->get('areas')->items()[0]->get('areaM2')->number());
        self::assertCount(2, $told->get('doors')->items());
        self::assertSame([], $told->get('findings')->items());
        // Another class over the same room, then allowed.
        $this->desk->change($this->enclosed($ninety, $other, 'Hall', 'Store'));
        self::assertSame(['overlap'], array_map(static fn (JsonValue $f): string => $f->get('code')->text(), $this->told()->get('findings')->items()));
        $this->desk->change([self::add('classesTogether', ['one' => $ninety, 'other' => $sixty])]);
        self::assertSame([], $this->told()->get('findings')->items());
    }

    public function testAnEnclosureGoesWithItsLastRoomAndAClassStaysWhileItIsUsed(): void
    {
        [$class, $id] = [Desk::newId(), Desk::newId()];
        $this->desk->change([self::class('EI 30', $class), ...$this->enclosed($class, $id, 'Hall', 'Store')]);
        self::assertSame('in-use', $this->why([['do' => 'remove', 'type' => 'fireClass', 'id' => $class]]));
        $this->desk->change([['do' => 'remove', 'type' => 'room', 'id' => $this->rooms['Hall']]]);
        self::assertCount(1, $this->told()->get('areas')->items());
        $this->desk->change([['do' => 'remove', 'type' => 'room', 'id' => $this->rooms['Store']]]);
        self::assertSame([], $this->told()->get('areas')->items());
        $this->desk->change([['do' => 'remove', 'type' => 'fireClass', 'id' => $class]]);
    }

    public function testWaysOutAreTellingWhatTheyRunInAndWhichLimitsTheyBreak(): void
    {
        [$class, $limit] = [Desk::newId(), Desk::newId()];
        $door = array_values(array_filter(Desk::rows($this->desk->state(), 'opening'), static fn (array $o): bool => 1000.0 === Desk::float($o['values']['width'])))[0]['id'];
        $this->desk->change([
            self::class('EI 30', $class), ...$this->enclosed($class, Desk::newId(), 'Hall'),
            ['do' => 'set', 'type' => 'opening', 'id' => $door, 'values' => ['exit' => 'final']],
            self::add('escapeLimit', ['measure' => 'toExit', 'bound' => 7000, 'standing' => 'the brief'], $limit),
        ]);
        $rooms = [];
        foreach (JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/escape"))->get('rooms')->items() as $room) {
            $rooms[$room->get('name')->text()] = $room;
        }
        self::assertSame([], $rooms['Hall']->get('broken')->items());
        self::assertSame('toExit', $rooms['Store']->get('broken')->items()[0]->get('measure')->text());
        $runs = $rooms['Store']->get('toFinal')->get('enclosed')->items();
        self::assertNull($runs[0]->optional('fireClass'));
        self::assertSame($class, $runs[1]->get('fireClass')->text());
        self::assertEqualsWithDelta($rooms['Store']->get('toFinal')->get('mm')->number(), $runs[0]->get('mm')->number() + $runs[1]->get('mm')->number(), 0.1);
        self::assertSame('limit-is-there', $this->why([self::add('escapeLimit', ['measure' => 'toExit', 'bound' => 9000, 'standing' => 'x'])]));
    }

    public function testAStoreyIsCopiedWithItsEnclosuresAndARoomAloneLeavesItsOwnBehind(): void
    {
        [$class, $upper] = [Desk::newId(), Desk::newId()];
        $this->desk->change([self::class('EI 30', $class), ...$this->enclosed($class, Desk::newId(), 'Hall', 'Store')]);
        $storey = self::add('storey', ['name' => 'Upper', 'elevation' => 2700, 'height' => 2700], $upper);
        $this->desk->change([$storey, ['do' => 'copy', 'copy' => ['storey' => $this->desk->storey, 'to' => $upper]]]);
        $areas = fn (): array => array_map(static fn (JsonValue $a): float => round($a->get('areaM2')->number(), 6), $this->told()->get('areas')->items());
        [$below, $above] = $areas();
        self::assertSame($below, $above);
        $hall = ['type' => 'room', 'id' => $this->rooms['Hall']];
        $this->desk->change([['do' => 'copy', 'copy' => ['things' => [$hall], 'to' => $upper, 'by' => [20_000, 0]]]]);
        self::assertSame([$below, $below], $areas());
        $moved = ['do' => 'toStorey', 'toStorey' => ['things' => [$hall], 'storey' => $upper]];
        self::assertSame('stands-on-both', $this->why([$moved]));
        $id = Desk::rows($this->desk->state(), 'enclosure')[0]['id'];
        $loft = self::add('room', ['storey' => $upper, 'name' => 'Loft', 'number' => '', 'x' => 0, 'y' => 9000], $this->rooms['Loft'] = Desk::newId());
        $this->desk->refused(422, [$loft, self::add('enclosedRoom', ['enclosure' => $id, 'room' => $this->rooms['Loft']])]);
        $this->desk->refused(422, [['do' => 'set', 'type' => 'room', 'id' => $this->rooms['Hall'], 'values' => ['storey' => $upper]]]);
        $this->desk->refused(422, $this->enclosed($class, Desk::newId()));
        // There and back goes round nothing.
        $values = ['storey' => $upper, 'fireClass' => $class, 'line' => '0 0; 900 0; 900 900; 900 0'];
        $this->desk->refused(422, [self::add('enclosure', $values)]);
        $this->desk->refused(422, [['do' => 'set', 'type' => 'enclosure', 'id' => $id, 'values' => ['line' => '0 0; 900 0; 900 900']]]);
    }

    public function testAFirePlanIsProposedDrawnAndHandedOver(): void
    {
        $class = Desk::newId();
        $proposal = "/api/projects/{$this->desk->id}/sheets/proposal?paper=A3&part=fire";
        self::assertSame('unusable-sheet', JsonValue::of($this->desk->client->refused(422, 'GET', $proposal))->get('error')->get('code')->text());
        $door = array_values(array_filter(Desk::rows($this->desk->state(), 'opening'), static fn (array $o): bool => 1000.0 === Desk::float($o['values']['width'])))[0]['id'];
        $this->desk->change([
            self::class('EI 30', $class), ...$this->enclosed($class, Desk::newId(), 'Hall'),
            ['do' => 'set', 'type' => 'opening', 'id' => $door, 'values' => ['exit' => 'final', 'rated' => 'EI2 30']],
        ]);
        $sheet = JsonValue::of($this->desk->client->ok('GET', $proposal))->get('sheets')->items()[0];
        $rows = [['do' => 'add', 'type' => 'printSheet', 'id' => $sheet->get('id')->text(), 'values' => $sheet->get('values')->map()]];
        foreach ($sheet->get('views')->items() as $view) {
            $rows[] = ['do' => 'add', 'type' => 'sheetView', 'id' => $view->get('id')->text(), 'values' => $view->get('values')->map()];
        }
        $this->desk->change($rows);
        $svg = $this->file("sheets/{$sheet->get('id')->text()}/sheet.svg");
        foreach (['FINAL EXIT', 'EI 30', 'stroke="#d55e00"', 'into the open air'] as $shown) {
            self::assertStringContainsString($shown, $svg);
        }
        $dxf = $this->file('building.dxf');
        self::assertStringContainsString('enclosures-EI 30', $dxf);
        self::assertStringContainsString('IFCZONE', $this->file('building.ifc'));
    }

    private function file(string $name): string
    {
        [$status, $body] = $this->desk->client->send('GET', "/api/projects/{$this->desk->id}/$name");
        self::assertSame(200, $status, $name);

        return Desk::text($body['text']);
    }
}
