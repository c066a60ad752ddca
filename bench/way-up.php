<?php

declare(strict_types=1);

// Which way up pages are read, by their own writing: how many are sure, and right. Usage: way-up.php FOLDER

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Core\Ink\Reading\WayUp;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '2G');
[$n, $sure, $right, $wrong, $seconds] = [0, 0, 0, 0, []];
$work = sys_get_temp_dir().'/way-up-'.getmypid().'.pgm';
foreach (trials($argv[1] ?? exit("Usage: way-up.php FOLDER\n")) as $name => [$truth, $raster]) {
    if (!isset($truth['quarterTurns'])) {
        continue;
    }
    $start = hrtime(true);
    $isLight = Paper::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200))))->lightOnDark;
    $read = [];
    foreach (WayUp::pictures($raster->page($isLight), new PixelBox(0, 0, $raster->width, $raster->height), static function (float $done): void {}) as $turns => $picture) {
        file_put_contents($work, "P5 $picture->width $picture->height 255\n".$picture->bytes);
        $read[$turns] = ReadWord::ofTable((string) shell_exec('OMP_THREAD_LIMIT=1 tesseract '.escapeshellarg($work).' stdout --psm 11 -l eng tsv 2>/dev/null'));
    }
    $way = WayUp::of($read);
    $seconds[] = (hrtime(true) - $start) / 1e9;
    // The page was turned by so many quarters; as many more make a whole turn.
    $true = (4 - $truth['quarterTurns']) % 4;
    ++$n;
    $sure += $way?->isSure ?? false ? 1 : 0;
    $right += $way?->turns === $true ? 1 : 0;
    if (($way?->isSure ?? false) && $way->turns !== $true) {
        ++$wrong;
        echo "  wrong and sure: $name\n";
    } elseif (!($way?->isSure ?? false)) {
        printf("  not sure: %s, %s\n", $name, $way?->turns === $true ? 'right' : 'wrong');
    }
}
@unlink($work);
printf("Way up: %d pages, %d sure, of those %d wrong; %d right in all; median %.1f s\n", $n, $sure, $wrong, $right, quantile($seconds, 0.5));
