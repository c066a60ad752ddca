<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Geometry;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Tests\Fitting\Noise;

final class PolygonTest extends TestCase
{
    private const L_SHAPE = [[0.0, 0.0], [4.0, 0.0], [4.0, 1.0], [1.0, 1.0], [1.0, 3.0], [0.0, 3.0]];

    public function testAreaIsSignedByTheWinding(): void
    {
        self::assertSame(6.0, Polygon::area(self::L_SHAPE));
        self::assertSame(-6.0, Polygon::area(array_reverse(self::L_SHAPE)));
        self::assertSame(0.0, Polygon::area([]));
        self::assertSame(0.0, Polygon::area([[1.0, 1.0], [2.0, 2.0]]));
        self::assertSame(0.0, Polygon::area([[0.0, 0.0], [1.0, 1.0], [2.0, 2.0]]), 'On one line.');
    }

    public function testARingFarFromTheOriginLosesNoDigits(): void
    {
        $far = array_map(static fn (array $p): array => [$p[0] + 4.5e8, $p[1] - 3.2e8], self::L_SHAPE);
        self::assertSame(6.0, Polygon::area($far));
    }

    public function testMovingTurningAndReversingChangeTheAreaAsTheyMust(): void
    {
        Noise::seed(8);
        for ($i = 0; $i < 50; ++$i) {
            $ring = array_map(static fn (int $k): array => [Noise::uniform(-1e4, 1e4), Noise::uniform(-1e4, 1e4)], range(0, 8));
            $turn = Noise::uniform(0, 6.3);
            $moved = array_map(
                static fn (array $p): array => [cos($turn) * $p[0] - sin($turn) * $p[1] + 1e5, sin($turn) * $p[0] + cos($turn) * $p[1]],
                $ring,
            );
            self::assertEqualsWithDelta(Polygon::area($ring), Polygon::area($moved), 1e-3);
            self::assertEqualsWithDelta(-Polygon::area($ring), Polygon::area(array_reverse($ring)), 1e-6);
        }
    }

    public function testContainsFollowsTheRing(): void
    {
        foreach ([
            [[0.5, 2.0], true], [[3.0, 0.5], true], [[2.0, 2.0], false], [[-0.1, 1.0], false], [[0.5, 3.1], false],
        ] as [[$x, $y], $inside]) {
            self::assertSame($inside, Polygon::contains(self::L_SHAPE, $x, $y), "$x, $y");
            self::assertSame($inside, Polygon::contains(array_reverse(self::L_SHAPE), $x, $y));
        }
    }

    public function testALabelStandsInsideTheRing(): void
    {
        Noise::seed(4);
        self::assertTrue(Polygon::contains(self::L_SHAPE, ...Polygon::labelPoint(self::L_SHAPE)));
        for ($i = 0; $i < 100; ++$i) {
            // Star shapes: rings that do not cross themselves.
            $ring = array_map(static function (int $k): array {
                $r = Noise::uniform(500, 4000);

                return [$r * cos($k * 0.5), $r * sin($k * 0.5)];
            }, range(0, 11));
            self::assertTrue(Polygon::contains($ring, ...Polygon::labelPoint($ring)));
        }
    }

    public function testBoundsHoldEveryPoint(): void
    {
        self::assertSame([0.0, 0.0, 4.0, 3.0], Polygon::bounds(self::L_SHAPE));
    }
}
