<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Csv\CsvTable;
use Plinth\Core\Exchange\Dxf\DxfLayers;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\GeoJson\GeoJsonWriter;
use Plinth\Core\Exchange\Ifc\IfcProject;
use Plinth\Core\Exchange\Ifc\IfcWriter;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Exchange\Tables\BuildingTables;
use Plinth\Core\Exchange\Tables\Table;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PlanningSet;
use Plinth\Core\Sheets\SheetPainter;
use Plinth\Core\Sheets\SheetSubject;

/**
 * What leaves today is what left yesterday, line by line: scripts that read it are not surprised. Where it is meant to be another file, the
 * one kept beside this test is written anew with PLINTH_GOLDEN=write, and looked through before it is kept.
 */
final class GoldenTest extends TestCase
{
    private const FOLDER = __DIR__.'/golden';

    /** A room with a bay, a door of two leaves, one that slides, a window and a passage, and names that are awkward. */
    private static function plan(): Plan
    {
        $walls = [
            new Wall('south', new Point(0.0, 0.0), new Point(6000.0, 0.0), 300.0), new Wall('east', new Point(6000.0, 0.0), new Point(6000.0, 4000.0), 300.0),
            new Wall('bay', new Point(6000.0, 4000.0), new Point(0.0, 4000.0), 300.0, rise: -900.0), new Wall('west', new Point(0.0, 4000.0), new Point(0.0, 0.0), 300.0),
            new Wall('across', new Point(3500.0, 0.0), new Point(3500.0, 4877.0167), 100.0, height: 2100.0),
        ];
        $openings = [
            new Opening('d1', 'south', OpeningKind::Door, 700.0, 1600.0, height: 2100.0, leaf: 'double'), new Opening('d2', 'across', OpeningKind::Door, 1150.0, 900.0, height: 2000.0, leaf: 'sliding'),
            new Opening('w1', 'east', OpeningKind::Window, 1200.0, 1500.0, 900.0, 1200.0), new Opening('p1', 'across', OpeningKind::Opening, 2500.0, 1000.0, height: 2050.0),
        ];
        $rooms = [new Room('r1', '=Hall "חדר"', '1', new Point(1500.0, 2000.0)), new Room('r2', 'Stores, & more', '2', new Point(4800.0, 2000.0))];

        return new Plan([new Storey('g', 'Ground <floor>', 0.0, 2700.0, $walls, $openings, $rooms)]);
    }

    /** @return iterable<string, array{string}> */
    public static function files(): iterable
    {
        foreach (array_keys(self::written()) as $name) {
            yield $name => [$name];
        }
    }

    /** @return array<string, callable(): string> */
    private static function written(): array
    {
        $plan = self::plan();
        $subject = new SheetSubject('Fen House', $plan);
        $dxf = static fn (DxfLayers $layers): string => DxfWriter::building([[$plan->storeys[0], Derivation::of($plan->storeys[0]), new PlanBeside(numbers: $subject->numbers)]], layers: $layers);

        return [
            'plain.dxf' => static fn (): string => $dxf(DxfLayers::Plain),
            'iso13567.dxf' => static fn (): string => $dxf(DxfLayers::Iso13567),
            'house.ifc' => static fn (): string => IfcWriter::write($plan, new IfcProject('fen-house', 'Fen House', '2026-05-03T09:30:00', numbers: $subject->numbers)),
            'house.geojson' => static fn (): string => GeoJsonWriter::write($plan),
            'tables.csv' => static fn (): string => implode("\r\n", array_map(
                static fn (Table $t): string => "$t->name\r\n".CsvTable::write($t->head, $t->rows),
                BuildingTables::of($subject),
            )),
            'plan.json' => static fn (): string => json_encode(PlanWriter::document($plan), \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES),
            'sheet.svg' => static fn (): string => SvgWriter::write((new SheetPainter($subject))->sheet(PlanningSet::plan($subject, 'g', PaperSize::A4, false))),
        ];
    }

    #[DataProvider('files')]
    public function testItIsTheFileThatItWas(string $name): void
    {
        $written = self::written()[$name]();
        $path = self::FOLDER."/$name";
        if ('write' === getenv('PLINTH_GOLDEN')) {
            file_put_contents($path, $written);
        }
        self::assertSame(explode("\n", (string) file_get_contents($path)), explode("\n", $written));
    }
}
