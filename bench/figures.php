<?php

declare(strict_types=1);

// Figures read off drawings of which nothing is known: right with both ends, wrong, missed. Its time stands beside that of the recogniser
// alone, which reads the whole page once on every sixth of them. Usage: figures.php FOLDER [PART OF]

use Plinth\Core\Flow\SizedByFigures;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Pages\Skew;
use Plinth\Core\Ink\Reading\PageFigures;
use Plinth\Core\Ink\Reading\TextPicture;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '2G');
[$part, $of] = [(int) ($argv[2] ?? 0), (int) ($argv[3] ?? 1)];
$fits = [[], []];
$legible = [0, 0];
$ratios = [];
[$bars, $barsRead, $barsWrong] = [0, 0, 0];
[$all, $right, $wrong, $sure, $off, $ways, $waysRight, $k, $seconds, $photographs] = [0, 0, 0, 0, [], 0, 0, -1, [], [[0, 0], [0, 0]]];
foreach (trials($argv[1] ?? exit("Usage: figures.php FOLDER [PART OF]\n")) as $name => [$truth, $raster]) {
    if (++$k % $of !== $part || !isset($truth['dimensions'], $truth['mmPerPixel'])) {
        continue;
    }
    $start = hrtime(true);
    $isLight = Paper::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200))))->lightOnDark;
    $read = PageFigures::of($raster->page($isLight), new PixelBox(0, 0, $raster->width, $raster->height), static function (float $done): void {});
    $seconds[] = $time = (hrtime(true) - $start) / 1e9;
    if (0 === intdiv($k, $of) % 6) {
        $picture = tempnam(sys_get_temp_dir(), 'page');
        file_put_contents($picture, "P5 $raster->width $raster->height 255\n".$raster->bytes);
        $start = hrtime(true);
        shell_exec('OMP_THREAD_LIMIT=1 tesseract '.escapeshellarg($picture).' stdout --psm 11 -l eng tsv 2>/dev/null');
        $ratios[] = $time / ((hrtime(true) - $start) / 1e9);
        unlink($picture);
    }
    $map = mapOf($truth);
    $bars += isset($truth['scaleBar']) ? 1 : 0;
    if (null !== $read->scaleBar) {
        ++$barsRead;
        $true = $truth['scaleBar'] ?? null;
        $astray = abs($map->toMm($read->scaleBar->a)->distanceTo($map->toMm($read->scaleBar->b)) / $read->scaleBar->mm - 1.0);
        $barsWrong += null === $true || $astray > 0.02 ? 1 : 0;
    }
    $used = [];
    [$good, $bad, $says] = [0, 0, []];
    foreach (array_filter($read->figures, static fn ($f): bool => $f->isSure()) as $figure) {
        [$a, $b] = [$map->toMm($figure->a), $map->toMm($figure->b)];
        $hit = null;
        foreach ($truth['dimensions'] as $i => $d) {
            [[$px, $py], [$qx, $qy]] = $d['line'];
            $miss = min(
                max(hypot($a->x - $px, $a->y - $py), hypot($b->x - $qx, $b->y - $qy)),
                max(hypot($a->x - $qx, $a->y - $qy), hypot($b->x - $px, $b->y - $py)),
            );
            if (!isset($used[$i]) && $miss < max(60.0, 6.0 * $truth['mmPerPixel'])) {
                $hit = $i;
                break;
            }
        }
        if (null !== $hit && saysSo($figure, $truth['dimensions'][$hit])) {
            $used[$hit] = true;
            ++$good;
        } else {
            ++$bad;
            $near = null;
            foreach ($truth['dimensions'] as $d) {
                $at = $map->toPixel(new Point(...$d['textAt']));
                $far = hypot($at->x - ($figure->box[0] + $figure->box[2]) / 2, $at->y - ($figure->box[1] + $figure->box[3]) / 2);
                $near = null === $near || $far < $near[0] ? [$far, $d['text']] : $near;
            }
            $says[] = $figure->text.(null === $hit ? ' without its ends, by '.($near[1] ?? '') : ' for '.$truth['dimensions'][$hit]['text']);
        }
    }
    $scale = '';
    if (null !== $read->map) {
        // The longest way across the building, level and upright.
        [$x1, $y1, $x2, $y2] = $truth['extent'];
        $errors = [];
        foreach ([[$x1, ($y1 + $y2) / 2, $x2, ($y1 + $y2) / 2], [($x1 + $x2) / 2, $y1, ($x1 + $x2) / 2, $y2]] as [$ax, $ay, $bx, $by]) {
            $p = $read->map->toMm($map->toPixel(new Point($ax, $ay)));
            $q = $read->map->toMm($map->toPixel(new Point($bx, $by)));
            $errors[] = 100 * ($p->distanceTo($q) / hypot($bx - $ax, $by - $ay) - 1);
        }
        $scale = sprintf('%+.2f %+.2f %%%s', ...[...$errors, $read->isSure ? ' sure' : '']);
        if ($read->isSure) {
            ++$photographs[$truth['perspective'] ? 1 : 0][$read->isPhotographed ? 1 : 0];
            ++$sure;
            $off[] = max(array_map(abs(...), $errors));
        }
    }
    $box = new PixelBox(0, 0, $raster->width, $raster->height);
    $fit = SizedByFigures::of($read, Skew::of($raster)?->leaning, $box, $raster->width, $raster->height, TextPicture::USUAL_PAPER_MM / max($raster->width, $raster->height))?->fit;
    $legible[$truth['perspective'] ? 1 : 0] += count($read->sure()) >= 6 ? 1 : 0;
    if (null !== $fit || $read->isSure) {
        $rms = null === $fit ? INF : rmsPx($fit->pixelToMm, $map, $truth);
        $worst = 0.0;
        [$x1, $y1, $x2, $y2] = $truth['extent'];
        foreach (null === $fit ? [] : [[$x1, $y1, $x2, $y1], [$x1, $y1, $x1, $y2], [$x1, $y1, $x2, $y2]] as [$ax, $ay, $bx, $by]) {
            [$p, $q] = [$map->toPixel(new Point($ax, $ay)), $map->toPixel(new Point($bx, $by))];
            $worst = max($worst, abs($fit->pixelToMm->toMm($p)->distanceTo($fit->pixelToMm->toMm($q)) / hypot($bx - $ax, $by - $ay) - 1.0));
        }
        $fits[$truth['perspective'] ? 1 : 0][] = [$rms, 10000.0 * $worst <= ($fit->plusMinusMmPer10m ?? 0.0), $worst];
        $scale .= sprintf('  fit %.2f px, off %.2f %%, ±%.1f', $rms, 100 * $worst, $fit->plusMinusMmPer10m ?? NAN);
    }
    if (null !== $read->turns) {
        ++$ways;
        $waysRight += $read->turns === (4 - $truth['quarterTurns']) % 4 ? 1 : 0;
    }
    $all += count($truth['dimensions']);
    $right += $good;
    $wrong += $bad;
    printf("%-34s %2d right %2d wrong of %2d  %-22s way up %s of %d  %.1f s  %s\n", $name, $good, $bad, count($truth['dimensions']), $scale, $read->turns ?? '-', (4 - $truth['quarterTurns']) % 4, $time, implode('; ', array_slice($says, 0, 4)));
}
printf("Figures: %d right, %d wrong, %d missed of %d; size sure on %d, off by median %.2f %%, worst %.2f %%; way up sure on %d, right %d; photographs taken for such %d of %d, flat sheets %d of %d; %.1f s\n", $right, $wrong, $all - $right, $all, $sure, quantile($off, 0.5), [] === $off ? NAN : max($off), $ways, $waysRight, $photographs[1][1], array_sum($photographs[1]), $photographs[0][1], array_sum($photographs[0]), quantile($seconds, 0.5));
printf("Time beside the recogniser's alone: %.2f times as long in the median of %d\n", quantile($ratios, 0.5), count($ratios));
printf("Scale bars: %d of %d read with what they stand for, %d of them wrong\n", $barsRead, $bars, $barsWrong);
foreach (['Flat sheets', 'Photographs'] as $k => $what) {
    [$rms, $within, $worst] = [array_column($fits[$k], 0), array_column($fits[$k], 1), array_column($fits[$k], 2)];
    printf("%s fitted by one click: %d (of %d with six figures read); RMS median %.2f px, ≤ 1 px on %d, ≤ 2 px on %d; within ± on %d; off by more than 2 %% on %d\n", $what, count($rms), $legible[$k], quantile($rms, 0.5), count(array_filter($rms, static fn (float $v): bool => $v <= 1.0)), count(array_filter($rms, static fn (float $v): bool => $v <= 2.0)), count(array_filter($within)), count(array_filter($worst, static fn (float $v): bool => $v > 0.02)));
}
