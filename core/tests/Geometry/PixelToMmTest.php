<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Geometry;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Tests\Fitting\Noise;

final class PixelToMmTest extends TestCase
{
    public function testPixelsRunDownAndMillimetresUp(): void
    {
        $map = PixelToMm::similar(5.0, 0.0, new PixelPoint(100.0, 200.0), new Point(0.0, 0.0));
        self::assertEquals(new Point(50.0, 50.0), $map->toMm(new PixelPoint(110.0, 190.0)));
    }

    public function testATurnToTheLeftLiftsThePicturesXAxis(): void
    {
        $map = PixelToMm::similar(2.0, \M_PI_2, new PixelPoint(0.0, 0.0), new Point(0.0, 0.0));
        $at = $map->toMm(new PixelPoint(10.0, 0.0));
        self::assertEqualsWithDelta([0.0, 20.0], $at->toArray(), 1e-12);
        self::assertEqualsWithDelta(\M_PI_2, $map->turnRadAt(new PixelPoint(3.0, 4.0)), 1e-12);
        self::assertEqualsWithDelta(2.0, $map->mmPerPixelAt(new PixelPoint(3.0, 4.0)), 1e-9);
    }

    public function testThereAndBackIsTheSamePixelForAnyMapping(): void
    {
        Noise::seed(2);
        for ($i = 0; $i < 100; ++$i) {
            $map = PixelToMm::ofMatrix([
                Noise::uniform(2, 9), Noise::uniform(-1, 1), Noise::uniform(-1e4, 1e4),
                Noise::uniform(-1, 1), -Noise::uniform(2, 9), Noise::uniform(-1e4, 1e4),
                Noise::uniform(-1e-5, 1e-5), Noise::uniform(-1e-5, 1e-5), 1.0,
            ]);
            $p = new PixelPoint(Noise::uniform(0, 4000), Noise::uniform(0, 3000));
            $back = $map->toPixel($map->toMm($p));
            self::assertEqualsWithDelta(0.0, $p->distanceTo($back), 1e-8);
        }
    }
}
