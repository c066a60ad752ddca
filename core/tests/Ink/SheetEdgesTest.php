<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\SheetEdges;

final class SheetEdgesTest extends TestCase
{
    /** A light sheet with lines on it, on a dark table, leaning a little: its four edges are found, and the table is gone. */
    public function testASheetOnATableIsFoundByItsFourEdges(): void
    {
        // left at x = 70 + 0.05 y, right at 930 + 0.05 y, top at 60 − 0.05 x, bottom at 720 − 0.05 x
        $raster = self::picture(
            static fn (int $x, int $y): bool => $x > 70 + 0.05 * $y && $x < 930 + 0.05 * $y && $y > 60 - 0.05 * $x && $y < 720 - 0.05 * $x,
        );
        $edges = SheetEdges::of($raster);
        self::assertSame(['left', 'right', 'top', 'bottom'], array_keys($edges->sides));
        foreach (['left' => [70.0, 0.05], 'right' => [930.0, 0.05], 'top' => [60.0, -0.05], 'bottom' => [720.0, -0.05]] as $side => [$a, $b]) {
            // Told on a picture four times smaller, a few of its px within the sheet, where the step is over.
            self::assertEqualsWithDelta($a, $edges->sides[$side][0], 20.0, $side);
            self::assertEqualsWithDelta($b, $edges->sides[$side][1], 0.015, $side);
        }
        $filled = $edges->filled($raster);
        foreach ([[5, 400], [995, 400], [500, 5], [500, 745]] as [$x, $y]) {
            self::assertGreaterThan(200, \ord($filled->row($y, $x, 1)), 'Paper goes on.');
            self::assertSame("\0", $edges->blanked(str_repeat("\xFF", 1000 * 750), 1000)[1000 * $y + $x], 'Nothing is there.');
        }
    }

    /** A scan that shows nothing but paper and lines, or a thick wall by its side, has no edge to cut away. */
    public function testPaperAloneHasNoEdges(): void
    {
        $paper = self::picture(static fn (int $x, int $y): bool => true);
        self::assertSame([], SheetEdges::of($paper)->sides);
        self::assertSame($paper, SheetEdges::of($paper)->filled($paper));
        $wall = self::picture(static fn (int $x, int $y): bool => $x < 80 || $x > 125);
        self::assertSame([], SheetEdges::of($wall)->sides);
    }

    /** @param \Closure(int, int): bool $isSheet */
    private static function picture(\Closure $isSheet): GreyRaster
    {
        $bytes = '';
        for ($y = 0; $y < 750; ++$y) {
            for ($x = 0; $x < 1000; ++$x) {
                $isLine = 70 === $x % 140 || 50 === $y % 110;
                $bytes .= \chr(($isSheet($x, $y) ? ($isLine ? 60 : 230) : 90) + ($x * 7919 + $y * 104_729) % 7);
            }
        }

        return new GreyRaster(1000, 750, $bytes);
    }
}
