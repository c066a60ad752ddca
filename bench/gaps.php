<?php

declare(strict_types=1);

// Openings by one click: where the ink's gap has its jambs, what it is, and where the leaf stands, over simulated scans with known truth.
// Usage: gaps.php FOLDER

use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Picks\Gap;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '2G');
mt_srand(13);
[$all, $found, $widths, $kinds, $leaves, $ms] = [0, 0, [], [0, 0], [0, 0], []];
echo "Openings by one click within their middle: found, width off, kind, leaf\n";
foreach (trials($argv[1] ?? exit("Usage: gaps.php FOLDER\n")) as $name => [$truth, $raster]) {
    if ([] === ($truth['openings'] ?? []) || !isset($truth['walls'])) {
        continue;
    }
    $lightOnDark = Paper::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200))))->lightOnDark;
    $map = mapOf($truth);
    $walls = array_column($truth['walls'], null, 'id');
    [$mine, $hits, $right, $leaf, $leafRight, $wide] = [0, 0, 0, 0, 0, []];
    foreach ($truth['openings'] as $o) {
        $w = $walls[$o['wall']];
        $l = hypot($w['to'][0] - $w['from'][0], $w['to'][1] - $w['from'][1]);
        [$ux, $uy] = [($w['to'][0] - $w['from'][0]) / $l, ($w['to'][1] - $w['from'][1]) / $l];
        $t = $o['offset'] + $o['width'] * uniform(0.3, 0.7);
        ++$mine;
        $from = hrtime(true);
        $gap = Gap::around($raster->page($lightOnDark), $map, new Point(...$w['from']), new Point(...$w['to']), $w['thickness'], new Point($w['from'][0] + $t * $ux, $w['from'][1] + $t * $uy));
        $ms[] = (hrtime(true) - $from) / 1e6;
        if (null === $gap || abs($gap->width - $o['width']) > 150 || abs($gap->from - $o['offset']) > 150) {
            continue;
        }
        ++$hits;
        $wide[] = max(abs($gap->width - $o['width']), abs($gap->from - $o['offset'])) / $truth['mmPerPixel'];
        $right += $gap->lined === ('window' === $o['kind']) ? 1 : 0;
        if ('door' === $o['kind'] && isset($o['hinge'], $o['opensTo'])) {
            ++$leaf;
            $hinge = ($o['hinge'][0] - $w['from'][0]) * $ux + ($o['hinge'][1] - $w['from'][1]) * $uy;
            $leafRight += $gap->leafSide === $o['opensTo'] && $gap->leafAt === ($hinge < $o['offset'] + $o['width'] / 2 ? 'near' : 'far') ? 1 : 0;
        }
    }
    printf("  %-24s %d of %d found, jambs median %.2f px, worst %.2f px; kind right %d; leaf right %d of %d\n", $name, $hits, $mine, quantile($wide, 0.5), [] === $wide ? NAN : max($wide), $right, $leafRight, $leaf);
    $all += $mine;
    $found += $hits;
    $widths = [...$widths, ...$wide];
    $kinds = [$kinds[0] + $right, $kinds[1] + $hits];
    $leaves = [$leaves[0] + $leafRight, $leaves[1] + $leaf];
}
printf("  all: %d of %d found, jambs median %.2f px, nine in ten within %.2f px; kind right %d of %d, leaf right %d of %d; %.1f ms each\n", $found, $all, quantile($widths, 0.5), quantile($widths, 0.9), ...[...$kinds, ...$leaves, quantile($ms, 0.5)]);
