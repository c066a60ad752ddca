<?php

declare(strict_types=1);

namespace Plinth\Server\Source\DropIn;

use Plinth\Server\Http\Refusal;
use Psr\Clock\ClockInterface;

/**
 * The folder that the office scanner delivers to. Whoever delivers writes under a name ending in `.part` and renames at the
 * end; files that grew within the last second are left alone too.
 */
final readonly class DropInFolder
{
    private const SETTLED_SECONDS = 1;
    private const MOST_LISTED = 200;
    private string $folder;

    public function __construct(string $dropInDir, string $projectDir, private ClockInterface $clock)
    {
        $this->folder = str_starts_with($dropInDir, '/') ? $dropInDir : $projectDir.'/'.$dropInDir;
    }

    /** @return list<array{name: string, bytes: int, at: string}> newest first */
    public function waiting(): array
    {
        $files = [];
        clearstatcache();
        foreach (is_dir($this->folder) ? new \FilesystemIterator($this->folder) : [] as $file) {
            if (
                $file instanceof \SplFileInfo
                && $file->isFile()
                && !$file->isLink()
                && mb_check_encoding($file->getFilename(), 'UTF-8')
                && !str_starts_with($file->getFilename(), '.')
                && !str_ends_with($file->getFilename(), '.part')
                && (int) $file->getMTime() + self::SETTLED_SECONDS <= $this->clock->now()->getTimestamp()
            ) {
                $files[] = [
                    'name' => $file->getFilename(),
                    'bytes' => (int) $file->getSize(),
                    'at' => gmdate(\DATE_ATOM, (int) $file->getMTime()),
                ];
            }
        }
        usort($files, static fn (array $a, array $b): int => [$b['at'], $b['name']] <=> [$a['at'], $a['name']]);

        return \array_slice($files, 0, self::MOST_LISTED);
    }

    /** Path of a waiting file; names that are not listed do not exist, whatever they look like. */
    public function path(string $name): string
    {
        foreach ($this->waiting() as $file) {
            if ($file['name'] === $name) {
                return $this->folder.'/'.$name;
            }
        }
        throw Refusal::conflict('gone', 'This file is not in the drop-in folder any more: somebody has taken it.', 'name');
    }

    /**
     * Takes a file out of the folder: of several who want it one gets it.
     *
     * @param callable(string): bool $receive gets the path, and moves the file to where it belongs
     */
    public function take(string $name, callable $receive): void
    {
        $path = $this->path($name);
        // Hidden first, on the same disk: that happens at once and to one alone.
        $taken = $this->folder.'/.taken-'.bin2hex(random_bytes(8));
        if (!@rename($path, $taken)) {
            throw Refusal::conflict('gone', 'This file is not in the drop-in folder any more: somebody has taken it.', 'name');
        }
        if (!$receive($taken)) {
            rename($taken, $path);
            throw Refusal::noRoom();
        }
    }

    /** Puts back what turned out to be nothing that can be brought in. */
    public function giveBack(string $path, string $name): void
    {
        if (is_file($path) && !file_exists($this->folder.'/'.$name)) {
            @rename($path, $this->folder.'/'.$name);
        }
    }

    /** Writes a file the way a scanner does: slowly, under another name until it is whole. */
    public function deliver(string $from, string $name, int $pauseMicroseconds): void
    {
        @mkdir($this->folder, 0o755, true);
        // Two pages may come in one second: neither is written into the other's file, nor over it.
        $part = $this->folder.'/'.$name.'.'.bin2hex(random_bytes(4)).'.part';
        $in = fopen($from, 'r');
        $out = fopen($part, 'w');
        if (false === $in || false === $out) {
            throw new \RuntimeException('The drop-in folder cannot be written to.');
        }
        $bytes = max(1, intdiv((int) filesize($from), 8));
        while ('' !== ($chunk = (string) fread($in, $bytes))) {
            fwrite($out, $chunk);
            usleep($pauseMicroseconds);
        }
        fclose($out);
        ['filename' => $stem, 'extension' => $ending] = pathinfo($name) + ['extension' => ''];
        for ($copy = 2; file_exists($this->folder.'/'.$name); ++$copy) {
            $name = "$stem ($copy).$ending";
        }
        rename($part, $this->folder.'/'.$name);
    }
}
