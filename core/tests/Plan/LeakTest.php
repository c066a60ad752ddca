<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Leak;

/** The leak shown is the narrowest place on the widest way out, not just any loose end. */
final class LeakTest extends TestCase
{
    public function testOfTwoGapsOnTheWayOutTheNarrowerOneIsTheLeak(): void
    {
        // ┌────┬────┐
        // │ r  ┆500 ┆2000   from the room through 500 into a lobby, from there through 2000 to the outside
        // └────┴────┘
        $walls = [
            Plans::wall('south', 0, 0, 6000, 0, 100), Plans::wall(
                'north',
                6000,
                4000,
                0,
                4000,
                100,
            ), Plans::wall('west', 0, 4000, 0, 0, 100),
            Plans::wall('inner', 3000, 0, 3000, 3450, 100), Plans::wall('east', 6000, 0, 6000, 1950, 100),
        ];
        $leak = $this->leak($walls, new Point(1000, 2000));
        self::assertEqualsWithDelta(500.0, $leak->gapMm, 1e-9);
        self::assertContains('inner', $leak->walls);
    }

    public function testOfTwoWaysOutTheWiderOneCounts(): void
    {
        $walls = [
            Plans::wall('south', 0, 0, 6000, 0, 100), Plans::wall('north', 6000, 4000, 0, 4000, 100),
            Plans::wall('west', 0, 3910, 0, 0, 100), Plans::wall('east', 6000, 0, 6000, 3150, 100),
        ];
        $leak = $this->leak($walls, new Point(3000, 2000));
        self::assertEqualsWithDelta(800.0, $leak->gapMm, 1e-9);
        self::assertContains('east', $leak->walls);
    }

    /** Whichever of the two comes first: nothing leaks through what stands in the way. */
    #[TestWith(['a'])]
    #[TestWith(['z'])]
    public function testAGapEndsWhereSomethingStandsInTheWay(string $divider): void
    {
        $storey = new Storey('s', 'Ground', 0.0, 2700.0, [
            Plans::wall('south', 0, 0, 6000, 0, 200), Plans::wall('east', 6000, 0, 6000, 4000, 200),
            Plans::wall('north', 6000, 4000, 0, 4000, 200), Plans::wall('west', 0, 4000, 0, 0, 200),
            Plans::wall('inner', 3000, 0, 3000, 2500, 200),
        ], [], [
            new Room('1', 'Cell', '1', new Point(1500, 2000)), new Room('2', 'Cell', '2', new Point(4500, 2000)),
        ], [new Divider($divider, new Point(3000, 3300), new Point(3000, 3900))]);

        $leaks = Derivation::of($storey)->leaks;
        self::assertCount(1, $leaks);
        self::assertEqualsWithDelta(800.0, $leaks[0]->gapMm, 1e-6);
        self::assertContains($divider, $leaks[0]->walls);
    }

    /** Two corners that all but touch: neither has a free end, and still one room runs into the other there. */
    public function testACornerThatMissesAnotherIsALeakThatALineCloses(): void
    {
        $walls = [
            Plans::wall('south', 0, 0, 6000, 0, 100), Plans::wall('east', 6000, 0, 6000, 4000, 100),
            Plans::wall('north', 6000, 4000, 0, 4000, 100), Plans::wall('west', 0, 4000, 0, 0, 100),
            Plans::wall('left', 0, 2000, 2900, 2000, 100), Plans::wall('below', 2900, 2000, 2900, 0, 100),
            Plans::wall('right', 6000, 2000, 3100, 2000, 100), Plans::wall('above', 3100, 2000, 3100, 4000, 100),
        ];
        $leak = Derivation::of(new Storey('s', 'Ground', 0.0, 2700.0, $walls, [], [
            new Room('1', 'Upper', '1', new Point(1500, 3000)), new Room('2', 'Lower', '2', new Point(4500, 1000)),
        ]))->leaks[0] ?? null;
        self::assertNotNull($leak);
        self::assertEqualsWithDelta(100.0, $leak->gapMm, 1e-6);
        self::assertNull($leak->end);
    }

    public function testTheNeckStandsBetweenTheTwoBodies(): void
    {
        for ($gap = 5; $gap <= 2000; $gap *= 3) {
            $walls = [
                Plans::wall('south', 0, 0, 6000, 0),
                Plans::wall('east', 6000, 0, 6000, 4000),
                Plans::wall('north', 6000, 4000, 0, 4000),
                Plans::wall('west', 0, 3900 - $gap, 0, 0),
            ];
            $leak = $this->leak($walls, new Point(3000, 2000));
            [[$x1, $y1], [$x2, $y2]] = $leak->neck;
            self::assertEqualsWithDelta((float) $gap, $leak->gapMm, 1e-9);
            self::assertEqualsWithDelta((float) $gap, hypot($x2 - $x1, $y2 - $y1), 1e-9);
        }
    }

    public function testTwoRoomsThatRunIntoEachOtherShowTheGapBetweenThem(): void
    {
        // A partition with 700 open at its end parts two names, both well enclosed.
        $walls = [...Plans::rectangle(), Plans::wall('partition', 3000, 0, 3000, 3200, 100)];
        $rooms = [new Room('a', 'Hall', '', new Point(1000, 2000)), new Room('b', 'Loft', '', new Point(5000, 2000))];
        $derived = Derivation::of(Plans::storey($walls, [], $rooms));
        self::assertCount(1, $derived->leaks);
        self::assertSame(['b', 'partition'], [$derived->leaks[0]->room, $derived->leaks[0]->walls[0]]);
        self::assertEqualsWithDelta(700.0, $derived->leaks[0]->gapMm, 1e-9);
        self::assertSame('two-names', $derived->findings[0]->code);
        // Without anything between them it is one room named twice.
        self::assertSame([], Derivation::of(Plans::storey(Plans::rectangle(), [], $rooms))->leaks);
    }

    public function testAMissingWallIsNoLeak(): void
    {
        $walls = [Plans::wall('south', 0, 0, 6000, 0), Plans::wall('east', 6000, 0, 6000, 4000), Plans::wall('north', 6000, 4000, 0, 4000)];
        $derived = Derivation::of(Plans::storey($walls, [], [new Room('r', 'Yard', '', new Point(3000, 2000))]));
        self::assertSame([], $derived->leaks);
        self::assertSame('room-open', $derived->findings[0]->code);
    }

    /** @param list<Wall> $walls */
    private function leak(array $walls, Point $anchor): Leak
    {
        $derived = Derivation::of(Plans::storey($walls, [], [new Room('r', 'Room', '', $anchor)]));
        self::assertCount(1, $derived->leaks);

        return $derived->leaks[0];
    }
}
