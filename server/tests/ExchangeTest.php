<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Exchange\Zip\ZipReader;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Tests\Bodies\House;

/** The whole building as files that other programs read, as it is at the time. */
final class ExchangeTest extends TestCase
{
    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
        $round = $this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $this->desk->change([$round['operation'], Desk::door($round['walls'][0], 1000.0, 900.0)]);
    }

    private function file(string $name): string
    {
        [$status, $body] = $this->desk->client->send('GET', "/api/projects/{$this->desk->id}/$name");
        self::assertSame(200, $status, $name);

        return Desk::text($body['text']);
    }

    public function testTheBuildingLeavesAsIfcAndIsTheSameFileUntilItChanges(): void
    {
        $ifc = $this->file('building.ifc');
        self::assertStringStartsWith('ISO-10303-21;', $ifc);
        self::assertSame([4, 1, 1], [substr_count($ifc, '=IFCWALL('), substr_count($ifc, '=IFCDOOR('), substr_count($ifc, '=IFCSPACE(')]);
        // What it was traced from is said in it.
        self::assertStringContainsString("IFCPROPERTYSET('", $ifc);
        self::assertStringContainsString("'TracedFrom'", $ifc);
        self::assertSame($ifc, $this->file('building.ifc'));
        $this->desk->change([$this->desk->chain([[1000, 2000], [5000, 2000]])['operation']]);
        $after = $this->file('building.ifc');
        self::assertSame(5, substr_count($after, '=IFCWALL('));
        preg_match_all("/=IFCWALL\\('([^']+)'/", $ifc, $before);
        preg_match_all("/=IFCWALL\\('([^']+)'/", $after, $now);
        self::assertSame([], array_diff($before[1], $now[1]), 'Walls keep what they are known by.');
    }

    public function testTablesAndMapLeaveWithWhatIsTraced(): void
    {
        self::assertStringStartsWith('PK', $this->file('tables.xlsx'));
        self::assertStringContainsString('application/vnd.oasis.opendocument.spreadsheet', substr($this->file('tables.ods'), 0, 120));
        $path = (string) tempnam(sys_get_temp_dir(), 'zip');
        file_put_contents($path, $this->file('tables.zip'));
        $zip = new \ZipArchive();
        self::assertTrue($zip->open($path));
        $walls = (string) $zip->getFromName('walls.csv');
        $zip->close();
        unlink($path);
        self::assertCount(1 + 4, array_filter(explode("\r\n", $walls), static fn (string $l): bool => '' !== $l));
        $map = JsonValue::parse($this->file('plan.geojson'));
        self::assertCount(1 + 4, $map->get('features')->items());
    }

    /** A scan that two lengths hold and one checks, and a figure on it: told with what is left over, as the ledger tells it. */
    public function testWhatThePlanRestsOnIsInTheTables(): void
    {
        $this->desk->bringIn(__DIR__.'/../../demo/sallow-fen-ground.jpg', '=scan.jpg');
        $this->desk->change([
            ...$this->desk->knownLength([[100, 100], [1100, 100]], '10 000'), ...$this->desk->knownLength([[100, 100], [100, 700]], '6 000'),
        ]);
        $check = Desk::newId();
        $this->desk->change($this->desk->knownLength([[100, 700], [1100, 700]], '10 050', $check));
        $this->desk->change([['do' => 'set', 'type' => 'knownLength', 'id' => $check, 'values' => ['heldOut' => true]]]);
        $wall = Desk::rows($this->desk->state(), 'wall')[0]['id'];
        $this->desk->change([['do' => 'add', 'type' => 'figure', 'id' => Desk::newId(), 'values' => [
            'storey' => $this->desk->storey, 'drawing' => $this->desk->drawing, 'a' => $wall, 'aSide' => 'left', 'b' => $wall, 'bSide' => 'right',
            'opening' => null, 'text' => '5 980', 'mm' => 5980, 'tracedMm' => 5800, 'siteText' => '', 'siteMm' => null, 'decided' => 'ink', 'reason' => '="moved"',
        ]]]);
        $path = (string) tempnam(sys_get_temp_dir(), 'zip');
        file_put_contents($path, $this->file('tables.zip'));
        $zip = ZipReader::open($path, 10_000_000);
        $told = static fn (string $name): array => array_map(static fn (string $l): array => str_getcsv($l, ',', '"', ''), \array_slice(explode("\r\n", trim($zip->text($name, 10_000_000))), 1));
        $lengths = $told('known lengths.csv');
        self::assertSame([['10 000', 'holds the fit'], ['6 000', 'holds the fit'], ['10 050', 'check']], array_map(static fn (array $l): array => [$l[1], $l[6]], $lengths));
        // 10 mm a pixel: the check is figured 50 mm more than it reads.
        self::assertEqualsWithDelta([10_050.0, 10_000.0, -50.0], array_map(floatval(...), [$lengths[2][2], $lengths[2][3], $lengths[2][4]]), 0.2);
        self::assertSame(['5 980', '5980', '5800', '-180', '', 'ink', "'=\"moved\""], \array_slice($told('figured against traced.csv')[0], 1));
        self::assertSame("'=scan", $told('drawings.csv')[0][0]);
        unlink($path);
    }

    public function testPlansLeaveAsDxfOneByOneOrTogetherWithWhatIsDrawnOnThem(): void
    {
        $this->desk->change([['do' => 'add', 'type' => 'note', 'id' => Desk::newId(), 'values' => [
            'storey' => $this->desk->storey, 'side' => null, 'x' => 3000, 'y' => 2000, 'words' => 'sound floor', 'toX' => null, 'toY' => null, 'assumption' => false,
        ]]]);
        $one = $this->file("storeys/{$this->desk->storey}/plan.dxf");
        self::assertSame([1, 1], [substr_count($one, "sound floor\r\n"), substr_count($one, "  0\r\nARC\r\n") + substr_count($one, "\r\n0\r\nARC\r\n")]);
        self::assertStringContainsString("8\r\nwalls\r\n", $one);
        $all = $this->file('building.dxf?layers=iso13567');
        self::assertStringContainsString("8\r\nA-WALL--E-\r\n", $all);
        self::assertStringNotContainsString("8\r\nwalls\r\n", $all);
        self::assertSame('no-layers', $this->desk->client->refused(422, 'GET', "/api/projects/{$this->desk->id}/building.dxf?layers=mine")['code']);
    }

    /** @return JsonValue what was told of a document that was taken into a project in which nothing has been done yet: its blank storey goes */
    private static function taken(Desk $desk, string $document): JsonValue
    {
        $read = JsonValue::of($desk->client->ok('POST', "/api/projects/$desk->id/document", JsonValue::parse($document)->map()));
        $desk->change(array_map(static fn (JsonValue $o): array => $o->map(), $read->get('operations')->items()));

        return $read;
    }

    /** The demo's lodge and a house with mouldings, stairs, dividers: out of one project as a document, into an empty one, and the same again. */
    public function testAPlanDocumentComesBackAsItWentOut(): void
    {
        $house = json_encode(PlanWriter::document((new House())->plan()), \JSON_THROW_ON_ERROR);
        foreach (['lodge' => (string) file_get_contents(__DIR__.'/../../demo/reedmace-lodge.json'), 'house' => $house] as $name => $document) {
            $first = new Desk(Client::ofStack()->signIn());
            self::taken($first, $document);
            $plan = PlanReader::read($document);
            $set = $first->client->ok('GET', "/api/projects/$first->id/sheets/proposal?paper=A2");
            $sheets = [];
            foreach (JsonValue::of($set['sheets'])->items() as $sheet) {
                $sheets[] = ['do' => 'add', 'type' => 'printSheet', 'id' => $sheet->get('id')->text(), 'values' => $sheet->get('values')->map()];
                foreach ($sheet->get('views')->items() as $view) {
                    $sheets[] = ['do' => 'add', 'type' => 'sheetView', 'id' => $view->get('id')->text(), 'values' => $view->get('values')->map()];
                }
            }
            $first->change($sheets);
            $out = $this->fileOf($first, 'plan.json');
            $second = new Desk(Client::ofStack()->signIn());
            self::assertSame([], self::taken($second, $out)->get('left')->items(), $name);
            self::assertSame($out, $this->fileOf($second, 'plan.json'), "$name: byte for byte");
            self::assertSame($this->fileOf($first, 'tables.zip'), $this->fileOf($second, 'tables.zip'), $name);
            $again = PlanReader::read($out);
            $bodies = static fn (Plan $of): array => array_map(static fn (Body $b): string => \sprintf('%s %.0f', $b->kind->value, $b->form->volume() / 1000.0), BuildingBodies::of($of));
            $sorted = static function (array $list): array {
                sort($list);

                return $list;
            };
            self::assertSame($sorted($bodies($plan)), $sorted($bodies($again)), "$name: the same bodies");
        }
    }

    private function fileOf(Desk $desk, string $name): string
    {
        [$status, $body] = $desk->client->send('GET', "/api/projects/$desk->id/$name");
        self::assertSame(200, $status, $name);

        return isset($body['text']) ? Desk::text($body['text']) : json_encode($body, \JSON_THROW_ON_ERROR);
    }

    public function testADocumentThatBreaksTheFormatIsRefusedWithItsPlaceAndLeavesNothing(): void
    {
        $path = "/api/projects/{$this->desk->id}/document";
        $head = ['format' => 'zesty-plinth/plan', 'version' => 2, 'units' => 'mm'];
        $wall = ['id' => 'a', 'from' => [0, 0], 'to' => [6000, 0], 'thickness' => 300];
        $storey = ['id' => 'g', 'name' => 'Ground', 'elevation' => 0, 'height' => 2700, 'walls' => [$wall]];
        $before = $this->desk->state()['revision'];
        foreach ([
            [['format' => 'another/plan'] + $head, 'format'],
            [$head + ['storeys' => [['walls' => [['to' => 'there'] + $wall]] + $storey]], 'storeys/0/walls/0/to'],
            [$head + ['storeys' => [$storey, $storey]], 'storeys/1/id'],
            [$head + ['storeys' => [$storey], 'shed' => []], 'shed'],
        ] as [$document, $at]) {
            $refused = $this->desk->client->refused(422, 'POST', $path, $document);
            self::assertStringContainsString($at, Desk::text($refused['at']).' '.Desk::text($refused['message']));
        }
        self::assertSame($before, $this->desk->state()['revision']);
        // Where something is traced already its ids may be taken: things get new ones.
        $read = $this->desk->client->ok('POST', $path, $head + ['storeys' => [['id' => $this->desk->storey] + $storey]]);
        self::assertSame([1, 1], [$read['storeys'], $read['walls']]);
        $operations = JsonValue::of($read['operations'])->items();
        self::assertNotSame($this->desk->storey, $operations[0]->get('id')->text());
        self::assertSame(['storey', 'node', 'node', 'wall'], array_map(static fn (JsonValue $o): string => $o->get('type')->text(), $operations));
    }

    public function testOnlyWhoMayReadTheProjectGetsThem(): void
    {
        $stranger = (new Client((string) getenv('PLINTH_ADDRESS')))->signIn('stranger@plinth.example');
        foreach (['building.ifc', 'building.dxf', 'tables.ods', 'tables.xlsx', 'tables.zip', 'plan.geojson'] as $name) {
            $stranger->refused(404, 'GET', "/api/projects/{$this->desk->id}/$name");
            Client::ofStack()->refused(401, 'GET', "/api/projects/{$this->desk->id}/$name");
        }
    }
}
