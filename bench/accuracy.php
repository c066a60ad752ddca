<?php

declare(strict_types=1);

// How true the true-up is, over simulated scans with known truth: skew, picks by kind of target, fits from refined picks, the
// coverage of ±, and whether the right model is offered. OpenCV beside ours where it has the function.
// Usage: accuracy.php FOLDER [skew|picks|fits]

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\FoundKind;
use Plinth\Core\Ink\GreyRaster;
use Plinth\Core\Ink\Paper;
use Plinth\Core\Ink\PickRefinement;
use Plinth\Core\Ink\Skew;

require __DIR__.'/../vendor/autoload.php';

ini_set('memory_limit', '2G');

/**
 * Drawings with one truth each, their grey values read through the picture tool.
 *
 * @return iterable<string, array{array<string, mixed>, GreyRaster, string}>
 */
function trials(string $folder): iterable
{
    foreach (glob($folder.'/*.truth.json') ?: [] as $file) {
        $truth = json_decode((string) file_get_contents($file), true);
        $image = $folder.'/'.$truth['image'];
        foreach ($truth['pages'] ?? [$truth] as $k => $page) {
            $name = sprintf('%s%s', basename($file, '.truth.json'), isset($truth['pages']) ? '/'.($k + 1) : '');
            $work = sys_get_temp_dir().'/accuracy-'.getmypid();
            $source = $image;
            if (str_ends_with($image, '.pdf')) {
                $size = max($page['size']);
                exec(sprintf('pdftoppm -png -gray -f %d -l %1$d -scale-to %d -singlefile %s %s', $k + 1, $size, escapeshellarg($image), escapeshellarg($work)));
                $source = $work.'.png';
            }
            $copy = $work.'.src.'.pathinfo($source, \PATHINFO_EXTENSION);
            copy($source, $copy);
            exec(sprintf('vips autorot %s %s && vips colourspace %2$s %s b-w && (vips flatten %3$s %s --background 255 2>/dev/null || cp %3$s %4$s) && (vips cast %4$s %5$s uchar %6$s)', ...array_map(escapeshellarg(...), [$copy, $work.'1.v', $work.'2.v', $work.'3.v', $work.'4.v', '--shift'])), $out, $code);
            $head = unpack('Vwidth/Vheight', (string) file_get_contents($work.'4.v', false, null, 4, 8));
            $raster = new GreyRaster($head['width'], $head['height'], (string) file_get_contents($work.'4.v', false, null, 64, $head['width'] * $head['height']));
            array_map(unlink(...), glob($work.'*') ?: []);
            yield $name => [$page + ['units' => 'mm'], $raster, $image];
        }
    }
}

/** @param list<float> $values */
function quantile(array $values, float $part): float
{
    sort($values);

    return [] === $values ? NAN : $values[(int) min(count($values) - 1, floor($part * count($values)))];
}

function uniform(float $from, float $to): float
{
    return $from + ($to - $from) * mt_rand() / mt_getrandmax();
}

/** @param array<string, mixed> $truth */
function mapOf(array $truth): PixelToMm
{
    return PixelToMm::ofMatrix(array_merge(...$truth['pixelToMm']));
}

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
            $found = PickRefinement::near($raster->crop(...), $from, 10.0, $truth['mmPerPixel'] ?? null, $lightOnDark);
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

$folder = $argv[1] ?? exit("Usage: accuracy.php FOLDER [skew|picks|fits]\n");
$part = $argv[2] ?? 'all';
if ('all' === $part || 'skew' === $part) {
    skews($folder);
}
if ('all' === $part || 'picks' === $part) {
    picks($folder);
}
