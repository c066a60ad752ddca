<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Zip;

/** Some files as one (ZIP, ISO/IEC 21320-1): the same bytes for the same files, whenever it is made. */
final class ZipFile
{
    /** The earliest day that the format has. */
    private const DAY = '1980-01-01 00:00:00 UTC';

    /**
     * @param array<string, string> $files content by name, in the order in which they come
     * @param list<string> $stored names of those that are not compressed
     */
    public static function of(array $files, array $stored = []): string
    {
        $path = tempnam(sys_get_temp_dir(), 'zip');
        $zip = new \ZipArchive();
        if (false === $path || true !== $zip->open($path, \ZipArchive::OVERWRITE)) {
            throw new \RuntimeException('There is no room for a file to be put together in.');
        }
        try {
            foreach ($files as $name => $content) {
                $zip->addFromString($name, $content);
                $zip->setMtimeName($name, strtotime(self::DAY));
                $zip->setCompressionName($name, \in_array($name, $stored, true) ? \ZipArchive::CM_STORE : \ZipArchive::CM_DEFLATE);
            }
            $zip->close();

            return (string) file_get_contents($path);
        } finally {
            unlink($path);
        }
    }
}
