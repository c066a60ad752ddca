<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Finding;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Tests\Outside;

final class DerivationTest extends TestCase
{
    public function testARectangleHasItsNetAndGrossArea(): void
    {
        $derived = Derivation::of(Plans::storey(Plans::rectangle()));
        self::assertCount(1, $derived->regions);
        self::assertEqualsWithDelta(5800.0 * 3800.0, $derived->regions[0]->netAreaMm2, 1e-6);
        self::assertEqualsWithDelta(6200.0 * 4200.0, $derived->areasMm2['grossFloor'], 1e-6);
        self::assertSame([], $derived->findings);
    }

    public function testAreasOfTwoHundredRandomPlansAgreeWithGeos(): void
    {
        $plans = [];
        $ours = [];
        for ($seed = 1; $seed <= 200; ++$seed) {
            $walls = Plans::shaken($seed);
            $plans[] = array_map(
                static fn (Wall $w): array => ['from' => $w->from->toArray(), 'to' => $w->to->toArray(), 'thickness' => $w->thickness],
                $walls,
            );
            $derived = Derivation::of(Plans::storey($walls));
            self::assertSame([], $derived->findings, "seed $seed");
            $rooms = array_map(static fn (Region $r): float => $r->netAreaMm2, $derived->regions);
            sort($rooms);
            $ours[] = ['body' => $derived->areasMm2['structure'], 'rooms' => $rooms];
        }
        $theirs = Outside::ask('plans.py', ['plans' => $plans])['plans'];
        self::assertIsArray($theirs);
        foreach ($ours as $i => $plan) {
            self::assertIsArray($theirs[$i]);
            self::assertIsArray($theirs[$i]['rooms']);
            self::assertIsFloat($theirs[$i]['body']);
            self::assertIsNumeric($theirs[$i]['nicks']);
            self::assertEqualsWithDelta(1.0, $plan['body'] / $theirs[$i]['body'], 1e-6, 'seed '.($i + 1));
            self::assertCount(\count($theirs[$i]['rooms']), $plan['rooms'], 'seed '.($i + 1));
            foreach ($plan['rooms'] as $k => $area) {
                self::assertEqualsWithDelta($theirs[$i]['rooms'][$k], $area, 1e-6 * $area + $theirs[$i]['nicks'], 'seed '.($i + 1));
            }
        }
    }

    public function testRoomsWallsAndOpeningsFillTheOuterRegion(): void
    {
        for ($seed = 300; $seed < 340; ++$seed) {
            $derived = Derivation::of(Plans::storey(Plans::shaken($seed)));
            $outer = array_sum(array_map(static fn ($o): float => Polygon::area($o->outer), $derived->outlines));
            self::assertEqualsWithDelta(
                1.0,
                ($derived->areasMm2['structure'] + $derived->areasMm2['netFloor']) / $outer,
                1e-12,
                "seed $seed",
            );
        }
    }

    public function testMovingAndTurningThePlanChangesNoArea(): void
    {
        $walls = Plans::shaken(7);
        $turn = static fn (Point $p): Point => new Point(5e6 + 0.6 * $p->x - 0.8 * $p->y, -3e6 + 0.8 * $p->x + 0.6 * $p->y);
        $moved = array_map(
            static fn (Wall $w): Wall => new Wall($w->id, $turn($w->to), $turn($w->from), $w->thickness),
            array_reverse($walls),
        );
        [$a, $b] = [Derivation::of(Plans::storey($walls)), Derivation::of(Plans::storey($moved))];
        self::assertEqualsWithDelta(1.0, $a->areasMm2['netFloor'] / $b->areasMm2['netFloor'], 1e-9);
        self::assertSameSize($a->regions, $b->regions);
    }

    public function testAPartitionThatEndsAtTheFaceJoinsTheWall(): void
    {
        // Ends lie on the inner face, a half thickness short of the centre line.
        $derived = Derivation::of(Plans::storey([...Plans::rectangle(), Plans::wall('middle', 3000, 100, 3000, 3900, 100)]));
        self::assertCount(2, $derived->regions);
        self::assertCount(1, $derived->outlines);
    }

    public function testCrossingWallsShareACorner(): void
    {
        $derived = Derivation::of(
            Plans::storey([...Plans::rectangle(), Plans::wall('a', 3000, 0, 3000, 4000, 100), Plans::wall('b', 0, 2000, 6000, 2000, 100)]),
        );
        self::assertCount(4, $derived->regions);
        self::assertEqualsWithDelta(4 * 2850.0 * 1850.0, $derived->areasMm2['netFloor'], 1e-6);
    }

    public function testAnIslandIsAHoleInItsRoom(): void
    {
        $island = [
            Plans::wall('i1', 2000, 1000, 4000, 1000, 100),
            Plans::wall('i2', 4000, 1000, 4000, 3000, 100),
            Plans::wall('i3', 4000, 3000, 2000, 3000, 100),
            Plans::wall('i4', 2000, 3000, 2000, 1000, 100),
        ];
        $rooms = [new Room('inner', 'Shaft', '', new Point(3000, 2000)), new Room('outer', 'Hall', '', new Point(1000, 2000))];
        $derived = Derivation::of(Plans::storey([...Plans::rectangle(), ...$island], [], $rooms));
        $areas = [];
        foreach ($derived->regions as $region) {
            $areas[(string) $region->room?->name] = $region->netAreaMm2;
        }
        self::assertEqualsWithDelta(1900.0 ** 2, $areas['Shaft'], 1e-6);
        self::assertEqualsWithDelta(5800.0 * 3800.0 - 2100.0 ** 2, $areas['Hall'], 1e-6);
    }

    public function testASharpOuterCornerIsBevelled(): void
    {
        // 20° between two walls: the mitre would reach 5.8 half thicknesses, beyond the limit of four.
        $derived = Derivation::of(
            Plans::storey([Plans::wall('a', 0, 0, 5000, 0), Plans::wall('b', 0, 0, 5000 * cos(deg2rad(20)), 5000 * sin(deg2rad(20)))]),
        );
        foreach ($derived->outlines[0]->outer as [$x, $y]) {
            self::assertGreaterThan(-401.0, $x);
        }
    }

    public function testALeakIsShownAtTheNarrowestPlaceWithItsGap(): void
    {
        $walls = [
            Plans::wall('south', 0, 0, 6000, 0),
            Plans::wall('east', 6000, 0, 6000, 4000),
            Plans::wall('north', 6000, 4000, 0, 4000),
            Plans::wall('west', 0, 3860, 0, 0),
            Plans::wall('stub', 3000, 0, 3000, 2500, 100),
        ];
        $derived = Derivation::of(Plans::storey($walls, [], [new Room('r', 'Hall', '', new Point(1500, 3000))]));
        self::assertCount(1, $derived->leaks, 'The stub inside is no leak.');
        self::assertEqualsWithDelta(40.0, $derived->leaks[0]->gapMm, 1e-9);
        self::assertSame(['north', 'west'], [min($derived->leaks[0]->walls), max($derived->leaks[0]->walls)]);
        self::assertSame(['leak'], $this->codes($derived));
    }

    public function testWhatDoesNotFitIsFound(): void
    {
        $cases = [
            'room-open' => [Plans::rectangle(), [], [new Room('r', 'Yard', '', new Point(9000, 9000))]],
            'two-names' => [Plans::rectangle(), [], [
                new Room('r', 'A', '', new Point(1000, 1000)),
                new Room('q', 'B', '', new Point(2000, 1000)),
            ]],
            'walls-overlap' => [[...Plans::rectangle(), Plans::wall('again', 0, 0, 6000, 0, 100)], [], []],
            'wall-too-short' => [
                [Plans::wall('a', 0, 0, 0, 3000, 600), Plans::wall('b', 0, 0, 150, 0, 100), Plans::wall('c', 150, 0, 150, 3000, 600)],
                [],
                [],
            ],
            'opening-off-wall' => [Plans::rectangle(), [new Opening('o', 'south', OpeningKind::Door, 5500, 900)], []],
            'openings-overlap' => [
                Plans::rectangle(),
                [new Opening('o', 'south', OpeningKind::Door, 1000, 900), new Opening('p', 'south', OpeningKind::Door, 1800, 900)],
                [],
            ],
            'opening-on-junction' => [
                [...Plans::rectangle(), Plans::wall('middle', 3000, 0, 3000, 4000, 100)],
                [new Opening('o', 'south', OpeningKind::Door, 2600, 900)],
                [],
            ],
        ];
        foreach ($cases as $code => [$walls, $openings, $rooms]) {
            self::assertContains($code, $this->codes(Derivation::of(Plans::storey($walls, $openings, $rooms))), $code);
        }
    }

    /** Cases that once came out wrong or not at all. */
    public function testHardCasesAreDerivedAndTold(): void
    {
        $far = Derivation::of(Plans::storey([...Plans::rectangle(), Plans::wall('far', 6.5e8, 2.2e8, 6.5e8 + 5000, 2.2e8)]));
        self::assertEqualsWithDelta(5800.0 * 3800.0, $far->areasMm2['netFloor'], 1e-3);
        $long = Derivation::of(Plans::storey([...Plans::rectangle(), Plans::wall('long', 7000, -1e6, 8000, 1e6)]));
        self::assertCount(1, $long->regions);
        foreach ([
            new Wall('a', new Point(0, 0), new Point(0, 0), 200, rise: 100),
            new Wall('a', new Point(0, 0), new Point(0.5, 0), 200),
        ] as $pointed) {
            self::assertSame(['wall-of-no-length'], $this->codes(Derivation::of(Plans::storey([$pointed]))));
        }
        self::assertSame(
            [],
            Derivation::of(Plans::storey([new Wall('a', new Point(0, 0), new Point(5000, 0), 200, rise: 1e-10)]))->findings,
        );
    }

    public function testAnEmptyStoreyHasNothing(): void
    {
        $derived = Derivation::of(Plans::storey([]));
        self::assertSame([[], [], [], []], [$derived->outlines, $derived->regions, $derived->leaks, $derived->findings]);
    }

    /** @return list<string> */
    private function codes(DerivedStorey $derived): array
    {
        return array_map(static fn (Finding $f): string => $f->code, $derived->findings);
    }
}
