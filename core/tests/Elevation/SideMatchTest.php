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
}
