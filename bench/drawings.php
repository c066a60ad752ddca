<?php

declare(strict_types=1);

// Simulated scans with their truth, for the figures on accuracy.

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Reading\PageFigure;

/**
 * Drawings with one truth each, their grey values read through the picture tool.
 *
 * @param string $named what their names hold
 *
 * @return iterable<string, array{array<string, mixed>, GreyRaster, string}>
 */
function trials(string $folder, string $named = ''): iterable
{
    foreach (glob($folder.'/*'.$named.'*.truth.json') ?: [] as $file) {
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

/**
 * Whether a figure that was read says what a true dimension is written as: its text may be rounded the other way from its value.
 *
 * @param array<string, mixed> $dimension
 */
function saysSo(PageFigure $figure, array $dimension): bool
{
    $plain = static fn (string $text): string => str_replace([' ', ','], '', $text);

    return abs($dimension['value'] - $figure->mm) < max(1.0, 0.51 * $figure->stepMm) || $plain($dimension['text']) === $plain($figure->text);
}

/**
 * What a scorer says of a result.
 *
 * @param 'walls'|'rooms'|'fit' $what
 * @param string $frame in which the result's places are told
 *
 * @return array<string, mixed>
 */
function scored(string $score, string $work, string $what, array $result, array $truth, string $frame = 'auto'): array
{
    file_put_contents($work.'.r.json', json_encode($result));
    file_put_contents($work.'.t.json', json_encode($truth));

    return json_decode((string) shell_exec(implode(' ', array_map(escapeshellarg(...), ['/usr/bin/python3', $score, $what, $work.'.r.json', $work.'.t.json', '--frame', $frame]))), true) ?? [];
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

/** RMS distance over the drawing in px of the page, after the best turn and shift. */
function rmsPx(PixelToMm $fit, PixelToMm $true, array $truth): float
{
    [$x1, $y1, $x2, $y2] = $truth['extent'];
    $ours = $theirs = [];
    for ($i = 0; $i <= 8; ++$i) {
        for ($j = 0; $j <= 8; ++$j) {
            $mm = new Point($x1 + ($x2 - $x1) * $i / 8, $y1 + ($y2 - $y1) * $j / 8);
            $got = $fit->toMm($true->toPixel($mm));
            $theirs[] = [$mm->x, $mm->y];
            $ours[] = [$got->x, $got->y];
        }
    }
    $n = count($ours);
    [$ox, $oy, $tx, $ty] = [array_sum(array_column($ours, 0)) / $n, array_sum(array_column($ours, 1)) / $n, array_sum(array_column($theirs, 0)) / $n, array_sum(array_column($theirs, 1)) / $n];
    [$dot, $cross] = [0.0, 0.0];
    foreach ($ours as $k => [$x, $y]) {
        [$u, $v] = [$theirs[$k][0] - $tx, $theirs[$k][1] - $ty];
        $dot += ($x - $ox) * $u + ($y - $oy) * $v;
        $cross += ($x - $ox) * $v - ($y - $oy) * $u;
    }
    [$c, $s] = [$dot / hypot($dot, $cross), $cross / hypot($dot, $cross)];
    $sum = 0.0;
    foreach ($ours as $k => [$x, $y]) {
        [$u, $v] = [$c * ($x - $ox) - $s * ($y - $oy) + $tx, $s * ($x - $ox) + $c * ($y - $oy) + $ty];
        $sum += ($u - $theirs[$k][0]) ** 2 + ($v - $theirs[$k][1]) ** 2;
    }

    return sqrt($sum / $n) / $truth['mmPerPixel'];
}
