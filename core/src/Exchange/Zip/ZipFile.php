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
        if (false === $path) {
            throw self::noRoom();
        }
        try {
            self::write($path, $files, $stored);

            return (string) file_get_contents($path);
        } finally {
            unlink($path);
        }
    }

    /**
     * @param array<string, string> $files content by name, in the order in which they come
     * @param list<string> $stored names of those that are not compressed
     * @param array<string, string> $from where further ones lie, by name; they are not compressed
     */
    public static function write(string $path, array $files, array $stored = [], array $from = []): void
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE)) {
            throw self::noRoom();
        }
        foreach ($files as $name => $content) {
            $zip->addFromString($name, $content);
            $zip->setCompressionName($name, \in_array($name, $stored, true) ? \ZipArchive::CM_STORE : \ZipArchive::CM_DEFLATE);
        }
        foreach ($from as $name => $file) {
            $zip->addFile($file, $name);
            $zip->setCompressionName($name, \ZipArchive::CM_STORE);
        }
        for ($i = 0; $i < $zip->numFiles; ++$i) {
            $zip->setMtimeIndex($i, strtotime(self::DAY));
            $zip->setExternalAttributesIndex($i, \ZipArchive::OPSYS_UNIX, 0o100644 << 16);
        }
        if (!$zip->close()) {
            throw self::noRoom();
        }
    }

    private static function noRoom(): \RuntimeException
    {
        return new \RuntimeException('There is no room for a file to be put together in.');
    }
}
