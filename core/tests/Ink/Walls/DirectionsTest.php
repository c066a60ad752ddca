<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Walls;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\AlignedInk;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\ReducedInk;
use Plinth\Core\Ink\Walls\Internal\Directions;

/** A wing, or the sides of a bay, are looked into whatever the grain; strokes and letters are no direction. */
final class DirectionsTest extends TestCase
{
    private const MM = 10.0;

    /** @return iterable<string, array{float, float, int, list<float>}> turn and length of the other walls, grain, directions found */
    public static function wings(): iterable
    {
        yield 'a wing at 33°' => [33.0, 5000.0, 4, [0.0, 33.0]];
        yield 'a wing at 12° in the shoulder of a faint drawing' => [12.0, 5000.0, 40, [0.0, 12.0]];
        yield 'the other way round' => [-15.0, 5000.0, 40, [0.0, -15.0]];
        yield 'the sides of a bay' => [45.0, 1100.0, 4, [0.0, 45.0]];
        yield 'strokes no longer than a step' => [45.0, 400.0, 4, [0.0]];
    }

    /** @param list<float> $directions */
    #[DataProvider('wings')]
    public function testLongEdgesMakeADirection(float $turn, float $length, int $grain, array $directions): void
    {
        $raster = self::drawn($turn, $length, $grain);
        $map = PixelToMm::similar(self::MM, 0.0, new PixelPoint(0.0, $raster->height), new Point(0.0, 0.0));
        $box = new PixelBox(0, 0, $raster->width, $raster->height);
        $page = ReducedInk::of($raster->page(false), $box, 1, static function (float $done): void {});
        $found = Directions::of(AlignedInk::of($page, $map, array_map($map->toMm(...), $box->corners()), 0.0, self::MM));
        self::assertCount(\count($directions), $found, implode(', ', $found));
        foreach ($directions as $k => $expected) {
            // 45° and −45° are one.
            self::assertEqualsWithDelta(0.0, abs(fmod($found[$k] - $expected + 135.0, 90.0) - 45.0), 1.1);
        }
    }

    /** Two long walls level, two plumb, and four more walls or strokes at a turn: pairs of lines, with grain. */
    private static function drawn(float $turn, float $length, int $grain): GreyRaster
    {
        [$w, $h] = [1000, 800];
        $lines = [[500, 500, 0, 8000], [500, 3500, 0, 8000], [500, 500, 90, 3000], [8500, 500, 90, 3000]];
        foreach ([0, 1, 2, 3] as $k) {
            $lines[] = [2000 + 1500 * $k, 4600, $turn, $length];
        }
        mt_srand(5);
        $grey = array_fill(0, $w * $h, 200.0);
        foreach ($lines as [$x, $y, $degrees, $long]) {
            [$c, $s] = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
            foreach ([0.0, 120.0] as $face) {
                for ($t = 0.0; $t < $long; $t += 2.5) {
                    for ($n = 0.0; $n < 20.0; $n += 2.5) {
                        [$px, $py] = [($x + $t * $c - ($face + $n) * $s) / self::MM, $h - ($y + $t * $s + ($face + $n) * $c) / self::MM];
                        $grey[(int) $py * $w + (int) $px] = 120.0;
                    }
                }
            }
        }

        return new GreyRaster($w, $h, implode('', array_map(
            static fn (float $v): string => \chr(max(0, min(255, (int) $v + mt_rand(-$grain, $grain)))),
            $grey,
        )));
    }
}
