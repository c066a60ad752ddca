<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Picks\JointCount;
use Plinth\Core\Ink\Picks\Misfit;
use Plinth\Core\Ink\Picks\TracedLine;

/** A line is followed where it really runs, a bow is told, and a wall that another drawing has elsewhere is found there. */
final class TracedLineTest extends TestCase
{
    #[TestWith([0.0])]
    #[TestWith([6.0])]
    #[TestWith([-9.0])]
    public function testALineIsFollowedAndItsBowTold(float $bow): void
    {
        $page = self::bowed(700, 120, 60.3, $bow);
        $line = TracedLine::between($page->page(), new PixelPoint(40.0, 62.0), new PixelPoint(660.0, 58.5), 14.0);
        self::assertNotNull($line);
        // To the left of the way is up the page.
        self::assertEqualsWithDelta($bow * (620.0 / 700.0) ** 2, $line->bowPx, 0.35);
        self::assertLessThan(0.5, $line->bowSigmaPx);
        if (0.0 === $bow) {
            self::assertEqualsWithDelta([60.3, 60.3], [$line->a->y, $line->b->y], 0.12);
            self::assertLessThan(0.2, $line->sigmaPx);
        }
    }

    public function testWhereNothingIsDrawnNothingIsFollowed(): void
    {
        $page = (new Sheets(500, 120, grain: 5))->raster();
        self::assertNull(TracedLine::between($page->page(), new PixelPoint(30, 60), new PixelPoint(460, 60), 14.0));
        // A line across the way is not the line.
        $page = (new Sheets(500, 120, grain: 3))->fill(240, 0, 4, 120)->raster();
        self::assertNull(TracedLine::between($page->page(), new PixelPoint(30, 60), new PixelPoint(460, 60), 14.0));
    }

    public function testAWallThatADrawingHasElsewhereIsFoundThere(): void
    {
        // 10 mm per pixel; the wall is drawn 4 px above where it was traced, and 2 px thicker.
        $page = (new Sheets(600, 200, grain: 4))->fill(40, 86, 520, 22)->raster();
        $map = PixelToMm::similar(10.0, 0.0, new PixelPoint(0.0, 0.0), new Point(0.0, 0.0));
        // Traced from left to right, 200 mm thick, its middle at y = 101 px.
        $misfit = Misfit::ofWall($page->page(), $map, new Point(500.0, -1010.0), new Point(5500.0, -1010.0), 200.0);
        self::assertNotNull($misfit);
        self::assertEqualsWithDelta(40.0, $misfit->mm(), 2.0);
        self::assertEqualsWithDelta(40.0, $misfit->by->y, 2.0, 'Up.');
        self::assertEqualsWithDelta(20.0, $misfit->thickerMm ?? 0.0, 2.5);
        self::assertLessThan(3.0, $misfit->sigmaMm);
        // Against a drawing that has it where it was traced.
        $same = (new Sheets(600, 200, grain: 4, seed: 3))->fill(40, 91, 520, 20)->raster();
        $other = Misfit::ofWall($same->page(), $map, new Point(500.0, -1010.0), new Point(5500.0, -1010.0), 200.0);
        self::assertNotNull($other);
        self::assertLessThan(2.0, $other->mm());
        self::assertEqualsWithDelta(40.0, $misfit->against($other)->mm(), 3.0);
        self::assertNull(
            Misfit::ofWall(
                (new Sheets(600, 200, grain: 4))->raster()->page(),
                $map,
                new Point(500.0, -1010.0),
                new Point(5500.0, -1010.0),
                200.0,
            ),
        );
    }

    public function testAColumnThatADrawingHasElsewhere(): void
    {
        $page = (new Sheets(300, 300, grain: 4))->fill(133, 140, 36, 36)->raster();
        $map = PixelToMm::similar(10.0, 0.0, new PixelPoint(0.0, 0.0), new Point(0.0, 0.0));
        $misfit = Misfit::ofColumn($page->page(), $map, new Point(1480.0, -1610.0));
        self::assertNotNull($misfit);
        self::assertEqualsWithDelta([30.0, 30.0], [$misfit->by->x, $misfit->by->y], 3.0);
    }

    public function testCoursesOfASlantedWallAreCountedFromJointToJoint(): void
    {
        // The pitch shrinks from 15 to 12 px on the way up, as on a photograph taken from below.
        $sheet = new Sheets(120, 640, 120, 6);
        $joints = [];
        for ($y = 610.0, $pitch = 15.0; \count($joints) <= 40; $pitch -= 0.075) {
            $joints[] = $y;
            $sheet->fill(0, (int) round($y) - 1, 120, 2, 210);
            $y -= $pitch;
        }
        $count = JointCount::along(
            $sheet->raster()->page(),
            new PixelPoint(60.0, $joints[0] + 2.0),
            new PixelPoint(62.0, $joints[40] - 2.0),
        );
        self::assertNotNull($count);
        self::assertSame(40, $count->spaces);
        self::assertCount(41, $count->ticks);
        self::assertEqualsWithDelta($joints[0], $count->ticks[0]->y, 1.0);
        self::assertEqualsWithDelta($joints[40], $count->ticks[40]->y, 1.0);
        self::assertEqualsWithDelta($joints[20], $count->ticks[20]->y, 1.0);
    }

    /** A pen line across the sheet that rises by the bow in its middle. */
    private static function bowed(int $width, int $height, float $at, float $bow): GreyRaster
    {
        mt_srand(5);
        $rows = array_fill(0, $height, '');
        for ($x = 0; $x < $width; ++$x) {
            $t = ($x + 0.5) / $width;
            $y = $at - $bow * 4.0 * $t * (1.0 - $t);
            for ($j = 0; $j < $height; ++$j) {
                // Ink within 1.5 px of the middle, by how much of the pixel it covers.
                $cover = max(0.0, min(1.0, 2.0 - abs($j + 0.5 - $y)));
                $rows[$j] .= \chr((int) round(232 - 190 * $cover + mt_rand(-3, 3)));
            }
        }

        return new GreyRaster($width, $height, implode('', $rows));
    }
}
