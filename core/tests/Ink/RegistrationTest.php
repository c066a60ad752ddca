<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelAffine;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\Exception\UnreadableRaster;
use Plinth\Core\Ink\Page\GreyFile;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Pages\Registered;
use Plinth\Core\Ink\Pages\Registration;

/** A newer scan of the same sheet is found on the older one, and another sheet is not. */
final class RegistrationTest extends TestCase
{
    /** @var list<string> */
    private array $made = [];

    protected function tearDown(): void
    {
        array_map(unlink(...), $this->made);
    }

    /** @return iterable<string, array{float, float, float, float}> scale, turn in degrees, further stretch along x, grey of the paper */
    public static function scans(): iterable
    {
        yield 'a little turned' => [1.0, 1.7, 1.0, 225.0];
        yield 'finer, turned the other way' => [1.25, -2.3, 1.0, 240.0];
        yield 'coarser' => [0.8, 0.4, 1.0, 230.0];
        yield 'upside down' => [1.0, 181.2, 1.0, 235.0];
        yield 'on its side' => [1.0, 90.5, 1.0, 235.0];
        yield 'stretched by a copier' => [1.0, -0.6, 1.012, 235.0];
    }

    #[DataProvider('scans')]
    public function testANewerScanIsFoundOnTheOlderOne(float $scale, float $degrees, float $stretch, float $paper): void
    {
        $old = self::sheet();
        $centre = new PixelPoint($old->width / 2, $old->height / 2);
        $side = (int) ceil(hypot($old->width, $old->height) * $scale * 1.02);
        $map = PixelAffine::similar($scale, deg2rad($degrees), $centre, new PixelPoint($side / 2, $side / 2));
        $map = new PixelAffine($map->a * $stretch, $map->b, $map->c, $map->d * $stretch, $map->e, $map->f);
        $new = Sheets::warped($old, $map, $side, $side, (int) $paper);
        $found = $this->register($old, $new);
        self::assertNotNull($found);
        foreach ([[80, 80], [700, 90], [690, 480], [90, 500]] as [$x, $y]) {
            $p = new PixelPoint($x, $y);
            self::assertLessThan(0.25, $found->map->of($p)->distanceTo($map->of($p)), "$x, $y");
        }
        self::assertLessThan(0.3, $found->rmsPx);
        self::assertGreaterThan(8, $found->points);
    }

    public function testAnotherSheetIsNotTakenForIt(): void
    {
        $other = (new Sheets(800, 600, grain: 4, seed: 9))->frame(250, 200, 300, 90)->fill(300, 400, 250, 60)->raster();
        self::assertNull($this->register(self::sheet(), $other));
        self::assertNull($this->register(self::sheet(), (new Sheets(800, 600))->raster()), 'An empty page has no ink to be found by.');
    }

    public function testPointsPickedByHandStartTheSearchAndStandAloneWhereTheInkSaysNothing(): void
    {
        $old = self::sheet();
        $map = PixelAffine::similar(1.0, deg2rad(38.0), new PixelPoint(400, 300), new PixelPoint(520, 520));
        $new = Sheets::warped($old, $map, 1040, 1040);
        $pairs = array_map(
            static fn (array $p): array => [
                new PixelPoint($p[0], $p[1]),
                new PixelPoint($map->of(new PixelPoint($p[0], $p[1]))->x + 2.0, $map->of(new PixelPoint($p[0], $p[1]))->y - 2.5),
            ],
            [[90, 90], [700, 480]],
        );
        $found = $this->register($old, $new, $pairs);
        self::assertNotNull($found);
        self::assertGreaterThan(8, $found->points, 'Some pixels off by hand, exact by the ink.');
        self::assertLessThan(0.25, $found->map->of(new PixelPoint(90, 500))->distanceTo($map->of(new PixelPoint(90, 500))));
        $blank = $this->register($old, (new Sheets(1040, 1040))->raster(), $pairs);
        self::assertSame(2, $blank?->points);
    }

    public function testAWindowOfAFileIsReadWithoutTheRest(): void
    {
        $raster = self::sheet();
        $file = $this->file($raster);
        self::assertSame($raster->crop(70, 60, 33, 20)->bytes, $file->window(70, 60, 33, 20)->bytes);
        self::assertSame(
            [5, 4],
            [$file->window(795, 596, 40, 40)->width, $file->window(795, 596, 40, 40)->height],
            'Cut at the page’s edge.',
        );
        $this->expectException(UnreadableRaster::class);
        new GreyFile('/nowhere', 10, 10, 0);
    }

    /** @param list<array{PixelPoint, PixelPoint}> $pairs */
    private function register(GreyRaster $old, GreyRaster $new, array $pairs = []): ?Registered
    {
        return Registration::between($this->file($old), $old, $this->file($new), $new, $pairs);
    }

    private function file(GreyRaster $raster): GreyFile
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'grey');
        $this->made[] = $path;
        file_put_contents($path, str_repeat("\0", 64).$raster->bytes);

        return new GreyFile($path, $raster->width, $raster->height, 64);
    }

    private static function sheet(): GreyRaster
    {
        return (new Sheets(800, 600, grain: 4))->plan(70, 60, 300, 180)->plan(440, 80, 270, 390)->plan(90, 330, 250, 190)->fill(480, 500, 200, 12)->fill(600, 150, 60, 40)->raster();
    }
}
