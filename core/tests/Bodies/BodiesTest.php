<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Bodies;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Exchange\Gltf\GlbWriter;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningHead;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Shaft;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\WholeStorey;
use Plinth\Core\Tests\Outside;
use Plinth\Core\Tests\Plan\Plans;

/** What stands of a plan is closed, turned outward, as large as arithmetic says, and shares nothing with anything else. */
final class BodiesTest extends TestCase
{
    /** @return iterable<string, array{House}> */
    public static function houses(): iterable
    {
        yield 'at the zero' => [new House()];
        yield 'turned' => [new House(1200.0, -700.0, 23.0)];
        yield 'on a national grid' => [new House(650e6, 650e6)];
    }

    #[DataProvider('houses')]
    public function testEveryBodyIsClosedAndHasNoFaceOfNoArea(House $house): void
    {
        $kinds = [];
        foreach (BuildingBodies::of($house->plan()) as $body) {
            $mesh = $body->mesh();
            $kinds[$body->kind->value] = true;
            self::assertSame([], $mesh->openEdges(), "{$body->kind->value} $body->id is open.");
            self::assertGreaterThan(0.0, $mesh->volume(), "{$body->kind->value} $body->id is turned inside out.");
            $area = 0.0;
            foreach ($mesh->triangles() as $triangle) {
                [$x, $y, $z] = $mesh->normal([$triangle]);
                self::assertGreaterThan(1e-4, $x ** 2 + $y ** 2 + $z ** 2, "{$body->kind->value} $body->id has a triangle of no area.");
                $area += sqrt($x ** 2 + $y ** 2 + $z ** 2) / 2.0;
            }
            self::assertEqualsWithDelta($mesh->area(), $area, 1e-9 * $area, "{$body->kind->value} $body->id is not cut up whole.");
        }
        self::assertCount(15, $kinds);
    }

    /** manifold-3d 3 (npm), in single precision: volumes to 1e-5 of themselves; of what touches it tells up to some 100 mm³. */
    #[DataProvider('houses')]
    public function testNoTwoBodiesHaveAnythingInCommon(House $house): void
    {
        $bodies = BuildingBodies::of($house->plan());
        ['volumes' => $volumes, 'status' => $status, 'common' => $common] = self::solids($bodies);
        foreach ($bodies as $i => $body) {
            self::assertSame('NoError', $status[$i], "{$body->kind->value} $body->id");
            self::assertEqualsWithDelta($body->mesh()->volume() / 1e9, $volumes[$i], 2e-5 * $volumes[$i], "{$body->kind->value} $body->id");
        }
        foreach ($common as [$a, $b, $volume]) {
            self::assertLessThan(1e-6, $volume, $bodies[$a]->kind->value.' '.$bodies[$a]->id.' and '.$bodies[$b]->kind->value.' '.$bodies[$b]->id);
        }
    }

    public function testABodyIsTheSameOnANationalGrid(): void
    {
        $here = BuildingBodies::of((new House())->plan());
        $there = BuildingBodies::of((new House(650e6, 650e6))->plan());
        self::assertCount(\count($here), $there);
        foreach ($here as $i => $body) {
            $volume = $body->mesh()->volume();
            self::assertSame([$body->kind, $body->id], [$there[$i]->kind, $there[$i]->id]);
            self::assertEqualsWithDelta($volume, $there[$i]->mesh()->volume(), 1e-8 * $volume, "{$body->kind->value} $body->id");
        }
    }

    public function testVolumesAreWhatArithmeticSays(): void
    {
        $wall = new Wall('w', new Point(0.0, 0.0), new Point(5000.0, 0.0), 200.0);
        $cut = static fn (Opening ...$openings): float => 1e9 * (5.0 * 0.2 * 2.7) - self::volume(
            new Plan([new Storey('s', '', 0.0, 2700.0, [$wall], array_values($openings))]),
            BodyKind::Wall,
        );
        self::assertEqualsWithDelta(0.0, $cut(), 1.0);
        $window = static fn (OpeningHead $head, float $width, float $height, float $rise = 0.0): Opening => new Opening(
            'o',
            'w',
            OpeningKind::Window,
            1000.0,
            $width,
            500.0,
            $height,
            head: $head,
            rise: $rise,
        );
        foreach ([
            'level' => [$window(OpeningHead::Level, 1200.0, 900.0), 1200.0 * 900.0],
            'half a circle over 300' => [$window(OpeningHead::Semicircle, 1000.0, 800.0), 1000.0 * 300.0 + \M_PI * 500.0 ** 2 / 2.0],
            'round' => [$window(OpeningHead::Round, 900.0, 900.0), \M_PI * 450.0 ** 2],
            // A segment 1200 wide that rises 200: radius 1000, half its angle asin(0.6).
            'a segment' => [
                $window(OpeningHead::Segment, 1200.0, 1000.0, 200.0),
                1200.0 * 800.0 + 1e6 * (asin(0.6) - 0.6 * 0.8),
            ],
        ] as $what => [$opening, $area]) {
            self::assertEqualsWithDelta(200.0 * $area, $cut($opening), 1e-9 * 2.7e9, $what);
        }
        self::assertEqualsWithDelta(200.0 * 800.0 * 2700.0, $cut(new Opening('o', 'w', OpeningKind::Opening, 500.0, 800.0)), 1.0);
    }

    public function testAFrameAndWhatClosesItFillTheirPartOfAnOpening(): void
    {
        $wall = new Wall('w', new Point(0.0, 0.0), new Point(3000.0, 4000.0), 300.0);
        $bodies = static fn (Opening $o): array => BuildingBodies::of(new Plan([new Storey('s', '', 0.0, 2700.0, [$wall], [$o])]));
        $window = $bodies(new Opening('o', 'w', OpeningKind::Window, 1000.0, 1200.0, 900.0, 1000.0));
        self::assertEqualsWithDelta(70.0 * (1200.0 * 1000.0 - 1100.0 * 900.0), self::sum($window, BodyKind::Frame), 1.0);
        self::assertEqualsWithDelta(24.0 * 1100.0 * 900.0, self::sum($window, BodyKind::Pane), 1.0);
        $door = $bodies(new Opening('o', 'w', OpeningKind::Door, 1000.0, 1500.0, 0.0, 2100.0, leaf: 'double'));
        self::assertCount(2, array_filter($door, static fn (Body $b): bool => BodyKind::Leaf === $b->kind));
        self::assertEqualsWithDelta(40.0 * 1400.0 * 2050.0, self::sum($door, BodyKind::Leaf), 1.0);
        self::assertSame([], array_filter(
            $bodies(new Opening('o', 'w', OpeningKind::Opening, 1000.0, 1200.0)),
            static fn (Body $b): bool => BodyKind::Wall !== $b->kind,
        ));
    }

    public function testWallsGoUpToWhatCoversThem(): void
    {
        $house = new House();
        $outer = [[0, 0], [10_000, 0], [10_000, 6000], [0, 6000]];
        $walls = static fn (float $height, float $to): float => self::volume(new Plan([
            new Storey('s', '', 0.0, $height, $house->walls('w'), floors: [new Slab('f', $house->round($outer), 0.0, 300.0)]),
            new Storey('t', '', $to, 2600.0, [], floors: [new Slab('g', $house->round($outer), 0.0, 200.0)]),
        ]), BodyKind::Wall);
        $plan = array_sum(array_map(
            static fn ($shapes): float => Overlay::area($shapes),
            (static function () use ($house): array {
                $derivation = new Derivation(new WholeStorey(new Storey('s', '', 0.0, 1.0, $house->walls('w'))));

                return $derivation->footprints($derivation->all());
            })(),
        ));
        // Up to the underside of the floor above, whatever the storey's own height says.
        self::assertEqualsWithDelta($plan * 2600.0, $walls(2800.0, 2800.0), 1e-9 * $plan * 2600.0);
        self::assertEqualsWithDelta($plan * 2900.0, $walls(2800.0, 3100.0), 1e-9 * $plan * 2900.0);
    }

    /** 10 × 6 m, 45°, two gables: each gable 9 m² (arithmetic). */
    public function testAGableComesOfItself(): void
    {
        $house = new House();
        $outer = $house->round([[0, 0], [10_000, 0], [10_000, 6000], [0, 6000]])->corners;
        $with = static fn (?float $height, float $overhang): Plan => new Plan([new Storey(
            's',
            '',
            0.0,
            2500.0,
            [new Wall('w', new Point(9850.0, 0.0), new Point(9850.0, 6000.0), 300.0, height: $height)],
            roofs: [new PitchedRoof('r', $outer, [45.0, null, 45.0, null], array_fill(0, 4, $overhang), 2500.0, 180.0)],
        )]);
        $under = 300.0 * (6000.0 * 2500.0 + 9e6);
        self::assertEqualsWithDelta($under, self::volume($with(null, 0.0), BodyKind::Wall), 1e-9 * $under);
        self::assertEqualsWithDelta($under, self::volume($with(null, 600.0), BodyKind::Wall), 1e-9 * $under);
        self::assertEqualsWithDelta(300.0 * 6000.0 * 2000.0, self::volume($with(2000.0, 600.0), BodyKind::Wall), 1.0);
        // Its own height, 4000, ends it below the ridge and the slopes end it beside.
        self::assertEqualsWithDelta(
            300.0 * (6000.0 * 2500.0 + 1500.0 * (6000.0 + 3000.0) / 2.0),
            self::volume($with(4000.0, 600.0), BodyKind::Wall),
            1.0,
        );
        // Across the slope it is 180 thick: as large as its slopes, less nothing, for both sides are cut plumb.
        self::assertEqualsWithDelta(180.0 * 60e6 * \M_SQRT2, self::volume($with(null, 0.0), BodyKind::Roof), 1e3);
        self::assertEqualsWithDelta(180.0 * 11.2e3 * 7.2e3 * \M_SQRT2, self::volume($with(null, 600.0), BodyKind::Roof), 1e3);
    }

    public function testAVoidCutsItsFloorAndAChimneyAllThatItPasses(): void
    {
        $bodies = BuildingBodies::of((new House())->plan());
        $of = static fn (string $id, BodyKind $kind): float => self::sum(
            array_values(array_filter($bodies, static fn (Body $b): bool => $b->id === $id)),
            $kind,
        );
        // The void, the chimney, and twelve treads of the stair, over which headroom would be short.
        $stair = 12 * 3500.0 / 15.0 * 800.0;
        self::assertEqualsWithDelta(250.0 * (60e6 - 2e6 - 0.36e6 - $stair), $of('ufl', BodyKind::Floor), 1.0);
        // The chimney stands on the ground floor's level, above that floor.
        self::assertEqualsWithDelta(200.0 * 60e6, $of('gfl', BodyKind::Floor), 1.0);
        self::assertEqualsWithDelta(0.36e6 * 8500.0, $of('ch', BodyKind::Chimney), 1.0);
    }

    public function testAChimneyThatEndsBelowTheRoofLeavesItWhole(): void
    {
        $outer = (new House())->round([[0, 0], [10_000, 0], [10_000, 6000], [0, 6000]]);
        $roof = new PitchedRoof('r', $outer->corners, [45.0, null, 45.0, null], [0.0, 0.0, 0.0, 0.0], 2500.0, 180.0);
        $chimney = (new House())->round([[4000, 2700], [4600, 2700], [4600, 3300], [4000, 3300]]);
        $with = static fn (float $top): float => self::volume(
            new Plan([new Storey('s', '', 0.0, 2500.0, [], roofs: [$roof], shafts: [new Shaft('c', $chimney, 0.0, $top)])]),
            BodyKind::Roof,
        );
        $whole = 180.0 * 60e6 * \M_SQRT2;
        self::assertEqualsWithDelta($whole, $with(4000.0), 1e3);
        self::assertEqualsWithDelta($whole - 180.0 * 0.36e6 * \M_SQRT2, $with(7000.0), 1e3);
    }

    public function testAPartitionEndsUnderItsCeiling(): void
    {
        $wall = static fn (bool $toCeiling): Plan => new Plan([new Storey(
            's',
            '',
            0.0,
            2700.0,
            [new Wall('w', new Point(1000.0, 1000.0), new Point(4000.0, 1000.0), 100.0, toCeiling: $toCeiling)],
            ceilings: [new Slab('c', new Contour([new Point(0.0, 0.0), new Point(5000.0, 0.0), new Point(5000.0, 3000.0), new Point(0.0, 3000.0)]), 2400.0, 30.0)],
        )]);
        self::assertEqualsWithDelta(300_000.0 * 2370.0, self::volume($wall(true), BodyKind::Wall), 1.0);
        self::assertEqualsWithDelta(15e6 * 30.0, self::volume($wall(true), BodyKind::Ceiling), 1.0);
        self::assertEqualsWithDelta(300_000.0 * 2700.0, self::volume($wall(false), BodyKind::Wall), 1.0);
        self::assertEqualsWithDelta((15e6 - 300_000.0) * 30.0, self::volume($wall(false), BodyKind::Ceiling), 1.0);
    }

    public function testARoomIsAsHighAsWhatCoversItAndThroughAVoidHigher(): void
    {
        $plan = (new House())->plan();
        $building = new BuildingBodies($plan);
        $heights = [];
        foreach ($plan->storeys as $storey) {
            $regions = Derivation::of($storey)->regions;
            foreach ($building->storey($storey->id)->heights() as $i => $height) {
                self::assertSame($regions[$i]->key, $height->region);
                $heights[$storey->id][] = $height;
            }
        }
        // The room with the void: 2425 under its ceiling; through the void up to the roof, whose underside rises at 35° from 5400 over the
        // line at x = 0, as far in as the void reaches.
        $open = array_values(array_filter($heights['g'] ?? [], static fn ($h): bool => $h->openMm2 > 0.0));
        usort($open, static fn ($a, $b): int => $a->openMm2 <=> $b->openMm2);
        self::assertEqualsWithDelta([2e6, 12 * 3500.0 / 15.0 * 800.0], array_column($open, 'openMm2'), 1.0, 'through the void, and over the stair');
        self::assertEqualsWithDelta(2425.0, $open[0]->leastMm, 1e-6);
        self::assertEqualsWithDelta(5400.0 + 2000.0 * tan(deg2rad(35.0)), $open[0]->mostMm, 1e-6);
        foreach ($heights['g'] ?? [] as $height) {
            self::assertTrue(0.0 < $height->openMm2 || abs($height->mostMm - 2425.0) < 1e-6);
        }
        // Under the roof a room is lowest at its eaves: 300 inside the line, 2600 above the floor.
        $least = min(\INF, ...array_map(static fn ($h): float => $h->leastMm, $heights['u'] ?? []));
        self::assertEqualsWithDelta(2600.0 + 300.0 * tan(deg2rad(35.0)), $least, 1e-6);
    }

    public function testWhatCannotStandIsToldAndTheRestStands(): void
    {
        $house = new House();
        $roof = new PitchedRoof('r', $house->round([[0, 0], [9000, 0], [0, 9000], [9000, 9000]])->corners, array_fill(0, 4, 30.0), array_fill(0, 4, 0.0), 2500.0, 200.0);
        $plan = new Plan([new Storey('s', '', 0.0, 2500.0, $house->walls('w'), roofs: [$roof])]);
        $building = new BuildingBodies($plan);
        self::assertCount(6, $building->storey('s')->all());
        self::assertSame(['r'], array_column($building->storey('s')->refused(), 'id'));
        self::assertStringContainsString('crosses itself', $building->storey('s')->refused()[0]->message);
    }

    /** Walls in every way that people draw them: what an edit asks for by itself is what all of it together holds. */
    public function testPartOfAStoreyIsWhatTheWholeSays(): void
    {
        foreach ([3, 4, 5] as $seed) {
            $storey = Plans::furnished($seed, 4, 4);
            $all = [];
            foreach (BuildingBodies::of(new Plan([$storey])) as $body) {
                self::assertSame([], $body->mesh()->openEdges(), "$seed: {$body->kind->value} $body->id is open.");
                $all[$body->id.' '.$body->kind->value] = $body->mesh();
            }
            foreach (\array_slice($storey->walls, 0, 6) as $wall) {
                $walls = (new BuildingBodies(new Plan([$storey])))->storey($storey->id)->walls([$wall->id]);
                self::assertSame(isset($all[$wall->id.' wall']), [] !== $walls, "$seed: $wall->id");
                foreach ($walls as $body) {
                    self::assertEqualsWithDelta($all[$body->id.' '.$body->kind->value]->volume(), $body->mesh()->volume(), 1e-3);
                }
            }
        }
    }

    /** Straight, turned and far off, openings anywhere, on ends and on each other: what is solid is what they leave (arithmetic). */
    public function testAWallIsWhatItsOpeningsLeave(): void
    {
        mt_srand(11);
        for ($n = 0; $n < 300; ++$n) {
            $turn = mt_rand(0, 360) * \M_PI / 180.0;
            $length = (float) mt_rand(2000, 9000);
            $from = new Point((float) mt_rand(-10_000, 10_000), 0 === $n % 3 ? 650e6 : 0.0);
            $wall = new Wall('w', $from, $from->plus($length * cos($turn), $length * sin($turn)), (float) mt_rand(60, 400));
            [$openings, $open] = [[], []];
            for ($i = 0; $i < mt_rand(0, 4); ++$i) {
                [$offset, $width] = [(float) mt_rand(-300, (int) $length), (float) mt_rand(300, 1500)];
                [$sill, $high] = [(float) (mt_rand(0, 1) * mt_rand(100, 1200)), (float) mt_rand(300, 1400)];
                $openings[] = new Opening("o$i", 'w', OpeningKind::Opening, $offset, $width, $sill, $high);
                $open[] = [max(0.0, $offset), min($length, $offset + $width), $sill, $sill + $high];
            }
            $mesh = BuildingBodies::of(new Plan([new Storey('s', '', 0.0, 2600.0, [$wall], $openings)]))[0]->mesh();
            self::assertSame([], $mesh->openEdges(), "wall $n");
            $solid = $wall->thickness * ($length * 2600.0 - self::covered($open));
            self::assertEqualsWithDelta($solid, $mesh->volume(), 1e-6 * $solid, "wall $n");
        }
    }

    /**
     * @param list<array{float, float, float, float}> $boxes least and most along, least and most up
     *
     * @return float mm² that they cover together, box by box of the grid that all their sides make
     */
    private static function covered(array $boxes): float
    {
        $sides = static function (int $a, int $b) use ($boxes): array {
            $all = [...array_column($boxes, $a), ...array_column($boxes, $b)];
            sort($all);

            return $all;
        };
        [$xs, $zs] = [$sides(0, 1), $sides(2, 3)];
        $area = 0.0;
        for ($i = 1; $i < \count($xs); ++$i) {
            for ($k = 1; $k < \count($zs); ++$k) {
                [$x, $z] = [($xs[$i - 1] + $xs[$i]) / 2.0, ($zs[$k - 1] + $zs[$k]) / 2.0];
                foreach ($boxes as [$from, $to, $low, $high]) {
                    if ($x > $from && $x < $to && $z > $low && $z < $high) {
                        $area += ($xs[$i] - $xs[$i - 1]) * ($zs[$k] - $zs[$k - 1]);
                        break;
                    }
                }
            }
        }

        return $area;
    }

    public function testARailingIsPostsAndBalustersBetweenRailsThroughWhichNoSpherePasses(): void
    {
        $made = static fn (float $rise, ?float $height): Body => BuildingBodies::of(new Plan([new Storey('s', '', 0.0, 2700.0, [
            new Wall('r', new Point(0.0, 0.0), new Point(3000.0, 0.0), 60.0, height: $height, rise: $rise, enclosing: false, railing: true),
        ])]))[0];
        $railing = $made(0.0, null);
        self::assertSame(BodyKind::Railing, $railing->kind);
        self::assertSame([], $railing->mesh()->openEdges());
        // Four posts, three bays of two rails, and eight balusters in each (arithmetic).
        $square = 4 * 50 * 1000 + (3000 - 4 * 50) * 45 * 2 + 24 * 15 * (1000 - 80 - 45 - 45);
        self::assertEqualsWithDelta(60.0 * $square, $railing->mesh()->volume(), 1.0);
        $bowed = $made(600.0, 900.0);
        self::assertSame([], $bowed->mesh()->openEdges());
        self::assertSame(900.0, max(0.0, ...array_column($bowed->mesh()->vertices, 2)));
        foreach ([$railing, $bowed] as $body) {
            $solid = array_unique(array_map(
                static fn (array $v): float => round($v[0], 3),
                array_filter($body->mesh()->vertices, static fn (array $v): bool => abs($v[2] - 125.0) < 1.0 && abs($v[1]) < 1e5),
            ));
            sort($solid);
            for ($i = 1; $i < \count($solid); ++$i) {
                // Approved Document K (from memory): no sphere of 100 mm passes.
                self::assertLessThan(100.0, $solid[$i] - $solid[$i - 1]);
            }
            self::assertGreaterThan(20, \count($solid));
        }
    }

    /** The glTF validator (npm gltf-validator 2) has nothing to say, and volumes read back are the same. */
    public function testTheFileOfAllBodiesIsValid(): void
    {
        foreach (self::houses() as [$house]) {
            $glb = GlbWriter::write(BuildingBodies::of($house->plan()), ['g' => 'Ground', 'u' => 'Upper']);
            self::assertSame([], Outside::ask('solids.mjs', ['glb' => base64_encode($glb)])['messages']);
        }
        self::assertSame([], Outside::ask('solids.mjs', ['glb' => base64_encode(GlbWriter::write([]))])['messages']);
    }

    private static function volume(Plan $plan, BodyKind $kind): float
    {
        return self::sum(BuildingBodies::of($plan), $kind);
    }

    /** @param list<Body> $bodies */
    private static function sum(array $bodies, BodyKind $kind): float
    {
        return array_sum(array_map(static fn (Body $b): float => $b->kind === $kind ? $b->mesh()->volume() : 0.0, $bodies));
    }

    /**
     * @param list<Body> $bodies
     *
     * @return array{volumes: list<float>, status: list<string>, common: list<array{int, int, float}>}
     */
    private static function solids(array $bodies): array
    {
        $answer = Outside::ask('solids.mjs', ['bodies' => array_map(
            static fn (Body $b): array => ['vertices' => $b->mesh()->vertices, 'triangles' => $b->mesh()->triangles()],
            $bodies,
        )]);

        /** @var array{volumes: list<float>, status: list<string>, common: list<array{int, int, float}>} $answer */
        return $answer;
    }
}
