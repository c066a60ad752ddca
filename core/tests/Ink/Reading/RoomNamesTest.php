<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Reading\ReadRoom;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Core\Ink\Reading\RoomNames;
use Plinth\Core\Ink\Reading\TextPicture;

/** What a recogniser answers becomes names of rooms; what it makes of lines does not, and what touches is not lost to it. */
final class RoomNamesTest extends TestCase
{
    public function testWordsSideBySideAreOneNameAlsoWhereTheirBoxesOverlap(): void
    {
        self::assertSame(['LIVING ROOM', 'BEDROOM 4'], self::names([
            new ReadWord('LIVING', 0.9, 100, 100, 180, 40), new ReadWord('ROOM', 0.9, 300, 100, 120, 40),
            // Round a single figure at the end the box that is told reaches back into the word before it.
            new ReadWord('Bedroom', 0.9, 100, 300, 240, 42), new ReadWord('4', 0.95, 312, 296, 33, 64),
        ]));
    }

    public function testShortWordsAreTakenForNamesOnlyWhereTheyAreSure(): void
    {
        $read = static fn (string $text, float $confidence): array => self::names([new ReadWord($text, $confidence, 100, 100, 90, 40)]);
        foreach (['DEN', 'HALL', 'WC', 'W.C.', 'ROOM 101'] as $name) {
            self::assertSame([$name], $read($name, 0.9));
        }
        foreach (['EE', 'OOO', 'SQ FT', 'sq.m.', 'IT', '12 A'] as $none) {
            self::assertSame([], $read($none, 0.9), $none);
        }
        self::assertSame([], $read('TAT', 0.6));
        self::assertSame(['KITCHEN'], $read('KITCHEN', 0.6));
    }

    /** Under a name its area is written, in square metres or, by the foot of NIST SP 811, in square feet. */
    public function testAreasAreReadInEitherUnit(): void
    {
        foreach (['12.4 m²' => 12.4, '12,4 m2' => 12.4, '183 SQ FT' => 17.0013, '183 sf' => 17.0013, '1,250 SQ. FT.' => 116.1288, '40 ft²' => 3.7161] as $text => $m2) {
            $rooms = self::rooms([new ReadWord('KITCHEN', 0.9, 100, 100, 180, 40), new ReadWord($text, 0.9, 110, 150, 160, 38)]);
            self::assertCount(1, $rooms, $text);
            self::assertEqualsWithDelta($m2, $rooms[0]->areaM2, 0.0001, $text);
        }
    }

    public function testLettersThatTouchAreKeptAndFurnitureOfTheirSizeIsNot(): void
    {
        // 1 mm of paper is 1 px here; letters are 2.5 mm high, 34 px of the picture. Seven stems on one line, and an empty box as large.
        $rows = array_fill(0, 200, str_repeat('w', 200));
        $ink = static function (int $x, int $y, int $w, int $h) use (&$rows): void {
            for ($k = $y; $k < $y + $h; ++$k) {
                $rows[$k] = substr_replace($rows[$k], str_repeat('b', $w), $x, $w);
            }
        };
        foreach ([[20, 40, false], [20, 100, true]] as [$x, $y, $isEmpty]) {
            $ink($x, $y, 84, 4);
            $ink($x, $y + 20, 84, $isEmpty ? 4 : 0);
            foreach ($isEmpty ? [0, 80] : range(0, 80, 10) as $stem) {
                $ink($x + $stem, $y, 4, 24);
            }
        }
        $bytes = strtr(implode('', $rows), ['w' => "\xF0", 'b' => "\x20"]);
        $level = self::picture(new GreyRaster(200, 200, $bytes));
        self::assertNotSame([], self::inkRows($level, 0.1, 0.45));
        self::assertSame([], self::inkRows($level, 0.48, 0.65));
        $turned = self::picture((new GreyRaster(200, 200, $bytes))->turned());
        self::assertNotSame([], self::inkRows($turned, 0.0, 0.99), 'Nor are they lost where they are written upward.');
    }

    /**
     * @param list<ReadWord> $words
     *
     * @return list<string>
     */
    private static function names(array $words): array
    {
        return array_map(static fn (ReadRoom $r): string => $r->name, self::rooms($words));
    }

    /**
     * @param list<ReadWord> $words
     *
     * @return list<ReadRoom>
     */
    private static function rooms(array $words): array
    {
        $picture = TextPicture::of(
            (new GreyRaster(400, 400, str_repeat("\xF0", 160_000)))->page(),
            new PixelBox(0.0, 0.0, 400.0, 400.0),
            PixelToMm::similar(10.0, 0.0, new PixelPoint(0.0, 400.0), new Point(0.0, 0.0)),
            50.0,
            static function (float $done): void {},
        );

        return RoomNames::of($picture, $words, []);
    }

    private static function picture(GreyRaster $raster): GreyRaster
    {
        // At 1:50 a pixel of 5.2 mm is 0.104 mm of paper: 24 px are 2.5 mm.
        return TextPicture::of(
            $raster->page(),
            new PixelBox(0.0, 0.0, 200.0, 200.0),
            PixelToMm::similar(5.2, 0.0, new PixelPoint(0.0, 200.0), new Point(0.0, 0.0)),
            50.0,
            static function (float $done): void {},
        )->level;
    }

    /** @return list<int> rows of the picture with ink, between two parts of its height */
    private static function inkRows(GreyRaster $picture, float $from, float $to): array
    {
        return array_values(array_filter(
            range((int) ($from * $picture->height), (int) ($to * $picture->height)),
            static fn (int $y): bool => '' !== trim(substr($picture->bytes, $y * $picture->width, $picture->width), "\xFF"),
        ));
    }
}
