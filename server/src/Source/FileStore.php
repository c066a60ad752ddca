<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use League\Flysystem\Filesystem;
use League\Flysystem\Local\LocalFilesystemAdapter;
use Plinth\Server\Change\DiskSpace;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Refusal;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Uid\Uuid;

/** Source files by their content, and a folder of made pictures for each page. */
final readonly class FileStore
{
    private string $root;
    private Filesystem $files;

    public function __construct(string $filesDir, string $projectDir, private DiskSpace $disk, private int $leastFreeMb)
    {
        $this->root = str_starts_with($filesDir, '/') ? $filesDir : $projectDir.'/'.$filesDir;
        $this->files = new Filesystem(new LocalFilesystemAdapter($this->root));
    }

    /**
     * Takes a file in under its SHA-256; the same bytes are stored once.
     *
     * @return string the hash
     */
    public function takeIn(string $path): string
    {
        $hash = (string) hash_file('sha256', $path);
        if (!$this->files->fileExists(self::sourceName($hash))) {
            $this->files->createDirectory(\dirname(self::sourceName($hash)));
            // Of what arrived here the bytes get a second name, which costs nothing.
            if (str_starts_with($path, $this->root.'/') && @link($path, $this->sourcePath($hash))) {
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

    public function pageFolder(RowId $page): string
    {
        return $this->root.'/'.self::pageName($page);
    }

    /** A new empty folder for something that is made and taken away again. */
    public function workFolder(): string
    {
        $folder = $this->root.'/making/'.bin2hex(random_bytes(8));
        if (!@mkdir($folder, 0o700, true)) {
            throw Refusal::noRoom();
        }

        return $folder;
    }

    /** A new empty folder beside the final one for one attempt at making it; what earlier attempts left is taken away. */
    public function newAttempt(string $folder, int $attempt): string
    {
        $left = glob($folder.'.part-*', \GLOB_ONLYDIR);
        array_map($this->removeFolder(...), false === $left ? [] : $left);
        if (!@mkdir("$folder.part-$attempt", 0o700, true)) {
            throw Refusal::noRoom();
        }

        return "$folder.part-$attempt";
    }

    /** Puts a folder that is finished in the place of the one before. */
    public function putInPlace(string $made, string $folder): void
    {
        $this->removeFolder($folder);
        if (!rename($made, $folder)) {
            throw new \RuntimeException('A finished folder could not be put in its place.');
        }
    }

    /** Whether all that the board shows of a page lies here. */
    public function hasPictures(RowId $page): bool
    {
        return is_file($this->pageFolder($page).'/made.json');
    }

    /** Where a file that was sent lies until it has been looked at. */
    public function arrivalPath(RowId $arrival): string
    {
        return $this->root.'/arrivals/'.$arrival->project->toRfc4122().'-'.$arrival->id->toRfc4122();
    }

    /** Takes a file that was sent out of the way it came in by, at once and once only. */
    public function receive(string $path, RowId $arrival): bool
    {
        @mkdir($this->root.'/arrivals', 0o700, true);

        return @rename($path, $this->arrivalPath($arrival));
    }

    /** @throws Refusal when the disk has no room for a file and what is made from it */
    public function refuseWithoutRoom(int $bytes): void
    {
        // A decoded page takes up to some twenty times its file for a while.
        if ($this->disk->free($this->root) - 4.0 * $bytes < $this->leastFreeMb * 1e6) {
            throw Refusal::noRoom();
        }
    }

    /** Removes files that were sent some seconds ago and never taken, and what work has left behind. */
    public function forgetArrivals(int $seconds): void
    {
        $left = glob($this->root.'/{arrivals,making}/*', \GLOB_BRACE);
        foreach (false === $left ? [] : $left as $path) {
            if ((int) @filemtime($path) < time() - $seconds) {
                is_dir($path) ? $this->removeFolder($path) : @unlink($path);
            }
        }
    }

    /** @return iterable<RowId> pages that have a folder */
    public function pageFolders(): iterable
    {
        $folders = glob($this->root.'/pages/*/*', \GLOB_ONLYDIR);
        foreach (false === $folders ? [] : $folders as $folder) {
            if (Uuid::isValid(basename($folder)) && Uuid::isValid(basename(\dirname($folder)))) {
                yield new RowId(Uuid::fromString(basename(\dirname($folder))), Uuid::fromString(basename($folder)));
            }
        }
    }

    /** Where nginx finds a page's file, below its internal location. */
    private function internalPath(RowId $page, string $file): string
    {
        return '/internal-files/'.self::pageName($page).'/'.$file;
    }

    /** nginx sends the file; pictures of a page never change once they are there. */
    public function served(RowId $page, string $file, string $type): Response
    {
        if (!is_file($this->pageFolder($page).'/'.$file)) {
            throw Refusal::notFound();
        }

        return new Response('', 200, ['X-Accel-Redirect' => $this->internalPath($page, $file), 'Content-Type' => $type, 'Cache-Control' => 'private, max-age=31536000, immutable', 'X-Content-Type-Options' => 'nosniff']);
    }

    public function removeFolder(string $folder): void
    {
        if (str_starts_with($folder, $this->root.'/')) {
            $this->files->deleteDirectory(substr($folder, \strlen($this->root) + 1));
        }
    }

    private static function pageName(RowId $page): string
    {
        return 'pages/'.$page->project->toRfc4122().'/'.$page->id->toRfc4122();
    }

    private static function sourceName(string $hash): string
    {
        return 'sources/'.substr($hash, 0, 2).'/'.substr($hash, 2);
    }
}
