<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Geometry;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Rectified;

/** A straightened picture shows the whole drawing at one scale, and each of its pixels knows where it comes from. */
final class RectifiedTest extends TestCase
{
    private const SLANTED = [5.0, 0.1, -700.0, 0.2, -5.1, 9000.0, 2e-5, -6e-5, 1.0];

    public function testEveryCornerOfTheDrawingLiesOnItAndOneScaleServesAllOfIt(): void
    {
        $map = PixelToMm::ofMatrix(self::SLANTED);
        $box = new PixelBox(100.0, 80.0, 2600.0, 1700.0);
        $rectified = Rectified::of($map, $box, 1e8);
        foreach ($box->corners() as $corner) {
            $at = $rectified->toMm->toPixel($map->toMm($corner));
            self::assertGreaterThan(-1e-6, min($at->x, $at->y));
            self::assertLessThan($rectified->width + 1.0, $at->x);
            self::assertLessThan($rectified->height + 1.0, $at->y);
            $back = $rectified->toPage($at);
            self::assertEqualsWithDelta([$corner->x, $corner->y], [$back->x, $back->y], 1e-6);
        }
        self::assertEqualsWithDelta($map->mmPerPixelAt($box->centre()), $rectified->toMm->mmPerPixelAt(new PixelPoint(5.0, 900.0)), 1e-9);
        // Coarser where it would grow too large.
        $small = Rectified::of($map, $box, 1e6);
        self::assertLessThan(1.01e6, $small->width * $small->height);
    }

    public function testTheGridTellsWherePixelsComeFromAndHalfWayBetweenItIsRightToAHundredthOfAPixel(): void
    {
        $rectified = Rectified::of(PixelToMm::ofMatrix(self::SLANTED), new PixelBox(0.0, 0.0, 2800.0, 1900.0), 1e8);
        [$columns, $rows, $values] = $rectified->grid(16);
        self::assertGreaterThanOrEqual($rectified->width, 16 * ($columns - 1));
        self::assertGreaterThanOrEqual($rectified->height, 16 * ($rows - 1));
        self::assertSame(8 * $columns * $rows, \strlen($values));
        $at = static function (int $i, int $j) use ($values, $columns): array {
            $pair = unpack('g2', $values, 8 * ($j * $columns + $i));
            self::assertIsArray($pair);

            return array_map(static fn (mixed $v): float => is_numeric($v) ? (float) $v : \NAN, array_values($pair));
        };
        foreach ([[0, 0], [20, 7], [$columns - 2, $rows - 2]] as [$i, $j]) {
            $exact = $rectified->toPage(new PixelPoint(16 * $i + 0.5, 16 * $j + 0.5));
            self::assertEqualsWithDelta([$exact->x - 0.5, $exact->y - 0.5], $at($i, $j), 1e-3);
            $middle = $rectified->toPage(new PixelPoint(16 * $i + 8.5, 16 * $j + 8.5));
            $mean = array_map(
                static fn (float ...$v): float => array_sum($v) / 4.0,
                $at($i, $j),
                $at($i + 1, $j),
                $at($i, $j + 1),
                $at($i + 1, $j + 1),
            );
            self::assertEqualsWithDelta([$middle->x - 0.5, $middle->y - 0.5], $mean, 0.01);
        }
    }
}
