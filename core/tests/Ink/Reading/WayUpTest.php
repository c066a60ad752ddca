<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Core\Ink\Reading\WayUp;

final class WayUpTest extends TestCase
{
    public function testThePageIsReadTheWayInWhichMostIsReadSurely(): void
    {
        $plain = self::words(['KITCHEN', 'BEDROOM', 'HALL', '3 600', '12.4'], 0.9);
        $upright = self::words(['3 600', '2400'], 0.8);
        $noise = self::words(['IIl', '||', '06', '—'], 0.5);
        foreach ([0, 1, 2, 3] as $turns) {
            $read = array_fill(0, 4, $noise);
            $read[$turns] = $plain;
            $read[($turns + 3) % 4] = $upright;
            $way = WayUp::of($read);
            self::assertSame($turns, $way?->turns);
            self::assertTrue($way->isSure);
        }
    }

    /** Little writing, or writing both ways, is a guess and never proposed. */
    public function testWhatIsNotPlainIsNotSure(): void
    {
        self::assertNull(WayUp::of([[], [], [], []]));
        self::assertNull(WayUp::of([self::words(['|', '—', '='], 0.95), [], [], []]));
        self::assertFalse(WayUp::of([self::words(['3 600', '900'], 0.9), [], [], []])?->isSure);
        $names = self::words(['KITCHEN', 'BEDROOM', 'HALL'], 0.9);
        self::assertFalse(WayUp::of([$names, [], self::words(['KITCHEN', 'BEDROOM'], 0.9), []])?->isSure);
    }

    public function testPicturesAreThePageTurnedByQuartersDarkOnWhite(): void
    {
        // A dark corner mark of 60 by 20 px at the top left of grey paper.
        $rows = array_fill(0, 200, str_repeat(\chr(200), 300));
        for ($y = 20; $y < 40; ++$y) {
            $rows[$y] = substr_replace($rows[$y], str_repeat(\chr(40), 60), 20, 60);
        }
        $page = (new GreyRaster(300, 200, implode('', $rows)))->page();
        $marks = [[50, 30], [30, 250], [250, 170], [170, 50]];
        foreach (WayUp::pictures($page, new PixelBox(0, 0, 300, 200), static function (float $done): void {}) as $turns => $picture) {
            self::assertSame(0 === $turns % 2 ? [300, 200] : [200, 300], [$picture->width, $picture->height]);
            [$x, $y] = $marks[$turns];
            self::assertLessThan(60, \ord($picture->row($y, $x, 1)));
            self::assertGreaterThan(240, \ord($picture->row(100, 100, 1)));
        }
    }

    /**
     * @param list<string> $texts
     *
     * @return list<ReadWord>
     */
    private static function words(array $texts, float $confidence): array
    {
        return array_map(static fn (string $text): ReadWord => new ReadWord($text, $confidence, 0.0, 0.0, 60.0, 20.0), $texts);
    }
}
