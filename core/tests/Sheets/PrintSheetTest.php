<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sheets;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\Exception\UnusableSheet;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PaperLetters;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PrintScale;
use Plinth\Core\Sheets\PrintSheet;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\TitleFields;
use Plinth\Core\Tests\Plan\Plans;

/** A sheet is as large as it says, and so is what is on it; told by librsvg and poppler (Debian), which know nothing of it. */
final class PrintSheetTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/plinth-sheet-'.getmypid();
        mkdir($this->folder);
        $fonts = \dirname(__DIR__, 2).'/fonts';
        file_put_contents("$this->folder/fonts.conf", "<?xml version=\"1.0\"?><fontconfig><dir>$fonts</dir><cachedir>$this->folder/cache</cachedir></fontconfig>");
    }

    protected function tearDown(): void
    {
        exec('rm -r '.escapeshellarg($this->folder));
    }

    private function told(string ...$command): string
    {
        $process = proc_open(array_values($command), [1 => ['pipe', 'w'], 2 => ['pipe', 'w']], $pipes, $this->folder, ['FONTCONFIG_FILE' => "$this->folder/fonts.conf", 'PATH' => '/usr/bin:/bin']);
        self::assertIsResource($process);
        $out = (string) stream_get_contents($pipes[1]);
        $errors = (string) stream_get_contents($pipes[2]);
        self::assertSame(0, proc_close($process), implode(' ', $command).": $errors");

        return $out;
    }

    private static function fields(): TitleFields
    {
        return new TitleFields('Boat house <north & "lee">', 'Ground floor', 'Traced from a scan, ±12 mm over 10 m; check length holds.', number: 'P-01', date: '2026-11-30');
    }

    private static function house(): Storey
    {
        return Plans::storey(Plans::rectangle(), [
            new Opening('d', 'south', OpeningKind::Door, 1000.0, 900.0),
            new Opening('w', 'south', OpeningKind::Window, 3000.0, 1500.0),
        ]);
    }

    private static function sheet(?int $scale = null, PaperSize $paper = PaperSize::A3, bool $upright = false): PrintSheet
    {
        return PrintSheet::plan(self::house(), Derivation::of(self::house()), self::fields(), $paper, $upright, $scale);
    }

    /** @return iterable<string, array{PaperSize, bool, string}> page sizes in points: mm × 72 / 25.4 (ISO 216) */
    public static function papers(): iterable
    {
        yield 'A4' => [PaperSize::A4, true, '595.276 x 841.89'];
        yield 'A3 lying' => [PaperSize::A3, false, '1190.55 x 841.89'];
        yield 'A1 lying' => [PaperSize::A1, false, '2383.94 x 1683.78'];
    }

    #[DataProvider('papers')]
    public function testAPageIsAsLargeAsItsPaperAndItsLettersAreInIt(PaperSize $paper, bool $upright, string $points): void
    {
        $sheet = self::sheet(100, $paper, $upright);
        file_put_contents("$this->folder/s.svg", SvgWriter::write($sheet->ink, $sheet->width, $sheet->height, 'Boat house'));
        $this->told('rsvg-convert', '-f', 'pdf', '-o', 's.pdf', 's.svg');
        $info = $this->told('pdfinfo', 's.pdf');
        self::assertMatchesRegularExpression('/Page size: +([\d.]+) x ([\d.]+) pts/', $info);
        preg_match('/Page size: +([\d.]+) x ([\d.]+) pts/', $info, $size);
        [$width, $height] = array_map(floatval(...), explode(' x ', $points));
        self::assertEqualsWithDelta([$width, $height], [(float) ($size[1] ?? 0), (float) ($size[2] ?? 0)], 0.03);
        $fonts = $this->told('pdffonts', 's.pdf');
        self::assertMatchesRegularExpression('/PublicSans\S*\s+.*\byes yes yes/', $fonts, 'Its letters are embedded, as a subset, with what they mean.');
        self::assertDoesNotMatchRegularExpression('/\bno (yes|no) (yes|no)\s+\d/', $fonts, 'Every one of them.');
        $text = $this->told('pdftotext', '-layout', 's.pdf', '-');
        foreach (['Boat house <north & "lee">', '1:100', '22.04 m²', '6200', '900', '±12 mm over 10 m', 'P-01'] as $words) {
            self::assertStringContainsString($words, $text);
        }
    }

    public function testTenMetresAtOneToAHundredAreAHundredMillimetres(): void
    {
        $line = new SheetInk([], [new InkLine([[50.0, 100.0], [150.0, 100.0]], InkLine::WIDE)]);
        file_put_contents("$this->folder/l.svg", SvgWriter::write($line, 297.0, 210.0, 'Line'));
        $this->told('rsvg-convert', '-f', 'pdf', '-o', 'l.pdf', 'l.svg');
        // The pixels at 600 dpi: from the first to the last dark one, round ends taken off.
        $this->told('pdftoppm', '-r', '600', '-gray', '-singlefile', 'l.pdf', 'l');
        $pgm = (string) file_get_contents("$this->folder/l.pgm");
        self::assertSame(1, preg_match('/^P5\s+(\d+)\s+(\d+)\s+255\s/', $pgm, $head));
        [$width, $skip] = [(int) $head[1], \strlen($head[0])];
        $row = substr($pgm, $skip + $width * (int) round(100.0 / 25.4 * 600.0), $width);
        $dark = array_keys(array_filter(str_split($row), static fn (string $c): bool => \ord($c) < 128));
        self::assertNotSame([], $dark);
        $mm = (max($dark) - min($dark) + 1) * 25.4 / 600.0 - InkLine::WIDE;
        self::assertEqualsWithDelta(100.0, $mm, 0.1);
        // And the vector data: the same line as poppler's own SVG has it, in points.
        $this->told('pdftocairo', '-svg', 'l.pdf', 'again.svg');
        $svg = (string) file_get_contents("$this->folder/again.svg");
        self::assertSame(1, preg_match('/d="M ([\d.]+) ([\d.]+) L ([\d.]+) ([\d.]+)[^"]*"[^>]*?(?:transform="matrix\(([^)]+)\)")?/', $svg, $found));
        $scale = isset($found[5]) ? (float) explode(',', $found[5])[0] : 1.0;
        self::assertEqualsWithDelta(100.0, ((float) $found[3] - (float) $found[1]) * $scale * 25.4 / 72.0, 0.02);
    }

    /** Words as wide as FreeType and Pango make them, through librsvg: what a figure takes on paper is no more than was counted on. */
    public function testWordsArePrintedNoWiderThanTheyAreCounted(): void
    {
        foreach ([['12 500', false], ['Boat house', true], ['11\'-7 1/2"', false], ['Waschküche', false]] as [$words, $bold]) {
            $ink = new SheetInk([], [], [new InkText(20.0, 50.0, $words, 10.0, bold: $bold)]);
            file_put_contents("$this->folder/w.svg", SvgWriter::write($ink, 210.0, 100.0, 'Words'));
            $this->told('rsvg-convert', '-f', 'png', '-d', '300', '-p', '300', '--background-color', 'white', '-o', 'w.png', 'w.svg');
            $image = imagecreatefrompng("$this->folder/w.png");
            self::assertNotFalse($image);
            $right = 0;
            for ($x = imagesx($image) - 1; $x > 0 && 0 === $right; --$x) {
                for ($y = 0; $y < imagesy($image); ++$y) {
                    $right = (imagecolorat($image, $x, $y) & 0xFF) < 128 ? $x : $right;
                }
            }
            $width = ($bold ? PaperLetters::bold() : PaperLetters::regular())->width($words, 10.0);
            $printed = $right * 25.4 / 300.0 - 20.0;
            self::assertLessThan($width + 0.1, $printed, $words);
            self::assertGreaterThan(0.9 * $width, $printed, $words);
        }
    }

    public function testThePlanStandsAtTheLargestRecommendedScaleOrIsRefused(): void
    {
        self::assertSame([50, 50], [self::sheet()->scale, PrintScale::fitting(6200.0, 4200.0, 250.0, 140.0)]);
        self::assertSame(100, self::sheet(paper: PaperSize::A4, upright: true)->scale);
        foreach (self::sheet()->ink->lines as $line) {
            foreach ($line->points as [$x, $y]) {
                self::assertTrue($x >= 20.0 && $x <= 410.0 && $y >= 10.0 && $y <= 287.0, 'All of it lies within the frame.');
            }
        }
        $this->expectException(UnusableSheet::class);
        $this->expectExceptionMessage('do not fit on A4 at 1:10');
        self::sheet(10, PaperSize::A4);
    }

    public function testWithoutWallsThereIsNothingToPrint(): void
    {
        $empty = Plans::storey([]);
        $this->expectException(UnusableSheet::class);
        PrintSheet::plan($empty, Derivation::of($empty), self::fields(), PaperSize::A3);
    }
}
