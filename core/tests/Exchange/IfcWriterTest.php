<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Exchange\Ifc\GlobalId;
use Plinth\Core\Exchange\Ifc\IfcProject;
use Plinth\Core\Exchange\Ifc\IfcWriter;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Site\Georeference;
use Plinth\Core\Tests\Outside;
use Plinth\Core\Tests\Plan\Plans;
use Plinth\Core\Tests\Projection\Buildings;

/** A building as IFC4 (ISO 16739-1:2018) is read by web-ifc (npm 0.0.78) as it stands here. */
final class IfcWriterTest extends TestCase
{
    private const PROJECT = '0199f0c0-0000-7000-8000-000000000001';

    /**
     * @param list<string> $files
     *
     * @return list<JsonValue>
     */
    private static function read(array $files): array
    {
        $paths = [];
        foreach ($files as $i => $file) {
            $paths[] = sys_get_temp_dir().'/plinth-'.getmypid()."-$i.ifc";
            file_put_contents($paths[$i], $file);
        }
        $answer = JsonValue::of(Outside::ask('ifc.mjs', ['files' => $paths]));
        array_map(unlink(...), $paths);

        return $answer->get('answers')->items();
    }

    /** IFC4 Pset_DoorCommon: FireRating is a label, FireExit a boolean; only what is known is said. */
    public function testADoorSaysThatItIsRatedAndAnExit(): void
    {
        $wall = Plans::wall('a', 0, 0, 6000, 0);
        $doors = [
            new Opening('out', 'a', OpeningKind::Door, 500.0, 900.0, height: 2100.0, exit: DoorExit::Final, rated: 'EI₂ 30 "C5"'),
            new Opening('in', 'a', OpeningKind::Door, 3000.0, 900.0, height: 2100.0),
        ];
        $file = IfcWriter::write(new Plan([Plans::storey([$wall], $doors)]), new IfcProject(self::PROJECT, 'Exits'));
        self::assertSame(1, substr_count($file, "'FireExit',$,IFCBOOLEAN(.T.)"));
        self::assertSame(1, preg_match("/'FireRating',\\$,IFCLABEL\\('EI.*30 \"C5\"'\\)/", $file));
        self::assertSame(1, substr_count($file, "'Pset_DoorCommon'"));
        self::assertCount(2, array_filter(self::products(self::read([$file])[0]), static fn (JsonValue $p): bool => 'IFCDOOR' === strtoupper($p->get('type')->text())));
    }

    /** Rooms of an enclosure are a zone of its class; walls that bound it say so, those within it do not. */
    public function testWhatIsEnclosedIsAZoneAndItsWallsAreRated(): void
    {
        $file = IfcWriter::write(self::lodge(), new IfcProject(self::PROJECT, 'Lodge'));
        self::assertSame(3, preg_match_all("/=IFCZONE\\('[^']+',\\$,'(REI 60|EI 30)',/", $file));
        self::assertSame(3, preg_match_all('/=IFCRELASSIGNSTOGROUP\(/', $file));
        self::assertGreaterThan(0, preg_match_all("/'FireRating',\\$,IFCLABEL\\('REI 60, EI 30'\\)/", $file), 'The spine bounds both.');
        self::assertSame(substr_count($file, "'Compartmentation',$,IFCBOOLEAN(.T.)"), preg_match_all("/'FireRating',\\$,IFCLABEL\\('(REI|EI) [36]0/", $file));
        self::assertStringNotContainsString('IFCZONE', IfcWriter::write(new Plan(self::lodge()->storeys), new IfcProject(self::PROJECT, 'Lodge')));
        self::read([$file]);
    }

    /** @return array<string, JsonValue> products by their global id */
    private static function products(JsonValue $read): array
    {
        $products = [];
        foreach ($read->get('products')->items() as $product) {
            $products[$product->get('guid')->text()] = $product;
        }

        return $products;
    }

    /** @return list<list<string>> classes of what hangs on what */
    private static function pairs(JsonValue $read, string $what): array
    {
        $of = self::numbered($read);

        return array_map(static fn (JsonValue $p): array => array_map(
            static fn (JsonValue $id): string => $of[(int) $id->number()]->get('type')->text(),
            $p->items(),
        ), $read->get($what)->items());
    }

    /** @return array<int, JsonValue> products by their number in the file */
    private static function numbered(JsonValue $read): array
    {
        $products = [];
        foreach ($read->get('products')->items() as $product) {
            $products[(int) $product->get('id')->number()] = $product;
        }

        return $products;
    }

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach ([1, 26, 51, 76] as $first) {
            yield "buildings from $first" => [$first];
        }
    }

    /** Every solid, with its openings cut out of it by whoever reads it, is as large as the core's body, to 1e-6 of it or of a cubic metre. */
    #[DataProvider('seeds')]
    public function testEverySolidOfRandomBuildingsIsAsLargeAsTheCores(int $first): void
    {
        $plans = array_map(Buildings::of(...), range($first, $first + 24));
        $answers = self::read(array_map(static fn (Plan $p): string => IfcWriter::write($p, new IfcProject(self::PROJECT, 'Weir cottage')), $plans));
        $compared = 0;
        foreach ($plans as $i => $plan) {
            $products = self::products($answers[$i]);
            $own = [];
            foreach (BuildingBodies::of($plan) as $body) {
                $volume = $body->form->volume() / 1e9;
                if (\in_array($body->kind, [BodyKind::Frame, BodyKind::Leaf, BodyKind::Pane], true)) {
                    // Frame and leaves together are a door.
                    $door = GlobalId::of(self::PROJECT, 'door', $body->id);
                    $named = isset($products[$door]) ? $door : GlobalId::of(self::PROJECT, 'window', $body->id);
                    $own[$named] = ($own[$named] ?? 0.0) + $volume;
                    continue;
                }
                $named = GlobalId::of(self::PROJECT, $body->kind->value, $body->id);
                for ($k = 2; isset($own[$named]); ++$k) {
                    $named = GlobalId::of(self::PROJECT, $body->kind->value." $k", $body->id);
                }
                $own[$named] = $volume;
            }
            foreach ($own as $named => $volume) {
                self::assertArrayHasKey($named, $products, 'seed '.($first + $i));
                self::assertEqualsWithDelta($volume, $products[$named]->get('volume')->number(), 1e-6 * max(1.0, $volume), 'seed '.($first + $i));
                ++$compared;
            }
            // Every door and window fills an opening, every opening is cut out of a wall, and nothing else is.
            $doors = \count(array_filter($products, static fn (JsonValue $p): bool => \in_array($p->get('type')->text(), ['IFCDOOR', 'IFCWINDOW'], true)));
            $holes = \count(array_filter($products, static fn (JsonValue $p): bool => 'IFCOPENINGELEMENT' === $p->get('type')->text()));
            self::assertCount($doors, self::pairs($answers[$i], 'fills'));
            self::assertCount($holes, self::pairs($answers[$i], 'voids'));
            foreach (self::pairs($answers[$i], 'voids') as $pair) {
                self::assertSame(['IFCWALL', 'IFCOPENINGELEMENT'], $pair);
            }
        }
        self::assertGreaterThan(500, $compared);
    }

    private static function lodge(): Plan
    {
        return PlanReader::read((string) file_get_contents(__DIR__.'/../../../demo/reedmace-lodge.json'));
    }

    public function testTheDemoIsATreeOfStoreysRoomsAndWhatStandsInThem(): void
    {
        $plan = self::lodge();
        $walls = array_map(static fn ($w): string => $w->id, $plan->storeys[0]->walls);
        $project = new IfcProject(
            self::PROJECT,
            'Reedmace Lodge',
            '2026-12-01T12:00:00',
            [$walls[0] => 'brick, plastered', $walls[1] => 'brick, plastered'],
            ['D01' => 'D01'],
            [new Contour([new Point(-5000.0, -5000.0), new Point(20_000.0, -5000.0), new Point(20_000.0, 15_000.0), new Point(-5000.0, 15_000.0)])],
            12.5,
            ['ground' => 'Traced from a scan, ±12 mm over 10 m.'],
            new Georeference('EPSG:25832', 512_345.25, 5_678_901.5, 61.2, 3.5),
        );
        $file = IfcWriter::write($plan, $project, ['Not for construction.']);
        [$read] = self::read([$file]);
        self::assertSame('IFC4', $read->get('schema')->text());
        $counts = array_count_values(array_map(static fn (JsonValue $p): string => $p->get('type')->text(), array_values(self::products($read))));
        self::assertSame([1, 1, 1, 2, 7], array_map(static fn (string $t): int => $counts[$t] ?? 0, ['IFCPROJECT', 'IFCSITE', 'IFCBUILDING', 'IFCBUILDINGSTOREY', 'IFCSPACE']));
        self::assertSame([7 + 6, 7, 12, 1, 1, 17], array_map(static fn (string $t): int => $counts[$t] ?? 0, ['IFCWALL', 'IFCDOOR', 'IFCWINDOW', 'IFCSTAIR', 'IFCCHIMNEY', 'IFCFURNITURE']));
        $parts = array_count_values(array_map(static fn (array $p): string => implode(' ', $p), self::pairs($read, 'parts')));
        self::assertSame(1, $parts['IFCPROJECT IFCSITE']);
        self::assertSame(1, $parts['IFCSITE IFCBUILDING']);
        self::assertSame(2, $parts['IFCBUILDING IFCBUILDINGSTOREY']);
        self::assertSame(7, $parts['IFCBUILDINGSTOREY IFCSPACE']);
        // All that stands is on a storey, but for what is cut out.
        $contained = \count($read->get('contains')->items());
        self::assertSame(array_sum($counts) - array_sum(array_intersect_key($counts, array_flip(['IFCPROJECT', 'IFCSITE', 'IFCBUILDING', 'IFCBUILDINGSTOREY', 'IFCSPACE', 'IFCOPENINGELEMENT']))), $contained);
        // Rooms are as large as they are told here, and hold what the core says that they hold.
        $areas = [];
        foreach ($plan->storeys as $storey) {
            foreach (Derivation::of($storey)->regions as $region) {
                $areas[$region->room->number ?? ''] = $region->netAreaMm2 / 1e6;
            }
        }
        $told = [];
        $numbered = self::numbered($read);
        foreach ($read->get('quantities')->items() as $row) {
            [$of, $set, $values] = $row->items();
            $product = $numbered[(int) $of->number()] ?? JsonValue::of([]);
            if ('Qto_SpaceBaseQuantities' === $set->text()) {
                $told[$product->get('name')->text()] = $values->get('NetFloorArea')->number();
                self::assertEqualsWithDelta($values->get('NetVolume')->number(), $product->get('volume')->number(), 1e-5, $product->get('name')->text());
            }
            if ('Qto_WallBaseQuantities' === $set->text()) {
                self::assertEqualsWithDelta($values->get('NetVolume')->number(), $product->get('volume')->number(), 1e-6 * max(1.0, $values->get('NetVolume')->number()));
            }
        }
        ksort($areas);
        ksort($told);
        self::assertEqualsWithDelta($areas, $told, 1e-9);
        $layers = array_map(static fn (JsonValue $m): array => [$m->items()[1]->text(), $m->items()[2]->number()], $read->get('materials')->items());
        self::assertSame([['brick, plastered', 300.0], ['brick, plastered', 300.0]], $layers);
        self::assertEqualsWithDelta([512_345.25, 5_678_901.5, 0.001], array_map(static fn (JsonValue $v): float => $v->number(), $read->get('conversions')->items()[0]->items()), 1e-9);
        self::assertStringContainsString("'Not for construction.'", $file);
        self::assertStringContainsString("IFCLABEL('Traced from a scan, \\X2\\00B1\\X0\\12 mm over 10 m.')", $file);
    }

    /**
     * A door opens towards y of its placement, with its hinges to the left or the right as one looks that way (IfcDoorTypeOperationEnum): in a
     * wall that runs to the right, one that opens upwards and hangs on its near jamb has them to the left.
     */
    public function testDoorsSayWhichWayTheyOpenAndWhereTheyHang(): void
    {
        $doors = [];
        $expected = [];
        foreach ([['left', 'left', 'SINGLE_SWING_LEFT', 1.0], ['right', 'left', 'SINGLE_SWING_RIGHT', 1.0], ['left', 'right', 'SINGLE_SWING_RIGHT', -1.0], ['right', 'right', 'SINGLE_SWING_LEFT', -1.0]] as $k => [$hand, $swing, $operation, $up]) {
            $doors[] = new Opening("D0$k", 'south', OpeningKind::Door, 400.0 + 1300.0 * $k, 900.0, 0.0, 2000.0, $hand, $swing);
            $expected["D0$k"] = [$operation, [0.0, $up]];
        }
        $numbers = array_combine(array_keys($expected), array_keys($expected));
        [$read] = self::read([IfcWriter::write(new Plan([Plans::storey(Plans::rectangle(), $doors)]), new IfcProject(self::PROJECT, 'Doors', numbers: $numbers))]);
        $told = [];
        foreach (self::products($read) as $product) {
            if ('IFCDOOR' === $product->get('type')->text()) {
                $told[$product->get('name')->text()] = [$product->get('operation')->text(), $product->get('facing')->pair()];
                // Where it stands is the same whichever way it opens: a frame and a leaf.
                self::assertEqualsWithDelta(0.07 * (0.9 * 2.0 - 0.8 * 1.95) + 0.04 * 0.8 * 1.95, $product->get('volume')->number(), 1e-6);
            }
        }
        ksort($told);
        self::assertEquals($expected, $told);
    }

    /** The same thing is named alike in every file, whatever was edited since, and no two are named alike. */
    public function testThingsKeepTheirGlobalIds(): void
    {
        self::assertSame(str_repeat('0', 22), GlobalId::written(str_repeat("\0", 16)));
        self::assertSame('3'.str_repeat('$', 21), GlobalId::written(str_repeat("\xFF", 16)), '128 ones: two, then 21 times six.');
        $ids = static function (string $file): array {
            preg_match_all("/=IFC\\w+\\('([0-9A-Za-z_\$]{22})'/", $file, $m);

            return $m[1];
        };
        $plan = self::lodge();
        $before = $ids(IfcWriter::write($plan, new IfcProject(self::PROJECT, 'Lodge')));
        self::assertGreaterThan(150, \count($before));
        self::assertSame($before, array_values(array_unique($before)));
        $ground = $plan->storeys[0];
        $more = new Storey($ground->id, $ground->name, $ground->elevation, $ground->height, [...$ground->walls, Plans::wall('new', 1000, 300, 1000, 3550)], $ground->openings, $ground->rooms, floors: $ground->floors);
        $after = $ids(IfcWriter::write(new Plan([$more, $plan->storeys[1]], $plan->finishes), new IfcProject(self::PROJECT, 'Lodge, altered')));
        self::assertSame($after, array_values(array_unique($after)));
        self::assertGreaterThan(120, \count(array_intersect($before, $after)));
        self::assertContains(GlobalId::of(self::PROJECT, 'wall', 'gS'), array_intersect($before, $after));
        self::assertNotContains(GlobalId::of('another project', 'wall', 'gS'), $before);
    }

    public function testNamesSurviveWhateverIsInThem(): void
    {
        $names = ["O'Hara's \\ room", "two\nlines\tand more", '=1+1', 'غرفة', '🛏 bedroom', 'Wäsche “12”'];
        $rooms = [];
        $storeys = [];
        foreach ($names as $i => $name) {
            $rooms[$i] = new Room("r$i", $name, (string) $i, new Point(3000.0, 2000.0));
            $storeys[] = new Storey("s$i", $name, 3000.0 * $i, 2700.0, array_map(
                static fn ($w) => new Wall("$i.$w->id", $w->from, $w->to, $w->thickness),
                Plans::rectangle(),
            ), [new Opening("o$i", "$i.south", OpeningKind::Door, 1000.0, 900.0, 0.0, 2000.0)], [$rooms[$i]]);
        }
        [$read] = self::read([IfcWriter::write(new Plan($storeys), new IfcProject(self::PROJECT, $names[0], buildUps: ['0.south' => $names[4]]))]);
        $long = [];
        foreach (self::products($read) as $product) {
            if ('IFCSPACE' === $product->get('type')->text()) {
                $long[(int) $product->get('name')->text()] = $product->get('long')->text();
            }
        }
        ksort($long);
        self::assertSame($names, $long);
        self::assertSame($names[4], $read->get('materials')->items()[0]->items()[1]->text());
    }
}
