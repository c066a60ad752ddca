<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Editing\Joining;
use Plinth\Core\Plan\Model\Wall;

final class JoiningTest extends TestCase
{
    private static function wall(float $x1, float $y1, float $x2, float $y2, float $thickness = 100.0): Wall
    {
        return new Wall('', new Point($x1, $y1), new Point($x2, $y2), $thickness);
    }

    public function testEndsThatMeetShareANode(): void
    {
        $joined = Joining::of([self::wall(0, 0, 4000, 0), self::wall(4003, 8, 4000, 3000)], [], []);

        self::assertCount(3, $joined['nodes']);
        self::assertSame($joined['walls'][0][1], $joined['walls'][1][0]);
    }

    public function testAnEndNearATracedCornerTakesItsNode(): void
    {
        $joined = Joining::of(
            [self::wall(40, 30, 3000, 0)],
            [self::wall(0, 0, 0, 5000)],
            ['corner' => new Point(0, 0), 'top' => new Point(0, 5000)],
        );

        self::assertSame('corner', $joined['walls'][0][0]);
        self::assertCount(1, $joined['nodes']);
    }

    public function testAnEndInATracedWallGoesOntoItsCentreLine(): void
    {
        $joined = Joining::of(
            [self::wall(120, 2000, 3000, 2000)],
            [self::wall(0, 0, 0, 5000, 300)],
            ['a' => new Point(0, 0), 'b' => new Point(0, 5000)],
        );
        $end = $joined['nodes'][$joined['walls'][0][0]];

        self::assertEqualsWithDelta(0.0, $end->x, 1e-9);
        self::assertEqualsWithDelta(2000.0, $end->y, 1e-9);
    }

    public function testAnEndBesideANewWallFollowsItOntoATracedCorner(): void
    {
        // The long wall's far end is put onto a node 50 mm off: the other ends on the line it has then.
        $joined = Joining::of(
            [self::wall(0, 0, 4000, 0), self::wall(2000, 0, 2000, 3000)],
            [self::wall(4000, 50, 4000, 900)],
            ['n' => new Point(4000, 50), 'm' => new Point(4000, 900)],
        );
        $end = $joined['nodes'][$joined['walls'][1][0]];

        self::assertSame('n', $joined['walls'][0][1]);
        self::assertEqualsWithDelta(25.0, $end->y, 1e-6);
    }

    public function testAWallThatWouldHaveNoLengthIsLeftOut(): void
    {
        self::assertSame([], Joining::of([self::wall(0, 0, 20, 0)], [], [])['walls']);
    }

    public function testWhatLiesInTracedWallsIsTraced(): void
    {
        $there = [self::wall(0, 0, 3000, 0, 200), self::wall(3000, 0, 5000, 0, 200)];

        self::assertTrue(Joining::isTraced(self::wall(100, 30, 4900, 20), $there));
        self::assertFalse(Joining::isTraced(self::wall(100, 300, 4900, 300), $there));
        self::assertFalse(Joining::isTraced(self::wall(1000, -2000, 1000, 2000), $there));
    }
}
