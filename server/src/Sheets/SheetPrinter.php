<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\Reading\PictureTool;

/** Makes of sheets' SVG what printers and readers take; in the sandbox, with the shipped letters and no others. */
final readonly class SheetPrinter
{
    private const SECONDS = 60.0;
    /** Of a picture: as fine as is printed, but no more than so many pixels along its longer side. */
    private const DPI = 300.0;
    private const MOST_PX = 12_000;
    /** Converters side by side. */
    private const AT_ONCE = 2;

    public function __construct(private PictureTool $tool, private FileStore $files, private string $projectDir)
    {
    }

    /** @param float $longer mm, its longer side */
    public function png(string $svg, float $longer): string
    {
        $dpi = min(self::DPI, self::MOST_PX / ($longer / 25.4));
        $folder = $this->files->workFolder();
        try {
            file_put_contents("$folder/sheet.svg", $svg);
            $options = ['-f', 'png', '-d', (string) $dpi, '-p', (string) $dpi, '--background-color', 'white'];
            $this->tool->run($this->convert([...$options, '-o', "$folder/sheet.png", "$folder/sheet.svg"]), self::SECONDS, $this->reads(), $folder);

            return (string) file_get_contents("$folder/sheet.png");
        } finally {
            $this->files->removeFolder($folder);
        }
    }

    /**
     * Sheets as one PDF: a page each, as large as its sheet, found by its bookmark; with the document's title and language, and what of
     * a page is paper (ISO 32000-1: 7.7.2, 12.3.3, 14.3.3, 14.9.2, 14.11.2).
     *
     * @param iterable<int, string> $svgs
     * @param list<string> $bookmarks one for each
     * @param (callable(int): void)|null $onPage called with how many pages are there
     */
    public function bound(iterable $svgs, string $title, array $bookmarks, ?callable $onPage = null): string
    {
        $folder = $this->files->workFolder();
        // Sheets are drawn without circles of objects; looking for such took a seventh of the time.
        gc_disable();
        try {
            $pages = [];
            $commands = (function () use ($svgs, $folder, &$pages): \Generator {
                foreach ($svgs as $i => $svg) {
                    $pages[] = "$folder/page$i.pdf";
                    file_put_contents("$folder/page$i.svg", $svg);
                    // Drawing goes first: whoever converts waits for it, never it for them.
                    yield ['nice', '-n', '5', ...$this->convert(['-f', 'pdf', '-o', "$folder/page$i.pdf", "$folder/page$i.svg"])];
                }
            })();
            $this->tool->runTogether($commands, self::SECONDS, $this->reads(), $folder, $onPage, atOnce: self::AT_ONCE);
            $this->tool->run(['qpdf', '--empty', '--pages', ...$pages, '--', "$folder/bound.pdf"], self::SECONDS, [], $folder);
            $json = $this->tool->run(['qpdf', '--json=2', '--json-key=pages', '--json-key=qpdf', '--json-stream-data=none', "$folder/bound.pdf"], self::SECONDS, [], $folder);
            file_put_contents("$folder/more.json", PdfWrapping::of($json, $title, $bookmarks));
            $this->tool->run(['qpdf', "$folder/bound.pdf", "$folder/set.pdf", "--update-from-json=$folder/more.json", '--object-streams=generate'], self::SECONDS, [], $folder);

            return (string) file_get_contents("$folder/set.pdf");
        } finally {
            gc_enable();
            gc_collect_cycles();
            $this->files->removeFolder($folder);
        }
    }

    /**
     * @param list<string> $options
     *
     * @return non-empty-list<string>
     */
    private function convert(array $options): array
    {
        return ['env', 'FONTCONFIG_FILE='.$this->fonts().'/fonts.conf', 'rsvg-convert', '--unlimited', ...$options];
    }

    /** @return list<string> */
    private function reads(): array
    {
        return [$this->fonts()];
    }

    private function fonts(): string
    {
        return "$this->projectDir/core/fonts";
    }
}
