<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Elevation;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Elevation\SideLine;
use Plinth\Core\Elevation\SideMatch;
use Plinth\Core\Elevation\SideOpening;
use Plinth\Core\Elevation\SideWall;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Wall;

/** Openings of the plan and what was traced on a side find each other by place. */
final class SideMatchTest extends TestCase
{
    public function testEachHasTheOneWithWhichItSharesMostOnItsOwnStorey(): void
    {
        $lower = new SideOpening('lower', 1000.0, 2000.0, 900.0, 2100.0, 0.0, 2700.0);
        $upper = new SideOpening('upper', 1000.0, 2000.0, 3600.0, 4800.0, 2700.0, 5200.0);
        $traced = [
            new SideOpening('over', 1100.0, 2050.0, 3550.0, 4700.0),
            new SideOpening('beside', 1700.0, 2600.0, 900.0, 2100.0),
            new SideOpening('under', 950.0, 1980.0, 880.0, 2110.0),
        ];
        $found = [];
        foreach (SideMatch::of([$upper, $lower], $traced, []) as $match) {
            $found[$match->planned->id ?? ''] = $match->traced?->id;
        }
        self::assertSame(['upper' => 'over', 'lower' => 'under'], $found, 'Beside no wall nothing is proposed.');
    }

    /** Seen aslant at 60° a wall is half as long; its start may be the right end. */
    public function testWhatThePlanLacksStandsInTheForemostWall(): void
    {
        $line = SideLine::between(new Point(0.0, 0.0), new Point(10_000.0, 0.0));
        $front = SideWall::of(new Wall('front', new Point(8000.0, 0.0), new Point(0.0, 0.0), 300.0), $line, 0.0, 2700.0);
        $back = SideWall::of(new Wall('back', new Point(0.0, 4000.0), new Point(8000.0, 4000.0), 300.0), $line, 0.0, 2700.0);
        self::assertNotNull($front);
        self::assertNotNull($back);
        $window = new SideOpening('w', 1000.0, 2200.0, 900.0, 2100.0);
        [$match] = SideMatch::of([], [$window], [$back, $front]);
        self::assertSame(['front', 5800.0, 1200.0], [$match->wall?->wall->id, $match->wall?->offset($window), $match->wall?->width($window)]);
        self::assertSame([1000.0, 2200.0], $front->seen(5800.0, 1200.0));
        $slope = [4000.0 * cos(\M_PI / 3), 4000.0 * sin(\M_PI / 3)];
        $aslant = SideWall::of(new Wall('aslant', new Point(0.0, 0.0), new Point($slope[0] + 1.0, $slope[1]), 300.0), $line, 0.0, 2700.0);
        self::assertEqualsWithDelta(2.0 * 600.0, $aslant?->width(new SideOpening('a', 500.0, 1100.0, 900.0, 2100.0)), 1.0);
        self::assertNull(SideWall::of(new Wall('square', new Point(0.0, 0.0), new Point(0.0, 4000.0), 300.0), $line, 0.0, 2700.0));
        self::assertNull(SideWall::of(new Wall('round', new Point(0.0, 0.0), new Point(4000.0, 0.0), 300.0, rise: 300.0), $line, 0.0, 2700.0));
        $high = new SideOpening('h', 1000.0, 2200.0, 3900.0, 4100.0);
        self::assertSame([], SideMatch::of([], [$high], [$front]), 'Over its storey there is none of it.');
    }

    /** Two edges, and 1 cm in 10 m of the larger of width and height over the floor: hypot(√2 · 3, 3) and hypot(√2 · 3, 2) mm. */
    public function testWhatWasTracedIsGoodForItsEdgesAndItsDrawing(): void
    {
        $traced = static fn (float $right, ?float $edge, ?float $per10m): SideOpening => new SideOpening(
            'traced',
            1000.0,
            $right,
            900.0,
            2000.0,
            edgePlusMinus: $edge,
            plusMinusPer10m: $per10m,
        );
        self::assertEqualsWithDelta(hypot(\M_SQRT2 * 3.0, 3.0), $traced(4000.0, 3.0, 10.0)->plusMinus(0.0), 1e-9);
        self::assertEqualsWithDelta(hypot(\M_SQRT2 * 3.0, 2.0), $traced(2000.0, 3.0, 10.0)->plusMinus(0.0), 1e-9);
        self::assertNull($traced(2000.0, 3.0, null)->plusMinus(0.0), 'Nothing says how large the drawing is.');
        self::assertNull($traced(2000.0, null, 10.0)->plusMinus(0.0));
    }

    public function testTwoCoverEachOtherByWhatTheyShareOfBoth(): void
    {
        $one = new SideOpening('one', 0.0, 1000.0, 0.0, 1000.0);
        self::assertEqualsWithDelta(1.0, $one->covers($one), 1e-12);
        self::assertEqualsWithDelta(1.0 / 3.0, $one->covers(new SideOpening('beside', 500.0, 1500.0, 0.0, 1000.0)), 1e-12);
        self::assertEqualsWithDelta(0.25, $one->covers(new SideOpening('within', 0.0, 500.0, 0.0, 500.0)), 1e-12);
        self::assertEqualsWithDelta(0.0, $one->covers(new SideOpening('apart', 2000.0, 3000.0, 0.0, 1000.0)), 1e-12);
    }
}
