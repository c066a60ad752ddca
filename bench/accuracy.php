<?php

declare(strict_types=1);

// How true the true-up is, over simulated scans with known truth: skew, picks by kind of target, fits from refined picks, the
// coverage of ±, and whether the right model is offered. OpenCV beside ours where it has the function.
// Usage: accuracy.php FOLDER [skew|picks|fits]

use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\DraftingError;
use Plinth\Core\Fitting\Exception\FittingException;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\Offer;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Fitting\Standing;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Pages\Skew;
use Plinth\Core\Ink\Picks\FoundKind;
use Plinth\Core\Ink\Picks\PickRefinement;
use Plinth\Core\Units\Length;
use Plinth\Core\Units\LengthParser;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '2G');

/**
 * Places that a designer would pick: corners and faces of rooms, column centres, axis crossings; with the direction of a face.
 *
 * @param array<string, mixed> $truth
 *
 * @return list<array{string, Point, array{float, float}|null}>
 */
function targets(array $truth): array
{
    $targets = [];
    $openings = [];
    foreach ($truth['openings'] ?? [] as $o) {
        foreach ($truth['walls'] ?? [] as $w) {
            if ($w['id'] === $o['wall']) {
                $l = hypot($w['to'][0] - $w['from'][0], $w['to'][1] - $w['from'][1]);
                $at = $o['offset'] + $o['width'] / 2;
                $openings[] = [$w['from'][0] + ($w['to'][0] - $w['from'][0]) * $at / $l, $w['from'][1] + ($w['to'][1] - $w['from'][1]) * $at / $l, $o['width'] / 2 + 350];
            }
        }
    }
    foreach ($truth['rooms'] ?? [] as $room) {
        $n = count($room['polygon']);
        foreach ($room['polygon'] as $i => [$x, $y]) {
            [$x2, $y2] = $room['polygon'][($i + 1) % $n];
            $targets[] = ['corner', new Point($x, $y), null];
            $l = hypot($x2 - $x, $y2 - $y);
            foreach ([0.3, 0.6] as $t) {
                $p = [$x + $t * ($x2 - $x), $y + $t * ($y2 - $y)];
                if ($l > 1200 && [] === array_filter($openings, static fn (array $o): bool => hypot($o[0] - $p[0], $o[1] - $p[1]) < $o[2] + 300)) {
                    $targets[] = ['face', new Point(...$p), [($x2 - $x) / $l, ($y2 - $y) / $l]];
                }
            }
        }
    }
    foreach ($truth['columns'] ?? [] as $c) {
        $targets[] = ['column', new Point(...($c['centre'] ?? $c['at'])), null];
    }

    return $targets;
}

function picks(string $folder): void
{
    echo "Picks: a pick up to 5 px beside its target (less beside thin walls), refined; error in px of the page (median / 90 %), and how many were taken for what they are\n";
    mt_srand(4);
    $all = [];
    $time = 0.0;
    $count = 0;
    foreach (trials($folder) as $name => [$truth, $raster]) {
        $map = mapOf($truth);
        $small = $raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200)));
        $lightOnDark = Paper::of($small)->lightOnDark;
        $byKind = [];
        // Nearer to its target than to the other face of the thinnest wall: nobody could tell otherwise.
        $thin = min([99.0, ...array_column($truth['walls'] ?? [], 'thickness')]) / ($truth['mmPerPixel'] ?? 1.0);
        $beside = min(5.0, 0.4 * $thin);
        foreach (targets($truth) as [$kind, $point, $direction]) {
            $true = $map->toPixel($point);
            $angle = uniform(0, 2 * \M_PI);
            $off = uniform(0, $beside);
            $from = new PixelPoint($true->x + $off * cos($angle), $true->y + $off * sin($angle));
            $start = hrtime(true);
            $found = PickRefinement::near($raster->page($lightOnDark), $from, 10.0, $truth['mmPerPixel'] ?? null);
            $time += (hrtime(true) - $start) / 1e6;
            ++$count;
            $byKind[$kind] ??= [[], 0, 0, 0, 0];
            ++$byKind[$kind][1];
            if (null === $found) {
                ++$byKind[$kind][3];
                continue;
            }
            if ('face' === $kind) {
                $ahead = $map->toPixel(new Point($point->x + 100 * $direction[0], $point->y + 100 * $direction[1]));
                [$ux, $uy] = [($ahead->x - $true->x) / $ahead->distanceTo($true), ($ahead->y - $true->y) / $ahead->distanceTo($true)];
                $error = abs(($found->at->x - $true->x) * $uy - ($found->at->y - $true->y) * $ux);
            } else {
                $error = $found->at->distanceTo($true);
            }
            $byKind[$kind][0][] = $error;
            $fits = match ($kind) {
                'corner' => in_array($found->kind, [FoundKind::Corner, FoundKind::Crossing], true),
                'face' => in_array($found->kind, [FoundKind::Face, FoundKind::Line], true),
                default => in_array($found->kind, [FoundKind::Column, FoundKind::Crossing], true),
            };
            $byKind[$kind][2] += $fits ? 1 : 0;
            $byKind[$kind][4] += $error <= 3 * max(0.35, $found->sigmaPx) ? 1 : 0;
            if ($fits) {
                $all[$kind][] = $error;
            }
            if (getenv('PLINTH_TELL') && (!$fits || $error > 1.0)) {
                printf("      %s %s true %.1f,%.1f from %.1f,%.1f found %.1f,%.1f %s σ %.2f\n", $name, $kind, $true->x, $true->y, $from->x, $from->y, $found->at->x, $found->at->y, $found->kind->value, $found->sigmaPx);
            }
        }
        $notes = [];
        foreach ($byKind as $kind => [$errors, $n, $right, $missed]) {
            $notes[] = sprintf('%s %.2f / %.2f, %d of %d right kind, %d nothing', $kind, quantile($errors, 0.5), quantile($errors, 0.9), $right, $n, $missed);
        }
        printf("  %-24s %s\n", $name, [] === $notes ? 'no targets' : implode('; ', $notes));
    }
    foreach ($all as $kind => $errors) {
        printf("  all of the right kind: %-8s median %.3f px, 90 %% %.2f px (%d)\n", $kind, quantile($errors, 0.5), quantile($errors, 0.9), count($errors));
    }
    printf("  %.2f ms a pick\n", $time / max(1, $count));
}

function skews(string $folder): void
{
    echo "Skew in degrees, modulo 90 (ours, OpenCV's line segments beside)\n";
    $off = [];
    foreach (trials($folder) as $name => [$truth, $raster]) {
        $file = sys_get_temp_dir().'/skew-'.getmypid().'.pgm';
        file_put_contents($file, "P5\n{$raster->width} {$raster->height}\n255\n".$raster->bytes);
        $start = hrtime(true);
        $skew = Skew::of($raster);
        $ms = (hrtime(true) - $start) / 1e6;
        $theirs = json_decode((string) shell_exec('/usr/bin/python3 '.escapeshellarg(__DIR__.'/outside/skew.py').' '.escapeshellarg($file)), true)['degrees'];
        unlink($file);
        $away = static fn (?float $degrees): float => null === $degrees ? NAN : abs(fmod($degrees - $truth['skewDegrees'] + 45 + 360, 90) - 45);
        $kind = isset($truth['perspective']) && $truth['perspective'] ? 'photographs' : 'flat pages';
        if (isset($truth['skewDegrees'])) {
            $off[$kind][] = [$away($skew?->degrees), $away($theirs)];
            printf("  %-24s %-11s true %8.4f, off by %.4f (OpenCV %.4f), ± %.4f, confidence %.2f, %.0f ms\n", $name, $kind, $truth['skewDegrees'], $away($skew?->degrees), $away($theirs), 2 * ($skew?->sigmaDegrees ?? NAN), $skew->confidence ?? 0, $ms);
        }
    }
    foreach ($off as $kind => $pairs) {
        printf("  %s: median %.4f, worst %.4f (OpenCV %.4f, %.4f)\n", $kind, quantile(array_column($pairs, 0), 0.5), max(array_column($pairs, 0)), quantile(array_column($pairs, 1), 0.5), max(array_column($pairs, 1)));
    }
}

/**
 * Where a hand would pick a point of the model, refined by the ink; null where nothing was found.
 *
 * @return array{PixelPoint, float, FoundKind}|null
 */
function picked(GreyRaster $raster, PixelToMm $map, Point $at, float $beside, bool $lightOnDark, float $mmPerPixel): ?array
{
    $true = $map->toPixel($at);
    $angle = uniform(0, 2 * \M_PI);
    $off = uniform(0, $beside);
    $found = PickRefinement::near($raster->page($lightOnDark), new PixelPoint($true->x + $off * cos($angle), $true->y + $off * sin($angle)), 10.0, $mmPerPixel);

    return null === $found ? null : [$found->at, $found->sigmaPx, $found->kind];
}

/**
 * Lengths as figured on the drawing between corners that the ink shows, and grid lines along long faces; picks refined.
 *
 * @param array<string, mixed> $truth
 * @param list<int> $which of its dimensions
 */
function statements(array $truth, GreyRaster $raster, array $which, bool $lightOnDark, Model $model, int $lines = 1): Observations
{
    $map = mapOf($truth);
    $thin = min([99.0, ...array_column($truth['walls'], 'thickness')]) / $truth['mmPerPixel'];
    $beside = min(4.0, 0.4 * $thin);
    $picks = [];
    $lengths = [];
    $add = static function (string $id, array $at) use (&$picks, $raster, $map, $beside, $lightOnDark, $truth): bool {
        // Before a drawing is trued its scale is taken for 1:100.
        $found = picked($raster, $map, new Point(...$at), $beside, $lightOnDark, $truth['mmPerPixel'] * 100 / $truth['scale']);
        if (null !== $found) {
            $picks[$id] = new Pick($id, $found[0], $found[1]);
        }

        return null !== $found;
    };
    foreach ($which as $k) {
        $d = $truth['dimensions'][$k];
        if ($add("a$k", $d['from']) && $add("b$k", $d['to'])) {
            $step = $d['step'] ?? (isset($d['text']) ? LengthParser::parse($d['text'])->stepMm : 1.0);
            $sigma = static fn (float $drafting): float => Standing::Figured->sigmaMm(Length::ofMillimetres($d['value'], $step), $truth['scale'], $drafting);
            $along = abs($d['to'][0] - $d['from'][0]) > abs($d['to'][1] - $d['from'][1]) ? Along::X : Along::Y;
            $lengths[] = static fn (float $drafting): KnownLength => new KnownLength("l$k", "a$k", "b$k", $d['value'], $sigma($drafting), $along);
        }
    }
    $grid = [];
    foreach (['x' => 0, 'y' => 1] as $axis => $n) {
        $walls = array_filter($truth['walls'], static fn (array $w): bool => abs($w['to'][1 - $n] - $w['from'][1 - $n]) < 1);
        usort($walls, static fn (array $a, array $b): int => abs($b['to'][$n] - $b['from'][$n]) <=> abs($a['to'][$n] - $a['from'][$n]));
        foreach (array_slice($walls, 0, $lines) as $i => $w) {
            $at = static fn (float $t): array => [$w['from'][0] + $t * ($w['to'][0] - $w['from'][0]) + (1 === $n ? $w['thickness'] / 2 : 0), $w['from'][1] + $t * ($w['to'][1] - $w['from'][1]) + (0 === $n ? $w['thickness'] / 2 : 0)];
            if ($add("g$axis$i", $at(0.08)) && $add("h$axis$i", $at(0.92))) {
                $grid[] = new GridPick("$axis$i", "g$axis$i", "h$axis$i", $n * \M_PI_2);
            }
        }
    }

    $with = static fn (float $drafting): Observations => new Observations(array_values($picks), array_map(static fn (callable $l): KnownLength => $l($drafting), $lengths), $grid);
    try {
        return $with(DraftingError::factor((new Fitter($model->shape()))->fit($with(1.0), new PageFrame($raster->width, $raster->height), FitStart::unknown())));
    } catch (FittingException) {
        return $with(1.0);
    }
}

/** By the simplest model that no offer contradicts, as a designer who takes the offers would have it. */
function offered(Observations $observations, PageFrame $frame): Fit
{
    $fit = (new Fitter())->fit($observations, $frame, FitStart::unknown());
    while (null !== ($offer = Offer::beyond($fit, $observations, $frame, FitStart::unknown()))) {
        $fit = $offer->fit;
    }

    return $fit;
}

function fits(string $folder): void
{
    echo "Fits from lengths as figured along both axes and two grid lines, picks refined: RMS over the drawing in px after best turn and shift, model offered, ± over 10 m and what it ought to cover\n";
    mt_srand(8);
    [$covered, $cases, $scatter, $rms, $models] = [0, 0, [], [], [0, 0]];
    foreach (trials($folder) as $name => [$truth, $raster]) {
        if ('plan' !== ($truth['kind'] ?? 'plan')) {
            continue;
        }
        $isPhoto = $truth['perspective'];
        $lightOnDark = Paper::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200))))->lightOnDark;
        $frame = new PageFrame($raster->width, $raster->height);
        $true = mapOf($truth);
        // Figures along the drawing's own axes whose ends lie on faces; the wrong one on purpose left out.
        $usable = [];
        $truth['dimensions'] = [...$truth['dimensions'], ...roomSizes($truth)];
        foreach ($truth['dimensions'] as $k => $d) {
            $slope = min(abs($d['to'][0] - $d['from'][0]), abs($d['to'][1] - $d['from'][1])) / max(1, $d['measured']);
            $alongX = abs($d['to'][0] - $d['from'][0]) > abs($d['to'][1] - $d['from'][1]);
            if (!($d['notToScale'] ?? false) && $slope < 0.01 && $d['measured'] / $truth['mmPerPixel'] > 120 && onFace($truth, $d['from'], $alongX) && onFace($truth, $d['to'], $alongX)) {
                $usable[$alongX ? 'x' : 'y'][] = $k;
            }
        }
        if (count($usable['x'] ?? []) < 2 || count($usable['y'] ?? []) < 2) {
            printf("  %-24s too few figures along both axes\n", $name);
            continue;
        }
        foreach ($usable as &$list) {
            usort($list, static fn (int $a, int $b): int => $truth['dimensions'][$b]['measured'] <=> $truth['dimensions'][$a]['measured']);
        }
        unset($list);
        if ($isPhoto) {
            $observations = statements($truth, $raster, [...array_slice($usable['x'], 0, 6), ...array_slice($usable['y'], 0, 6)], $lightOnDark, Model::Perspective, 4);
            try {
                $fit = (new Fitter(Model::Perspective->shape()))->fit($observations, $frame, FitStart::unknown());
                printf("  %-24s photograph, %d lengths and %d grid lines: RMS %.3f px, ±%.1f mm over 10 m\n", $name, count($observations->lengths), count($observations->grid), rmsPx($fit->pixelToMm, $true, $truth), $fit->plusMinusMmPer10m);
            } catch (FittingException $e) {
                printf("  %-24s photograph: %s\n", $name, $e->getMessage());
            }
            continue;
        }
        $observations = statements($truth, $raster, [...array_slice($usable['x'], 0, 3), ...array_slice($usable['y'], 0, 3)], $lightOnDark, Model::Similar);
        $fit = offered($observations, $frame);
        $isStretched = abs($truth['stretch']['x'] / $truth['stretch']['y'] - 1) > 0.001;
        ++$models[(Model::Similar !== $fit->model) === $isStretched ? 0 : 1];
        $rms[] = rmsPx($fit->pixelToMm, $true, $truth);
        $factor = $isStretched ? sprintf(', factor off by %.4f %%', 100 * abs($fit->stretch()['y'] / $fit->stretch()['x'] / ($truth['stretch']['x'] / $truth['stretch']['y']) - 1)) : '';
        printf("  %-24s %-9s %s%s, RMS %.3f px, ±%.1f mm over 10 m\n", $name, $fit->model->value, (Model::Similar !== $fit->model) === $isStretched ? 'right' : 'WRONG', $factor, end($rms), $fit->plusMinusMmPer10m);
        $mine = [];
        $shape = ($isStretched ? Model::Stretched : Model::Similar)->shape();
        for ($i = 0; $i < 40; ++$i) {
            shuffle($usable['x']);
            shuffle($usable['y']);
            $observations = statements($truth, $raster, [...array_slice($usable['x'], 0, 2), ...array_slice($usable['y'], 0, 2)], $lightOnDark, $isStretched ? Model::Stretched : Model::Similar);
            try {
                $fit = (new Fitter($shape))->fit($observations, $frame, FitStart::unknown());
            } catch (FittingException) {
                continue;
            }
            $part = worstScale($fit->pixelToMm, $true, $truth);
            ++$cases;
            $covered += abs($part) * 10_000 <= $fit->plusMinusMmPer10m ? 1 : 0;
            $mine[] = $scatter[] = $part * 10_000 / ($fit->plusMinusMmPer10m / 2);
        }
        printf("      40 other choices of two and two: true scatter over half of ± is %.2f, largest %.1f\n", sqrt(array_sum(array_map(static fn (float $v): float => $v * $v, $mine)) / max(1, count($mine))), [] === $mine ? 0 : max(array_map(abs(...), $mine)));
    }
    rsort($rms);
    printf("  RMS median %.3f px, worst %.3f px (target 0.3); right model in %d of %d\n", quantile($rms, 0.5), $rms[0], $models[0], array_sum($models));
    printf("  ± over 10 m covers the truth in %.1f %% of %d cases of two lengths along each axis (target 93.6–97.3 for normal errors); true scatter over half of ± is %.2f (within 0.5 to 2)\n", 100 * $covered / $cases, $cases, sqrt(array_sum(array_map(static fn (float $v): float => $v * $v, $scatter)) / count($scatter)));
}

/**
 * Width and depth of rooms of four corners, rounded as the drawing's figures are: to a centimetre, or to an inch.
 *
 * @return list<array{from: array{float, float}, to: array{float, float}, value: float, measured: float, step: float}>
 */
function roomSizes(array $truth): array
{
    $step = ($truth['style']['imperial'] ?? false) ? 25.4 : 10.0;
    $sizes = [];
    foreach ($truth['rooms'] as $room) {
        if (4 === count($room['polygon'])) {
            foreach ([[0, 1], [1, 2], [2, 3], [3, 0]] as [$i, $j]) {
                [$from, $to] = [$room['polygon'][$i], $room['polygon'][$j]];
                $measured = hypot($to[0] - $from[0], $to[1] - $from[1]);
                $sizes[] = ['from' => $from, 'to' => $to, 'measured' => $measured, 'value' => round($measured / $step) * $step, 'step' => $step];
            }
        }
    }

    return $sizes;
}

/**
 * Whether a figure ends here on a face or at a corner, away from openings.
 *
 * @param array{float, float} $at
 */
function onFace(array $truth, array $at, bool $alongX): bool
{
    foreach ($truth['openings'] as $o) {
        foreach ($truth['walls'] as $w) {
            if ($w['id'] === $o['wall']) {
                $l = hypot($w['to'][0] - $w['from'][0], $w['to'][1] - $w['from'][1]);
                foreach ([$o['offset'], $o['offset'] + $o['width']] as $t) {
                    $jamb = [$w['from'][0] + ($w['to'][0] - $w['from'][0]) * $t / $l, $w['from'][1] + ($w['to'][1] - $w['from'][1]) * $t / $l];
                    if (hypot($jamb[0] - $at[0], $jamb[1] - $at[1]) < 500) {
                        return false;
                    }
                }
            }
        }
    }
    [$x1, $y1, $x2, $y2] = $truth['extent'];
    $rings = [[[$x1, $y1], [$x2, $y1], [$x2, $y2], [$x1, $y2]], ...array_column($truth['rooms'], 'polygon')];
    foreach ($rings as $ring) {
        foreach ($ring as $i => [$x, $y]) {
            [$u, $v] = $ring[($i + 1) % count($ring)];
            // A face that runs across the figure, with the end on it and not beside its end, or a corner.
            $across = $alongX ? abs($u - $x) < 0.5 && abs($x - $at[0]) < 0.5 && $at[1] >= min($y, $v) - 0.5 && $at[1] <= max($y, $v) + 0.5
                : abs($v - $y) < 0.5 && abs($y - $at[1]) < 0.5 && $at[0] >= min($x, $u) - 0.5 && $at[0] <= max($x, $u) + 0.5;
            if ($across) {
                return true;
            }
        }
    }

    return false;
}

/** Relative error of a true length in the direction in which it is largest. */
function worstScale(PixelToMm $fit, PixelToMm $true, array $truth): float
{
    [$x1, $y1, $x2, $y2] = $truth['extent'];
    $c = new Point(($x1 + $x2) / 2, ($y1 + $y2) / 2);
    $worst = 0.0;
    foreach ([[1, 0], [0, 1], [M_SQRT1_2, M_SQRT1_2], [M_SQRT1_2, -M_SQRT1_2]] as [$dx, $dy]) {
        $a = $fit->toMm($true->toPixel(new Point($c->x - 2500 * $dx, $c->y - 2500 * $dy)));
        $b = $fit->toMm($true->toPixel(new Point($c->x + 2500 * $dx, $c->y + 2500 * $dy)));
        $part = $a->distanceTo($b) / 5000 - 1;
        $worst = abs($part) > abs($worst) ? $part : $worst;
    }

    return $worst;
}

$folder = $argv[1] ?? exit("Usage: accuracy.php FOLDER [skew|picks|fits]\n");
$part = $argv[2] ?? 'all';
if ('all' === $part || 'skew' === $part) {
    skews($folder);
}
if ('all' === $part || 'picks' === $part) {
    picks($folder);
}
if ('all' === $part || 'fits' === $part) {
    fits($folder);
}
