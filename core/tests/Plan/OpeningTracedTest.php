<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Editing\OpeningTraced;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Wall;

/** An opening that the ink shows in a wall that is traced already is offered for that wall, where it is in the building. */
final class OpeningTracedTest extends TestCase
{
    private static function wall(string $id, float $x1, float $y1, float $x2, float $y2, float $rise = 0.0): Wall
    {
        return new Wall($id, new Point($x1, $y1), new Point($x2, $y2), 120.0, rise: $rise);
    }

    private static function door(float $offset, float $width = 800.0, string $id = 'o'): Opening
    {
        return new Opening($id, 'traced', OpeningKind::Door, $offset, $width, hand: 'right', swing: 'left');
    }

    #[TestWith([0.0])]
    #[TestWith([37.0])]
    #[TestWith([180.0])]
    #[TestWith([-111.5])]
    public function testItsLeafStaysWhereItIsDrawnWhicheverWayTheTracedWallRuns(float $degrees): void
    {
        [$ux, $uy] = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
        $found = self::wall('f', 100 + 40 * $ux, 200 + 40 * $uy, 100 + 3000 * $ux, 200 + 3000 * $uy);
        foreach ([[0, 4000, true], [4000, 0, false]] as [$from, $to, $isSame]) {
            $traced = self::wall('traced', 100 + $from * $ux - 10 * $uy, 200 + $from * $uy + 10 * $ux, 100 + $to * $ux - 10 * $uy, 200 + $to * $uy + 10 * $ux);
            $there = OpeningTraced::in(self::door(960), $found, [self::wall('other', 0, -5000, 9000, -5000), $traced], []);

            self::assertNotNull($there);
            self::assertSame(['traced', OpeningKind::Door], [$there->wall, $there->kind]);
            self::assertEqualsWithDelta($isSame ? 1000.0 : 4000.0 - 1800.0, $there->offset, 1e-6);
            self::assertEqualsWithDelta(800.0, $there->width, 1e-6);
            self::assertSame($isSame ? ['right', 'left'] : ['left', 'right'], [$there->hand, $there->swing]);
        }
    }

    public function testNothingIsOfferedWhereOneIsThereOrNoTracedWallHoldsBothJambs(): void
    {
        $found = self::wall('f', 0, 0, 4000, 0);
        $traced = self::wall('traced', 0, 0, 4000, 0);

        self::assertNull(OpeningTraced::in(self::door(1000), $found, [$traced], [self::door(1700, 800, 'there')]));
        self::assertNotNull(OpeningTraced::in(self::door(1000), $found, [$traced], [self::door(1800, 800, 'beside')]));
        self::assertNull(OpeningTraced::in(self::door(1000), $found, [self::wall('short', 0, 0, 1500, 0)], []));
        self::assertNull(OpeningTraced::in(self::door(1000), $found, [self::wall('off', 0, 90, 4000, 90)], []));
        self::assertNull(OpeningTraced::in(self::door(1000), $found, [self::wall('across', 1400, -900, 1400, 900)], []));
        self::assertNull(OpeningTraced::in(self::door(1000), $found, [self::wall('bow', 0, 0, 4000, 0, 300)], []));
    }
}
