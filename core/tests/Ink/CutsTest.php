<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Page\Blob;
use Plinth\Core\Ink\Page\Blobs;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Pages\Cuts;
use Plinth\Core\Tests\Outside;

/** A page falls into the drawings that a person sees on it. */
final class CutsTest extends TestCase
{
    public function testDrawingsAreFoundWithTheirTitlesAndWithoutFrameAndTitleBlock(): void
    {
        $sheet = (new Sheets(1200, 850, grain: 6))->frame(20, 20, 1160, 810, 3)->frame(900, 740, 277, 88, 2);
        $sheet->plan(100, 90, 380, 260)->plan(650, 80, 400, 270)->plan(120, 470, 330, 220);
        $sheet->fill(930, 770, 90, 12)->fill(930, 795, 60, 8); // words of the title block
        $sheet->fill(560, 500, 3, 3)->fill(575, 690, 2, 2);    // dust
        $boxes = self::cuts($sheet->raster());
        self::assertCount(3, $boxes);
        foreach ([new PixelBox(100, 90, 380, 283), new PixelBox(650, 80, 400, 293), new PixelBox(120, 470, 330, 243)] as $i => $true) {
            self::assertGreaterThan(0.92, $boxes[$i]->likeness($true), "drawing $i, in reading order");
        }
    }

    public function testTwoDrawingsThatAlmostTouchAtOnePointStayApartAndTheWingsOfOneBuildingTogether(): void
    {
        $apart = (new Sheets(1200, 600))->plan(60, 200, 400, 240)->plan(700, 180, 400, 260)->fill(20, 440, 570, 4)->fill(594, 440, 560, 4);
        self::assertCount(2, self::cuts($apart->raster()), 'Two ground lines, end to end.');
        $together = (new Sheets(1200, 600))->plan(100, 150, 400, 260)->plan(512, 150, 420, 260);
        self::assertCount(1, self::cuts($together->raster()), 'Two wings that face each other over a gap.');
    }

    public function testChainsOfDimensionsAlongAPlanBelongToIt(): void
    {
        // Two tiers over the upper wall, joined by their own extension lines, which stop short of the wall.
        $sheet = (new Sheets(1200, 850))->plan(300, 300, 600, 400)->fill(300, 170, 600, 2)->fill(300, 230, 600, 2);
        for ($x = 300; $x <= 900; $x += 100) {
            $sheet->fill($x, 160, 2, 136);
        }
        self::assertCount(1, self::cuts($sheet->raster()));
    }

    public function testAnEmptyPageHoldsNothingAndALoneDrawingIsOne(): void
    {
        self::assertSame([], self::cuts((new Sheets(1000, 700, grain: 8))->raster()));
        self::assertCount(1, self::cuts((new Sheets(1000, 700, grain: 8))->plan(200, 150, 500, 350)->raster()));
    }

    public function testWhiteLinesOnBlueAreFoundLikeBlackOnWhite(): void
    {
        $sheet = (new Sheets(1200, 850))->plan(100, 90, 380, 260)->plan(650, 80, 400, 270)->raster();
        $blue = $sheet->inverted();
        self::assertFalse(Paper::of($sheet)->lightOnDark);
        self::assertTrue(Paper::of($blue)->lightOnDark);
        self::assertEquals(self::cuts($sheet), self::cuts($blue));
    }

    public function testPaperFollowsTheLightButNotTheSolidWalls(): void
    {
        // Light falls off from 240 at the left to 140 at the right; a wall of 90 px is solid ink.
        $bytes = '';
        for ($y = 0; $y < 480; ++$y) {
            for ($x = 0; $x < 960; ++$x) {
                $paper = 240 - intdiv(100 * $x, 960);
                $bytes .= \chr($x >= 400 && $x < 490 && $y > 100 && $y < 400 ? $paper - 120 : $paper);
            }
        }
        $paper = Paper::of(new GreyRaster(960, 480, $bytes));
        foreach ([[50, 50], [445, 250], [900, 400]] as [$x, $y]) {
            self::assertEqualsWithDelta(240 - 100 * $x / 960, $paper->at($x, $y), 12.0, "$x, $y");
        }
        self::assertEqualsWithDelta(120, $paper->contrast, 20);
    }

    /** Outside check: OpenCV's connectedComponentsWithStats, eight neighbours. */
    public function testConnectedInkIsWhatOpenCvCallsConnected(): void
    {
        $sheet = new Sheets(300, 200, 255);
        mt_srand(5);
        for ($i = 0; $i < 500; ++$i) {
            $sheet->fill(mt_rand(0, 295), mt_rand(0, 195), mt_rand(1, 9), mt_rand(1, 4), 0);
        }
        $raster = $sheet->raster();
        $boxes = array_map(
            static fn (Blob $b): array => [(int) $b->box->left, (int) $b->box->top, (int) $b->box->width, (int) $b->box->height, $b->ink],
            Blobs::of($raster, Paper::of($raster)),
        );
        sort($boxes);
        $theirs = Outside::ask('blobs.py', ['width' => 300, 'height' => 200, 'bytes' => base64_encode($raster->bytes)])['blobs'];
        self::assertIsArray($theirs);
        sort($theirs);
        self::assertSame($theirs, $boxes);
    }

    /** @return list<PixelBox> */
    private static function cuts(GreyRaster $raster): array
    {
        return Cuts::propose($raster, Paper::of($raster));
    }
}
