<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\Inspector;
use Plinth\Server\Source\Reading\JpegQuality;
use Plinth\Server\Source\Reading\LineDrawing;
use Plinth\Server\Source\Reading\WorldFile;

/** What a file is, and how large its pages are, is told by its head alone. */
final class ReadingTest extends TestCase
{
    private static Files $files;

    public static function setUpBeforeClass(): void
    {
        self::$files = new Files();
    }

    /** @return iterable<string, array{string, Format|null}> */
    public static function heads(): iterable
    {
        yield 'PNG' => ["\x89PNG\r\n\x1A\n....", Format::Png];
        yield 'JPEG' => ["\xFF\xD8\xFF\xE1..", Format::Jpeg];
        yield 'TIFF, little end first' => ["II*\0....", Format::Tiff];
        yield 'TIFF, big end first' => ["MM\0*....", Format::Tiff];
        yield 'TIFF of 64 bits' => ["II+\0....", Format::Tiff];
        yield 'WebP' => ["RIFF\1\2\3\4WEBPVP8 ", Format::Webp];
        yield 'a sound in the same wrapper' => ["RIFF\1\2\3\4WAVEfmt ", null];
        yield 'GIF' => ['GIF87a......', Format::Gif];
        yield 'BMP' => ["BM\1\2\3\4\0\0\0\0\x36\0\0\0\x28\0\0\0", Format::Bmp];
        yield 'words that begin with BM' => ['BM is what this letter begins with.', null];
        yield 'HEIC' => ["\0\0\0\x18ftypheic....", Format::Heic];
        yield 'a film in the same wrapper' => ["\0\0\0\x18ftypisom....", null];
        yield 'PDF' => ['%PDF-1.7', Format::Pdf];
        yield 'PDF behind some junk' => [str_repeat("\0", 600).'%PDF-1.4', Format::Pdf];
        yield 'SVG' => ['<svg xmlns="http://www.w3.org/2000/svg">', Format::Svg];
        yield 'SVG behind a declaration, a comment and a type' => [
            "\xEF\xBB\xBF<?xml version='1.0'?>\n<!-- <svg> -->\n<!DOCTYPE svg PUBLIC \"x\" \"y\">\n<svg:svg>",
            Format::Svg,
        ];
        yield 'another kind of XML' => ['<?xml version="1.0"?><gpx><svg/></gpx>', null];
        yield 'DXF' => ["  0\r\nSECTION\r\n  2\r\nHEADER\r\n", Format::Dxf];
        yield 'DXF behind a comment' => ["999\nmade by hand\n0\nSECTION\n", Format::Dxf];
        yield 'nothing' => ['', null];
    }

    #[DataProvider('heads')]
    public function testTheContentDecides(string $head, ?Format $expected): void
    {
        self::assertSame($expected, Format::ofContent(self::$files->write('a.docx', $head)));
    }

    /** Outside check: the quality that libvips was asked to save with. */
    #[TestWith([20])]
    #[TestWith([50])]
    #[TestWith([75])]
    #[TestWith([92])]
    public function testTheQualityOfAJpegIsReadOffItsTable(int $quality): void
    {
        self::$files->vips('jpegsave', 'card.png', 'q.jpg', '--Q', (string) $quality);
        self::assertEqualsWithDelta($quality, JpegQuality::of(self::$files->folder.'/q.jpg'), 1.0);
    }

    public function testAFileWithoutATableHasNoQuality(): void
    {
        foreach (["\xFF\xD8\xFF\xD9", "\xFF\xD8\xFF\xDA\0\x08......", 'no JPEG', "\xFF\xD8\xFF\xE0\0\1"] as $bytes) {
            self::assertNull(JpegQuality::of(self::$files->write('q.jpg', $bytes)));
        }
    }

    public function testAWorldFileTellsScaleTurnAndPlaceNearTheZeroOnly(): void
    {
        $c = 0.02 * cos(deg2rad(10.0));
        $s = 0.02 * sin(deg2rad(10.0));
        $hint = WorldFile::hint("$c\n$s\n$s\n-$c\n3.0\n4.0", 100);
        self::assertEqualsWithDelta([20.0, 10.0], [$hint->mmPerPixel, $hint->turnDegrees], 1e-9);
        self::assertNotNull($hint->corner);
        self::assertNull(WorldFile::hint("0.02\n0\n0\n-0.02\n512345.0\n5412345.0", 100)->corner, 'A map’s coordinates are no building’s.');
        foreach (['', "1\n2\n3", "0\n0\n0\n0\n0\n0", "nan\n0\n0\n1\n0\n0", "1\n0\n0\n1\n0\n0\n7"] as $text) {
            try {
                WorldFile::hint($text, 100);
                self::fail($text);
            } catch (Refusal $e) {
                self::assertSame('world', $e->at);
            }
        }
    }

    public function testPagesOfAPdfAreSizedByTheScanTheyHoldOrByTheirPaper(): void
    {
        self::$files->vips('jpegsave', 'card.png', 'card.jpg');
        $scan = ['jpeg' => self::$files->read('card.jpg'), 'pixels' => [Files::WIDTH, Files::HEIGHT]];
        $pdf = self::$files->write('mixed.pdf', Files::pdf([
            // A scan of 200 per inch that fills its page; A4 of lines; A0 of lines, which would be too large at 300.
            ['width' => 576.0, 'height' => 432.0] + $scan, ['width' => 595.28, 'height' => 841.89], [
                'width' => 2383.94,
                'height' => 3370.39,
            ],
        ]));
        [$format, $pages] = $this->inspector()->inspect($pdf);
        self::assertSame(Format::Pdf, $format);
        self::assertSame([1600, 1200, 200.0], [$pages[0]->width, $pages[0]->height, $pages[0]->resolution]);
        self::assertSame([2481, 3508, 300.0], [$pages[1]->width, $pages[1]->height, $pages[1]->resolution]);
        self::assertLessThan(300.0, $pages[2]->resolution);
        self::assertLessThanOrEqual(100_100_000, $pages[2]->width * $pages[2]->height);
        self::assertEqualsWithDelta(2383.94 / 3370.39, $pages[2]->width / $pages[2]->height, 1e-3);
    }

    public function testADxfWithoutAUnitSaysSoAndOneWithAUnitIsAsLargeAsItSays(): void
    {
        $inches = self::$files->write('in.dxf', Files::dxf([[0, 0, 400, 0], [400, 0, 400, 300]], 1));
        [, [$page]] = $this->inspector()->inspect($inches);
        self::assertNotNull($page->hint);
        self::assertSame('file, drawn in inches', $page->hint->from);
        self::assertEqualsWithDelta(400 * 25.4 * 1.04, $page->hint->mmPerPixel * $page->width, 30.0, 'with a blank edge round it');
        [, [$page]] = $this->inspector()->inspect(self::$files->write('no.dxf', Files::dxf([[0, 0, 400, 0], [400, 0, 400, 300]], null)));
        self::assertNull($page->hint);
        self::assertStringContainsString('does not say its unit', $page->remark);
    }

    private function inspector(): Inspector
    {
        $tool = Files::tool();

        return new Inspector($tool, new LineDrawing($tool));
    }
}
