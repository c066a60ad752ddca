<?php

declare(strict_types=1);

// Openings of facades and drawn elevations with known truth: found, false ones, how far off, and whether their ± holds.
// Usage: facades.php FOLDER [NAMED]

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Facades\FacadeOpenings;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Pages\Scene;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/drawings.php';
ini_set('memory_limit', '3G');

[$all, $hits, $false, $offs, $within, $edges, $asTold] = [0, 0, 0, [], 0, 0, 0];
foreach (trials($argv[1], $argv[2] ?? '') as $name => [$truth, $raster]) {
    if ('elevation' !== $truth['kind']) {
        continue;
    }
    $small = $raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200)));
    $paper = Paper::of($small);
    $isPhotograph = Scene::isShown($small, $paper);
    $from = hrtime(true);
    $found = FacadeOpenings::in($raster->page($paper->lightOnDark), new PixelBox(0, 0, $raster->width, $raster->height), mapOf($truth), $isPhotograph, static fn () => null);
    $s = (hrtime(true) - $from) / 1e9;
    $taken = [];
    [$mine, $wrong, $worst] = [0, [], []];
    foreach ($found as $f) {
        [$off, $which, $each] = [INF, null, []];
        foreach ($truth['openings'] as $k => $o) {
            [$l, $b, $r, $t] = $o['rect'];
            $offs1 = [$f->left - $l, $f->right - $r, $f->sill - $b, $f->head - $t];
            $m = max(array_map(abs(...), $offs1));
            if ($m < $off) {
                [$off, $which, $each] = [$m, $k, $offs1];
            }
        }
        if (!$f->isSure()) {
            continue;
        }
        if (4 !== count($each) || $off > 150.0 || isset($taken[$which])) {
            $wrong[] = sprintf('%.0f', $off);
            continue;
        }
        $taken[$which] = true;
        ++$mine;
        $worst[] = sprintf('%.0f', $off);
        $both = 2.0 * hypot($f->sigmas[0], $f->sigmas[1]);
        $asTold += abs($each[1] - $each[0]) <= $both && abs($each[0] + $each[1]) <= $both ? 1 : 0;
        foreach ($each as $k => $v) {
            $offs[] = abs($v);
            $within += abs($v) <= 2.0 * $f->sigmas[$k] ? 1 : 0;
            ++$edges;
        }
    }
    [$all, $hits, $false] = [$all + count($truth['openings']), $hits + $mine, $false + count($wrong)];
    printf("  %s %-22s %d of %d, %d false (%s), %.1f s, %.1f mm/px: worst off %s\n", $isPhotograph ? 'P' : 'D', $name, $mine, count($truth['openings']), count($wrong), implode(' ', $wrong), $s, mapOf($truth)->mmPerPixelAt(new PixelPoint($raster->width / 2, $raster->height / 2)), implode(' ', $worst));
}
printf("  all: %d of %d found, %d false; edges median %.1f mm, nine in ten within %.1f mm; %.3f of them within ±; width and place within ± at %.3f of those found\n", $hits, $all, $false, quantile($offs, 0.5), quantile($offs, 0.9), $within / max(1, $edges), $asTold / max(1, $hits));
