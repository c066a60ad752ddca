<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;

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

    public function testOnlyWhoMayReadTheProjectGetsThem(): void
    {
        $stranger = (new Client((string) getenv('PLINTH_ADDRESS')))->signIn('stranger@plinth.example');
        foreach (['building.ifc', 'building.dxf', 'tables.ods', 'tables.xlsx', 'tables.zip', 'plan.geojson'] as $name) {
            $stranger->refused(404, 'GET', "/api/projects/{$this->desk->id}/$name");
            Client::ofStack()->refused(401, 'GET', "/api/projects/{$this->desk->id}/$name");
        }
    }
}
