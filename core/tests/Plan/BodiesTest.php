<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Finding;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Faces;

/** Bodies never take up less than nothing or more than they cover, however walls lie on each other. */
final class BodiesTest extends TestCase
{
    public function testWhatTangledWallsCoverAndLeaveAgreesWithGeos(): void
    {
        $first = false === getenv('SEED') ? 1 : (int) getenv('SEED');
        $count = false === getenv('PLANS') ? 300 : (int) getenv('PLANS');
        self::assertSame([], AgainstGeos::disagreements($first, $count));
    }

    /** Ends drawn on to one place, and a group whose outside falls in two, were met once in some thousands of plans each. */
    public function testPlansThatWereOnceTooMuchAreDerived(): void
    {
        foreach ([925, 2852, 3135, 4038, 7032, 7629, 9253, 10_514, 10_644, 11_993, 13_966, 14_349, 33_161] as $seed) {
            self::assertSame([], AgainstGeos::disagreements($seed, 1));
        }
    }

    public function testNoCornerIsFurtherOffThanItsWallsThicknessAllows(): void
    {
        for ($seed = 1; $seed <= 300; ++$seed) {
            $walls = Plans::tangled($seed);
            self::assertKeepsToItsThickness(Derivation::of(Plans::storey($walls)), $walls, "seed $seed");
        }
    }

    public function testAWallThatIsTracedAgainAFewMillimetresAsideAddsNothingAndIsFound(): void
    {
        $room = [
            Plans::wall('s', 0, 0, 12_000, 0, 300),
            Plans::wall('e', 12_000, 0, 12_000, 11_000, 300),
            Plans::wall('n', 12_000, 11_000, 0, 11_000, 300),
            Plans::wall('w', 0, 11_000, 0, 0, 300),
        ];
        $derived = Derivation::of(Plans::storey([...$room, Plans::wall('again', 0, -2, 12_000, 2, 300)]));
        self::assertCount(1, $derived->regions);
        self::assertEqualsWithDelta(12_300.0 * 11_300.0, $derived->areasMm2['grossFloor'], 1.0);
        self::assertEqualsWithDelta(11_700.0 * (10_700.0 - 1.0), $derived->areasMm2['netFloor'], 12.0);
        self::assertSame([['walls-overlap', ['again', 's']]], self::told($derived));
        $lone = Derivation::of(Plans::storey([Plans::wall('a', 0, 0, 10_000, 0), Plans::wall('b', 0, -1.5, 10_000, 1.5)]));
        self::assertEqualsWithDelta(2.0075e6, $lone->areasMm2['structure'], 100.0);
        self::assertSame([['walls-overlap', ['a', 'b']]], self::told($lone));
    }

    /** Its chords are shorter than the walls are thick; that is nothing to be mended. One that crosses it beside its ends is. */
    public function testAnArcThatJoinsOtherWallsRunsIntoNone(): void
    {
        mt_srand(77);
        for ($k = 0; $k < 30; ++$k) {
            [$thick, $rise, $inner] = [mt_rand(10, 40) * 10.0, mt_rand(-2, 15) * 100.0, mt_rand(1500, 3500) * 1.0];
            $walls = [
                Plans::wall('s', 0, 0, 8000, 0, $thick), new Wall('e', new Point(8000.0, 0.0), new Point(8000.0, 5000.0), 300.0, rise: -$rise),
                Plans::wall('n', 8000, 5000, 0, 5000, $thick), Plans::wall('w', 0, 5000, 0, 0, $thick),
            ];
            $meets = $walls[1]->nearest(new Point(8000.0 + $rise, $inner));
            $walls[] = Plans::wall('x', 0, $inner, $meets->x, $meets->y, 150);
            self::assertSame([], self::told(Derivation::of(Plans::storey($walls))), "$k: $thick thick, rises $rise, met at $inner");
        }
        $across = Plans::wall('y', 7000, 2500, 10_000, 2500, 100);
        $walls = [new Wall('e', new Point(8000.0, 0.0), new Point(8000.0, 5000.0), 300.0, rise: -100.0), Plans::wall('z', 8050, 900, 8050, 4100, 300), $across];
        self::assertSame([['walls-overlap', ['e', 'z']]], self::told(Derivation::of(Plans::storey($walls))));
    }

    public function testWallsBesideEachOtherAreFoundWhereTheyOverlapAndOnlyThere(): void
    {
        foreach ([3, 60, 149, 199, 200, 201, 250] as $apart) {
            $derived = Derivation::of(Plans::storey([...Plans::rectangle(), Plans::wall('beside', 1000, $apart, 5000, $apart)]));
            self::assertSame($apart < 200 ? [['walls-overlap', ['beside', 'south']]] : [], self::told($derived), "$apart mm");
            self::assertEqualsWithDelta(6200.0 * 4200.0, $derived->areasMm2['grossFloor'], 1.0, "$apart mm");
            // An end within a body is drawn on to its centre line.
            self::assertEqualsWithDelta(
                6200.0 * 4200.0 - 5800.0 * 3800.0 + 4000.0 * ($apart <= 100 ? 0.0 : min($apart, 200)),
                $derived->areasMm2['structure'],
                1.0,
                "$apart mm",
            );
        }
    }

    /** As after settling, when walls that touched have moved by a tenth of a millimetre. */
    public function testAnOverlapThatNobodySeesIsTakenOffAndNotTold(): void
    {
        $derived = Derivation::of(Plans::storey([...Plans::rectangle(), Plans::wall('beside', 1000, 199.8, 5000, 199.8)]));
        self::assertSame([], self::told($derived));
        self::assertEqualsWithDelta(6200.0 * 4200.0 - 5800.0 * 3800.0 + 4000.0 * 199.8, $derived->areasMm2['structure'], 0.01);
    }

    public function testAJogShorterThanItsWallsAreThickIsOneBody(): void
    {
        $derived = Derivation::of(
            Plans::storey([
                Plans::wall('a', 0, 0, 5000, 0, 300),
                Plans::wall('jog', 5000, 0, 5000, 50, 300),
                Plans::wall('b', 5000, 50, 10_000, 50, 300),
            ]),
        );
        self::assertSame([['wall-too-short', ['jog']]], self::told($derived));
        self::assertCount(1, $derived->outlines);
        self::assertEqualsWithDelta(10_000.0 * 300.0 + 50.0 * 300.0, $derived->areasMm2['structure'], 1.0);
        self::assertEqualsWithDelta($derived->areasMm2['structure'], Polygon::area($derived->outlines[0]->outer), 1.0);
    }

    public function testTheLabelAndTheClearWidthOfARoomRoundAnIslandStandInTheRoom(): void
    {
        $island = [
            Plans::wall('i1', 1500, 1000, 4500, 1000, 100),
            Plans::wall('i2', 4500, 1000, 4500, 3000, 100),
            Plans::wall('i3', 4500, 3000, 1500, 3000, 100),
            Plans::wall('i4', 1500, 3000, 1500, 1000, 100),
        ];
        foreach ([[], [new Room('r', 'Hall', '', new Point(3000, 2000))]] as $rooms) {
            $regions = Derivation::of(Plans::storey([...Plans::rectangle(), ...$island], [], $rooms))->regions;
            $hall = array_values(array_filter($regions, static fn (Region $r): bool => [] !== $r->holes))[0];
            self::assertTrue(Polygon::contains($hall->polygon, ...$hall->label));
            self::assertFalse(Polygon::contains($hall->holes[0], ...$hall->label));
            self::assertLessThan(5800.0, min($hall->clear));
        }
    }

    /** @return list<array{string, list<string>}> */
    private static function told(DerivedStorey $derived): array
    {
        return array_map(static fn (Finding $f): array => [$f->code, $f->things], $derived->findings);
    }

    /** @param list<Wall> $walls */
    private static function assertKeepsToItsThickness(DerivedStorey $derived, array $walls, string $message): void
    {
        $most = Faces::MITRE_LIMIT / 2.0 * max([0.0, ...array_map(static fn (Wall $w): float => $w->thickness, $walls)]);
        foreach ($derived->walls as $shape) {
            self::assertGreaterThanOrEqual(0.0, $shape->areaMm2, $message);
            foreach ($shape->stretches as ['from' => $from, 'to' => $to, 'right' => $right, 'left' => $left]) {
                foreach ([...$right, ...$left] as $p) {
                    [$x, $y] = Segment::nearest($p, $from, $to);
                    self::assertLessThanOrEqual($most + 1.0, hypot($x - $p[0], $y - $p[1]), $message);
                }
            }
        }
    }
}
