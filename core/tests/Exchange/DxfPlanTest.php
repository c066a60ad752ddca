<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Drafting\DrawnDimension;
use Plinth\Core\Drafting\DrawnLine;
use Plinth\Core\Drafting\Fill;
use Plinth\Core\Drafting\LineKind;
use Plinth\Core\Exchange\Dxf\DxfLayers;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Sheets\FireOnPlan;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PlanOnPaper;
use Plinth\Core\Sheets\PlanSheet;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Tests\Outside;
use Plinth\Core\Tests\Plan\Plans;
use Plinth\Core\Tests\Projection\Buildings;

/** Plans as DXF, as ezdxf (Debian python3-ezdxf) takes them apart: the same lines as on a sheet, arcs as arcs, and nothing to mend. */
final class DxfPlanTest extends TestCase
{
    /**
     * @param list<string> $drawings
     * @param array<int, list<list<array{float, float}>>> $against chains that walls are held against, of each
     *
     * @return list<JsonValue>
     */
    private static function read(array $drawings, array $against = []): array
    {
        $files = [];
        foreach ($drawings as $i => $drawing) {
            $files[$i] = sys_get_temp_dir().'/plinth-'.getmypid()."-$i.dxf";
            file_put_contents($files[$i], $drawing);
        }
        $answers = JsonValue::of(Outside::ask('dxf-plan.py', ['files' => $files, 'against' => (object) $against]))->get('answers')->items();
        array_map(unlink(...), $files);
        foreach ($answers as $i => $read) {
            self::assertSame([0.0, 0.0], [$read->get('errors')->number(), $read->get('fixes')->number()], "drawing $i: ezdxf finds nothing to mend");
        }

        return $answers;
    }

    /** @return list<list<array{float, float}>> what is drawn on a layer */
    private static function chains(JsonValue $read, string $layer): array
    {
        $of = $read->get('chains')->optional($layer);

        return null === $of ? [] : array_map(
            static fn (JsonValue $chain): array => array_map(static fn (JsonValue $p): array => $p->pair(), $chain->items()),
            $of->items(),
        );
    }

    /** Walls of random buildings, curved ones too: what the file draws and what a sheet draws lie on each other to 0.1 mm. */
    public function testItDrawsTheSameLinesAsASheet(): void
    {
        $storeys = [self::curved()];
        for ($seed = 1; $seed <= 40; ++$seed) {
            foreach (Buildings::of($seed)->storeys as $of) {
                // Round columns are circles in one and have corners in the other.
                $storeys[] = new Storey($of->id, $of->name, $of->elevation, $of->height, $of->walls, $of->openings, $of->rooms, dividers: $of->dividers);
            }
        }
        [$drawings, $sheets] = [[], []];
        foreach ($storeys as $i => $storey) {
            $drawings[] = DxfWriter::write($storey, Derivation::of($storey));
            $view = new SheetView('v', ViewKind::Plan, $storey->id, 0.0, 0.0, shows: []);
            $sheets[$i] = [];
            foreach (PlanSheet::of($storey, Derivation::of($storey), new PlanOnPaper(50.0, 0.0, 0.0), view: $view)->lines as $line) {
                // What is cut is drawn widest.
                if (InkLine::WIDE === $line->width && $line->closed) {
                    $points = array_map(static fn (array $p): array => [50.0 * $p[0], -50.0 * $p[1]], $line->points);
                    $sheets[$i][] = [...$points, ...\array_slice($points, 0, 1)];
                    self::assertTrue([] !== $points && abs(Polygon::area($points)) > 100.0, "storey $i: nothing of a hair's breadth is left at openings");
                }
            }
        }
        foreach (self::read($drawings, $sheets) as $i => $read) {
            [$more, $less] = array_map(static fn (JsonValue $v): float => $v->number(), $read->get('apart')->items());
            // A sheet draws arcs by chords, which lie 0.2 mm off them.
            self::assertLessThan(0.25, $more, "storey $i: nothing but what the sheet has");
            self::assertLessThan(0.1, $less, "storey $i: all that the sheet has");
        }
        self::assertGreaterThan(50, \count($storeys));
    }

    private static function curved(): Storey
    {
        $walls = Plans::rectangle();
        $walls[0] = new Wall('south', new Point(0.0, 0.0), new Point(6000.0, 0.0), 200.0, rise: -900.0);

        return Plans::storey($walls, [new Opening('w', 'south', OpeningKind::Window, 2500.0, 1200.0)], [new Room('r', 'Bay', '1', new Point(3000.0, 2000.0))]);
    }

    /** A curved wall's faces are arcs about its own centre, the window in it curves along, and its jambs stand square to it. */
    public function testCurvedWallsAreArcs(): void
    {
        $storey = self::curved();
        [$read] = self::read([DxfWriter::write($storey, Derivation::of($storey))]);
        $arc = $storey->walls[0]->arc();
        self::assertNotNull($arc);
        // Two faces on either side of the window; three lines in it; the middle; the room's face.
        self::assertSame([4.0, 3.0, 1.0, 1.0], array_map(
            static fn (string $layer): float => $read->get('bulges')->get($layer)->number(),
            ['walls', 'openings', 'centre-lines', 'rooms'],
        ));
        $radii = [];
        foreach (self::chains($read, 'openings') as $chain) {
            if (2 === \count($chain)) {
                // A jamb points at the centre: it lies on a line through it.
                [[$ax, $ay], [$bx, $by]] = $chain;
                $off = abs(($bx - $ax) * ($arc->centre->y - $ay) - ($by - $ay) * ($arc->centre->x - $ax)) / hypot($bx - $ax, $by - $ay);
                self::assertLessThan(0.01, $off);
                self::assertEqualsWithDelta(200.0, hypot($bx - $ax, $by - $ay), 1e-6);
                continue;
            }
            foreach ($chain as [$x, $y]) {
                $radii[(string) round(hypot($x - $arc->centre->x, $y - $arc->centre->y), 1)] = true;
            }
        }
        $radii = array_map(floatval(...), array_keys($radii));
        sort($radii);
        self::assertEqualsWithDelta([$arc->radius - 100.0, $arc->radius, $arc->radius + 100.0], $radii, 0.11);
    }

    public function testAllElseIsOnItsOwnLayerAndDimensionsAreDimensions(): void
    {
        $storey = new Storey('s', 'Ground', 0.0, 2700.0, [
            ...Plans::rectangle(), new Wall('rail', new Point(2000, 100), new Point(2000, 2000), 60.0, height: 950.0, enclosing: false, railing: true),
        ], [new Opening('d', 'south', OpeningKind::Door, 1000.0, 900.0)], [new Room('r', 'Hall', '1', new Point(4000, 3000))], dividers: [
            new Divider('v', new Point(3000, 100), new Point(3000, 3900)),
        ], columns: [new Column('c', new Point(5000, 1000), 300.0, 300.0, true)]);
        $beside = new PlanBeside(
            lines: [DrawnLine::through([new Point(500, 500), new Point(1500, 500), new Point(1500, 1500)], [0.0, 200.0, 0.0], true, LineKind::Dashed, Fill::Hatched)],
            dimensions: [new DrawnDimension(new Point(0, 0), new Point(3000, 400), 0.0, -800.0)],
            notes: [[[4500.0, 500.0], 'sound floor', [5500.0, 200.0]]],
            numbers: ['d' => 'D01'],
        );
        [$read, $iso] = self::read(array_map(
            static fn (DxfLayers $by): string => DxfWriter::write($storey, Derivation::of($storey), $beside, layers: $by),
            [DxfLayers::Plain, DxfLayers::Iso13567],
        ));
        $count = static fn (string $layer, string $kind): int => (int) ($read->get('kinds')->optional($layer)?->optional($kind)?->number() ?? 0);
        self::assertSame([1, 1, 1, 1, 1, 1, 1], [
            $count('railings', 'LWPOLYLINE'), $count('dividers', 'LWPOLYLINE'), $count('columns', 'CIRCLE'), $count('drawn', 'LWPOLYLINE'),
            $count('drawn', 'HATCH'), $count('dimensions', 'DIMENSION'), $count('notes', 'LINE'),
        ]);
        [$layer, $measures, $words] = $read->get('dimensions')->items()[0]->items();
        self::assertSame(['dimensions', 3000.0, '3000'], [$layer->text(), round($measures->number(), 6), $words->text()], 'Along its own direction it measures 3 m.');
        $texts = array_map(static fn (JsonValue $t): array => [$t->items()[0]->text(), $t->items()[1]->text()], $read->get('texts')->items());
        foreach ([['notes', 'sound floor'], ['opening-numbers', 'D01'], ['room-names', '1 Hall'], ['levels', '±0.000']] as $said) {
            self::assertContains($said, $texts);
        }
        $layers = array_map(static fn (JsonValue $l): string => $l->text(), $iso->get('layers')->items());
        self::assertContains('A-WALL--E-', $layers);
        foreach ($layers as $name) {
            // ISO 13567-2: two characters for the agent, six for the element, two for the presentation.
            self::assertMatchesRegularExpression('/^(0|Defpoints|[A-Z]-[A-Z-]{6}[ETDH]-)$/', $name);
        }
    }

    /** Of the demo's lodge: each class by itself, filled by its hatch; ways from room to door with their lengths. */
    public function testClassesAreOnLayersOfTheirOwnAndWaysOnAnother(): void
    {
        $plan = PlanReader::read((string) file_get_contents(__DIR__.'/../../../demo/reedmace-lodge.json'));
        [$read, $iso, $none] = self::read(array_map(static fn (DxfLayers $by, ?FireOnPlan $fire): string => DxfWriter::building(
            array_map(static fn (Storey $s): array => [$s, Derivation::of($s), new PlanBeside()], $plan->storeys),
            layers: $by,
            fire: $fire,
        ), [DxfLayers::Plain, DxfLayers::Iso13567, DxfLayers::Plain], [FireOnPlan::of($plan), FireOnPlan::of($plan), null]));
        $count = static fn (string $layer, string $kind): int => (int) ($read->get('kinds')->optional($layer)?->optional($kind)?->number() ?? 0);
        self::assertSame([2, 2, 1, 1], [
            $count('enclosures-REI 60', 'LWPOLYLINE'), $count('enclosures-REI 60', 'HATCH'), $count('enclosures-EI 30', 'LWPOLYLINE'), $count('enclosures-EI 30', 'HATCH'),
        ]);
        $stair = self::chains($read, 'enclosures-REI 60')[0];
        self::assertEqualsWithDelta([4670.0, 300.0, 10_700.0, 7300.0], Polygon::bounds([] === $stair ? self::fail('Nothing is drawn.') : $stair), 1e-6);
        self::assertGreaterThanOrEqual(7, $count('ways-out', 'LWPOLYLINE'));
        $texts = array_map(static fn (JsonValue $t): array => [$t->items()[0]->text(), $t->items()[1]->text()], $read->get('texts')->items());
        self::assertContains(['ways-out-lengths', '5871'], $texts);
        self::assertContains(['enclosures-EI 30', 'EI 30'], $texts);
        self::assertContains('A-ENCL01E-', array_map(static fn (JsonValue $l): string => $l->text(), $iso->get('layers')->items()));
        self::assertSame([], self::chains($none, 'ways-out'));
        self::assertSame('enclosures-a b c', DxfLayers::Plain->ofClass(1, 'a/b*c'));
    }

    public function testAllStoreysStandBesideEachOther(): void
    {
        $plan = Buildings::of(7);
        $storeys = [new Storey('a', 'Ground', 0.0, 2700.0, Plans::rectangle()), new Storey('b', 'Upper', 2700.0, 2700.0, Plans::rectangle())];
        $numbers = SheetSubject::numbered(new Plan($storeys));
        [$read, $more] = self::read([
            DxfWriter::building(array_map(static fn (Storey $s): array => [$s, Derivation::of($s), new PlanBeside(numbers: $numbers)], $storeys)),
            DxfWriter::building(array_map(static fn (Storey $s): array => [$s, Derivation::of($s), new PlanBeside()], $plan->storeys)),
        ]);
        $left = array_map(static fn (array $c): float => min([\INF, ...array_column($c, 0)]), self::chains($read, 'rooms'));
        self::assertCount(2, $left);
        self::assertEqualsWithDelta(6200.0 + 8000.0, abs($left[1] - $left[0]), 1e-9, 'As far apart as one is wide, and 8 m.');
        $texts = array_map(static fn (JsonValue $t): string => $t->items()[1]->text(), $read->get('texts')->items());
        self::assertSame(['Ground', 'Upper'], array_values(array_intersect($texts, ['Ground', 'Upper'])));
        self::assertNotSame([], self::chains($more, 'walls'));
    }

    /** Names of rooms as ezdxf reads them: whatever is in one comes out of it. */
    public function testNamesSurviveWhateverIsInThem(): void
    {
        $names = ["O'Hara's \\ room", '=1+1', '{\\P;} %%c', 'غرفة', '🛏 bedroom', 'Wäsche “12”'];
        $drawings = array_map(static function (string $name): string {
            $storey = Plans::storey(Plans::rectangle(), [], [new Room('r', $name, '', new Point(3000.0, 2000.0))]);

            return DxfWriter::building([[$storey, Derivation::of($storey), new PlanBeside()]]);
        }, $names);
        foreach (self::read($drawings) as $i => $read) {
            $texts = array_map(static fn (JsonValue $t): string => $t->items()[1]->text(), $read->get('texts')->items());
            self::assertContains($names[$i], $texts, implode(' | ', $texts));
        }
    }

    /** GDAL, another reader: walls without their openings are as large as the core's, and rooms have their names. */
    public function testGdalReadsWallsAndRooms(): void
    {
        $storey = Plans::storey(Plans::rectangle(), [new Opening('d', 'south', OpeningKind::Door, 1000.0, 900.0)], [new Room('r', 'Wäsche', '', new Point(3000.0, 2000.0))]);
        $derived = Derivation::of($storey);
        $file = sys_get_temp_dir().'/plinth-'.getmypid().'-gdal.dxf';
        file_put_contents($file, DxfWriter::building([[$storey, $derived, new PlanBeside()]]));
        $layers = JsonValue::of(Outside::ask('dxf-gdal.py', ['file' => $file]))->get('layers');
        unlink($file);
        // The body is one ring, cut at the door; its fill is a hatch of its own layer.
        $cut = $derived->areasMm2['structure'] - 900.0 * 200.0;
        $filled = array_filter(array_map(static fn (mixed $l): float => JsonValue::of($l)->get('area')->number(), $layers->map()), static fn (float $a): bool => abs($a - $cut) < 1.0);
        self::assertNotSame([], $filled, json_encode($layers->map(), \JSON_THROW_ON_ERROR));
        self::assertEqualsWithDelta(2.0 * (5800.0 + 3800.0) + 2.0 * (6200.0 + 4200.0) - 2.0 * 900.0 + 2.0 * 200.0, $layers->get('walls')->get('length')->number(), 1.0);
        $texts = array_merge(...array_map(static fn (mixed $l): array => array_map(static fn (JsonValue $t): string => $t->text(), JsonValue::of($l)->get('texts')->items()), array_values($layers->map())));
        // As the file of this version tells letters beyond ASCII; GDAL leaves them so.
        self::assertContains('W\U+00E4sche', $texts);
    }
}
