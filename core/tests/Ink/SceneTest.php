<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Pages\Scene;
use Plinth\Core\Tests\Ink\Walls\DrawnWalls;

final class SceneTest extends TestCase
{
    /** Bricks of many shades with light joints between them fill the picture; a drawing is blank paper for the most part. */
    public function testAWallOfBricksIsABuildingAndADrawingIsNone(): void
    {
        mt_srand(4);
        $shades = [];
        $bytes = '';
        for ($y = 0; $y < 720; ++$y) {
            $course = intdiv($y, 12);
            for ($x = 0; $x < 960; ++$x) {
                $place = $x + 18 * ($course % 2);
                $brick = intdiv($place, 36);
                $shades[$course][$brick] ??= mt_rand(70, 125);
                $isJoint = $y % 12 < 2 || $place % 36 < 2;
                $bytes .= \chr(($isJoint ? 168 : $shades[$course][$brick]) + mt_rand(-6, 6));
            }
        }
        self::assertTrue(self::isScene(new GreyRaster(960, 720, $bytes)));
        $drawn = DrawnWalls::raster('double');
        self::assertFalse(self::isScene($drawn));
        self::assertFalse(self::isScene($drawn->inverted()), 'A blueprint.');
    }

    /** A plastered wall, its roof, the sky and the ground are blank each, and not alike; a sheet on a table is one blank thing with an edge. */
    public function testAPlasteredHouseIsABuildingAndASheetOnATableIsNone(): void
    {
        $house = new Sheets(1200, 800, 200, 3, 7);
        $house->fill(0, 560, 1200, 240, 110)->fill(0, 380, 1200, 180, 90)->fill(150, 220, 900, 400, 172)->fill(110, 60, 980, 160, 75);
        foreach ([[220, 280], [420, 280], [640, 280], [860, 280], [220, 450], [640, 450], [860, 450]] as [$left, $top]) {
            $house->fill($left, $top, 110, 110, 228)->fill($left + 9, $top + 9, 92, 92, 62);
        }
        self::assertTrue(self::isScene($house->raster()));
        $sheet = new Sheets(1200, 800, 85, 3, 8);
        $sheet->fill(90, 70, 1020, 660, 228)->frame(240, 180, 700, 420, 6)->fill(560, 180, 6, 420)->fill(240, 380, 320, 6);
        self::assertFalse(self::isScene($sheet->raster()));
    }

    private static function isScene(GreyRaster $raster): bool
    {
        return Scene::isShown($raster, Paper::of($raster));
    }
}
