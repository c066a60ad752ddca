<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Page\DrawingKind;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Core\Ink\Reading\Title;
use Plinth\Core\Ink\Reading\WayUp;

/** Titles as they stand on sheets; how they are worded is common practice, no source. */
final class TitleTest extends TestCase
{
    #[DataProvider('titles')]
    public function testATitleSaysKindAndPlace(string $text, DrawingKind $kind, ?int $level, ?string $name): void
    {
        $title = Title::in(self::words($text))[0] ?? null;
        self::assertNotNull($title, $text);
        self::assertSame([$kind, $level, $name], [$title->kind, $title->level, $title->storey ?? $title->side], $text);
    }

    /** @return iterable<array{string, DrawingKind, int|null, string|null}> */
    public static function titles(): iterable
    {
        yield ['GROUND FLOOR PLAN', DrawingKind::Plan, 0, 'Ground'];
        yield ['Survey - Ground floor', DrawingKind::Plan, 0, 'Ground'];
        yield ['UPPER FLOOR PLAN', DrawingKind::Plan, 1, 'First floor'];
        yield ['2nd floor', DrawingKind::Plan, 2, 'Second floor'];
        yield ['LOWER GROUND FLOOR', DrawingKind::Plan, -1, 'Lower ground floor'];
        yield ['BASEMENT PLAN', DrawingKind::Plan, -1, 'Basement'];
        yield ['ATTIC PLAN', DrawingKind::Plan, null, 'Loft'];
        yield ['Erdgeschoss', DrawingKind::Plan, 0, 'Ground'];
        yield ['PLANTA PRIMERA', DrawingKind::Plan, 1, 'First floor'];
        yield ['FRONT ELEVATION', DrawingKind::Elevation, null, 'Front'];
        yield ['ELEVATION, NORTH-EAST', DrawingKind::Elevation, null, 'North-east'];
        yield ['SECTION A - A', DrawingKind::Section, null, null];
        yield ['SITE PLAN 1:500', DrawingKind::Site, null, null];
        yield ['Roof plan', DrawingKind::Roof, null, null];
        yield ['EAVES DETAIL', DrawingKind::Detail, null, null];
    }

    #[DataProvider('others')]
    public function testWhatIsNoTitleSaysNothing(string $text): void
    {
        self::assertSame([], Title::in(self::words($text)), $text);
    }

    /** @return iterable<array{string}> */
    public static function others(): iterable
    {
        foreach (['KITCHEN', 'GROUND -0.300', 'FLOOR +0.000', 'CEILING', '13300', 'SCALE 1:75', 'PROPOSED DWELLING', 'SHEET 2 OF 5', 'PLANT ROOM', 'WEST WING', 'ALL DETAILS ARE TO BE CHECKED ON SITE'] as $text) {
            yield [$text];
        }
    }

    public function testTheLargestLetteringComesFirstAndDoubtfulWordsDoNotCount(): void
    {
        $small = new ReadWord('SECTION', 0.9, 500.0, 0.0, 90.0, 12.0);
        $large = [new ReadWord('ROOF', 0.9, 0.0, 100.0, 80.0, 30.0), new ReadWord('PLAN', 0.9, 95.0, 100.0, 80.0, 30.0)];
        self::assertSame(['Roof plan', 'Section'], array_map(static fn (Title $t): string => $t->words, Title::in([$small, ...$large])));
        self::assertSame([], Title::in([new ReadWord('SECTION', 0.3, 0.0, 0.0, 90.0, 12.0)]));
    }

    public function testATitleIsToldInWordsAsOneWrites(): void
    {
        self::assertSame('Section A-A', Title::in(self::words('SECTION A-A'))[0]->words);
        self::assertSame('Ground floor plan', Title::in(self::words('GROUND FLOOR PLAN'))[0]->words);
    }

    public function testAFileMayBeNamedAfterItsDrawing(): void
    {
        self::assertSame('South', Title::ofName('station_south-elevation.v2.JPG')?->side);
        self::assertSame(0, Title::ofName('sallow-fen ground floor.pdf')?->level);
        self::assertNull(Title::ofName('IMG_2043.jpg'));
    }

    /** A box read in any turn lies where it stands on the page. */
    public function testABoxComesBackToItsPage(): void
    {
        $page = new PixelBox(10.0, 20.0, 5200.0, 2600.0);
        // On the picture, half as large: 2600 by 1300.
        [$left, $top, $right, $bottom] = [300.0, 100.0, 500.0, 140.0];
        $turned = [
            [$left, $top, $right, $bottom], [$top, 2600.0 - $right, $bottom, 2600.0 - $left],
            [2600.0 - $right, 1300.0 - $bottom, 2600.0 - $left, 1300.0 - $top], [1300.0 - $bottom, $left, 1300.0 - $top, $right],
        ];
        foreach ($turned as $turns => $box) {
            self::assertSame([610.0, 220.0, 1010.0, 300.0], WayUp::onPage($box, $turns, $page));
        }
    }

    /** @return list<ReadWord> a line of words side by side */
    private static function words(string $text): array
    {
        $at = 0.0;

        return array_map(static function (string $word) use (&$at): ReadWord {
            $width = 12.0 * mb_strlen($word);
            $at += $width + 10.0;

            return new ReadWord($word, 0.9, $at - $width, 50.0, $width, 20.0);
        }, explode(' ', $text));
    }
}
