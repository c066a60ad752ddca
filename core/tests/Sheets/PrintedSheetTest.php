<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sheets;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Sheets\Exception\UnusableSheet;
use Plinth\Core\Sheets\InkGroup;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\Model\PrintSheet;
use Plinth\Core\Sheets\PaperLetters;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PlanningSet;
use Plinth\Core\Sheets\PrintedSheet;
use Plinth\Core\Sheets\PrintScale;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\SheetPainter;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Sheets\Tiles;
use Plinth\Core\Tests\Plan\Plans;

/** A sheet is as large as it says, and so is what is on it; told by librsvg and poppler (Debian), which know nothing of it. */
final class PrintedSheetTest extends TestCase
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

    private static function subject(): SheetSubject
    {
        $house = Plans::storey(Plans::rectangle(), [
            new Opening('d', 'south', OpeningKind::Door, 1000.0, 900.0),
            new Opening('w', 'south', OpeningKind::Window, 3000.0, 1500.0),
        ]);

        return new SheetSubject('Boat house <north & "lee">', new Plan([$house]), honest: [
            $house->id => 'Traced from a scan, ±12 mm over 10 m; check length holds.',
        ]);
    }

    private static function sheet(?float $scale = null, PaperSize $paper = PaperSize::A3, bool $upright = false): PrintSheet
    {
        $subject = self::subject();

        return PlanningSet::plan($subject, $subject->plan->storeys[0]->id, $paper, $upright, null === $scale ? PrintScale::RECOMMENDED : [$scale]);
    }

    private static function written(SheetInk $ink, float $width, float $height): string
    {
        return SvgWriter::write(new PrintedSheet($width, $height, [new InkGroup($ink)], 'Sheet'));
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
        $sheet = self::sheet(100.0, $paper, $upright);
        file_put_contents("$this->folder/s.svg", SvgWriter::write((new SheetPainter(self::subject()))->sheet($sheet)));
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
        foreach (['Boat house <north & "lee">', '1:100', '22.04 m²', '6200', '900', '±12 mm over 10 m', '1/1'] as $words) {
            self::assertStringContainsString($words, $text);
        }
    }

    public function testTenMetresAtOneToAHundredAreAHundredMillimetres(): void
    {
        $line = new SheetInk([], [new InkLine([[50.0, 100.0], [150.0, 100.0]], InkLine::WIDE)]);
        file_put_contents("$this->folder/l.svg", self::written($line, 297.0, 210.0));
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
            file_put_contents("$this->folder/w.svg", self::written($ink, 210.0, 100.0));
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
        // 1, 2 and 5 times ten as often as is wanted (ISO 5455).
        self::assertSame([50.0, 50.0], [self::sheet()->views[0]->scale, self::sheet(paper: PaperSize::A4, upright: true)->views[0]->scale]);
        foreach ((new SheetPainter(self::subject()))->sheet(self::sheet())->ink()->lines as $line) {
            foreach ($line->points as [$x, $y]) {
                self::assertTrue($x >= 20.0 && $x <= 410.0 && $y >= 10.0 && $y <= 287.0, 'All of it lies within the frame.');
            }
        }
        $this->expectException(UnusableSheet::class);
        $this->expectExceptionMessage('does not fit: take larger paper');
        self::sheet(10.0, PaperSize::A4);
    }

    public function testWithoutWallsThereIsNothingToPrint(): void
    {
        $this->expectException(UnusableSheet::class);
        $this->expectExceptionMessage('no walls');
        PlanningSet::plan(new SheetSubject('', new Plan([Plans::storey([])])), Plans::storey([])->id, PaperSize::A3, false);
    }

    /** Lines are as wide as ISO 128-2 has them, in poppler's reading of the PDF. */
    public function testLinesArePrintedAsWideAsTheyAre(): void
    {
        $widths = [InkLine::FINE, InkLine::NARROW, InkLine::MEDIUM, InkLine::WIDE, InkLine::BROAD];
        $lines = array_map(static fn (float $w, int $k): InkLine => new InkLine([[20.0, 20.0 + 10.0 * $k], [120.0, 20.0 + 10.0 * $k]], $w), $widths, array_keys($widths));
        file_put_contents("$this->folder/l.svg", self::written(new SheetInk([], $lines), 210.0, 297.0));
        $this->told('rsvg-convert', '-f', 'pdf', '-o', 'l.pdf', 'l.svg');
        $this->told('pdftocairo', '-svg', 'l.pdf', 'again.svg');
        preg_match_all('/stroke-width:([\d.]+)/', (string) file_get_contents("$this->folder/again.svg"), $found);
        $printed = array_map(static fn (string $w): float => (float) $w * 25.4 / 72.0, $found[1]);
        self::assertEqualsWithDelta($widths, $printed, 0.005);
    }

    /** Pieces show all of the sheet once at least, and the marks of one lie on those of the next. */
    public function testPiecesCoverTheSheetAndTheirMarksMeet(): void
    {
        foreach ([[841.0, 594.0, PaperSize::A4], [594.0, 420.0, PaperSize::A3], [420.0, 297.0, PaperSize::A4], [210.0, 297.0, PaperSize::A4]] as [$width, $height, $paper]) {
            [$wide, $high, $pieces] = Tiles::of($width, $height, $paper);
            [$left, $top] = [array_values(array_unique(array_column($pieces, 0))), array_values(array_unique(array_column($pieces, 1)))];
            $shown = [$wide - 2.0 * Tiles::MARGIN_MM, $high - 2.0 * Tiles::MARGIN_MM];
            self::assertNotSame([], $left);
            self::assertNotSame([], $top);
            self::assertGreaterThanOrEqual($width, max($left) + $shown[0]);
            self::assertGreaterThanOrEqual($height, max($top) + $shown[1]);
            foreach (\array_slice($left, 1) as $i => $x) {
                self::assertEqualsWithDelta(Tiles::OVERLAP_MM, $left[$i] + $shown[0] - $x, 1e-9);
            }
            $marks = array_map(static fn (InkLine $l): float => ($l->points[0][0] + $l->points[1][0]) / 2.0 - Tiles::MARGIN_MM, Tiles::marks($wide, $high, 'A1')->lines);
            self::assertContains(0.0, $marks);
            if (\count($left) > 1) {
                $meets = array_filter($marks, static fn (float $m): bool => abs($m - $left[1]) < 1e-9);
                self::assertNotSame([], $meets, 'Where the next piece begins there is a mark on this one.');
            }
        }
        $piece = SvgWriter::tile((new SheetPainter(self::subject()))->sheet(self::sheet()), 210.0, 297.0, [184.0, 0.0, 'B1']);
        self::assertStringContainsString('viewBox="184 0 194 281"', $piece);
        file_put_contents("$this->folder/t.svg", $piece);
        $this->told('rsvg-convert', '-f', 'pdf', '-o', 't.pdf', 't.svg');
        self::assertMatchesRegularExpression('/595\.2\d* x 841\.8/', $this->told('pdfinfo', 't.pdf'));
    }
}
