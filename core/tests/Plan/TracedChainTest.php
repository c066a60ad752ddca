<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Editing\TracedChain;
use Plinth\Core\Plan\Model\Line;

final class TracedChainTest extends TestCase
{
    public function testOuterFacesGiveTheCentreLineWithMitredCorners(): void
    {
        $outer = [new Point(0, 0), new Point(6000, 0), new Point(6000, 4000), new Point(0, 4000)];
        self::assertEquals(
            [new Point(150, 150), new Point(5850, 150), new Point(5850, 3850), new Point(150, 3850)],
            TracedChain::centreLine($outer, Line::Right, 300.0, true),
        );
        self::assertEquals($outer, TracedChain::centreLine($outer, Line::Centre, 300.0, true));
    }

    public function testEveryPieceLiesHalfAThicknessOffItsTracedLine(): void
    {
        $points = [new Point(0, 0), new Point(3000, 500), new Point(4000, 3000), new Point(9000, 2000)];
        foreach ([[Line::Left, -1.0], [Line::Right, 1.0]] as [$line, $side]) {
            $centre = TracedChain::centreLine($points, $line, 240.0, false);
            for ($i = 0; $i < 3; ++$i) {
                [$a, $b] = [$points[$i], $points[$i + 1]];
                foreach ([$centre[$i], $centre[$i + 1]] as $c) {
                    $off = (($b->x - $a->x) * ($c->y - $a->y) - ($b->y - $a->y) * ($c->x - $a->x)) / $a->distanceTo($b);
                    self::assertEqualsWithDelta($side * 120.0, $off, 1e-9);
                }
            }
        }
    }

    public function testAnEndJoinsTheCentreLineAlongItsOwnDirection(): void
    {
        $host = Plans::wall('host', 0, 4000, 6000, 4000);
        self::assertEquals(new Point(2000, 4000), TracedChain::join(new Point(2000, 0), new Point(2000, 3890), $host));
        self::assertEquals(new Point(4000, 4000), TracedChain::join(new Point(0, 0), new Point(3900, 3900), $host));
    }
}
