<?php

declare(strict_types=1);

// The first figure typed on a drawing, as it is and with the usual slips, at the ends of dimension lines and at walls' faces: how often the
// walls beside its ends speak against it. Usage: slips.php FOLDER

use Plinth\Core\Fitting\Slip;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Picks\WallsBeside;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '2G');
const FACTORS = ['as it is' => 1.0, 'ten times' => 10.0, 'a tenth' => 0.1, 'feet for mm' => 304.8, 'inches for mm' => 25.4, 'a twelfth' => 1.0 / 12.0];
$asked = $seen = array_fill_keys(array_keys(FACTORS), 0);
$n = 0;
foreach (trials($argv[1] ?? exit("Usage: slips.php FOLDER\n")) as [$truth, $raster]) {
    $map = mapOf($truth);
    $isLight = Paper::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200))))->lightOnDark;
    $page = $raster->page($isLight);
    foreach ($truth['dimensions'] ?? [] as $d) {
        foreach ([$d['line'] ?? null, [$d['from'], $d['to']]] as $ends) {
            $mm = null === $ends ? 0.0 : (new Point(...$ends[0]))->distanceTo(new Point(...$ends[1]));
            if ($mm < 800.0) {
                continue;
            }
            ++$n;
            [$a, $b] = array_map(static fn (array $p) => $map->toPixel(new Point(...$p)), $ends);
            $walls = WallsBeside::thicknesses($page, [$a, $b], null);
            foreach (FACTORS as $name => $factor) {
                $slips = array_filter($walls, static fn (float $px): bool => null !== Slip::byWall($factor * $mm, $px * $factor * $mm / $a->distanceTo($b)));
                $asked[$name] += [] === $slips ? 0 : 1;
                $seen[$name] += [] === $walls ? 0 : 1;
            }
        }
    }
}
printf("First figures: %d, a wall shows beside %d of them\n", $n, $seen['as it is']);
foreach ($asked as $name => $count) {
    printf("  %-14s %d questioned (%.1f %% of those with a wall beside)\n", $name, $count, 100.0 * $count / max(1, $seen[$name]));
}
