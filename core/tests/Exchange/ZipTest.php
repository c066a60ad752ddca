<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\Zip\ZipFile;
use Plinth\Core\Exchange\Zip\ZipReader;

/** ZIP files by us and by others are read back as they are, or refused in words; never half. */
final class ZipTest extends TestCase
{
    private const MOST = 1_000_000;
    private string $path;

    protected function setUp(): void
    {
        $this->path = (string) tempnam(sys_get_temp_dir(), 'zip');
    }

    protected function tearDown(): void
    {
        unlink($this->path);
    }

    /** @return array<string, string> */
    private static function files(): array
    {
        return ['plan.json' => str_repeat('{"walls":[]}', 9000), 'empty' => '', 'sources/ü ⛪.png' => random_bytes(70_000)];
    }

    /** @return array<string, string> */
    private function read(): array
    {
        $zip = ZipReader::open($this->path, self::MOST);
        $found = [];
        foreach ($zip->names() as $name) {
            $found[$name] = $zip->text($name, self::MOST);
        }

        return $found;
    }

    public function testWhatWeWriteIsReadAndIsTheSameFileEveryTime(): void
    {
        $files = self::files();
        file_put_contents($this->path, ZipFile::of($files, ['plan.json']));
        self::assertSame($files, $this->read());
        self::assertSame(ZipFile::of($files), ZipFile::of($files));
        // From the disk and from memory is one.
        $from = "$this->path.part";
        file_put_contents($from, $files['sources/ü ⛪.png']);
        ZipFile::write($this->path, ['plan.json' => $files['plan.json']], [], ['a.png' => $from]);
        unlink($from);
        self::assertSame(['plan.json' => $files['plan.json'], 'a.png' => $files['sources/ü ⛪.png']], $this->read());
    }

    /** Python's zipfile, which is another's writing of the same format. */
    public function testWhatAnotherWritesIsRead(): void
    {
        $script = 'import sys, zipfile; z = zipfile.ZipFile(sys.argv[1], "w", zipfile.ZIP_DEFLATED); z.writestr("a/", ""); z.writestr("a/b.txt", "word " * 5000); z.comment = b"PK" * 40; z.close()';
        exec('python3 -c '.escapeshellarg($script).' '.escapeshellarg($this->path), $out, $code);
        self::assertSame(0, $code);
        self::assertSame(['a/b.txt' => str_repeat('word ', 5000)], $this->read());
    }

    /** Any byte changed, any end cut off: what is read is what was written, or it is refused; and it names its place. */
    public function testDamageIsToldAndNothingWrongIsRead(): void
    {
        mt_srand(4711);
        $whole = ZipFile::of(['one.txt' => str_repeat('one wall after the other; ', 40), 'two.bin' => random_bytes(300)], ['two.bin']);
        file_put_contents($this->path, $whole);
        $good = $this->read();
        $refused = 0;
        for ($k = 0; $k < 600; ++$k) {
            $bad = $whole;
            if (0 === $k % 4) {
                $bad = substr($bad, 0, mt_rand(0, \strlen($bad) - 1));
            } else {
                $at = mt_rand(0, \strlen($bad) - 1);
                $bad[$at] = \chr(\ord($bad[$at]) ^ (1 << mt_rand(0, 7)));
            }
            file_put_contents($this->path, $bad);
            try {
                $found = $this->read();
                // Names, days and rights are not part of any sum: what is in the files is.
                self::assertSame([], array_diff(array_values($found), array_values($good)));
            } catch (UnreadableDocument $e) {
                ++$refused;
                self::assertNotSame('', $e->getMessage());
            }
        }
        self::assertGreaterThan(300, $refused);
    }

    public function testWhatWouldFillTheDiskIsRefusedBeforeItIsUnpacked(): void
    {
        file_put_contents($this->path, ZipFile::of(['zeros' => str_repeat("\0", self::MOST + 1)]));
        self::assertLessThan(5000, filesize($this->path));
        try {
            $this->read();
            self::fail('It was unpacked.');
        } catch (UnreadableDocument $e) {
            self::assertSame('This is no whole ZIP file: what is in it is more than 1 MB. Take it anew from where it was made.', $e->getMessage());
        }
        // One that says it is small and is not.
        $lying = ZipFile::of(['zeros' => str_repeat("\0", 500_000)]);
        $at = (int) strpos($lying, "PK\x01\x02") + 24;
        file_put_contents($this->path, substr_replace($lying, pack('V', 10), $at, 4));
        $this->expectExceptionMessage('“zeros” is damaged: what is in it cannot be unpacked.');
        $this->read();
    }
}
