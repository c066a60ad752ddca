<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Geometry;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelAffine;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/** Mappings between two scans compose with fits, invert, and are found from pairs. */
final class PixelAffineTest extends TestCase
{
    public function testItIsFoundFromPairsAndInverts(): void
    {
        mt_srand(3);
        for ($n = 0; $n < 50; ++$n) {
            $r = static fn (float $a, float $b): float => $a + ($b - $a) * mt_rand() / mt_getrandmax();
            $map = new PixelAffine($r(0.5, 2), $r(-0.5, 0.5), $r(-900, 900), $r(-0.5, 0.5), $r(0.5, 2), $r(-900, 900));
            $points = [
                new PixelPoint($r(0, 900), $r(0, 900)),
                new PixelPoint($r(1500, 2400), $r(0, 900)),
                new PixelPoint($r(0, 2400), $r(1500, 2400)),
                new PixelPoint($r(0, 2400), $r(0, 2400)),
            ];
            $found = PixelAffine::through(array_map(static fn (PixelPoint $p): array => [$p, $map->of($p)], $points));
            self::assertEqualsWithDelta($map->toArray(), $found->toArray(), 1e-6);
            self::assertLessThan(1e-8, $map->inverse()->of($map->of($points[0]))->distanceTo($points[0]));
        }
    }

    public function testTwoPairsOrALineOfThemGiveASimilarMapping(): void
    {
        $map = PixelAffine::similar(1.5, deg2rad(30.0), new PixelPoint(10, 20), new PixelPoint(300, 400));
        self::assertEqualsWithDelta(30.0, $map->turnDegrees(), 1e-12);
        self::assertEqualsWithDelta([1.5, 1.5], $map->stretch(), 1e-12);
        foreach ([[[0, 0], [700, 300]], [[0, 0], [350, 150], [700, 300]]] as $spots) {
            $pairs = array_map(
                static fn (array $s): array => [new PixelPoint($s[0], $s[1]), $map->of(new PixelPoint($s[0], $s[1]))],
                $spots,
            );
            self::assertEqualsWithDelta($map->toArray(), PixelAffine::through($pairs)->toArray(), 1e-9);
        }
    }

    /** A few tenths of a pixel of noise on places in a row say nothing of what lies beside the row, whichever way it runs. */
    public function testPlacesInARowMoveNothingBesideItAstray(): void
    {
        mt_srand(11);
        $noise = static fn (): float => 0.6 * (mt_rand() / mt_getrandmax() - 0.5);
        for ($degrees = 0.0; $degrees < 360.0; $degrees += 7.5) {
            [$c, $s] = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
            $at = static fn (float $along, float $across): PixelPoint => new PixelPoint(
                1500 + $along * $c - $across * $s,
                900 + $along * $s + $across * $c,
            );
            $pairs = array_map(
                static fn (float $along): array => [$at($along, $noise()), $at($along + $noise(), $noise())],
                [0.0, 320.0, 610.0, 1000.0],
            );
            self::assertLessThan(
                3.0,
                PixelAffine::through($pairs)->of($at(500.0, 1000.0))->distanceTo($at(500.0, 1000.0)),
                "turned by {$degrees}°",
            );
        }
    }

    public function testAFitGoesAlongWithItsPixels(): void
    {
        $map = PixelAffine::similar(1.2, deg2rad(-2.0), new PixelPoint(500, 500), new PixelPoint(640, 600));
        $fit = PixelToMm::similar(6.35, 0.1, new PixelPoint(400, 300), new Point(5000, 4000));
        $moved = $map->inverse()->then($fit);
        $p = new PixelPoint(321.0, 123.0);
        self::assertEqualsWithDelta($fit->toMm($p)->toArray(), $moved->toMm($map->of($p))->toArray(), 1e-9);
        $about = new Point(100, 200);
        $turned = $fit->turned(\M_PI / 2, $about);
        $at = $fit->toMm($p);
        self::assertEqualsWithDelta(
            [100 - ($at->y - 200), 200 + ($at->x - 100)],
            $turned->toMm($p)->toArray(),
            1e-9,
            'A quarter to the left about the point.',
        );
    }

    public function testBoxes(): void
    {
        $a = new PixelBox(10, 10, 100, 50);
        $b = new PixelBox(60, 20, 100, 50);
        self::assertSame(50.0 * 40.0, $a->overlap($b));
        self::assertSame(2000.0 / (5000 + 5000 - 2000), $a->likeness($b));
        self::assertSame([0.0, 15.0, 25.0], [$a->gap($b), $a->gap(new PixelBox(125, 20, 5, 5)), $a->gap(new PixelBox(120, 85, 5, 5))]);
        self::assertEquals(new PixelBox(10, 10, 150, 60), $a->union($b));
        self::assertEquals(new PixelBox(0, 0, 130, 80), (new PixelBox(5, 5, 120, 70))->grown(5, 130, 200), 'Not beyond the page.');
        self::assertEquals(new PixelBox(20, 20, 200, 100), $a->scaled(2));
        self::assertGreaterThan(
            1 - 1e-9,
            (new PixelBox(-70, 10, 50, 100))->likeness(
                PixelAffine::similar(1.0, \M_PI / 2, new PixelPoint(0, 0), new PixelPoint(-10, 0))->boxOf($a),
            ),
            'The upright box of a turned one.',
        );
    }
}
