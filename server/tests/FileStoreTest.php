<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Server\Change\DiskSpace;
use Plinth\Server\Files\Folders;
use Plinth\Server\Files\LocalStore;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\FileStore;

final class FileStoreTest extends TestCase
{
    private const SCAN = __DIR__.'/../../demo/sallow-fen-ground.jpg';

    public function testTheSameBytesAreStoredOnce(): void
    {
        $folder = sys_get_temp_dir().'/plinth-store-'.getmypid();
        $store = new FileStore(new LocalStore($folder), new DiskSpace(), 1);
        $hash = $store->takeIn(self::SCAN);
        self::assertSame($hash, $store->takeIn(self::SCAN));
        self::assertFileEquals(self::SCAN, (string) $store->source($hash));
        self::assertSame([$hash], $store->sources());
        file_put_contents((string) $store->source($hash), 'rot', \FILE_APPEND);
        self::assertNull($store->source($hash), 'What is not what was taken in is not given out.');
        self::assertTrue($store->isDamaged($hash));
        $store->forgetSource($hash);
        self::assertFalse($store->isDamaged($hash));
        Folders::remove($folder);
    }

    public function testADiskThatIsNearlyFullTakesNothingIn(): void
    {
        $folder = sys_get_temp_dir().'/plinth-full-'.getmypid();
        try {
            (new FileStore(new LocalStore($folder), new DiskSpace(), \PHP_INT_MAX))->refuseWithoutRoom(1000);
            self::fail('It was taken in.');
        } catch (Refusal $e) {
            self::assertSame([507, 'disk-full'], [$e->status, $e->reason]);
        }
        self::assertDirectoryDoesNotExist("$folder/sources");
    }
}
