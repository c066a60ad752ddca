<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use League\Flysystem\Filesystem;
use League\Flysystem\Local\LocalFilesystemAdapter;
use Plinth\Server\Http\Refusal;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Uid\Uuid;

/** Source files by their content, and a folder of made pictures for each page. */
final readonly class FileStore
{
    private string $root;
    private Filesystem $files;

    public function __construct(string $filesDir, string $projectDir, private int $leastFreeMb)
    {
        $this->root = str_starts_with($filesDir, '/') ? $filesDir : $projectDir.'/'.$filesDir;
        $this->files = new Filesystem(new LocalFilesystemAdapter($this->root));
    }

    /**
     * Takes a file in under its SHA-256; the same bytes are stored once.
     *
     * @param bool $move the file may be moved instead of copied
     *
     * @return string the hash
     *
     * @throws Refusal when the disk has no room for it and what is made from it
     */
    public function takeIn(string $path, bool $move = false): string
    {
        $bytes = (int) filesize($path);
        $free = @disk_free_space(is_dir($this->root) ? $this->root : \dirname($this->root));
        // A decoded page takes up to some twenty times its file for a while.
        if (false !== $free && $free - 4 * $bytes < $this->leastFreeMb * 1e6) {
            throw Refusal::noRoom();
        }
        $hash = (string) hash_file('sha256', $path);
        if (!$this->files->fileExists(self::sourceName($hash))) {
            $this->files->createDirectory(\dirname(self::sourceName($hash)));
            if ($move && @rename($path, $this->sourcePath($hash))) {
                return $hash;
            }
            $stream = fopen($path, 'r');
            if (false === $stream) {
                throw new \RuntimeException('The uploaded file cannot be read.');
            }
            $this->files->writeStream(self::sourceName($hash), $stream);
        }

        return $hash;
    }

    public function sourcePath(string $hash): string
    {
        return $this->root.'/'.self::sourceName($hash);
    }

    public function pageFolder(Uuid $page): string
    {
        return $this->root.'/pages/'.$page->toRfc4122();
    }

    /** A new empty folder for something that is made and taken away again. */
    public function workFolder(): string
    {
        $folder = $this->root.'/work/'.bin2hex(random_bytes(8));
        if (!@mkdir($folder, 0o700, true)) {
            throw Refusal::noRoom();
        }

        return $folder;
    }

    /** @return list<string> ids of all pages that have a folder */
    public function pageFolders(): array
    {
        $ids = [];
        foreach (is_dir($this->root.'/pages') ? new \FilesystemIterator($this->root.'/pages') : [] as $folder) {
            if ($folder instanceof \SplFileInfo && Uuid::isValid($folder->getFilename())) {
                $ids[] = $folder->getFilename();
            }
        }

        return $ids;
    }

    /** Where nginx finds a page's file, below its internal location. */
    private function internalPath(Uuid $page, string $file): string
    {
        return '/internal-files/pages/'.$page->toRfc4122().'/'.$file;
    }

    /** nginx sends the file; pictures of a page never change once they are there. */
    public function served(Uuid $page, string $file, string $type): Response
    {
        return new Response('', 200, ['X-Accel-Redirect' => $this->internalPath($page, $file), 'Content-Type' => $type, 'Cache-Control' => 'private, max-age=31536000, immutable', 'X-Content-Type-Options' => 'nosniff']);
    }

    public function removeFolder(string $folder): void
    {
        if (str_starts_with($folder, $this->root.'/')) {
            $this->files->deleteDirectory(substr($folder, \strlen($this->root) + 1));
        }
    }

    private static function sourceName(string $hash): string
    {
        return 'sources/'.substr($hash, 0, 2).'/'.substr($hash, 2);
    }
}
