<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelAffine;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Picks\Found;
use Plinth\Core\Ink\Picks\FoundKind;
use Plinth\Core\Ink\Picks\JointCount;
use Plinth\Core\Ink\Picks\PickRefinement;

/** A pick lands on what it means, to a part of a pixel, from some pixels beside it. */
final class PickRefinementTest extends TestCase
{
    #[TestWith([0.0])]
    #[TestWith([1.4])]
    #[TestWith([-17.0])]
    #[TestWith([30.0])]
    public function testACornerOfASolidWall(float $degrees): void
    {
        [$page, $map] = self::turned((new Sheets(300, 300, grain: 4))->fill(100, 60, 40, 200)->fill(100, 220, 180, 40)->raster(), $degrees);
        foreach ([[100, 60], [140, 60], [140, 220], [100, 260]] as [$x, $y]) {
            $true = $map->of(new PixelPoint($x, $y));
            foreach ([[3, -2], [-4, 1], [0, 0]] as [$dx, $dy]) {
                $found = self::near($page, new PixelPoint($true->x + $dx, $true->y + $dy));
                self::assertSame(FoundKind::Corner, $found?->kind);
                self::assertLessThan(0.25, $found->at->distanceTo($true));
            }
        }
    }

    public function testAFaceIsFoundAcrossAndTellsItsDirectionAndTheWall(): void
    {
        [$page, $map] = self::turned((new Sheets(300, 300, grain: 4))->fill(0, 130, 300, 36)->raster(), 5.0);
        $at = $map->of(new PixelPoint(150, 130));
        $found = self::near($page, new PixelPoint($at->x + 1, $at->y + 4));
        self::assertSame(FoundKind::Face, $found?->kind);
        $back = $map->inverse()->of($found->at);
        self::assertEqualsWithDelta(130.0, $back->y, 0.1);
        self::assertEqualsWithDelta(5.0, $found->alongDegrees, 0.3, 'Counter-clockwise as seen.');
        self::assertEqualsWithDelta(36.0, $found->thicknessPx, 0.6);
    }

    public function testThickWallsAreFollowedBeyondTheWindow(): void
    {
        $page = (new Sheets(400, 400))->fill(0, 150, 400, 110)->raster();
        self::assertEqualsWithDelta(110.0, self::near($page, new PixelPoint(200, 148))?->thicknessPx, 1.0);
    }

    public function testOnAPhotographOfAWallNoBrickIsAColumnOrAStroke(): void
    {
        $sheet = new Sheets(300, 200, grain: 4);
        for ($row = 0; $row < 13; ++$row) {
            for ($k = -1; $k < 7; ++$k) {
                $sheet->fill(45 * $k + 22 * ($row % 2), 15 * $row, 43, 13, 120);
            }
        }
        $page = $sheet->raster();
        $brick = new PixelPoint(45 * 3 + 22, 15 * 6 + 6);
        $found = PickRefinement::near($page->page(), $brick, 10.0, 12.0, isScene: true);
        self::assertNotNull($found);
        self::assertContains($found->kind, [FoundKind::Face, FoundKind::Corner]);
        // Beside the end of a brick, where only a level edge says anything of the height.
        $end = PickRefinement::lineNear($page->page(), new PixelPoint(45 * 3 + 43, 15 * 6 + 5), 10.0, 0.0, 10.0, 12.0, true);
        self::assertNotNull($end);
        self::assertLessThan(0.6, min(abs($end->at->y - 90.0), abs($end->at->y - 103.0)));
    }

    public function testTheMiddleOfAStrokeCounts(): void
    {
        $page = (new Sheets(200, 200, grain: 3))->fill(0, 90, 200, 3)->raster();
        $found = self::near($page, new PixelPoint(100, 94));
        self::assertSame(FoundKind::Line, $found?->kind);
        self::assertEqualsWithDelta(91.5, $found->at->y, 0.1);
    }

    public function testWhereDashedAxesCross(): void
    {
        $sheet = new Sheets(240, 240, grain: 3);
        for ($k = 0; $k < 240; $k += 18) {
            $sheet->fill($k, 119, 11, 2)->fill(119, $k, 2, 11);
        }
        $found = self::near($sheet->raster(), new PixelPoint(117, 123));
        self::assertSame(FoundKind::Crossing, $found?->kind);
        self::assertLessThan(0.2, $found->at->distanceTo(new PixelPoint(120, 120)));
    }

    #[TestWith([0.0, true])]
    #[TestWith([12.0, true])]
    #[TestWith([45.0, true])]
    #[TestWith([0.0, false])]
    #[TestWith([9.0, false])]
    public function testTheCentreOfAColumnSolidOrOutlined(float $degrees, bool $solid): void
    {
        $sheet = new Sheets(240, 240, grain: 3);
        $sheet = $solid ? $sheet->fill(105, 100, 30, 40) : $sheet->frame(105, 100, 30, 40, 3);
        [$page, $map] = self::turned($sheet->raster(), $degrees);
        $true = $map->of(new PixelPoint(120, 120));
        $found = self::near($page, new PixelPoint($true->x + 3, $true->y - 4));
        self::assertSame(FoundKind::Column, $found?->kind);
        self::assertLessThan(0.5, $found->at->distanceTo($true));
    }

    public function testAColumnWithItsAxesThroughItIsStillItsCentre(): void
    {
        $page = (new Sheets(240, 240, grain: 3))->fill(0, 119, 240, 2)->fill(119, 0, 2, 240)->fill(104, 104, 32, 32)->raster();
        $found = self::near($page, new PixelPoint(123, 117));
        self::assertSame(FoundKind::Column, $found?->kind);
        self::assertLessThan(0.3, $found->at->distanceTo(new PixelPoint(120, 120)));
    }

    public function testLightInkOnDarkPaper(): void
    {
        $page = (new Sheets(200, 200, grain: 3))->fill(80, 60, 30, 120)->raster()->inverted();
        $found = PickRefinement::near($page->page(true), new PixelPoint(82, 58), 10.0);
        self::assertSame(FoundKind::Corner, $found?->kind);
        self::assertLessThan(0.2, $found->at->distanceTo(new PixelPoint(80, 60)));
    }

    public function testNothingIsFoundOnPaperNorBeyondTheReach(): void
    {
        self::assertNull(self::near((new Sheets(200, 200, grain: 5))->raster(), new PixelPoint(100, 100)));
        $page = (new Sheets(200, 200))->fill(0, 140, 200, 20)->raster();
        self::assertNull(PickRefinement::near($page->page(), new PixelPoint(100, 120), 10.0));
        self::assertNotNull(PickRefinement::near($page->page(), new PixelPoint(100, 120), 24.0));
    }

    public function testCornersOnlyLeavesFacesAlone(): void
    {
        $page = (new Sheets(200, 200))->fill(0, 100, 150, 40)->raster();
        $at = new PixelPoint(100, 101);
        self::assertSame(FoundKind::Face, self::near($page, $at)?->kind);
        self::assertNull(PickRefinement::near($page->page(), $at, 10.0, cornersOnly: true));
        self::assertSame(FoundKind::Corner, PickRefinement::near($page->page(), new PixelPoint(146, 103), 10.0, cornersOnly: true)?->kind);
    }

    public function testAtTheEdgeOfThePage(): void
    {
        $page = (new Sheets(120, 120))->fill(0, 0, 40, 120)->raster();
        self::assertEqualsWithDelta(40.0, self::near($page, new PixelPoint(42, 3))?->at->x, 0.1);
        self::assertNull(self::near($page, new PixelPoint(119, 119)));
    }

    #[TestWith([12, 21.7])]
    #[TestWith([31, 9.3])]
    public function testJointsAreCountedWithTheirTicks(int $courses, float $pitch): void
    {
        $sheet = new Sheets(160, (int) ($courses * $pitch) + 60, 150, 6);
        for ($k = 0; $k <= $courses; ++$k) {
            $sheet->fill(0, (int) round(20 + $k * $pitch), 160, 2, 215);
        }
        $page = $sheet->raster();
        $count = JointCount::along($page->page(), new PixelPoint(80, 21), new PixelPoint(82, 21 + $courses * $pitch));
        self::assertSame($courses, $count?->spaces);
        self::assertEqualsWithDelta($pitch, $count->pitchPx, 0.05 * $pitch);
        self::assertNull(JointCount::along($page->page(), new PixelPoint(80, 30), new PixelPoint(80, 36)), 'Too short to tell.');
        self::assertNull(
            JointCount::along((new Sheets(100, 300, grain: 5))->raster()->page(), new PixelPoint(50, 10), new PixelPoint(50, 290)),
            'Blank paper has no beat.',
        );
    }

    private static function near(GreyRaster $page, PixelPoint $at): ?Found
    {
        return PickRefinement::near($page->page(), $at, 10.0);
    }

    /** @return array{GreyRaster, PixelAffine} the sheet turned counter-clockwise about its middle, and where its points go */
    private static function turned(GreyRaster $sheet, float $degrees): array
    {
        $c = new PixelPoint($sheet->width / 2, $sheet->height / 2);
        $map = PixelAffine::similar(1.0, deg2rad(-$degrees), $c, new PixelPoint($c->x + 40, $c->y + 40));

        return [Sheets::warped($sheet, $map, $sheet->width + 80, $sheet->height + 80), $map];
    }
}
