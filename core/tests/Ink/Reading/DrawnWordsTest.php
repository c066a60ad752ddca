<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\RasterPage;
use Plinth\Core\Ink\Reading\DrawnWords;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Core\Ink\Reading\RoomNames;
use Plinth\Core\Ink\Reading\TextPicture;

/** Words that a page says itself lie where they are written, whichever way the page is turned. */
final class DrawnWordsTest extends TestCase
{
    public function testNamesComeOutWhereTheyAreWrittenLevelOrUpward(): void
    {
        $page = new RasterPage(new GreyRaster(800, 600, str_repeat("\xFF", 480_000)));
        $box = new PixelBox(0.0, 0.0, 800.0, 600.0);
        $words = [['Küche', 300.0, 200.0, 360.0, 215.0], ['12.5', 305.0, 220.0, 335.0, 233.0], ['m²', 340.0, 220.0, 355.0, 233.0], ['Łazienka', 600.0, 150.0, 615.0, 260.0]];
        foreach ([0.0, 0.03, \M_PI] as $turn) {
            $map = PixelToMm::similar(20.0, $turn, new PixelPoint(400.0, 300.0), new Point(8000.0, 6000.0));
            $picture = TextPicture::of($page, $box, $map, 100.0, static function (): void {});
            [$level, $turned] = DrawnWords::on($picture, $map, $words);
            self::assertSame(['Küche', '12.5', 'm²'], array_map(static fn (ReadWord $w): string => $w->text, $level));
            self::assertSame(['Łazienka'], array_map(static fn (ReadWord $w): string => $w->text, $turned));
            $rooms = RoomNames::of($picture, $level, $turned);
            self::assertCount(2, $rooms, "turned by $turn");
            foreach ([[330.0, 207.5], [607.5, 205.0]] as $i => [$x, $y]) {
                self::assertLessThan(600.0, $rooms[$i]->at->distanceTo($map->toMm(new PixelPoint($x, $y))), "turned by $turn");
            }
            self::assertSame(['KÜCHE', 'ŁAZIENKA'], [$rooms[0]->name, $rooms[1]->name]);
            if (0.0 === $turn) {
                self::assertSame(12.5, $rooms[0]->areaM2);
            }
        }
    }
}
