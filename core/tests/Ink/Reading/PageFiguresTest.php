<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Reading\PageFigure;
use Plinth\Core\Ink\Reading\PageFigures;
use Plinth\Core\Tests\Ink\Walls\DrawnWalls;

/** The drawing says its own size: figures with their ends, the scale, the way up, with nothing known beforehand. */
final class PageFiguresTest extends TestCase
{
    public function testEveryFigureIsReadWithBothItsEndsWhicheverWayThePageLies(): void
    {
        $drawn = DrawnFigures::millimetres();
        $raster = $drawn->raster;
        $ends = array_map(static fn (array $line): array => [new PixelPoint($line['a'][0] + 0.5, $line['a'][1] + 0.5), new PixelPoint($line['b'][0] + 0.5, $line['b'][1] + 0.5)], $drawn->lines);
        for ($turned = 0; $turned < 4; ++$turned) {
            $read = self::read($raster);
            self::assertSame((4 - $turned) % 4, $read->turns, "turned by $turned quarters");
            self::assertTrue($read->isSure);
            self::assertCount(\count($drawn->lines), $read->sure());
            foreach ($drawn->lines as $k => $line) {
                $found = array_filter($read->sure(), static fn (PageFigure $f): bool => self::apart($f, $ends[$k]) < 1.0);
                self::assertCount(1, $found, $line['text']);
                self::assertSame($line['mm'], reset($found)->mm);
            }
            $map = $read->upright() ?? self::fail('There is a map.');
            [$a, $b] = [$map->toMm($ends[3][0]), $map->toMm($ends[3][1])];
            self::assertEqualsWithDelta(7000.0, $b->x - $a->x, 14.0, 'The longest lies level and upright, within 0.2 %.');
            self::assertEqualsWithDelta(0.0, $b->y - $a->y, 70.0);
            $height = $raster->width;
            $raster = $raster->turned();
            $ends = array_map(
                static fn (array $two): array => array_map(static fn (PixelPoint $p): PixelPoint => new PixelPoint($p->y, $height - $p->x), $two),
                $ends,
            );
        }
    }

    public function testAPartOfAPageTellsItsPlacesOnThePage(): void
    {
        $drawn = DrawnFigures::millimetres();
        $wide = $drawn->raster->width + 140;
        $rows = array_map(
            static fn (string $row): string => str_repeat("\xEB", 110).$row.str_repeat("\xEB", 30),
            str_split($drawn->raster->bytes, max(1, $drawn->raster->width)),
        );
        $raster = new GreyRaster($wide, $drawn->raster->height + 70, str_repeat("\xEB", 70 * $wide).implode('', $rows));
        $heard = 0;
        $read = PageFigures::of(
            $raster->page(),
            new PixelBox(100.0, 60.0, $drawn->raster->width + 20, $drawn->raster->height + 10),
            static function (float $done) use (&$heard): void {
                ++$heard;
            },
        );
        // Whoever waits hears of every direction of lines, every row of letters and every round.
        self::assertGreaterThan(60, $heard);
        [$a, $b] = array_map(static fn (array $p): PixelPoint => new PixelPoint($p[0] + 110.5, $p[1] + 70.5), [$drawn->lines[3]['a'], $drawn->lines[3]['b']]);
        self::assertCount(1, array_filter($read->sure(), static fn (PageFigure $f): bool => self::apart($f, [$a, $b]) < 1.0), 'On the ink to a pixel.');
        $map = $read->upright() ?? self::fail('There is a map.');
        self::assertEqualsWithDelta(7000.0, $map->toMm($a)->distanceTo($map->toMm($b)), 14.0);
        self::assertFalse($read->isPhotographed);
    }

    public function testFeetAndInchesAreReadLightOnDark(): void
    {
        $drawn = DrawnFigures::feet();
        $read = self::read($drawn->raster, true);
        $mm = array_map(static fn (PageFigure $f): float => $f->mm, $read->sure());
        sort($mm);
        self::assertEqualsWithDelta($drawn->sorted(), $mm, 13.0, 'Lengths are rounded to the inch where they are written.');
        self::assertContains(25.4, array_map(static fn (PageFigure $f): float => $f->stepMm, $read->sure()));
    }

    public function testAFigureThatDisagreesWithAllOthersIsNotTaken(): void
    {
        $drawn = DrawnFigures::millimetres();
        $read = self::read($drawn->saying(2, '4380')->raster);
        self::assertNotContains(4380.0, array_map(static fn (PageFigure $f): float => $f->mm, $read->sure()));
        self::assertCount(\count($drawn->lines) - 1, $read->sure());
        self::assertTrue($read->isSure);
    }

    public function testAScaleBarIsReadWithBothItsEndsWhicheverWayThePageLies(): void
    {
        $raster = DrawnFigures::millimetres()->withBar(['0', '1', '2', '3', '4', '5 m'])->raster;
        $ends = [new PixelPoint(360.5, 607.5), new PixelPoint(610.5, 607.5)];
        for ($turned = 0; $turned < 4; ++$turned) {
            $bar = self::read($raster)->scaleBar ?? self::fail("Turned by $turned quarters there is none.");
            self::assertSame(['5 m', 5000.0], [$bar->text, $bar->mm]);
            self::assertLessThan(0.8, max($bar->a->distanceTo($ends[0]), $bar->b->distanceTo($ends[1])), 'From 0 on, to a part of a pixel.');
            $height = $raster->width;
            $raster = $raster->turned();
            $ends = array_map(static fn (PixelPoint $p): PixelPoint => new PixelPoint($p->y, $height - $p->x), $ends);
        }
    }

    /**
     * @param list<string> $labels
     * @param string|null $text null where it does not say what it stands for
     */
    #[DataProvider('bars')]
    public function testAScaleBarSaysWhatItStandsFor(array $labels, ?int $figures, ?string $text): void
    {
        self::assertSame($text, self::read(DrawnFigures::millimetres()->withBar($labels, $figures)->raster)->scaleBar?->text);
    }

    /** @return iterable<string, array{list<string>, int|null, string|null}> */
    public static function bars(): iterable
    {
        yield 'metres, by the letter after it' => [['0', '5', '10', '15 m'], 0, '15 m'];
        yield 'metres, by the figures of the drawing' => [['0', '2', '4', '6'], null, '6 m'];
        yield 'feet, by their mark' => [['0', '', '10', '', "20'"], 0, "20'"];
        yield 'millimetres' => [['0', '', '1000', '', '2000'], 0, '2000 mm'];
        yield 'nobody knows of what' => [['0', '2', '4', '6'], 0, null];
        yield 'figures that are none of its ticks' => [['7', '3', '9', '4', '8'], null, null];
    }

    /** Four figures are too few by themselves; with a bar that agrees they are enough. */
    public function testAScaleBarSpeaksForFewFigures(): void
    {
        self::assertFalse(self::read(DrawnFigures::millimetres()->fewer()->raster)->isSure);
        self::assertTrue(self::read(DrawnFigures::millimetres()->fewer()->withBar(['0', '0.5', '1', '1.5', '2', '2.5 m'])->raster)->isSure);
        self::assertFalse(self::read(DrawnFigures::millimetres()->fewer()->withBar(['0', '1', '2', '3', '4', '5 m'])->raster)->isSure, 'It disagrees.');
    }

    /** 2400 and 1220 beside 3380 make 7000; read with a mark that could be another digit, only one of them adds up. */
    public function testWhatAddsUpIsSaidToAddUp(): void
    {
        $drawn = DrawnFigures::millimetres();
        $adds = static fn (PageFigures $read): array => array_map(static fn (PageFigure $f): ?bool => $f->evidence->adds, $read->sure());
        self::assertSame([true], array_values(array_unique($adds(self::read($drawn->raster)))));
        self::assertSame([null], array_values(array_unique($adds(self::read($drawn->fewer()->raster)), \SORT_REGULAR)), 'None over others.');
    }

    public function testADrawingWithoutFiguresSaysNothing(): void
    {
        $read = self::read(DrawnWalls::raster('hatched'));
        self::assertSame([], $read->sure());
        self::assertFalse($read->isSure);
        self::assertNull($read->turns);
        self::assertSame([], self::read(new GreyRaster(300, 200, str_repeat("\xE0", 60000)))->figures);
    }

    private static function read(GreyRaster $raster, bool $lightOnDark = false): PageFigures
    {
        $done = 0.0;
        $read = PageFigures::of($raster->page($lightOnDark), new PixelBox(0.0, 0.0, $raster->width, $raster->height), static function (float $d) use (&$done): void {
            self::assertGreaterThanOrEqual($done, $d);
            $done = $d;
        });

        return $read;
    }

    /** @param array{PixelPoint, PixelPoint} $ends */
    private static function apart(PageFigure $figure, array $ends): float
    {
        return min(
            max($figure->a->distanceTo($ends[0]), $figure->b->distanceTo($ends[1])),
            max($figure->a->distanceTo($ends[1]), $figure->b->distanceTo($ends[0])),
        );
    }
}
