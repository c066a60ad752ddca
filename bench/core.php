<?php

declare(strict_types=1);

// The fit beside SciPy: times as the least of several runs, and accuracy by simulation.

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
use Plinth\Core\Tests\Fitting\Noise;
use Plinth\Core\Tests\Plan\AgainstGeos;

require __DIR__.'/measure.php';

Noise::seed(60);
$frame = new PageFrame(9933, 7016);
$true = PixelToMm::similar(5.0, 0.02, $frame->centre, new Point(0, 0));
$picks = [];
$lengths = [];
$rows = [];
for ($i = 0; $i < 60; ++$i) {
    foreach (['a', 'b'] as $end) {
        $picks["$end$i"] = new Pick("$end$i", new PixelPoint(Noise::uniform(0, 9933), Noise::uniform(0, 7016)), 0.5);
    }
    $mm = $true->toMm($picks["a$i"]->at)->distanceTo($true->toMm($picks["b$i"]->at)) + Noise::normal(5.0);
    $lengths[] = new KnownLength("l$i", "a$i", "b$i", $mm, 5.0);
    $rows[] = [$picks["a$i"]->at->x, $picks["a$i"]->at->y, $picks["b$i"]->at->x, $picks["b$i"]->at->y, $mm];
}
$observations = new Observations(array_values($picks), $lengths, [new GridPick('g', 'a0', 'b1', 0.3)]);
$ours = least(static fn () => (new Fitter())->fit($observations, $frame, FitStart::unknown()), 10);
$theirs = python('fit.py', ['rows' => $rows])['ms'];
printf("Fit of 60 known lengths with all its statistics: %.1f ms, SciPy's least_squares (no statistics) %.1f ms, ratio %.2f (target 10 ms)\n", $ours, $theirs, $ours / $theirs);

$covered = 0;
for ($i = 0; $i < 1000; ++$i) {
    $scale = Noise::uniform(3, 8);
    $true = PixelToMm::similar($scale, Noise::uniform(-0.03, 0.03), $frame->centre, new Point(0, 0));
    $spots = [[800, 900], [9000, 950], [820, 6000], [4000, 3000]];
    $picks = array_map(static fn (int $k, array $s): Pick => new Pick("p$k", new PixelPoint($s[0] + Noise::normal(0.7), $s[1] + Noise::normal(0.7)), 0.7), array_keys($spots), $spots);
    $lengths = [];
    foreach ([[0, 1], [0, 2], [2, 3]] as [$a, $b]) {
        $mm = $true->toMm(new PixelPoint(...$spots[$a]))->distanceTo($true->toMm(new PixelPoint(...$spots[$b])));
        $lengths[] = new KnownLength("l$a$b", "p$a", "p$b", round($mm / 50) * 50, 50 / sqrt(12));
    }
    $fit = (new Fitter())->fit(new Observations($picks, $lengths), $frame, FitStart::unknown());
    $covered += abs($fit->mmPerPixel / $scale - 1) * 10_000 <= $fit->plusMinusMmPer10m ? 1 : 0;
}
printf("± over 10 m covers the truth in %.1f %% of 1000 cases with picks of 0.7 px and figures rounded to 50 mm (target 93.6–97.3 %%)\n", $covered / 10);

$plans = (int) ($argv[1] ?? 20_000);
$wrong = [];
for ($first = 1; $first <= $plans; $first += 500) {
    $wrong = [...$wrong, ...AgainstGeos::disagreements($first, min(500, $plans - $first + 1))];
}
printf("Bodies and rooms of %d plans with walls traced twice, beside and across each other: %d disagree with GEOS (target 0)\n", $plans, count($wrong));
foreach ($wrong as $words) {
    echo "  $words\n";
}
