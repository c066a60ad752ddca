<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Server\Job\Failed;
use Plinth\Server\Source\Making\ImportPage;
use Plinth\Server\Source\Making\PageMaker;

/** Pictures as they come: turned by their tags, coloured, transparent; and children that never outlive their limit. */
final class PictureTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/plinth-picture-'.getmypid();
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        exec('rm -rf '.escapeshellarg($this->folder));
    }

    public function testTheNumberOfTilesIsKnownBeforeTheyAreMade(): void
    {
        foreach ([[1, 1], [256, 256], [257, 256], [511, 1025], [3307, 2339], [3000, 17]] as [$width, $height]) {
            exec(
                \sprintf(
                    'cd %s && rm -rf t && vips black b.v %d %d && vips dzsave b.v t --layout google --suffix .png --tile-size 256 --overlap 0 --skip-blanks=-1 && find t -name "[0-9]*.png" | wc -l',
                    escapeshellarg($this->folder),
                    $width,
                    $height,
                ),
                $lines,
            );
            self::assertSame((int) end($lines), ImportPage::tiles($width, $height), "$width × $height");
        }
    }

    public function testAPhotographLyingOnItsSideComesInUpright(): void
    {
        // Stored 600 × 400 with the tag "turn a quarter to the right" (EXIF orientation 6): shown 400 × 600, red at the top.
        $image = imagecreatetruecolor(600, 400);
        imagefilledrectangle($image, 0, 0, 600, 400, 0xFFFFFF);
        imagefilledrectangle($image, 0, 0, 100, 400, 0xDD2211);
        imagejpeg($image, "$this->folder/plain.jpg", 95);
        $exif = "Exif\0\0II*\0".pack('V', 8).pack('v', 1).pack('vvVvv', 0x0112, 3, 1, 6, 0).pack('V', 0);
        $jpeg = (string) file_get_contents("$this->folder/plain.jpg");
        file_put_contents("$this->folder/turned.jpg", "\xFF\xD8\xFF\xE1".pack('n', \strlen($exif) + 2).$exif.substr($jpeg, 2));
        $desk = new Desk(Client::ofStack()->signIn());
        $state = $desk->bringIn("$this->folder/turned.jpg", 'turned.jpg');
        [$page] = Desk::rows($state, 'page');
        self::assertSame([400, 600], [$page['values']['width'], $page['values']['height']]);
        self::assertSame(['done', '.jpg'], [($done = $desk->imported())['state'], $done['tileSuffix']], 'Colour is kept.');
        // Level 2 holds the page at full size: 2 × 3 tiles.
        $this->assertColour($desk, 'tiles/2/0/0', 200, 50, [221, 34, 17]);
        $this->assertColour($desk, 'tiles/2/0/0', 200, 150, [255, 255, 255]);
        self::assertSame([400, 600], [($grey = PageMaker::raster($desk->folder().'/grey.v'))->width, $grey->height]);
    }

    public function testClearPaperIsShownWhite(): void
    {
        $image = imagecreatetruecolor(300, 300);
        imagesavealpha($image, true);
        imagefill($image, 0, 0, 0x7F000000);
        imagefilledrectangle($image, 100, 100, 200, 200, 0x000000);
        imagepng($image, "$this->folder/clear.png");
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn("$this->folder/clear.png", 'clear.png');
        self::assertSame('done', $desk->imported()['state']);
        $this->assertColour($desk, 'tiles/1/0/0', 50, 50, [255, 255, 255]);
        $this->assertColour($desk, 'tiles/1/0/0', 150, 150, [0, 0, 0]);
    }

    /** A scan of A1 at 300 to the inch is more than the tools keep in memory, and than the sandbox's temporary folder holds. */
    public function testALargeScanComesIn(): void
    {
        exec(
            'cd '.escapeshellarg($this->folder).' && vips black large.v 9933 7016 --bands 3 && vips invert large.v light.v && vips jpegsave light.v large.jpg --interlace && rm large.v light.v',
            $out,
            $code,
        );
        self::assertSame(0, $code, implode("\n", $out));
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn("$this->folder/large.jpg", 'large.jpg');
        $progress = $desk->imported();
        self::assertSame('done', $progress['state'], (string) json_encode($progress['message']));
        $this->assertColour($desk, 'tiles/0/0/0', 50, 50, [255, 255, 255]);
    }

    public function testAChildIsEndedAtItsLimitOrWhenNobodyWantsItAnyMore(): void
    {
        $tool = Files::tool();
        foreach ([[0.4, null, 'longer than'], [
            30.0,
            static fn () => throw new Failed('Nobody wants it.'),
            'Nobody wants it',
        ]] as [$seconds, $onLook, $words]) {
            $mark = '31.'.random_int(100_000, 999_999);
            $start = microtime(true);
            try {
                $tool->run(['sleep', $mark], $seconds, onLook: $onLook);
                self::fail('It was let run.');
            } catch (Failed $e) {
                self::assertStringContainsString($words, $e->getMessage());
            }
            self::assertLessThan(10.0, microtime(true) - $start);
            exec('pgrep -f "^sleep '.$mark.'"', $left);
            self::assertSame([], $left, 'No child is left.');
        }
    }

    /** One that is ended as soon as it begins leaves nothing that waits for it. */
    public function testAChildThatIsEndedAtOnceLeavesNobodyBehind(): void
    {
        $mark = '32.'.random_int(100_000, 999_999);
        for ($round = 0; $round < 60; ++$round) {
            try {
                Files::tool()->run(['sleep', $mark], 30.0, onLook: static function () use ($round): void {
                    usleep(150 * $round);
                    throw new Failed('Nobody wants it.');
                });
                self::fail('It was let run.');
            } catch (Failed) {
                continue;
            }
        }
        // The kernel takes a moment to clear a sandbox away.
        $left = ['some'];
        for ($look = 0; [] !== $left && $look < 100; ++$look) {
            usleep(100_000);
            $left = [];
            exec('pgrep -f "[ ]'.preg_quote($mark).'$"', $left);
        }
        self::assertSame([], $left);
    }

    /** @param array{int, int, int} $rgb */
    private function assertColour(Desk $desk, string $picture, int $x, int $y, array $rgb): void
    {
        [$status, $body] = $desk->client->send('GET', $desk->ofPage($picture));
        self::assertSame(200, $status);
        self::assertIsString($body['text']);
        $image = imagecreatefromstring($body['text']);
        self::assertNotFalse($image);
        $at = imagecolorsforindex($image, (int) imagecolorat($image, $x, $y));
        self::assertEqualsWithDelta($rgb, [$at['red'], $at['green'], $at['blue']], 6.0);
    }
}
