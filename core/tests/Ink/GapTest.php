<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Picks\Gap;

/** One click in a gap tells where its jambs are, whether it is a window, and where a door's leaf stands. */
final class GapTest extends TestCase
{
    public function testADoorInASolidWallWithItsLeaf(): void
    {
        // 10 mm per pixel: a wall 200 mm thick, a gap of 900 mm, the leaf at its far jamb, standing up the page.
        $page = self::solid()->fill(288, 14, 2, 88)->raster();
        $gap = self::around($page, 2400.0);
        self::assertNotNull($gap);
        self::assertEqualsWithDelta([1600.0, 900.0], [$gap->from, $gap->width], 8.0);
        self::assertSame([false, 'far', 'left'], [$gap->lined, $gap->leafAt, $gap->leafSide]);
        self::assertLessThan(15.0, $gap->sigmaMm);
        // Below the wall, at the near jamb.
        $gap = self::around(self::solid()->fill(200, 122, 2, 88)->raster(), 2500.0);
        self::assertSame(['near', 'right'], [$gap?->leafAt, $gap?->leafSide]);
    }

    public function testADoorOverThresholdsIsNoWindowAndAWindowBesideFurnitureNoDoor(): void
    {
        $lines = static fn (Sheets $sheet, int ...$rows): Sheets => array_reduce(
            $rows,
            static fn (Sheets $s, int $y): Sheets => $s->fill(201, $y, 88, 2),
            $sheet,
        );
        // A leaf at the far jamb with its swing, over a line along either face and one between, as a sill is drawn.
        $door = $lines(self::solid()->fill(288, 14, 2, 88), 100, 109, 118);
        for ($k = 0; $k <= 180; ++$k) {
            $a = \M_PI_2 * $k / 180;
            $door = $door->fill((int) round(289 - 90 * cos($a)), (int) round(101 - 90 * sin($a)), 2, 2);
        }
        $gap = self::around($door->raster(), 2450.0);
        self::assertSame([false, 'far', 'left'], [$gap?->lined, $gap?->leafAt, $gap?->leafSide]);
        // A cupboard stands where a leaf would, and the window has lines along its faces alone.
        $gap = self::around($lines(self::solid()->fill(288, 14, 2, 88)->fill(230, 14, 60, 2), 100, 118)->raster(), 2450.0);
        self::assertSame([true, null], [$gap?->lined, $gap?->leafSide]);
    }

    public function testAPlainOpeningAndAWindow(): void
    {
        $gap = self::around(self::solid()->raster(), 2450.0);
        self::assertSame([false, null], [$gap?->lined, $gap?->leafSide]);
        self::assertEqualsWithDelta(880.0, $gap->width ?? 0.0, 8.0, 'Without a line beside it nothing tells how wide the pen is.');
        $gap = self::around(self::solid()->fill(200, 100, 90, 2)->fill(200, 109, 90, 2)->fill(200, 118, 90, 2)->raster(), 2450.0);
        self::assertNotNull($gap);
        self::assertTrue($gap->lined);
        self::assertEqualsWithDelta(900.0, $gap->width, 8.0);
    }

    public function testAWindowInAWallOfTwoLines(): void
    {
        $wall = (new Sheets(500, 220, grain: 4))->fill(40, 99, 420, 2)->fill(40, 119, 420, 2);
        // Jambs are lines across; two more lines run between them.
        $page = $wall->fill(199, 99, 2, 22)->fill(289, 99, 2, 22)->fill(200, 106, 90, 2)->fill(200, 112, 90, 2)->raster();
        $gap = self::around($page, 2450.0);
        self::assertNotNull($gap);
        self::assertEqualsWithDelta([1600.0, 900.0], [$gap->from, $gap->width], 8.0);
        self::assertTrue($gap->lined);
    }

    /** Dashes along both faces are the edge of a lintel above: common practice, no source. */
    public function testAnOpeningUnderDashesIsNoWindow(): void
    {
        $dashed = static function (int $from, int $dash): Sheets {
            $sheet = self::solid();
            for ($x = $from; $x < 288; $x += 12) {
                $sheet = $sheet->fill($x, 100, $dash, 2)->fill($x + 2, 118, $dash, 2);
            }

            return $sheet;
        };
        foreach ([204, 207] as $from) {
            $gap = self::around($dashed($from, 8)->raster(), 2450.0);
            self::assertSame([false, null], [$gap?->lined, $gap?->leafSide]);
        }
        self::assertTrue(self::around($dashed(201, 12)->raster(), 2450.0)?->lined, 'In one stroke it is one.');
    }

    public function testWhereTheWallRunsOnOrAtAnEdgeThereIsNone(): void
    {
        self::assertNull(self::around(self::solid()->raster(), 1000.0), 'Solid wall.');
        self::assertNull(self::around(self::solid()->raster(), 2030.0), 'The gap’s edge means its edge.');
        self::assertNull(self::around((new Sheets(500, 220, grain: 4))->raster(), 2450.0), 'Blank paper.');
    }

    /** A wall from x = 40 to 460 px, its gap from 200 to 290, with a line of 2 px across it at either jamb. */
    private static function solid(): Sheets
    {
        return (new Sheets(500, 220, grain: 4))->fill(40, 100, 161, 20)->fill(289, 100, 171, 20);
    }

    private static function around(GreyRaster $page, float $x): ?Gap
    {
        return Gap::around(
            $page->page(),
            PixelToMm::similar(10.0, 0.0, new PixelPoint(0.0, 0.0), new Point(0.0, 0.0)),
            new Point(400.0, -1100.0),
            new Point(4600.0, -1100.0),
            200.0,
            new Point($x, -1100.0),
        );
    }
}
