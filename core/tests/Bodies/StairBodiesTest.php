<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Bodies;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\RoomHeight;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\StairBuild;
use Plinth\Core\Plan\Model\StairLimit;
use Plinth\Core\Plan\Model\StairMeasure;
use Plinth\Core\Plan\Model\StairPosts;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Tests\Outside;
use Plinth\Core\Tests\Stairs\Stairs;

/** A stair stands as a closed body between two floors, cuts the one above, and shares nothing with what stands beside and under it. */
final class StairBodiesTest extends TestCase
{
    /** @return iterable<string, array{string, StairBuild}> */
    public static function stairs(): iterable
    {
        foreach (Stairs::SHAPES as $shape) {
            foreach (StairBuild::cases() as $build) {
                yield "$shape, $build->value" => [$shape, $build];
            }
        }
    }

    /** manifold-3d 3 (npm), in single precision, as another judge of whether they are solid and apart. */
    #[DataProvider('stairs')]
    public function testItsBodiesAreClosedTurnedOutwardAndApart(string $shape, StairBuild $build): void
    {
        $more = ['build' => $build, 'thickness' => 120.0, 'nosing' => 20.0, 'leftRail' => true, 'rightRail' => true];
        foreach ([new Stairs(), new Stairs(900.0, -400.0, 23.0, true)] as $stairs) {
            $bodies = self::bodies($stairs->of($shape, 15, 900.0, $more), $stairs);
            $kinds = array_count_values(array_map(static fn (Body $b): string => $b->kind->value, $bodies));
            self::assertGreaterThan(0, $kinds['stair'] ?? 0);
            self::assertGreaterThan(0, $kinds['railing'] ?? 0);
            foreach ($bodies as $body) {
                self::assertSame([], $body->mesh()->openEdges(), "{$body->kind->value} of a stair is open.");
                self::assertGreaterThan(0.0, $body->mesh()->volume());
            }
            /** @var array{status: list<string>, common: list<array{int, int, float}>} $answer */
            $answer = Outside::ask('solids.mjs', ['bodies' => array_map(
                static fn (Body $b): array => ['vertices' => $b->mesh()->vertices, 'triangles' => $b->mesh()->triangles()],
                $bodies,
            )]);
            self::assertSame(['NoError'], array_values(array_unique($answer['status'])));
            foreach ($answer['common'] as [$a, $b, $volume]) {
                self::assertLessThan(1e-6, $volume, $bodies[$a]->kind->value.' and '.$bodies[$b]->kind->value);
            }
        }
    }

    /** 14 treads of 250 × 900 mm on the floor: 180 + 360 + … high. Open ones are plates. By arithmetic. */
    public function testVolumesAreWhatArithmeticSays(): void
    {
        $volume = static fn (StairBuild $build, float $thickness, float $nosing = 0.0): float => self::volume(
            self::bodies((new Stairs())->of('straight', 15, 900.0, ['build' => $build, 'thickness' => $thickness, 'nosing' => $nosing]), new Stairs()),
            BodyKind::Stair,
        );
        self::assertEqualsWithDelta(250.0 * 900.0 * 180.0 * 14 * 15 / 2, $volume(StairBuild::Solid, 100.0), 1.0);
        self::assertEqualsWithDelta(14 * 250.0 * 900.0 * 40.0, $volume(StairBuild::Open, 40.0), 1.0);
        self::assertEqualsWithDelta(14 * 250.0 * 900.0 * 40.0 + 13 * 20.0 * 900.0 * 40.0, $volume(StairBuild::Open, 40.0, 20.0), 1.0);
        // A slab: half a riser over its whole run, and its thickness square to the soffit; what would lie under the floor is not there.
        $pitch = atan2(180.0, 250.0);
        $slab = 150.0 / cos($pitch);
        $whole = 14 * 250.0 * (180.0 / 2.0 + $slab) * 900.0;
        $under = $slab ** 2 / tan($pitch) / 2.0 * 900.0;
        self::assertEqualsWithDelta($whole - $under, $volume(StairBuild::Slab, 150.0), 1.0);
    }

    /** Posts of 20 × 40 mm under a handrail of 40 mm; a riser of 180 over a going of 250. By arithmetic. */
    public function testPostsStandByNumberOrOnEverySoManiethTread(): void
    {
        $volume = static fn (StairPosts $posts, float $by): float => self::volume(
            self::bodies((new Stairs())->of('straight', 15, 900.0, ['leftRail' => true, 'posts' => $posts, 'postsBy' => $by]), new Stairs()),
            BodyKind::Railing,
        );
        $post = static fn (float $along): float => 20.0 * 40.0 * (900.0 - 40.0 + $along * 180.0 / 250.0);
        self::assertEqualsWithDelta(
            11.0 * $post(125.0),
            $volume(StairPosts::Treads, 1.0) - $volume(StairPosts::Treads, 7.0),
            1.0,
            'On all 14 treads; on the first, the eighth and the last.',
        );
        self::assertEqualsWithDelta(
            $post(240.0),
            $volume(StairPosts::Number, 3.0) - $volume(StairPosts::Number, 2.0),
            1.0,
            'One more in the middle, which is where two treads meet: it stands on one of them.',
        );
        self::assertEqualsWithDelta(28.0 * $post(125.0), $volume(StairPosts::Gap, 95.0) - $volume(StairPosts::Treads, 1.0), 1.0, 'Three a tread, or one.');
        self::assertEqualsWithDelta($volume(StairPosts::Number, 4.0), $volume(StairPosts::Gap, 1150.0), 1e-3, 'Three gaps of at most 1150 over 3500 mm.');
    }

    /** Under a slab lies less than 1500 mm up to where its soffit passes that: by arithmetic on its pitch. */
    public function testTheFloorUnderAStairIsCountedApart(): void
    {
        $walls = [];
        $corners = [[-500.0, -500.0], [4500.0, -500.0], [4500.0, 500.0], [-500.0, 500.0]];
        foreach ($corners as $i => $c) {
            $walls[] = new Wall("w$i", new Point(...$c), new Point(...$corners[($i + 1) % 4]), 100.0);
        }
        $heights = static fn (StairLimit ...$limits): RoomHeight => (new BuildingBodies(
            new Plan(self::storeys((new Stairs())->of('straight'), new Stairs(), false, $walls), [], array_values($limits)),
        ))->storey('g')->heights()[0];
        $slope = 180.0 / 250.0;
        $low = static fn (float $height): float => 900.0 * ($height + 150.0 * hypot(1.0, $slope)) / $slope;
        self::assertEqualsWithDelta(900.0 * 3500.0, $heights()->underStairsMm2, 1.0);
        self::assertEqualsWithDelta($low(1500.0), $heights()->lowMm2, 1.0);
        self::assertEqualsWithDelta($low(1200.0), $heights(new StairLimit(StairMeasure::Under, 1200.0, null, 'the lease'))->lowMm2, 1.0, 'As the project says.');
    }

    public function testItStandsTheSameOnANationalGrid(): void
    {
        foreach (Stairs::SHAPES as $shape) {
            [$here, $there] = [new Stairs(), new Stairs(650e6, 650e6)];
            $of = static fn (Stairs $s): float => self::volume(self::bodies($s->of($shape, 15, 900.0, ['leftRail' => true]), $s), BodyKind::Stair);
            self::assertEqualsWithDelta($of($here), $of($there), 1e-7 * $of($here), $shape);
        }
    }

    public function testTheFloorAboveIsOpenOverIt(): void
    {
        $stairs = new Stairs();
        $floor = static fn (?Stair $stair): float => self::volume(self::bodies($stair, $stairs, true), BodyKind::Floor);
        // Opened over 12 treads, as headroom asks under a floor of 250.
        self::assertEqualsWithDelta(12 * 250.0 * 900.0 * 250.0, $floor(null) - $floor($stairs->of('straight')), 1.0);
        self::assertEqualsWithDelta(
            13 * 250.0 * 900.0 * 250.0,
            $floor(null) - $floor($stairs->of('straight', 15, 900.0, ['headroom' => 2200.0])),
            1.0,
            'It follows.',
        );
    }

    /** A wall under a flight ends at its soffit; one that it runs beside stands whole, and the stair gives way to it. */
    public function testWallsUnderItEndAtItAndThoseBesideItDoNot(): void
    {
        $under = new Wall('under', new Point(2600.0, -400.0), new Point(2600.0, 400.0), 100.0);
        $beside = new Wall('beside', new Point(-500.0, 480.0), new Point(4000.0, 480.0), 100.0);
        $stair = (new Stairs())->of('straight', 15, 900.0, ['build' => StairBuild::Solid]);
        $bodies = self::bodies((new Stairs())->of('straight'), new Stairs(), false, [$under, $beside]);
        $wall = array_values(array_filter($bodies, static fn (Body $b): bool => 'under' === $b->id))[0];
        $top = max([0.0, ...array_column($wall->mesh()->vertices, 2)]);
        self::assertEqualsWithDelta(180.0 / 250.0 * 2650.0 - 150.0 / cos(atan2(180.0, 250.0)), $top, 1e-6);
        $wall = array_values(array_filter($bodies, static fn (Body $b): bool => 'beside' === $b->id))[0];
        self::assertEqualsWithDelta(4500.0 * 100.0 * 2700.0, $wall->mesh()->volume(), 1.0);
        $solid = self::bodies($stair, new Stairs(), false, [$beside]);
        $ring = static fn (float $width): float => 250.0 * $width * 180.0 * 14 * 15 / 2;
        self::assertEqualsWithDelta($ring(900.0 - 20.0), self::volume($solid, BodyKind::Stair), 100.0, 'The wall reaches 20 mm into it.');
    }

    public function testAStairThatCannotStandIsToldAndTheRestStands(): void
    {
        $tight = new Stair('s', [new Point(0.0, 0.0), new Point(600.0, 0.0)], [300.0], 900.0, 15);
        $building = new BuildingBodies(new Plan(self::storeys($tight, new Stairs(), true)));
        self::assertSame(BodyKind::Floor, $building->storey('g')->all()[0]->kind);
        self::assertStringContainsString('radius', $building->storey('g')->refused()[0]->message);
    }

    /**
     * @param list<Wall> $walls
     *
     * @return list<Body>
     */
    private static function bodies(?Stair $stair, Stairs $at, bool $floors = false, array $walls = []): array
    {
        return BuildingBodies::of(new Plan(self::storeys($stair, $at, $floors, $walls)));
    }

    /**
     * @param list<Wall> $walls
     *
     * @return list<Storey>
     */
    private static function storeys(?Stair $stair, Stairs $at, bool $floors, array $walls = []): array
    {
        $outline = new Contour([$at->at(-3000.0, -4000.0), $at->at(6000.0, -4000.0), $at->at(6000.0, 6000.0), $at->at(-3000.0, 6000.0)]);
        $slab = static fn (string $id): array => $floors ? [new Slab($id, $outline, 0.0, 250.0)] : [];

        return [
            (new Storey('g', 'Ground', 0.0, 2700.0, $walls))->built($slab('gf'), stairs: null === $stair ? [] : [$stair]),
            (new Storey('u', 'Upper', 2700.0, 2700.0, []))->built($slab('uf')),
        ];
    }

    /** @param list<Body> $bodies */
    private static function volume(array $bodies, BodyKind $kind): float
    {
        return array_sum(array_map(
            static fn (Body $b): float => $b->mesh()->volume(),
            array_filter($bodies, static fn (Body $b): bool => $b->kind === $kind),
        ));
    }
}
