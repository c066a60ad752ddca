<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Sheets\InkGroup;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkPicture;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PrintedSheet;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Server\Change\DiskSpace;
use Plinth\Server\Files\LocalStore;
use Plinth\Server\Sheets\PdfWrapping;
use Plinth\Server\Sheets\PrintedFiles;
use Plinth\Server\Sheets\SheetPrinter;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\Reading\PictureFailure;
use Symfony\Component\Uid\UuidV7;

/** Sheets are printed in the sandbox: as they are, one after the other, until somebody stops it; and nothing else gets out. */
final class SheetPrinterTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/plinth-printer-'.bin2hex(random_bytes(6));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        exec('rm -r '.escapeshellarg($this->folder));
    }

    private function printer(): SheetPrinter
    {
        return new SheetPrinter(Files::tool(), new FileStore(new LocalStore($this->folder), new DiskSpace(), 1), \dirname(__DIR__, 2));
    }

    /** @param list<InkPicture> $pictures */
    private static function svg(string $words, float $width = 210.0, float $height = 148.0, array $pictures = []): string
    {
        $ink = new SheetInk([], [new InkLine([[10.0, 10.0], [60.0, 10.0]], InkLine::WIDE)], [new InkText(20.0, 50.0, $words, 5.0)], $pictures);

        return SvgWriter::write(new PrintedSheet($width, $height, [new InkGroup($ink)], $words));
    }

    /** @return array<string, string> */
    private function told(string $pdf): array
    {
        file_put_contents("$this->folder/told.pdf", $pdf);
        $told = [];
        foreach (['words' => 'pdftotext %s -', 'info' => 'pdfinfo -f 1 -l 99 -box %s', 'json' => 'qpdf --json=2 --json-key=outlines %s', 'check' => 'qpdf --check %s 2>&1'] as $key => $command) {
            $lines = [];
            exec(\sprintf($command, escapeshellarg("$this->folder/told.pdf")), $lines);
            $told[$key] = implode("\n", $lines);
        }

        return $told;
    }

    public function testPagesAreBoundInTheirOrderEachAsLargeAsItsSheet(): void
    {
        $sizes = [[210.0, 148.0], [420.0, 297.0], [841.0, 594.0], [297.0, 420.0], [210.0, 297.0], [700.0, 250.0], [148.0, 210.0]];
        $svgs = array_map(static fn (array $s, int $i): string => self::svg("Sheet number $i", ...$s), $sizes, array_keys($sizes));
        $names = array_map(static fn (int $i): string => "A-0$i Pläne (\"$i\")", array_keys($sizes));
        $pages = [];
        $told = $this->told($this->printer()->bound($svgs, 'Müller & Töchter – \\(1)', $names, static function (int $done) use (&$pages): void {
            $pages[] = $done;
        }));
        self::assertStringContainsString('No syntax or stream encoding errors found', $told['check']);
        self::assertStringContainsString('Müller & Töchter – \\(1)', $told['info']);
        foreach ($sizes as $i => [$width, $height]) {
            self::assertSame(1, preg_match('/Page +'.($i + 1).' size: +([\d.]+) x ([\d.]+)/', $told['info'], $found));
            self::assertEqualsWithDelta([$width * 72.0 / 25.4, $height * 72.0 / 25.4], [(float) $found[1], (float) $found[2]], 0.03);
            self::assertMatchesRegularExpression('/Page +'.($i + 1).' TrimBox: +0\.00 +0\.00 +'.number_format($width * 72.0 / 25.4, 2, '\.', '').'/', $told['info']);
        }
        preg_match_all('/Sheet number (\d)/', $told['words'], $order);
        self::assertSame(['0', '1', '2', '3', '4', '5', '6'], $order[1]);
        $outlines = json_decode($told['json'], true, 64, \JSON_THROW_ON_ERROR);
        self::assertIsArray($outlines);
        self::assertIsArray($outlines['outlines']);
        self::assertSame($names, array_column($outlines['outlines'], 'title'));
        self::assertSame(range(1, 7), array_column($outlines['outlines'], 'destpageposfrom1'));
        // How far it is, is told truly: from nothing, never back.
        self::assertSame(0, $pages[0]);
        self::assertSame($pages, array_values(array_filter($pages, static fn (int $p): bool => $p < 7)));
        $sorted = $pages;
        sort($sorted);
        self::assertSame($sorted, $pages);
    }

    public function testStoppedItLeavesNothingBehindAndDrawsNoFurtherSheet(): void
    {
        $drawn = 0;
        $svgs = (static function () use (&$drawn): iterable {
            for (; $drawn < 40; ++$drawn) {
                yield $drawn => self::svg("Sheet $drawn");
            }
        })();
        try {
            $this->printer()->bound($svgs, 'Stopped', array_fill(0, 40, 'x'), static fn (int $done) => $done >= 2 ? throw new \DomainException('stopped') : null);
            self::fail('It was not stopped.');
        } catch (\DomainException $e) {
            self::assertSame('stopped', $e->getMessage());
        }
        self::assertLessThan(20, $drawn);
        self::assertSame([], array_diff((array) scandir("$this->folder/making"), ['.', '..']), 'Its folder is gone.');
    }

    /** Words that look like markup are words, and pictures come with the sheet: nothing is fetched from anywhere. */
    public function testWordsAreWordsAndNoFileOfTheMachineIsRead(): void
    {
        file_put_contents("$this->folder/secret.svg", '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><text>TELLTALE</text></svg>');
        $evil = '</text><image xlink:href="file://'.$this->folder.'/secret.svg" width="90" height="90"/><text>';
        $told = $this->told($this->printer()->bound([self::svg($evil)], $evil, [$evil]));
        self::assertStringNotContainsString('TELLTALE', $told['words']);
        self::assertStringContainsString('image xlink:href', str_replace("\n", ' ', $told['words']));
        self::assertStringContainsString('No syntax', $told['check']);
        $this->expectException(PictureFailure::class);
        $this->printer()->bound(['<svg'], 'Broken', ['x']);
    }

    public function testAPictureLiesWhereItIsPut(): void
    {
        $image = imagecreatetruecolor(40, 20);
        imagefill($image, 0, 0, 0xC02020);
        ob_start();
        imagejpeg($image, null, 95);
        $bytes = (string) ob_get_clean();
        $png = $this->printer()->png(self::svg('x', 210.0, 148.0, [new InkPicture($bytes, 'image/jpeg', [100.0, 60.0], [50.0, 0.0], [0.0, 25.0])]), 210.0);
        $printed = imagecreatefromstring($png);
        self::assertNotFalse($printed);
        $at = static fn (float $x, float $y): int => (imagecolorat($printed, (int) round($x / 25.4 * 300.0), (int) round($y / 25.4 * 300.0)) >> 8) & 0xFF;
        foreach ([[101.0, 61.0], [149.0, 84.0], [125.0, 70.0]] as [$x, $y]) {
            self::assertLessThan(80, $at($x, $y), 'within it');
        }
        foreach ([[99.0, 70.0], [151.0, 70.0], [125.0, 59.0], [125.0, 86.0]] as [$x, $y]) {
            self::assertSame(255, $at($x, $y), 'beside it');
        }
    }

    public function testOnlyTheLatestPrintOfAProjectIsKept(): void
    {
        $files = new PrintedFiles(new LocalStore($this->folder));
        [$one, $other] = [new UuidV7(), new UuidV7()];
        $files->keep($one, 'r1', 'first');
        $files->keep($other, 'r1', 'other');
        $files->keep($one, 'r2', 'second');
        self::assertNull($files->of($one, 'r1'));
        self::assertStringEqualsFile((string) $files->of($one, 'r2'), 'second');
        self::assertStringEqualsFile((string) $files->of($other, 'r1'), 'other');
    }

    public function testWhatIsWrappedRoundThePagesIsWhatTheStandardNames(): void
    {
        // ISO 32000-1: 12.3.3 outlines form a list both ways; 14.3.3 the title; 14.9.2 the language; 14.11.2 boxes.
        $json = json_encode(['pages' => [['object' => '3 0 R'], ['object' => '5 0 R']], 'qpdf' => [['maxobjectid' => 6, 'pdfversion' => '1.7'], [
            'obj:1 0 R' => ['value' => ['/Type' => '/Catalog', '/Pages' => '2 0 R']], 'obj:3 0 R' => ['value' => ['/MediaBox' => [0, 0, 10, 20]]],
            'obj:5 0 R' => ['value' => ['/MediaBox' => [0, 0, 30, 40], '/CropBox' => [1, 1, 2, 2]]], 'trailer' => ['value' => ['/Root' => '1 0 R']],
        ]]], \JSON_THROW_ON_ERROR);
        /** @var array{qpdf: array{mixed, array<string, array{value: array<string, mixed>}>}} $made */
        $made = json_decode(PdfWrapping::of($json, 'Title', ['First']), true, 64, \JSON_THROW_ON_ERROR);
        $of = $made['qpdf'][1];
        self::assertSame([0, 0, 10, 20], $of['obj:3 0 R']['value']['/TrimBox']);
        self::assertSame([1, 1, 2, 2], $of['obj:5 0 R']['value']['/CropBox'], 'What a page says itself stays.');
        self::assertSame(['u:First', 'u:Sheet 2'], [$of['obj:9 0 R']['value']['/Title'], $of['obj:10 0 R']['value']['/Title']]);
        self::assertSame(['10 0 R', '9 0 R'], [$of['obj:9 0 R']['value']['/Next'], $of['obj:10 0 R']['value']['/Prev']]);
        self::assertSame(['9 0 R', '10 0 R', 2], [$of['obj:7 0 R']['value']['/First'], $of['obj:7 0 R']['value']['/Last'], $of['obj:7 0 R']['value']['/Count']]);
        self::assertSame('u:en', $of['obj:1 0 R']['value']['/Lang']);
        self::assertSame('8 0 R', $of['trailer']['value']['/Info']);
    }
}
