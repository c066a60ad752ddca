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
    /** Sheets of one run of the converter. */
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
        try {
            $drawn = (static function () use ($svgs, $folder): \Generator {
                foreach ($svgs as $i => $svg) {
                    file_put_contents("$folder/page$i.svg", $svg);
                    yield "page$i";
                }
            })();
            [$pages, $batch] = [[], self::next($drawn, 1)];
            while ([] !== $batch) {
                // While these are converted, the next ones are drawn.
                $following = [];
                $onLook = static function () use ($drawn, &$following, &$pages, $onPage): void {
                    if (null !== $onPage) {
                        $onPage(\count($pages));
                    }
                    if (\count($following) < self::AT_ONCE) {
                        array_push($following, ...self::next($drawn, 1));
                    }
                };
                array_push($pages, ...$this->pages($batch, $folder, $onLook));
                $batch = [...$following, ...self::next($drawn, self::AT_ONCE - \count($following))];
            }
            $this->tool->run(['qpdf', '--empty', '--pages', ...$pages, '--', "$folder/bound.pdf"], self::SECONDS, [], $folder);
            $json = $this->tool->run(['qpdf', '--json=2', '--json-key=pages', '--json-key=qpdf', '--json-stream-data=none', "$folder/bound.pdf"], self::SECONDS, [], $folder);
            file_put_contents("$folder/more.json", PdfWrapping::of($json, $title, $bookmarks));
            $this->tool->run(['qpdf', "$folder/bound.pdf", "$folder/set.pdf", "--update-from-json=$folder/more.json", '--object-streams=generate'], self::SECONDS, [], $folder);

            return (string) file_get_contents("$folder/set.pdf");
        } finally {
            $this->files->removeFolder($folder);
        }
    }

    /**
     * @param \Generator<int, string> $drawn
     *
     * @return list<string> so many of them, or as many as there are left
     */
    private static function next(\Generator $drawn, int $count): array
    {
        $names = [];
        for (; $count > 0 && $drawn->valid(); --$count) {
            $names[] = $drawn->current();
            $drawn->next();
        }

        return $names;
    }

    /**
     * @param non-empty-list<string> $names of SVG files that are there
     * @param callable(): void $onLook
     *
     * @return list<string> files, a page each
     */
    private function pages(array $names, string $folder, callable $onLook): array
    {
        $commands = array_map(fn (string $n): array => $this->convert(['-f', 'pdf', '-o', "$folder/$n.pdf", "$folder/$n.svg"]), $names);
        $this->tool->runTogether($commands, self::SECONDS, $this->reads(), $folder, $onLook);
        foreach ($names as $name) {
            unlink("$folder/$name.svg");
        }

        return array_map(static fn (string $n): string => "$folder/$n.pdf", $names);
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
