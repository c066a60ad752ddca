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

    private static function isScene(GreyRaster $raster): bool
    {
        return Scene::isShown($raster, Paper::of($raster));
    }
}
