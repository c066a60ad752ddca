<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Sheets\PrintedSheet;
use Plinth\Server\Change\DiskSpace;
use Plinth\Server\Files\LocalStore;
use Plinth\Server\Sheets\SheetPrinter;
use Plinth\Server\Source\FileStore;

/** As the server prints, in the sandbox where the kernel allows one. */
final readonly class SandboxedPrinter implements Printer
{
    public function __construct(private Sandboxed $sandboxed)
    {
    }

    public function png(PrintedSheet $sheet): string
    {
        return $this->printed(static fn (SheetPrinter $p): string => $p->png(SvgWriter::write($sheet), max($sheet->width, $sheet->height)));
    }

    public function pdf(array $sheets, string $title): string
    {
        return $this->printed(static fn (SheetPrinter $p): string => $p->bound(
            array_map(static fn (PrintedSheet $s): string => SvgWriter::write($s), $sheets),
            $title,
            array_map(static fn (PrintedSheet $s): string => $s->title, $sheets),
        ));
    }

    /** @param callable(SheetPrinter): string $print */
    private function printed(callable $print): string
    {
        $folder = $this->sandboxed->folder();
        try {
            return $print(new SheetPrinter(
                $this->sandboxed->tool(),
                new FileStore(new LocalStore($folder), new DiskSpace(), 1),
                $this->sandboxed->root,
            ));
        } finally {
            foreach (['making', ''] as $of) {
                @rmdir("$folder/$of");
            }
        }
    }
}
