<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Facades;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Facades\FacadeOpenings;
use Plinth\Core\Ink\Facades\ShownOpening;
use Plinth\Core\Tests\Ink\Sheets;

/** Openings that a picture shows are found where they are, none is where there are none, and their ± holds. */
final class FacadeOpeningsTest extends TestCase
{
    private const MM_PER_PIXEL = 8.0;
    private const WIDTH = 1300;
    private const HEIGHT = 900;
    /** left, sill, width and height, px from the upper left: windows in two storeys and a door */
    private const OPENINGS = [[200, 180, 150, 160], [500, 180, 230, 160], [900, 180, 150, 160], [200, 500, 150, 170], [560, 480, 120, 290], [900, 500, 150, 170]];

    /** @return iterable<string, array{bool, int}> whether it is a photograph, and the seed of its grain and bricks */
    public static function pictures(): iterable
    {
        for ($seed = 1; $seed < 3; ++$seed) {
            yield "an elevation as it is drawn, $seed" => [false, $seed];
            yield "a wall of bricks, $seed" => [true, $seed];
        }
    }

    #[DataProvider('pictures')]
    public function testEachOpeningIsFoundWithItsEdgesAndNothingElse(bool $isPhotograph, int $seed): void
    {
        $sure = self::sure($isPhotograph ? self::facade($seed, self::OPENINGS) : self::elevation($seed, self::OPENINGS), $isPhotograph);
        self::assertCount(\count(self::OPENINGS), $sure);
        foreach (self::OPENINGS as [$x, $y, $w, $h]) {
            $true = array_map(static fn (int $px): float => self::MM_PER_PIXEL * $px, [$x, $x + $w, self::HEIGHT - $y - $h, self::HEIGHT - $y]);
            usort($sure, static fn (ShownOpening $a, ShownOpening $b): int => self::off($a, $true) <=> self::off($b, $true));
            self::assertLessThan(40.0, self::off($sure[0], $true), 'The masonry’s edge counts, and not a frame’s or a pane’s.');
            foreach ([$sure[0]->left, $sure[0]->right, $sure[0]->sill, $sure[0]->head] as $k => $edge) {
                self::assertLessThan(2.0 * $sure[0]->sigmas[$k] + 2.0, abs($edge - $true[$k]), "Edge $k.");
            }
        }
    }

    #[DataProvider('pictures')]
    public function testNothingIsFoundInAWallWithoutOpenings(bool $isPhotograph, int $seed): void
    {
        self::assertSame([], self::sure($isPhotograph ? self::facade($seed, []) : self::elevation($seed, []), $isPhotograph));
    }

    public function testAPlasteredWallThatIsTakenForADrawingIsLookedAtAsAPhotographTooAndNothingIsSure(): void
    {
        $sheet = self::facade(5, self::OPENINGS, 0);
        $found = FacadeOpenings::in($sheet->raster()->page(), self::box(), self::map(), false, static fn () => null);
        self::assertGreaterThanOrEqual(\count(self::OPENINGS), \count($found));
        self::assertSame([], array_filter($found, static fn (ShownOpening $o): bool => $o->isSure()), 'It may be a drawing after all.');
    }

    public function testFarFromZeroItFindsTheSame(): void
    {
        $page = self::facade(1, self::OPENINGS)->raster()->page();
        $there = PixelToMm::similar(self::MM_PER_PIXEL, 0.0, new PixelPoint(0.0, self::HEIGHT), new Point(650_000.0, 0.0));
        [$near, $far] = array_map(
            static fn (PixelToMm $map): array => FacadeOpenings::in($page, self::box(), $map, true, static fn () => null),
            [self::map(), $there],
        );
        self::assertSameSize($near, $far);
        self::assertEqualsWithDelta($near[0]->left + 650_000.0, $far[0]->left, 1.0);
    }

    public function testItSaysHowFarItIsAndCanBeStopped(): void
    {
        $told = [];
        $this->expectException(\OverflowException::class);
        try {
            FacadeOpenings::in(self::facade(1, self::OPENINGS)->raster()->page(), self::box(), self::map(), true, static function (float $done) use (&$told): void {
                $told[] = $done;
                if ($done > 0.6) {
                    throw new \OverflowException();
                }
            });
        } finally {
            $sorted = $told;
            sort($sorted);
            self::assertSame($sorted, $told);
            self::assertGreaterThan(3, \count($told));
        }
    }

    /** @return list<ShownOpening> */
    private static function sure(Sheets $sheet, bool $isPhotograph): array
    {
        $found = FacadeOpenings::in($sheet->raster()->page(), self::box(), self::map(), $isPhotograph, static fn () => null);

        return array_values(array_filter($found, static fn (ShownOpening $o): bool => $o->isSure()));
    }

    /** @param list<float> $true left, right, sill and head, mm */
    private static function off(ShownOpening $o, array $true): float
    {
        return max(abs($o->left - $true[0]), abs($o->right - $true[1]), abs($o->sill - $true[2]), abs($o->head - $true[3]));
    }

    private static function box(): PixelBox
    {
        return new PixelBox(0.0, 0.0, self::WIDTH, self::HEIGHT);
    }

    private static function map(): PixelToMm
    {
        return PixelToMm::similar(self::MM_PER_PIXEL, 0.0, new PixelPoint(0.0, self::HEIGHT), new Point(0.0, 0.0));
    }

    /**
     * Bricks with light joints, windows with light frames, dark panes and sills, under a roof.
     *
     * @param list<array{int, int, int, int}> $openings
     * @param int $shades by which bricks differ; none is plaster
     */
    private static function facade(int $seed, array $openings, int $shades = 18): Sheets
    {
        $sheet = new Sheets(self::WIDTH, self::HEIGHT, 205, 3, $seed);
        mt_srand($seed);
        $sheet->fill(60, 100, self::WIDTH - 120, self::HEIGHT - 170, 0 === $shades ? 170 : 168);
        for ($course = 0; 0 < $shades && $course < 73; ++$course) {
            for ($brick = 0; $brick < 41; ++$brick) {
                $sheet->fill(62 + 28 * $brick + 14 * ($course % 2), 102 + 10 * $course, 26, 8, 105 + mt_rand(-$shades, $shades));
            }
        }
        $sheet->fill(20, 10, self::WIDTH - 40, 84, 62);
        foreach ($openings as [$x, $y, $w, $h]) {
            $sheet->fill($x - 12, $y - 22, $w + 24, 22, 182)->fill($x - 6, $y + $h, $w + 12, 9, 190);
            $sheet->fill($x, $y, $w, $h, 232)->fill($x + 8, $y + 8, $w - 16, $h - 16, 70);
            if ($w > 140) {
                $sheet->fill($x + intdiv($w, 2) - 4, $y + 8, 8, $h - 16, 232);
            }
        }

        return $sheet;
    }

    /**
     * The same as a drawing has it: frames within the outlines, boards under the sills, the house and its ground.
     *
     * @param list<array{int, int, int, int}> $openings
     */
    private static function elevation(int $seed, array $openings): Sheets
    {
        $sheet = new Sheets(self::WIDTH, self::HEIGHT, 240, 4, $seed);
        $sheet->frame(60, 100, self::WIDTH - 120, self::HEIGHT - 170, 3)->fill(10, self::HEIGHT - 71, self::WIDTH - 20, 4);
        for ($line = 0; $line < 5; ++$line) {
            $sheet->fill(700 + 7 * $seed, 700 + 10 * $line, 80, 1, 120);
        }
        foreach ($openings as [$x, $y, $w, $h]) {
            // A pen of three pixels whose middle runs along the edge.
            $sheet->frame($x - 1, $y - 1, $w + 3, $h + 3, 3, 40);
            $sheet->frame($x + 8, $y + 8, intdiv($w, 2) - 12, $h - 16, 1, 70)->frame($x + intdiv($w, 2) + 4, $y + 8, intdiv($w, 2) - 12, $h - 16, 1, 70);
            $sheet->frame($x - 8, $y + $h, $w + 16, 9, 1, 40);
        }

        return $sheet;
    }
}
