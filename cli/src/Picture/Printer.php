<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

use Plinth\Core\Sheets\PrintedSheet;

/** Makes files of sheets that readers and printers take. */
interface Printer
{
    public function png(PrintedSheet $sheet): string;

    /**
     * All of them as one document.
     *
     * @param non-empty-list<PrintedSheet> $sheets
     */
    public function pdf(array $sheets, string $title): string;
}
