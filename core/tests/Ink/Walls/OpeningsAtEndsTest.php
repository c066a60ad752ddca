<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Walls;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Walls\Internal\Filling;
use Plinth\Core\Ink\Walls\Internal\OpeningsAtEnds;
use Plinth\Core\Ink\Walls\Internal\Pens;
use Plinth\Core\Ink\Walls\Internal\Strip;
use Plinth\Core\Ink\Walls\Internal\WallLine;

/** As in a sketch: what is left of one wall on both sides of its window lies a little off one line. */
final class OpeningsAtEndsTest extends TestCase
{
    private const LEFT = [0.0, 4200.0, 2000.0, 4200.0, 240.0];
    private const RIGHT = [3800.0, 4260.0, 6200.0, 4260.0, 240.0];

    public function testAWallGoesOnOverItsWindowToTheNextPieceOfItsOwn(): void
    {
        [$left, $right] = $this->drawnOn([self::LEFT, self::RIGHT], true);
        self::assertEqualsWithDelta([3800.0, 4260.0], $left->to->toArray(), 1e-6);
        self::assertEqualsWithDelta([3800.0, 4260.0], $right->from->toArray(), 1e-6, 'One of the two, not both.');
    }

    public function testItEndsWhereNothingIsDrawnInTheGap(): void
    {
        [$left, $right] = $this->drawnOn([self::LEFT, self::RIGHT], false);
        self::assertEqualsWithDelta(2000.0, $left->to->x, 1e-6);
        self::assertEqualsWithDelta(3800.0, $right->from->x, 1e-6);
    }

    public function testItEndsWhereAnotherWallRunsThroughTheGapOrThePieceIsUnlike(): void
    {
        [$left] = $this->drawnOn([self::LEFT, self::RIGHT, [2900.0, 2000.0, 2900.0, 4600.0, 100.0]], true);
        self::assertEqualsWithDelta(2000.0, $left->to->x, 1e-6);
        [$left] = $this->drawnOn([self::LEFT, [3800.0, 4200.0, 6200.0, 4200.0, 120.0]], true);
        self::assertEqualsWithDelta(2000.0, $left->to->x, 1e-6);
    }

    /**
     * @param list<array{float, float, float, float, float}> $walls
     *
     * @return list<WallLine>
     */
    private function drawnOn(array $walls, bool $hasWindow): array
    {
        $map = PixelToMm::similar(10.0, 0.0, new PixelPoint(60.0, 500.0), new Point(0.0, 0.0));
        $drawn = DrawnWalls::solid($walls, 740, 560, $map);
        $bytes = $drawn->bytes;
        foreach ($hasWindow ? [71, 77, 83] : [] as $y) {
            for ($k = $y; $k < $y + 2; ++$k) {
                $bytes = substr_replace($bytes, str_repeat(\chr(48), 156), $k * $drawn->width + 272, 156);
            }
        }
        $lines = array_map(static function (array $wall): WallLine {
            [$x1, $y1, $x2, $y2, $thickness] = $wall;
            $isPlumb = $x1 === $x2;
            [$at, $from, $to] = $isPlumb ? [$x1, $y1, $y2] : [$y1, $x1, $x2];
            $strip = new Strip($from, $to, $at, $thickness, Filling::Solid, $isPlumb, [[$from, $to]], 250.0, null);

            return WallLine::of($strip, 0.0, Pens::of([$strip]));
        }, $walls);

        return OpeningsAtEnds::drawnOn($lines, (new GreyRaster($drawn->width, $drawn->height, $bytes))->page(), $map);
    }
}
