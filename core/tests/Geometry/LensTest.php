<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Geometry;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Lens;
use Plinth\Core\Geometry\PixelAffine;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;

/** A lens is taken back exactly, and a fit with one goes both ways like any other. */
final class LensTest extends TestCase
{
    #[TestWith([-0.06])]
    #[TestWith([0.02])]
    #[TestWith([0.0])]
    public function testThereAndBack(float $k): void
    {
        $lens = new Lens($k / 1800.0 ** 2, new PixelPoint(1500.0, 1000.0));
        $map = PixelToMm::ofMatrix([5.0, 0.1, -700.0, 0.2, -5.1, 9000.0, 2e-5, -4e-5, 1.0], $lens);
        foreach ([[0, 0], [3000, 0], [1500, 1000], [2900, 1950], [700, 300]] as [$x, $y]) {
            $p = new PixelPoint($x, $y);
            $back = $lens->bent($lens->straight($p));
            self::assertEqualsWithDelta([$x, $y], [$back->x, $back->y], 1e-9);
            $back = $map->toPixel($map->toMm($p));
            self::assertEqualsWithDelta([$x, $y], [$back->x, $back->y], 1e-6);
            // Derivatives against differences.
            $h = 1e-3;
            [$xx, $xy, $yx, $yy] = $map->linearAt($p);
            $right = $map->toMm(new PixelPoint($x + $h, $y));
            $left = $map->toMm(new PixelPoint($x - $h, $y));
            $below = $map->toMm(new PixelPoint($x, $y + $h));
            $above = $map->toMm(new PixelPoint($x, $y - $h));
            self::assertEqualsWithDelta([$xx, $yx], [($right->x - $left->x) / (2 * $h), ($right->y - $left->y) / (2 * $h)], 1e-5);
            self::assertEqualsWithDelta([$xy, $yy], [($below->x - $above->x) / (2 * $h), ($below->y - $above->y) / (2 * $h)], 1e-5);
        }
    }

    public function testABarrelPullsCornersInSoThatTakenBackTheyLieFurtherOut(): void
    {
        $lens = new Lens(-0.05 / 1800.0 ** 2, new PixelPoint(1500.0, 1000.0));
        $corner = $lens->straight(new PixelPoint(0.0, 0.0));
        self::assertLessThan(-70.0, $corner->x);
        self::assertLessThan(-50.0, $corner->y);
    }

    public function testMovedTurnedAndOnANewerScanTheLensComesAlong(): void
    {
        $lens = new Lens(-0.04 / 1800.0 ** 2, new PixelPoint(1500.0, 1000.0));
        $map = PixelToMm::ofMatrix([5.0, 0.0, 0.0, 0.0, -5.0, 9000.0, 0.0, 1e-5, 1.0], $lens);
        $p = new PixelPoint(2700.0, 300.0);
        $there = $map->toMm($p);
        $shifted = $map->shifted(120.0, -35.0)->toMm($p);
        self::assertEqualsWithDelta([$there->x + 120.0, $there->y - 35.0], [$shifted->x, $shifted->y], 1e-9);
        $turned = $map->turned(\M_PI_2, $map->toMm(new PixelPoint(0.0, 0.0)))->toMm($p);
        self::assertEqualsWithDelta(
            $map->toMm(new PixelPoint(0.0, 0.0))->distanceTo($there),
            $map->toMm(new PixelPoint(0.0, 0.0))->distanceTo($turned),
            1e-6,
        );
        // The newer scan is twice as fine and turned.
        $newer = PixelAffine::similar(2.0, 0.3, new PixelPoint(100.0, 100.0), new PixelPoint(900.0, 400.0));
        $onNewer = $newer->inverse()->then($map)->toMm($newer->of($p));
        self::assertEqualsWithDelta([$there->x, $there->y], [$onNewer->x, $onNewer->y], 1e-6);
    }
}
