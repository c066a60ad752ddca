<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\Tables\BuildingTables;
use Plinth\Core\Exchange\Tables\OdsWriter;
use Plinth\Core\Exchange\Tables\Table;
use Plinth\Core\Exchange\Tables\XlsxWriter;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Tests\Outside;
use Plinth\Core\Tests\Projection\Buildings;

/** Tables are read back cell by cell by openpyxl (ISO/IEC 29500) and odfpy (ISO/IEC 26300), both Debian's. */
final class TablesTest extends TestCase
{
    /**
     * @param list<Table> $tables
     *
     * @return array<mixed>
     */
    private static function read(array $tables): array
    {
        $paths = ['xlsx' => sys_get_temp_dir().'/plinth-'.getmypid().'.xlsx', 'ods' => sys_get_temp_dir().'/plinth-'.getmypid().'.ods'];
        file_put_contents($paths['xlsx'], XlsxWriter::write($tables));
        file_put_contents($paths['ods'], OdsWriter::write($tables));
        $read = Outside::ask('tables.py', $paths);
        array_map(unlink(...), $paths);

        return $read;
    }

    /**
     * @param list<Table> $tables
     *
     * @return array<string, list<list<string|int|float|null>>>
     */
    private static function cells(array $tables): array
    {
        $cells = [];
        foreach ($tables as $table) {
            $cells[$table->name] = [$table->head, ...$table->rows];
        }

        return $cells;
    }

    public function testEveryCellComesBackAsItWasWhateverIsInIt(): void
    {
        $table = new Table('Odd', ['text', 'number', 'none'], [
            ['=1+1', 1.5, null], ['+A1', -2, null], ['@x', 0.1, null], ["O'Hara \"quoted\" <b> & co", 1e-9, null],
            ["two\nlines", 123456789.125, null], ['غرفة', 3, null], ['🛏 _x0041_', 4, null], [' spaced  out ', 5, null],
        ]);
        $read = self::read([$table]);
        self::assertSame(0, $read['formulas'], 'Nothing is taken for a formula.');
        self::assertIsArray($read['xlsx']);
        self::assertIsArray($read['ods']);
        self::assertEquals(self::cells([$table]), $read['xlsx']);
        // odfpy gives blanks beside each other as they were written; a spreadsheet shows one (ISO/IEC 26300-1, 6.1.2).
        self::assertEquals(self::cells([$table]), $read['ods']);
        self::assertSame(XlsxWriter::write([$table]), XlsxWriter::write([$table]), 'The same bytes whenever it is made.');
    }

    public function testTheDemosTablesSayWhatItsFiguresSay(): void
    {
        $plan = PlanReader::read((string) file_get_contents(__DIR__.'/../../../demo/reedmace-lodge.json'));
        $walls = array_map(static fn ($w): string => $w->id, $plan->storeys[0]->walls);
        $site = new Contour([new Point(-5000.0, -5000.0), new Point(20_000.0, -5000.0), new Point(20_000.0, 15_000.0), new Point(-5000.0, 15_000.0)]);
        $tables = BuildingTables::of(new SheetSubject('Lodge', $plan, boundaries: [$site], bearing: 12.5, buildUps: [$walls[0] => '=brick']));
        $cells = self::cells($tables);
        self::assertSame(['Rooms', 'Doors and windows', 'Walls', 'Areas (ISO 9836)', 'Quantities', 'Stairs', 'Ways out', 'Enclosures', 'Roofs', 'Boundaries'], array_keys($cells));
        self::assertEquals(self::read($tables)['xlsx'], $cells);
        $hall = array_values(array_filter($cells['Rooms'], static fn (array $r): bool => 'Hall' === $r[2]))[0];
        self::assertSame(['Ground', '3', 'Hall', 23.0949, 6030.0, 3830.0], \array_slice($hall, 0, 6));
        self::assertCount(1 + 12 + 7, $cells['Doors and windows']);
        self::assertContains(['Ground', 83.6], array_map(static fn (array $r): array => \array_slice($r, 0, 2), $cells['Areas (ISO 9836)']));
        self::assertSame(['Ground', 16, 175.0, 250.0, 34.99, 950.0, 2800.0, 'REI 60'], $cells['Stairs'][1]);
        // From a corner of the hall straight to the middle of its door, which opens inwards.
        self::assertContains(['Ground', '3', 'Hall', 5871.23, 5871.23, 1000.0, 'D01', 'D01', ''], $cells['Ways out']);
        self::assertContains('door', array_column($cells['Ways out'], 8), 'The kitchen’s door is narrower than the demo asks for.');
        self::assertContains(['REI 60', 'Ground', 'Hall, Stair', 42.21, 'D03', 'D01 D02'], $cells['Enclosures']);
        self::assertContains(['REI 60', 'all', '', 60.4809, '', ''], $cells['Enclosures']);
        self::assertCount(8, $cells['Ways out']);
        self::assertContains('final', array_column($cells['Doors and windows'], 10));
        self::assertContains(['site 1', 'leg 1', 25_000.0, '102°30\'00"', null], $cells['Boundaries']);
        self::assertContains(['site 1', 'all of it', null, null, 500.0], $cells['Boundaries']);
        self::assertSame('=brick', $cells['Walls'][1][1]);
        // The volumes of the walls are those of the bodies.
        $volumes = array_filter(array_column($cells['Walls'], 5), is_float(...));
        $counted = array_filter($cells['Quantities'], static fn (array $r): bool => \in_array($r[2], ['wall', 'railing'], true) && 'body' === $r[0]);
        // A stair's rails are railings too, and belong to no wall.
        $rails = array_filter(BuildingBodies::of($plan), static fn (Body $b): bool => BodyKind::Railing === $b->kind && 'stair up' === $b->id);
        $stair = array_sum(array_map(static fn (Body $b): float => $b->form->volume() / 1e9, $rails));
        self::assertGreaterThan(0.0, $stair);
        self::assertEqualsWithDelta(array_sum(array_filter(array_column($counted, 6), is_numeric(...))), array_sum($volumes) + $stair, 0.002);
    }

    public function testTablesOfRandomBuildingsComeBack(): void
    {
        for ($seed = 1; $seed <= 12; ++$seed) {
            $tables = BuildingTables::of(new SheetSubject('Weir cottage', Buildings::of($seed)));
            $read = self::read($tables);
            self::assertEquals(self::cells($tables), $read['xlsx'], "seed $seed");
            self::assertEquals(self::cells($tables), $read['ods'], "seed $seed");
        }
        self::assertSame([], BuildingTables::of(new SheetSubject('Nothing', new Plan([]))));
    }
}
