<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Bodies;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\FinishedSurface;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\Gltf\GlbWriter;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Finish;
use Plinth\Core\Plan\Model\FinishPattern;
use Plinth\Core\Plan\Model\FloorVoid;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Surface;
use Plinth\Core\Plan\Model\SurfaceOn;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Tests\Outside;

/** Surfaces with a finish are as large as arithmetic says, without what is open in them, and their pieces keep their true size. */
final class FinishesTest extends TestCase
{
    /** @return iterable<string, array{float, float, float}> */
    public static function places(): iterable
    {
        yield 'at the zero' => [0.0, 0.0, 0.0];
        yield 'turned' => [1200.0, -700.0, 23.0];
        yield 'on a national grid' => [650e6, 650e6, 0.0];
    }

    /** 4 × 3 m inside, 2.47 m under its ceiling; a door of 0.9 × 2.04 and a window of 1.2 × 1.2 over 0.9. */
    #[DataProvider('places')]
    public function testARoomsSurfacesAreNet(float $x, float $y, float $degrees): void
    {
        $house = new House($x, $y, $degrees);
        $areas = self::areas(self::room($house, [
            new Surface('floor', 'f', SurfaceOn::Floor, 'r'),
            new Surface('ceiling', 'f', SurfaceOn::Ceiling, 'r'),
            new Surface('walls', 'f', SurfaceOn::Walls, 'r'),
            new Surface('dado', 'f', SurfaceOn::Walls, 'r', top: 2100.0),
            new Surface('frieze', 'f', SurfaceOn::Walls, 'r', bottom: 2100.0),
            new Surface('inner', 'f', SurfaceOn::Left, 'a'),
            new Surface('outer', 'f', SurfaceOn::Right, 'a'),
            new Surface('panel', 'f', SurfaceOn::Left, 'a', 500.0, 1500.0, 1000.0, 2500.0),
        ], columns: 0.0 === $degrees ? [new Column('k', $house->at(1000.0, 1000.0), 400.0, 300.0)] : []));
        $column = 0.0 === $degrees ? 0.12 : 0.0;
        $door = 0.9 * 2.04;
        self::assertEqualsWithDelta(12.0 - $column, $areas['floor'], 1e-6);
        self::assertEqualsWithDelta(12.0 - $column, $areas['ceiling'], 1e-6);
        self::assertEqualsWithDelta(14.0 * 2.47 - $door - 1.44, $areas['walls'], 1e-6);
        self::assertEqualsWithDelta(14.0 * 2.1 - $door - 1.44, $areas['dado'], 1e-6);
        self::assertEqualsWithDelta(14.0 * 0.37, $areas['frieze'], 1e-6);
        self::assertEqualsWithDelta(4.0 * 2.7 - $door, $areas['inner'], 1e-6, 'above the ceiling, too: the face is the wall’s own');
        self::assertEqualsWithDelta(4.6 * 2.7 - $door, $areas['outer'], 1e-6);
        self::assertEqualsWithDelta(1.5 * 1.0 - 1.0 * (1.9 - 1.0), $areas['panel'], 1e-6, 'the door stands from 1 to 1.9 m along it');
    }

    /** 6 × 4 m under a roof of 45° with two gables over its short sides, its underside 2.5 m high over the outer faces. */
    public function testARoofEndsWallsAndIsACeilingOfItsTrueSize(): void
    {
        $house = new House();
        $outer = [[0, 0], [6600, 0], [6600, 4600], [0, 4600]];
        $storey = new Storey(
            's',
            '',
            0.0,
            2500.0,
            self::walls($house, 6300.0, 4300.0),
            rooms: [new Room('r', 'Loft', '', $house->at(3000.0, 2000.0))],
            floors: [new Slab('fl', $house->round($outer), 0.0, 200.0)],
            roofs: [new PitchedRoof('roof', $house->round($outer)->corners, [45.0, null, 45.0, null], [0.0, 0.0, 0.0, 0.0], 2500.0, 200.0)],
            surfaces: [new Surface('c', 'f', SurfaceOn::Ceiling, 'r', degrees: 30.0), new Surface('w', 'f', SurfaceOn::Walls, 'r')],
        );
        $areas = self::areas(new Plan([$storey], [self::tiles()]));
        self::assertEqualsWithDelta(6.0 * 4.0 * sqrt(2.0), $areas['c'], 1e-6);
        // The eaves' walls are 2.8 m high inside, the gables 2.8 and 2 m more in their middle.
        self::assertEqualsWithDelta(2 * 6.0 * 2.8 + 2 * (4.0 * 2.8 + 4.0 * 2.0 / 2.0), $areas['w'], 1e-6);
    }

    public function testARoomOpenToAboveHasTheWallsOfBothStoreys(): void
    {
        $house = new House();
        $outer = [[0, 0], [4600, 0], [4600, 3600], [0, 3600]];
        $inner = [[300, 300], [4300, 300], [4300, 3300], [300, 3300]];
        $ground = self::room($house, [
            new Surface('walls', 'f', SurfaceOn::Walls, 'r'),
            new Surface('ceiling', 'f', SurfaceOn::Ceiling, 'r'),
        ])->storeys[0];
        $plan = static fn (Contour $void): Plan => new Plan([
            new Storey('s', '', 0.0, 2700.0, $ground->walls, $ground->openings, $ground->rooms, surfaces: $ground->surfaces),
            new Storey(
                'u',
                '',
                2700.0,
                2500.0,
                array_map(static fn (Wall $w): Wall => new Wall("u$w->id", $w->from, $w->to, 300.0), $ground->walls),
                rooms: [new Room('ur', '', '', $house->at(2000.0, 1000.0))],
                floors: [new Slab('fl', $house->round($outer), 0.0, 250.0)],
                voids: [new FloorVoid('v', $void)],
                surfaces: [new Surface('over', 'f', SurfaceOn::Floor, 'ur')],
            ),
        ], [self::tiles()]);
        $areas = self::areas($plan($house->round($inner)));
        self::assertEqualsWithDelta(14.0 * (2.45 + 2.5) - 0.9 * 2.04 - 1.44, $areas['walls'], 1e-6, 'without the edge of the floor between');
        self::assertEqualsWithDelta(0.0, $areas['over'], 1e-6);
        $areas = self::areas($plan($house->round([[300, 300], [2300, 300], [2300, 3300], [300, 3300]])));
        self::assertEqualsWithDelta(2.0 * 3.0, $areas['over'], 1e-6);
        self::assertEqualsWithDelta(12.0, $areas['ceiling'], 1e-6, 'half of it higher up');
        self::assertEqualsWithDelta(14.0 * 2.45 + 7.0 * 2.5 - 0.9 * 2.04 - 1.44, $areas['walls'], 1e-6);
    }

    public function testAnArcIsFinishedAllTheWayRound(): void
    {
        $house = new House();
        $walls = self::walls($house, 4300.0, 3300.0);
        $bowed = new Wall('b', $walls[1]->from, $walls[1]->to, 300.0, rise: -800.0);
        $walls = [$walls[0], $bowed, $walls[2], $walls[3]];
        $storey = new Storey('s', '', 0.0, 2700.0, $walls, rooms: [new Room('r', '', '', $house->at(2000.0, 1500.0))], surfaces: [
            new Surface('floor', 'f', SurfaceOn::Floor, 'r'),
            new Surface('walls', 'f', SurfaceOn::Walls, 'r'),
            new Surface('bow', 'f', SurfaceOn::Left, 'b'),
        ]);
        [$made, $region] = self::made(new Plan([$storey], [self::tiles()]));
        $areas = array_map(static fn (FinishedSurface $s): float => $s->areaMm2 / 1e6, $made);
        self::assertEqualsWithDelta($region->netAreaMm2 / 1e6, $areas['floor'], 1e-6);
        $round = 0.0;
        foreach ($region->polygon as $i => [$x, $y]) {
            [$tx, $ty] = $region->polygon[($i + 1) % \count($region->polygon)];
            $round += hypot($tx - $x, $ty - $y);
        }
        self::assertEqualsWithDelta($round * 2700.0 / 1e6, $areas['walls'], 1e-3, 'chords of the wall, not those of the room');
        $last = 0.0;
        foreach ($made['bow']->pattern as [$u]) {
            $last = max($last, $u);
        }
        // Along the wall's own line, whichever face it is.
        self::assertEqualsWithDelta($bowed->length(), $last, 300.0);
    }

    /** Whatever lies how: distances in the pattern are distances in space. */
    public function testPiecesKeepTheirTrueSize(): void
    {
        $house = new House(3000.0, 500.0, 17.0);
        [$room] = self::made(self::room($house, [
            new Surface('floor', 'f', SurfaceOn::Floor, 'r', origin: $house->at(300.0, 300.0), degrees: 45.0),
            new Surface('walls', 'f', SurfaceOn::Walls, 'r', top: 2000.0, origin: new Point(100.0, 50.0), degrees: 10.0),
            new Surface('outer', 'f', SurfaceOn::Right, 'c'),
        ]));
        $roof = new PitchedRoof('roof', $house->round([[0, 0], [6600, 0], [6600, 4600], [0, 4600]])->corners, [35.0, 35.0, null, 60.0], [
            0.0, 0.0, 0.0, 0.0,
        ], 2500.0, 200.0);
        [$loft] = self::made(new Plan([new Storey(
            's',
            '',
            0.0,
            2500.0,
            self::walls($house, 6300.0, 4300.0),
            rooms: [new Room('r', 'Loft', '', $house->at(3000.0, 2000.0))],
            roofs: [$roof],
            surfaces: [new Surface('slopes', 'f', SurfaceOn::Ceiling, 'r', degrees: 30.0)],
        )], [self::tiles()]));
        foreach ([...$room, ...$loft] as $id => $surface) {
            self::assertNotSame([], $surface->places, $id);
            foreach ($surface->places as $i => $place) {
                $k = 2 === $i % 3 ? $i - 2 : $i + 1;
                [$a, $b] = [$surface->pattern[$i], $surface->pattern[$k]];
                self::assertEqualsWithDelta(self::apart($place, $surface->places[$k]), hypot($b[0] - $a[0], $b[1] - $a[1]), 1e-6, $id);
            }
        }
        foreach (array_keys($room['outer']->places) as $i) {
            if (0 === $i % 3) {
                // Counter-clockwise in space and in the pattern: no writing on it would be mirrored.
                [$a, $b, $c] = \array_slice($room['outer']->pattern, $i, 3);
                self::assertGreaterThan(0.0, ($b[0] - $a[0]) * ($c[1] - $a[1]) - ($b[1] - $a[1]) * ($c[0] - $a[0]));
            }
        }
    }

    public function testWhatRepeatsOfAPattern(): void
    {
        $finish = static fn (FinishPattern $p, float $w, float $h, string $bond): Finish => new Finish('f', '', '#dddddd', $p, $w, $h, 5.0, $bond);
        self::assertNull($finish(FinishPattern::Plain, 0.0, 0.0, 'stacked')->repeat());
        self::assertSame(
            ['size' => [305.0, 205.0], 'pieces' => [[0.0, 0.0, 300.0, 200.0]]],
            $finish(FinishPattern::Tiles, 300.0, 200.0, 'stacked')->repeat(),
        );
        foreach (Finish::BONDS as $bond => $rows) {
            foreach ([[FinishPattern::Tiles, 300.0, 200.0], [FinishPattern::Boards, 140.0, 2400.0]] as [$pattern, $w, $h]) {
                $repeat = $finish($pattern, $w, $h, $bond)->repeat();
                self::assertNotNull($repeat);
                $pieces = array_sum(array_map(static fn (array $p): float => ($p[2] - $p[0]) * ($p[3] - $p[1]), $repeat['pieces']));
                self::assertEqualsWithDelta($rows * $w * $h, $pieces, 1e-6, 'whole pieces and their joints');
                self::assertEqualsWithDelta($rows * ($w + 5.0) * ($h + 5.0), $repeat['size'][0] * $repeat['size'][1], 1e-6);
            }
        }
        self::assertSame([0.0, 0.0, 140.0, 140.0], $finish(FinishPattern::Boards, 140.0, 0.0, 'half')->repeat()['pieces'][0] ?? null, 'boards without an end');
    }

    /** The glTF validator (npm gltf-validator 2) has nothing to say. */
    public function testFinishesGoOutAndComeBack(): void
    {
        $plan = self::room(new House(5000.0, 0.0, 12.0), [
            new Surface('floor', 'f', SurfaceOn::Floor, 'r', origin: new Point(10.0, 20.0), degrees: 45.0),
            new Surface('walls', 'boards', SurfaceOn::Walls, 'r', 100.0, 1200.0),
            new Surface('panel', 'lime', SurfaceOn::Left, 'a', null, null, 500.0, 900.0),
        ]);
        $plan = new Plan($plan->storeys, [
            ...$plan->finishes,
            new Finish('boards', 'Oak boards', '#b08a5a', FinishPattern::Boards, 140.0, joint: 1.0),
            new Finish('lime', 'Lime wash', '#f4f0e6'),
        ]);
        $read = PlanReader::read(json_encode(PlanWriter::document($plan), \JSON_THROW_ON_ERROR));
        self::assertEquals($plan->finishes, $read->finishes);
        self::assertEquals($plan->storeys[0]->surfaces, $read->storeys[0]->surfaces);
        $surfaces = (new BuildingBodies($read))->surfaces('s');
        $glb = GlbWriter::write(BuildingBodies::of($read), [], [], $surfaces, $read->finishes);
        self::assertStringContainsString('baseColorTexture', $glb);
        self::assertSame([], Outside::ask('solids.mjs', ['glb' => base64_encode($glb)])['messages']);
    }

    /** @return iterable<string, array{string, string, string}> what is put for what, and the refusal's place */
    public static function mistakes(): iterable
    {
        yield 'a room that is not there' => ['"room":"r"', '"room":"x"', 'storeys/0/surfaces/0/room'];
        yield 'a finish that is not there' => ['"finish":"f"', '"finish":"x"', 'storeys/0/surfaces/0/finish'];
        yield 'a floor with a height' => ['"on":"floor"', '"on":"floor","top":3', 'storeys/0/surfaces/0/top'];
        yield 'a colour by its name' => ['"#d8d4c8"', '"grey"', 'finishes/0/colour'];
        yield 'tiles of no height' => ['"height":200', '"height":0', 'finishes/0/height'];
        yield 'a version that knew none' => ['"version":2', '"version":1', 'finishes'];
    }

    #[DataProvider('mistakes')]
    public function testWhatCannotBeAFinishIsRefusedWithItsPlace(string $for, string $put, string $at): void
    {
        $json = json_encode(PlanWriter::document(self::room(new House(), [new Surface('s1', 'f', SurfaceOn::Floor, 'r')])), \JSON_THROW_ON_ERROR);
        self::assertStringContainsString($for, $json);
        try {
            PlanReader::read(str_replace($for, $put, $json));
            self::fail('It was read.');
        } catch (UnreadableDocument $e) {
            self::assertSame($at, $e->at());
        }
    }

    public function testAColourThatIsNoneIsRefused(): void
    {
        $this->expectExceptionObject(UnusableValue::malformed('finish f/colour', 'grey', '# and six digits from 0 to f'));
        new Finish('f', '', 'grey');
    }

    public function testWhatIsNotThereHasNoSurface(): void
    {
        self::assertSame([], self::made(self::room(new House(), [
            new Surface('a', 'f', SurfaceOn::Floor, 'gone'),
            new Surface('b', 'f', SurfaceOn::Left, 'gone'),
        ]))[0]);
    }

    /**
     * @param list<Surface> $surfaces
     * @param list<Column> $columns
     */
    private static function room(House $house, array $surfaces, array $columns = []): Plan
    {
        return new Plan([new Storey(
            's',
            '',
            0.0,
            2700.0,
            self::walls($house, 4300.0, 3300.0),
            [
                new Opening('door', 'a', OpeningKind::Door, 1000.0, 900.0, 0.0, 2040.0),
                new Opening('window', 'c', OpeningKind::Window, 1000.0, 1200.0, 900.0, 1200.0),
            ],
            [new Room('r', 'Log room', '1', $house->at(2000.0, 2500.0))],
            columns: $columns,
            ceilings: [new Slab('ce', $house->round([[300, 300], [4300, 300], [4300, 3300], [300, 3300]]), 2500.0, 30.0)],
            surfaces: $surfaces,
        )], [self::tiles()]);
    }

    /** @return list<Wall> of 300 mm round a room, between their centre lines */
    private static function walls(House $house, float $width, float $depth): array
    {
        $corners = array_map(static fn (array $p): Point => $house->at(150.0 + $p[0], 150.0 + $p[1]), [
            [0.0, 0.0], [$width, 0.0], [$width, $depth], [0.0, $depth],
        ]);

        return array_map(
            static fn (string $id, int $i): Wall => new Wall($id, $corners[$i], $corners[($i + 1) % 4], 300.0),
            ['a', 'b', 'c', 'd'],
            [0, 1, 2, 3],
        );
    }

    private static function tiles(): Finish
    {
        return new Finish('f', 'Tiles', '#d8d4c8', FinishPattern::Tiles, 300.0, 200.0, 3.0, 'half');
    }

    /** @return array<string, float> m² by surface */
    private static function areas(Plan $plan): array
    {
        return array_map(static fn (FinishedSurface $s): float => $s->areaMm2 / 1e6, self::made($plan)[0]);
    }

    /** @return array{array<string, FinishedSurface>, Region} by id, and the first region */
    private static function made(Plan $plan): array
    {
        $building = new BuildingBodies($plan);
        $made = [];
        $first = null;
        foreach ($plan->storeys as $storey) {
            $first ??= $building->storey($storey->id)->regions()[0] ?? null;
            foreach ($building->surfaces($storey->id) as $surface) {
                $made[$surface->id] = $surface;
            }
        }
        self::assertNotNull($first);

        return [$made, $first];
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     */
    private static function apart(array $a, array $b): float
    {
        return sqrt(($a[0] - $b[0]) ** 2 + ($a[1] - $b[1]) ** 2 + ($a[2] - $b[2]) ** 2);
    }
}
