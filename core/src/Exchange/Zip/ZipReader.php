<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Zip;

use Plinth\Core\Exchange\Exception\UnreadableDocument;

/**
 * What is in a ZIP file from elsewhere (ISO/IEC 21320-1, whose layout is that of the application note it names: end of central directory,
 * central directory, local headers; from memory). Nothing is taken out that is larger than it says, or differs from its sum; what it holds
 * altogether is known, and refused, before anything is.
 */
final readonly class ZipReader
{
    private const END = 22;
    private const ENTRY = 46;
    private const LOCAL = 30;
    /** bytes that may come after the directory's end: its comment */
    private const COMMENT = 65_535;
    private const MOST_FILES = 20_000;
    private const LONGEST_NAME = 200;
    private const PART = 16_384;
    private const STORED = 0;
    private const DEFLATED = 8;

    /** @param array<string, array{offset: int, method: int, packed: int, size: int, crc: int}> $files by name */
    private function __construct(private string $path, private array $files)
    {
    }

    /**
     * @param int $most bytes of all that is in it, unpacked
     *
     * @throws UnreadableDocument
     */
    public static function open(string $path, int $most): self
    {
        $file = self::file($path);
        $length = (int) filesize($path);
        $tail = max(0, $length - self::END - self::COMMENT);
        $bytes = self::bytes($file, $tail, $length - $tail);
        $end = strrpos($bytes, "PK\x05\x06");
        if (false === $end || \strlen($bytes) - $end < self::END) {
            throw UnreadableDocument::damaged('', 'its end is missing');
        }
        /** @var array{disk: int, count: int, size: int, offset: int} $told */
        $told = unpack('vdisk/v/v/vcount/Vsize/Voffset', $bytes, $end + 4);
        if (0 !== $told['disk'] || $told['count'] > self::MOST_FILES || $told['offset'] + $told['size'] > $length) {
            throw UnreadableDocument::damaged('', 'its list of files is not what it should be');
        }

        return new self($path, self::listed(self::bytes($file, $told['offset'], $told['size']), $told['count'], $length, $most));
    }

    /** @return list<string> names, in the order in which they are listed */
    public function names(): array
    {
        return array_map(strval(...), array_keys($this->files));
    }

    public function has(string $name): bool
    {
        return isset($this->files[$name]);
    }

    /** @throws UnreadableDocument */
    public function text(string $name, int $most): string
    {
        if (($this->files[$name]['size'] ?? 0) > $most) {
            throw UnreadableDocument::damaged($name, \sprintf('it holds more than %d MB', $most / 1e6));
        }
        $text = '';
        $this->read($name, static function (string $part) use (&$text): void {
            $text .= $part;
        });

        return $text;
    }

    /** @throws UnreadableDocument */
    public function extract(string $name, string $path): void
    {
        $to = fopen($path, 'w');
        if (false === $to) {
            throw new \RuntimeException('There is no room for a file to be taken out into.');
        }
        $this->read($name, static function (string $part) use ($to): void {
            if (\strlen($part) !== fwrite($to, $part)) {
                throw new \RuntimeException('There is no room for a file to be taken out into.');
            }
        });
        fclose($to);
    }

    /**
     * @param callable(string): void $take its bytes, part by part
     *
     * @throws UnreadableDocument where it is not there, or not what it was
     */
    private function read(string $name, callable $take): void
    {
        $entry = $this->files[$name] ?? throw UnreadableDocument::missingKey($name);
        $file = self::file($this->path);
        $local = self::bytes($file, $entry['offset'], self::LOCAL);
        /** @var array{name: int, extra: int} $told */
        $told = self::LOCAL === \strlen($local) && str_starts_with($local, "PK\x03\x04")
            ? unpack('vname/vextra', $local, 26)
            : throw UnreadableDocument::damaged($name, 'it does not begin where it should');
        fseek($file, $entry['offset'] + self::LOCAL + $told['name'] + $told['extra']);
        $inflate = self::DEFLATED === $entry['method'] ? inflate_init(\ZLIB_ENCODING_RAW) : null;
        [$left, $written, $sum] = [$entry['packed'], 0, hash_init('crc32b')];
        while ($left > 0) {
            $part = (string) fread($file, min($left, self::PART));
            if ('' === $part) {
                break;
            }
            $left -= \strlen($part);
            // A part is inflated to at most some thousand times its length (RFC 1951): bounded before it is looked at.
            $plain = null === $inflate || false === $inflate ? $part : @inflate_add($inflate, $part);
            $written += \strlen((string) $plain);
            if (false === $plain || $written > $entry['size']) {
                throw UnreadableDocument::damaged($name, 'what is in it cannot be unpacked');
            }
            hash_update($sum, $plain);
            $take($plain);
        }
        if ($written !== $entry['size'] || hexdec(hash_final($sum)) !== $entry['crc']) {
            throw UnreadableDocument::damaged($name, 'what is in it is not what was put there');
        }
    }

    /**
     * @return array<string, array{offset: int, method: int, packed: int, size: int, crc: int}>
     *
     * @throws UnreadableDocument
     */
    private static function listed(string $directory, int $count, int $length, int $most): array
    {
        [$files, $at, $whole] = [[], 0, 0];
        for ($i = 0; $i < $count; ++$i) {
            if (self::ENTRY > \strlen($directory) - $at || !str_starts_with(substr($directory, $at, 4), "PK\x01\x02")) {
                throw UnreadableDocument::damaged('', 'its list of files ends too early');
            }
            /** @var array<'flags'|'method'|'crc'|'packed'|'size'|'name'|'extra'|'comment'|'offset', int> $e */
            $e = unpack('vflags/vmethod/v/v/Vcrc/Vpacked/Vsize/vname/vextra/vcomment/v/v/V/Voffset', $directory, $at + 8);
            $name = substr($directory, $at + self::ENTRY, $e['name']);
            $at += self::ENTRY + $e['name'] + $e['extra'] + $e['comment'];
            if (str_ends_with($name, '/')) {
                continue; // a folder
            }
            $isWhole = \strlen($name) === $e['name'] && $e['name'] <= self::LONGEST_NAME && mb_check_encoding($name, 'UTF-8');
            if (!$isWhole || isset($files[$name])) {
                throw UnreadableDocument::damaged('', \sprintf('file %d in it has no name of its own', $i + 1));
            }
            if (0 !== ($e['flags'] & 1) || !\in_array($e['method'], [self::STORED, self::DEFLATED], true)) {
                throw UnreadableDocument::damaged($name, 'it is locked by a password, or packed in a way that is not read here');
            }
            if ($e['offset'] + self::LOCAL + $e['packed'] > $length) {
                throw UnreadableDocument::damaged($name, 'it ends too early');
            }
            $whole += $e['size'];
            if ($whole > $most) {
                throw UnreadableDocument::damaged('', \sprintf('what is in it is more than %d MB', $most / 1e6));
            }
            $files[$name] = [
                'offset' => $e['offset'], 'method' => $e['method'], 'packed' => $e['packed'], 'size' => $e['size'], 'crc' => $e['crc'],
            ];
        }

        return $files;
    }

    /** @return resource */
    private static function file(string $path)
    {
        $file = @fopen($path, 'r');

        return false === $file ? throw UnreadableDocument::damaged('', 'it cannot be opened') : $file;
    }

    /** @param resource $file */
    private static function bytes($file, int $from, int $count): string
    {
        fseek($file, $from);

        return $count < 1 ? '' : (string) stream_get_contents($file, $count);
    }
}
