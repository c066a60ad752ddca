<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Clip;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Tests\Fitting\Noise;
use Plinth\Core\Tests\Outside;

/** Curved walls. Formulas of circle, ring and segment are those of any textbook of mensuration. */
final class ArcTest extends TestCase
{
    public function testARoundTowerHasTheAreasOfCircleAndRing(): void
    {
        foreach ([[2500.0, 300.0], [800.0, 500.0], [40_000.0, 240.0]] as [$r, $t]) {
            // Two half circles.
            $derived = Derivation::of(
                Plans::storey([
                    new Wall('a', new Point(-$r, 0), new Point($r, 0), $t, rise: $r),
                    new Wall('b', new Point($r, 0), new Point(-$r, 0), $t, rise: $r),
                ]),
            );
            self::assertCount(1, $derived->regions);
            self::assertEqualsWithDelta(1.0, $derived->regions[0]->netAreaMm2 / (\M_PI * ($r - $t / 2) ** 2), 1e-7);
            self::assertEqualsWithDelta(1.0, $derived->areasMm2['structure'] / (2 * \M_PI * $r * $t), 1e-7);
            self::assertSame([], $derived->findings);
        }
    }

    public function testRoomsOfRandomPlansWithArcsAgreeWithGeosOnFlattenedOnes(): void
    {
        // GEOS gets the arcs as chords with a sagitta of a hundredth of a millimetre.
        $plans = [];
        $ours = [];
        for ($seed = 900; $seed < 940; ++$seed) {
            $walls = [];
            $chains = [];
            foreach (Plans::shaken($seed, 3, 2, 1.0) as $i => $wall) {
                // Of one thickness, so that every corner inside a room is where two faces cross.
                $wall = new Wall(
                    $wall->id,
                    $wall->from,
                    $wall->to,
                    100.0 + 5.0 * ($seed - 900),
                    rise: 0 === $i % 3 ? Noise::uniform(-500, 500) : 0.0,
                );
                $walls[] = $wall;
                $arc = $wall->arc();
                $n = null === $arc ? 1 : (int) ceil(abs($arc->sweep) / (2 * acos(1 - 0.01 / $arc->radius)));
                $middle = null === $arc ? [] : array_map(static fn (int $k): array => $arc->at($k / $n)->toArray(), range(1, $n - 1));
                $chains[] = ['chain' => [$wall->from->toArray(), ...$middle, $wall->to->toArray()], 'thickness' => $wall->thickness];
            }
            $rooms = array_map(static fn (Region $r): float => $r->netAreaMm2, Derivation::of(Plans::storey($walls))->regions);
            sort($rooms);
            $plans[] = $chains;
            $ours[] = $rooms;
        }
        $theirs = Outside::ask('curved.py', ['plans' => $plans])['plans'];
        self::assertIsArray($theirs);
        $compared = 0;
        foreach ($ours as $i => $rooms) {
            self::assertIsArray($theirs[$i]);
            self::assertCount(6, $rooms, "plan $i");
            foreach ($rooms as $k => $area) {
                if (\is_float($theirs[$i][$k])) {
                    ++$compared;
                    self::assertEqualsWithDelta(1.0, $area / $theirs[$i][$k], 2e-5, "plan $i");
                }
            }
        }
        self::assertGreaterThan(150, $compared);
    }

    /** A room of 5.8 by 3.8 m, parted by an arc across it: each side has half of it and the segment, or lacks it. */
    public function testACurvedDividerPartsARoomAlongItsArc(): void
    {
        $walls = Plans::rectangle();
        $divider = new Divider('d', new Point(3000, 100), new Point(3000, 3900), 500.0);
        $parted = Derivation::of(new Storey('s', 'Ground', 0.0, 2700.0, $walls, dividers: [$divider]));
        $arc = $divider->arc();
        self::assertNotNull($arc);
        $turn = abs($arc->sweep);
        $segment = $arc->radius ** 2 * ($turn - sin($turn)) / 2.0;
        $areas = array_map(static fn (Region $r): float => $r->netAreaMm2, $parted->regions);
        sort($areas);
        self::assertEqualsWithDelta([2900 * 3800 - $segment, 2900 * 3800 + $segment], $areas, 200.0, 'Within 0.002 %, as between curved walls.');
        self::assertEqualsWithDelta(5800 * 3800, array_sum($areas), 1e-3, 'Nothing is counted twice.');
    }

    /** However a divider leans, it parts the room at the faces of its walls: a trapezium on either side. */
    public function testADividerThatLeansTakesNothingFromTheWalls(): void
    {
        foreach ([[2500, 3500], [4500, 1000], [1000, 5500]] as [$below, $above]) {
            $divider = new Divider('d', new Point($below, 100), new Point($above, 3900));
            $parted = Derivation::of(new Storey('s', 'Ground', 0.0, 2700.0, Plans::rectangle(), dividers: [$divider]));
            $areas = array_map(static fn (Region $r): float => $r->netAreaMm2, $parted->regions);
            $left = (($below - 100) + ($above - 100)) / 2 * 3800;
            self::assertEqualsCanonicalizing([round($left), round(5800 * 3800 - $left)], array_map(round(...), $areas));
        }
    }

    public function testThreePointsGiveTheRiseAndTheArcPassesThroughAll(): void
    {
        Noise::seed(41);
        for ($i = 0; $i < 200; ++$i) {
            [$a, $on, $b] = array_map(
                static fn (): Point => new Point(Noise::uniform(-5000, 5000), Noise::uniform(-5000, 5000)),
                range(0, 2),
            );
            $arc = new Arc($a, $b, Arc::riseThrough($a, $on, $b));
            foreach ([$a, $on, $b] as $p) {
                self::assertEqualsWithDelta($arc->radius, $arc->centre->distanceTo($p), 1e-6 * $arc->radius);
            }
            self::assertEqualsWithDelta(0.0, $arc->at(1.0)->distanceTo($b), 1e-6 * $arc->radius);
        }
        self::assertSame(0.0, Arc::riseThrough(new Point(0, 0), new Point(2, 0), new Point(5, 0)));
    }

    public function testColumnsAreTakenOffTheRoomsTheyStandIn(): void
    {
        $columns = [
            new Column('free', new Point(3000, 2000), 300, 400),
            new Column('round', new Point(1000, 1000), 500, 500, true),
            new Column('half in the wall', new Point(3000, 100), 200, 200),
            new Column('oval', new Point(4500, 2500), 600, 300, true),
        ];
        $derived = Derivation::of(new Storey('s', '', 0, 2700, Plans::rectangle(), columns: $columns));
        $taken = 300 * 400 + \M_PI * 250 ** 2 + 200 * 100 + \M_PI * 300 * 150;
        self::assertEqualsWithDelta(5800.0 * 3800.0 - $taken, $derived->regions[0]->netAreaMm2, 1e-6);
        self::assertEqualsWithDelta(6200.0 * 4200.0, $derived->areasMm2['grossFloor'], 1e-6);
    }

    public function testClippingByAConvexRingAgreesWithInclusionAndExclusion(): void
    {
        // An L, cut by two halves of a square: what both see is what the square sees.
        $l = [[0.0, 0.0], [4.0, 0.0], [4.0, 1.0], [1.0, 1.0], [1.0, 4.0], [0.0, 4.0]];
        $square = static fn (float $x1, float $x2): array => [[$x1, 0.5], [$x2, 0.5], [$x2, 3.0], [$x1, 3.0]];
        self::assertEqualsWithDelta(
            Clip::area($l, $square(0.25, 3.0)),
            Clip::area($l, $square(0.25, 0.8)) + Clip::area($l, $square(0.8, 3.0)),
            1e-12,
        );
        self::assertEqualsWithDelta(0.75 * 2.5 + 2.0 * 0.5, Clip::area($l, $square(0.25, 3.0)), 1e-12);
    }

    public function testWhatDoesNotEncloseBoundsNoRoomButHasABody(): void
    {
        $rail = new Wall('rail', new Point(3000, 0), new Point(3000, 4000), 60.0, enclosing: false);
        $derived = Derivation::of(Plans::storey([...Plans::rectangle(), $rail]));
        self::assertCount(1, $derived->regions);
        self::assertEqualsWithDelta(60.0 * 4000.0, $derived->walls['rail']->areaMm2, 1e-6);
    }

    public function testTheClearWidthAndDepthAreThoseOfTheRoom(): void
    {
        $turn = static fn (Point $p): Point => new Point(0.8 * $p->x - 0.6 * $p->y, 0.6 * $p->x + 0.8 * $p->y);
        $walls = array_map(
            static fn (Wall $w): Wall => new Wall($w->id, $turn($w->from), $turn($w->to), $w->thickness),
            Plans::rectangle(),
        );
        self::assertEqualsWithDelta([5800.0, 3800.0], Derivation::of(Plans::storey($walls))->regions[0]->clear, 1e-6);
    }
}
