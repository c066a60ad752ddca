<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Walls;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Picks\WallsBeside;
use Plinth\Core\Ink\Walls\Internal\LineSearch;
use Plinth\Core\Ink\Walls\Internal\WallLine;
use Plinth\Core\Ink\Walls\ProposedOpening;
use Plinth\Core\Ink\Walls\ProposedWall;
use Plinth\Core\Ink\Walls\WallProbe;
use Plinth\Core\Ink\Walls\WallProposals;
use Plinth\Core\Ink\Walls\WallUnder;
use Plinth\Core\Plan\Model\OpeningKind;

/** Walls drawn from exact truth come back from the ink. */
final class WallsInTheInkTest extends TestCase
{
    /** @var array<string, GreyRaster> */
    private static array $drawn = [];

    /** @return iterable<string, array{string, bool}> */
    public static function manners(): iterable
    {
        yield 'solid' => ['solid', false];
        yield 'two lines' => ['double', false];
        yield 'light on dark' => ['solid', true];
    }

    private static function raster(string $style, bool $lightOnDark): GreyRaster
    {
        return self::$drawn[$style.($lightOnDark ? ' light' : '')] ??= DrawnWalls::raster($style, $lightOnDark);
    }

    #[DataProvider('manners')]
    public function testAProbeLiesOnTheWallWithinATenthOfAPixel(string $style, bool $lightOnDark): void
    {
        $raster = self::raster($style, $lightOnDark);
        foreach (DrawnWalls::WALLS as [$x1, $y1, $x2, $y2, $t]) {
            $probe = WallProbe::along(
                $raster->page($lightOnDark),
                DrawnWalls::map(),
                new Point($x1 + 14, $y1 - 11),
                new Point($x2 - 9, $y2 + 12),
                $t + 15.0,
            );
            self::assertNotNull($probe);
            self::assertEqualsWithDelta($t, $probe->thickness, 0.2 * DrawnWalls::MM);
            $length = hypot($x2 - $x1, $y2 - $y1);
            $off = (($probe->from->x + $probe->to->x) / 2 - $x1) * ($y2 - $y1) / $length - (($probe->from->y + $probe->to->y) / 2 - $y1) * ($x2 - $x1) / $length;
            self::assertEqualsWithDelta(0.0, $off, 0.1 * DrawnWalls::MM);
        }
    }

    #[DataProvider('manners')]
    public function testAClickFollowsTheWallOverItsDoorToTheWallsItMeets(string $style, bool $lightOnDark): void
    {
        $wall = WallUnder::at(self::raster($style, $lightOnDark)->page($lightOnDark), DrawnWalls::map(), new Point(2610.0, 1000.0));
        self::assertNotNull($wall);
        self::assertEqualsWithDelta(100.0, $wall->thickness, 2.0);
        self::assertEqualsWithDelta(4200.0, $wall->length(), 60.0);
    }

    #[DataProvider('manners')]
    public function testAllWallsAreProposedJoinedAndWithTheirDoor(string $style, bool $lightOnDark): void
    {
        $raster = self::raster($style, $lightOnDark);
        $last = 0.0;
        $found = WallProposals::in($raster->page($lightOnDark), new PixelBox(
            0,
            0,
            $raster->width,
            $raster->height,
        ), DrawnWalls::map(), static function (float $done) use (&$last): void {
            self::assertGreaterThanOrEqual($last - 1e-9, $done, 'Progress goes forward.');
            $last = $done;
        });
        self::assertEqualsWithDelta(1.0, $last, 0.01);
        self::assertCount(5, $found->walls);
        foreach (DrawnWalls::WALLS as [$x1, $y1, $x2, $y2, $t]) {
            $near = array_filter($found->walls, static fn ($w): bool => abs($w->thickness - $t) < 3.0 && min(
                max($w->from->distanceTo(new Point($x1, $y1)), $w->to->distanceTo(new Point($x2, $y2))),
                max($w->to->distanceTo(new Point($x1, $y1)), $w->from->distanceTo(new Point($x2, $y2))),
            ) < 5.0);
            self::assertCount(1, $near, "$x1, $y1 to $x2, $y2");
        }
        self::assertCount(1, $found->openings);
        self::assertEqualsWithDelta(DrawnWalls::GAP[2], $found->openings[0]->width, 10.0);
    }

    /** Neither the table beyond the sheet nor the line drawn round it is a wall. */
    #[DataProvider('manners')]
    public function testAWindowBetweenTheFacesOfItsWallIsFound(string $style, bool $lightOnDark): void
    {
        // In the lower wall, from 600 to 2100 mm: faces that go on, a jamb at either end, two lines between.
        $drawn = self::raster($style, $lightOnDark);
        $bytes = $drawn->bytes;
        $fill = static function (int $x, int $y, int $w, int $h, int $grey) use (&$bytes, $drawn, $lightOnDark): void {
            for ($k = $y; $k < $y + $h; ++$k) {
                $bytes = substr_replace($bytes, str_repeat(\chr($lightOnDark ? 255 - $grey : $grey), $w), $k * $drawn->width + $x, $w);
            }
        };
        $fill(120, 467, 150, 26, 238);
        foreach ([467, 476, 482, 491] as $y) {
            $fill(120, $y, 150, 2, 48);
        }
        $fill(119, 467, 2, 26, 48);
        $fill(269, 467, 2, 26, 48);
        $raster = new GreyRaster($drawn->width, $drawn->height, $bytes);
        $found = WallProposals::in(
            $raster->page($lightOnDark),
            new PixelBox(0, 0, $raster->width, $raster->height),
            DrawnWalls::map(),
            static function (float $done): void {},
        );
        $windows = array_values(array_filter($found->openings, static fn ($o): bool => OpeningKind::Window === $o->kind && $o->isSure()));
        self::assertCount(1, $windows);
        self::assertEqualsWithDelta(1500.0, $windows[0]->width, 25.0);
    }

    public function testAWallThatEndsAtADoorGoesOnToTheNext(): void
    {
        $drawn = self::raster('solid', false);
        $bytes = $drawn->bytes;
        $fill = static function (int $x, int $y, int $w, int $h, int $grey) use (&$bytes, $drawn): void {
            for ($k = $y; $k < $y + $h; ++$k) {
                $bytes = substr_replace($bytes, str_repeat(\chr($grey), $w), $k * $drawn->width + $x, $w);
            }
        };
        // The partition stops 900 mm before the lower wall; a leaf stands open at its end, and swings to that wall.
        $fill(312, 378, 17, 90, 238);
        $fill(325, 377, 90, 2, 48);
        for ($k = 0; $k <= 180; ++$k) {
            $a = \M_PI_2 * $k / 180;
            $fill((int) round(324 + 90 * cos($a)), (int) round(377 + 90 * sin($a)), 2, 2, 48);
        }
        $raster = new GreyRaster($drawn->width, $drawn->height, $bytes);
        $found = WallProposals::in(
            $raster->page(),
            new PixelBox(0, 0, $raster->width, $raster->height),
            DrawnWalls::map(),
            static function (float $done): void {},
        );
        $partition = array_values(array_filter($found->walls, static fn ($w): bool => $w->thickness < 150.0));
        self::assertCount(1, $partition);
        self::assertEqualsWithDelta([0.0, 4200.0], [
            min($partition[0]->from->y, $partition[0]->to->y),
            max($partition[0]->from->y, $partition[0]->to->y),
        ], 5.0);
        $doors = array_filter($found->openings, static fn ($o): bool => OpeningKind::Door === $o->kind);
        self::assertCount(1, $doors);
        self::assertEqualsWithDelta(900.0, array_values($doors)[0]->width, 40.0);
    }

    /** A thin wall whose faces lie between those of a thick one that ends beside it: they are no window in the thick one. */
    public function testAThickWallDoesNotGoOnOverTheFacesOfAThinOne(): void
    {
        $walls = [
            [0.0, 0.0, 12800.0, 0.0, 300.0], [12800.0, 0.0, 12800.0, 9000.0, 300.0], [0.0, 0.0, 0.0, 9000.0, 300.0],
            [0.0, 9000.0, 2300.0, 9000.0, 300.0], [7500.0, 8980.0, 12800.0, 8980.0, 300.0],
            [2300.0, 9000.0, 2300.0, 13200.0, 300.0], [2300.0, 13200.0, 7500.0, 13200.0, 300.0], [7500.0, 13200.0, 7500.0, 9000.0, 300.0],
            [2300.0, 9000.0, 7500.0, 9000.0, 100.0], [6900.0, 0.0, 6900.0, 9000.0, 100.0],
        ];
        $map = PixelToMm::similar(11.0, 0.0, new PixelPoint(50.0, 1270.0), new Point(0.0, 0.0));
        $raster = DrawnWalls::lined($walls, 1270, 1320, $map);
        $lines = LineSearch::in($raster->page(), new PixelBox(0, 0, 1270, 1320), $map, static function (float $done): void {})->lines;
        $besideTheWing = array_values(array_filter($lines, static fn (WallLine $l): bool => abs($l->from->y - 8980.0) < 15.0 && $l->to->x > 9000.0));
        self::assertCount(1, $besideTheWing);
        self::assertEqualsWithDelta(7650.0, $besideTheWing[0]->from->x, 30.0);
    }

    /** A house has more walls than its wing: they must not turn the raster on which the wing is looked for. */
    public function testAWingThatRunsOffByTwelveDegreesIsFound(): void
    {
        [$c, $s] = [cos(deg2rad(12.0)), sin(deg2rad(12.0))];
        $wing = static fn (float $x, float $y): array => [9000.0 + $c * $x - $s * $y, 800.0 + $s * $x + $c * $y];
        $walls = [
            [0.0, 0.0, 9000.0, 0.0, 300.0], [9000.0, 0.0, 9000.0, 7000.0, 300.0], [9000.0, 7000.0, 0.0, 7000.0, 300.0],
            [0.0, 7000.0, 0.0, 0.0, 300.0], [0.0, 3500.0, 9000.0, 3500.0, 120.0], [4500.0, 0.0, 4500.0, 7000.0, 120.0],
            [...$wing(0.0, 0.0), ...$wing(5000.0, 0.0), 300.0], [...$wing(5000.0, 0.0), ...$wing(5000.0, 4000.0), 300.0],
            [...$wing(5000.0, 4000.0), ...$wing(-850.0, 4000.0), 300.0],
        ];
        $raster = DrawnWalls::solid($walls, 1250, 680, $map = PixelToMm::similar(12.5, 0.0, new PixelPoint(60.0, 620.0), new Point(0.0, 0.0)));
        $found = WallProposals::in($raster->page(), new PixelBox(0, 0, 1250, 680), $map, static function (float $done): void {});
        $sure = array_filter($found->walls, static fn (ProposedWall $w): bool => $w->isSure());
        self::assertCount(\count($walls), $sure);
        $turned = array_filter($sure, static function (ProposedWall $w): bool {
            $turn = rad2deg(atan2($w->to->y - $w->from->y, $w->to->x - $w->from->x));

            return abs(fmod($turn - 12.0 + 405.0, 90.0) - 45.0) < 0.3;
        });
        self::assertCount(3, $turned);
    }

    #[DataProvider('styles')]
    public function testASheetWithAFrameOnATableShowsTheSameWalls(string $style): void
    {
        $raster = DrawnWalls::onATable($style);
        $map = PixelToMm::similar(DrawnWalls::MM, 0.0, new PixelPoint(180.0, 600.0), new Point(0.0, 0.0));
        $box = new PixelBox(0, 0, $raster->width, $raster->height);
        $found = WallProposals::in($raster->page(), $box, $map, static function (float $done): void {});
        $sure = array_filter($found->walls, static fn (ProposedWall $w): bool => $w->isSure());
        self::assertCount(5, $sure);
        foreach ($sure as $wall) {
            foreach ([$wall->from, $wall->to] as $end) {
                self::assertTrue($end->x > -20 && $end->x < 6220 && $end->y > -20 && $end->y < 4220);
            }
            self::assertGreaterThan(0.85, $wall->confidence);
        }
        self::assertCount(1, array_filter($found->openings, static fn (ProposedOpening $o): bool => $o->isSure()));
    }

    /** @return iterable<string, array{string}> */
    public static function styles(): iterable
    {
        yield 'solid' => ['solid'];
        yield 'two lines' => ['double'];
        yield 'hatched' => ['hatched'];
    }

    /** Squares in rows both ways are columns; one beside them is something else. */
    public function testSquaresInRowsAreColumns(): void
    {
        $rows = array_fill(0, 800, array_fill(0, 900, 240));
        $squares = [[100, 100], [400, 100], [700, 100], [100, 500], [400, 500], [700, 500]];
        foreach ([...$squares, [560, 300]] as [$x, $y]) {
            for ($k = 0; $k < 900; ++$k) {
                $rows[$y + intdiv($k, 30)][$x + $k % 30] = 40;
            }
        }
        $bytes = implode('', array_map(static fn (array $row): string => pack('C*', ...$row), $rows));
        $raster = new GreyRaster(900, 800, $bytes);
        $box = new PixelBox(0, 0, 900, 800);
        $found = WallProposals::in($raster->page(), $box, DrawnWalls::map(), static function (float $done): void {});
        self::assertCount(6, $found->columns);
        foreach ($found->columns as $column) {
            self::assertEqualsWithDelta(300.0, $column->width, 15.0);
            $off = array_map(
                static fn (array $s): float => DrawnWalls::map()->toMm(new PixelPoint($s[0] + 15.0, $s[1] + 15.0))->distanceTo($column->centre),
                $squares,
            );
            self::assertLessThan(12.0, min($off));
        }
    }

    /** A first figure is held against the walls beside its ends: the pens' strokes of its two lines are none. */
    public function testPensAreNotTakenForWallsBesideALength(): void
    {
        $ends = [new PixelPoint(48.0, 492.0), new PixelPoint(692.0, 492.0)];
        foreach (['solid', 'double'] as $style) {
            $walls = WallsBeside::thicknesses(self::raster($style, false)->page(), $ends, null);
            self::assertCount(2, $walls);
            foreach ($walls as $px) {
                self::assertEqualsWithDelta(24.0, $px, 1.0);
            }
        }
    }

    /** Strokes at random, many nearer to each other than a wall is thick: a click on them finds a wall with a thickness, or none. */
    public function testNoClickOnWhateverInkMakesItFail(): void
    {
        mt_srand(5);
        $found = 0;
        for ($page = 0; $page < 6; ++$page) {
            $raster = self::strokes();
            for ($click = 0; $click < 12; ++$click) {
                $at = new Point(mt_rand(0, 2400) - 600.0, mt_rand(0, 2400) + 2400.0);
                $wall = WallUnder::at($raster->page(), DrawnWalls::map(), $at);
                $found += null === $wall ? 0 : 1;
                self::assertTrue(null === $wall || ($wall->thickness >= DrawnWalls::MM && $wall->length() > 0.0));
            }
        }
        self::assertGreaterThan(5, $found);
    }

    private static function strokes(): GreyRaster
    {
        $page = str_repeat(\chr(235), 240 * 240);
        for ($n = 0; $n < 60; ++$n) {
            [$x, $y, $long, $pen, $tone] = [mt_rand(0, 239), mt_rand(0, 239), mt_rand(20, 200), mt_rand(1, 4), \chr(mt_rand(20, 190))];
            $isLevel = 1 === mt_rand(0, 1);
            for ($k = 0; $k < $long * $pen; ++$k) {
                [$i, $j] = $isLevel ? [$x + $k % $long, $y + intdiv($k, $long)] : [$x + intdiv($k, $long), $y + $k % $long];
                if ($i < 240 && $j < 240) {
                    $page[240 * $j + $i] = $tone;
                }
            }
        }

        return new GreyRaster(240, 240, $page);
    }

    public function testABlankPageShowsNothing(): void
    {
        $blank = new GreyRaster(300, 200, str_repeat(\chr(240), 60_000));
        $found = WallProposals::in($blank->page(), new PixelBox(0, 0, 300, 200), DrawnWalls::map(), static function (float $done): void {});

        self::assertSame([], $found->walls);
        self::assertNull(WallUnder::at($blank->page(), DrawnWalls::map(), new Point(500.0, 500.0)));
    }
}
