<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

/** Reads what holds lines instead of pixels. */
interface LineFiles
{
    /** @return LineFile|null null where it is no DXF, SVG or PDF, or holds no lines that can be read */
    public function read(string $file, int $page): ?LineFile;
}
