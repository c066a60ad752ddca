<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

/** How much room is left on the disk that a folder lies on, bytes. */
final readonly class DiskSpace
{
    public function free(string $folder): float
    {
        while (!is_dir($folder) && '/' !== $folder) {
            $folder = \dirname($folder);
        }
        $free = @disk_free_space($folder);

        return false === $free ? \INF : $free;
    }
}
