<?php

declare(strict_types=1);

// Whether ± covers the true error where users leave it: one length, two along one axis, one each way, of scans, stretched copies and
// photographs of which nobody has said what they are. Picks are off as careful ones are; figures are rounded as they are written.
// Usage: untested.php FOLDER

use Plinth\Core\Fitting\Beforehand;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Pages\Skew;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '2G');
mt_srand(18);

function normal(): float
{
    return sqrt(-2.0 * log(uniform(1e-12, 1.0))) * cos(uniform(0.0, 2.0 * \M_PI));
}

/** x1, y1, x2, y2 of each length in parts of the drawing's extent, and whether a line is said to run with the grid. */
const USES = [
    'one length across' => [[[0.0, 0.02, 1.0, 0.02]], false],
    'one down' => [[[0.02, 0.0, 0.02, 1.0]], false],
    'one across, squared' => [[[0.0, 0.5, 1.0, 0.5]], true],
    'two across' => [[[0.0, 0.0, 1.0, 0.0], [0.1, 1.0, 0.8, 1.0]], false],
    'two down, squared' => [[[0.0, 0.0, 0.0, 1.0], [0.7, 0.2, 0.7, 0.9]], true],
    'one each way' => [[[0.0, 0.02, 1.0, 0.02], [0.98, 0.0, 0.98, 1.0]], false],
    'one each way, squared' => [[[0.1, 0.6, 0.9, 0.6], [0.4, 0.0, 0.4, 1.0]], true],
    'two each way, squared' => [[[0.0, 0.0, 1.0, 0.0], [0.0, 1.0, 1.0, 1.0], [0.0, 0.0, 0.0, 1.0], [1.0, 0.0, 1.0, 0.9]], true],
];

/** @param array<string, mixed> $truth */
function told(PixelToMm $true, array $truth, PageFrame $frame, array $use): array
{
    [$x1, $y1, $x2, $y2] = $truth['extent'];
    [$lines, $isSquared] = $use;
    $at = static fn (float $u, float $v): Point => new Point($x1 + $u * ($x2 - $x1), $y1 + $v * ($y2 - $y1));
    $picks = [];
    $pick = static function (Point $p) use (&$picks, $true): string {
        $px = $true->toPixel($p);
        $picks[] = new Pick('p'.count($picks), new PixelPoint($px->x + 0.5 * normal(), $px->y + 0.5 * normal()), 0.5);

        return end($picks)->id;
    };
    $lengths = [];
    foreach ($lines as $k => [$u1, $v1, $u2, $v2]) {
        [$a, $b] = [$at($u1, $v1), $at($u2, $v2)];
        $lengths[] = new KnownLength('l'.$k, $pick($a), $pick($b), round($a->distanceTo($b), -1), 4.0);
    }
    $grid = $isSquared ? [new GridPick('g', $pick($at(0.0, 0.3)), $pick($at(1.0, 0.3)), 0.0)] : [];
    $fit = (new Fitter())->fit(new Observations($picks, $lengths, $grid), $frame, FitStart::unknown());
    $worst = 0.0;
    foreach ([[0.5, 0.5], [0.3, 0.5], [0.7, 0.5], [0.5, 0.3], [0.5, 0.7]] as $place) {
        $middle = $at(...$place);
        foreach ([0.0, 45.0, 90.0, 135.0] as $degrees) {
            [$dx, $dy] = [2000.0 * cos(deg2rad($degrees)), 2000.0 * sin(deg2rad($degrees))];
            $ends = [new Point($middle->x - $dx, $middle->y - $dy), new Point($middle->x + $dx, $middle->y + $dy)];
            [$a, $b] = array_map(static fn (Point $p): Point => $fit->pixelToMm->toMm($true->toPixel($p)), $ends);
            $worst = max($worst, 10_000.0 * abs($a->distanceTo($b) / 4000.0 - 1.0));
        }
    }

    return [$worst, $fit->plusMinusMmPer10m];
}

$all = [];
$leans = ['photographs' => [0, 0], 'flat ones' => [0, 0]];
foreach (trials($argv[1]) as $name => [$truth, $raster]) {
    if (!isset($truth['extent'])) {
        continue;
    }
    $true = mapOf($truth);
    $leaning = Skew::of($raster)?->leaning;
    $what = $truth['perspective'] ? 'photographs' : 'flat ones';
    ++$leans[$what][1];
    $leans[$what][0] += $leaning?->isSlanted() === $truth['perspective'] ? 1 : 0;
    $beforehand = Beforehand::picture();
    $kind = $truth['perspective'] ? 'photograph' : (abs(log($truth['stretch']['x'] / $truth['stretch']['y'])) < 1e-4 ? 'true scan' : 'stretched copy');
    $known = null === $leaning ? $beforehand : $beforehand->leaning(...$leaning->told());
    foreach (USES as $use => $statements) {
        foreach (['told beforehand' => $known, 'nothing' => Beforehand::exact()] as $how => $b) {
            [$error, $plusMinus] = told($true, $truth, new PageFrame($raster->width, $raster->height, $b), $statements);
            $all[$how][$kind][] = $all[$how]['all'][] = $all[$how][$use][] = $all[$how][$kind.', '.$use][] = [$error <= $plusMinus, $error, $plusMinus];
        }
    }
}
printf("Taken for what they are by their lines: %d of %d photographs, %d of %d flat ones.\n\n", ...$leans['photographs'], ...$leans['flat ones']);
foreach ($all as $how => $by) {
    printf("± with %s\n", 'nothing' === $how ? 'proportions taken for true' : 'what is known beforehand');
    foreach ($by as $of => $cases) {
        $covered = count(array_filter(array_column($cases, 0)));
        printf("  %-24s %4d cases  covered %5.1f %%  median error %5.1f mm, median ± %6.1f mm over 10 m\n", $of, count($cases), 100 * $covered / count($cases), quantile(array_column($cases, 1), 0.5), quantile(array_column($cases, 2), 0.5));
    }
}
