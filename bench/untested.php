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
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Pages\Leaning;
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

/** A photograph straightened by its own lines: what is left of its skew, degrees, and how far the drawing is off, px. */
function straightened(PixelToMm $true, array $truth, PageFrame $frame, Leaning $leaning, array $use): array
{
    [$x1, $y1, $x2, $y2] = $truth['extent'];
    [$picks, $grid, $lengths] = [[], [], []];
    $pick = static function (PixelPoint $at, float $sigma) use (&$picks): string {
        $picks[] = new Pick('p'.count($picks), $at, $sigma);

        return end($picks)->id;
    };
    $corners = array_map($true->toPixel(...), [new Point($x1, $y1), new Point($x2, $y1), new Point($x2, $y2), new Point($x1, $y2)]);
    [$xs, $ys] = [array_map(static fn (PixelPoint $p): float => $p->x, $corners), array_map(static fn (PixelPoint $p): float => $p->y, $corners)];
    $box = new PixelBox(min($xs), min($ys), max($xs) - min($xs), max($ys) - min($ys));
    $isTurned = 1 === (int) round($true->turnRadAt($frame->centre) / \M_PI_2) % 2 || -1 === (int) round($true->turnRadAt($frame->centre) / \M_PI_2) % 2;
    foreach ($leaning->lines($box, $frame->widthPx, $frame->heightPx) as $k => $line) {
        $grid[] = new GridPick('g'.$k, $pick($line->a, $line->sigmaPx), $pick($line->b, $line->sigmaPx), $line->runsDown === $isTurned ? 0.0 : \M_PI_2);
    }
    foreach ($use[0] as $k => [$u1, $v1, $u2, $v2]) {
        [$a, $b] = [new Point($x1 + $u1 * ($x2 - $x1), $y1 + $v1 * ($y2 - $y1)), new Point($x1 + $u2 * ($x2 - $x1), $y1 + $v2 * ($y2 - $y1))];
        $at = static function (Point $p) use ($true): PixelPoint {
            $px = $true->toPixel($p);

            return new PixelPoint($px->x + 0.5 * normal(), $px->y + 0.5 * normal());
        };
        $lengths[] = new KnownLength('l'.$k, $pick($at($a), 0.5), $pick($at($b), 0.5), round($a->distanceTo($b), -1), 4.0);
    }
    $start = FitStart::from(PixelToMm::similar($true->mmPerPixelAt($frame->centre), $true->turnRadAt($frame->centre), $frame->centre, new Point(0.0, 0.0)), $frame);
    $fit = (new Fitter(Model::Perspective->shape()))->fit(new Observations($picks, $lengths, $grid), $frame, $start);
    $middle = new Point(($x1 + $x2) / 2.0, ($y1 + $y2) / 2.0);
    [$p, $q] = array_map(static fn (float $dx): Point => $fit->pixelToMm->toMm($true->toPixel(new Point($middle->x + $dx, $middle->y))), [-1000.0, 1000.0]);
    $skew = abs(rad2deg(atan(($q->y - $p->y) / ($q->x - $p->x))));

    return [$skew, rmsPx($fit->pixelToMm, $true, $truth), 10_000.0 * abs($p->distanceTo($q) / 2000.0 - 1.0), $fit->plusMinusMmPer10m];
}

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
$straight = [];
$leans = ['photographs' => [0, 0], 'flat ones' => [0, 0]];
foreach (trials($argv[1]) as $name => [$truth, $raster]) {
    if (!isset($truth['extent'])) {
        continue;
    }
    $true = mapOf($truth);
    $leaning = Skew::of($raster)?->leaning;
    $what = $truth['perspective'] ? 'photographs' : 'flat ones';
    ++$leans[$what][1];
    $leans[$what][0] += true === $leaning?->isSlanted() ? 1 : 0;
    $beforehand = Beforehand::picture();
    $kind = $truth['perspective'] ? 'photograph' : (abs(log($truth['stretch']['x'] / $truth['stretch']['y'])) < 1e-4 ? 'true scan' : 'stretched copy');
    $known = null === $leaning ? $beforehand : $beforehand->leaning(...$leaning->told());
    if ($truth['perspective'] && true === $leaning?->isSlanted()) {
        foreach (['one length across', 'one each way'] as $use) {
            $straight[$use][$name] = straightened($true, $truth, new PageFrame($raster->width, $raster->height, $known), $leaning, USES[$use]);
        }
    }
    foreach (USES as $use => $statements) {
        foreach (['told beforehand' => $known, 'nothing' => Beforehand::exact()] as $how => $b) {
            [$error, $plusMinus] = told($true, $truth, new PageFrame($raster->width, $raster->height, $b), $statements);
            $all[$how][$kind][] = $all[$how]['all'][] = $all[$how][$use][] = $all[$how][$kind.', '.$use][] = [$error <= $plusMinus, $error, $plusMinus];
        }
    }
}
printf("Taken for photographs by their lines: %d of %d photographs, %d of %d flat ones.\n\n", ...$leans['photographs'], ...$leans['flat ones']);
foreach ($straight as $use => $cases) {
    printf("Photographs straightened by their lines, %s: skew median %.3f°, worst %.3f°; RMS median %.2f px, within 2 px %d of %d\n", $use, quantile(array_column($cases, 0), 0.5), max(array_column($cases, 0)), quantile(array_column($cases, 1), 0.5), count(array_filter($cases, static fn (array $c): bool => $c[1] <= 2.0)), count($cases));
    foreach ($cases as $name => [$skew, $rms, , $plusMinus]) {
        printf("  %-26s skew %.3f°, RMS %6.2f px, ±%.0f mm over 10 m\n", $name, $skew, $rms, $plusMinus);
    }
}
foreach ($all as $how => $by) {
    printf("± with %s\n", 'nothing' === $how ? 'proportions taken for true' : 'what is known beforehand');
    foreach ($by as $of => $cases) {
        $covered = count(array_filter(array_column($cases, 0)));
        printf("  %-24s %4d cases  covered %5.1f %%  median error %5.1f mm, median ± %6.1f mm over 10 m\n", $of, count($cases), 100 * $covered / count($cases), quantile(array_column($cases, 1), 0.5), quantile(array_column($cases, 2), 0.5));
    }
}
