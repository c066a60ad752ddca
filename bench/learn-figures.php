<?php

declare(strict_types=1);

// Learns to read figures from simulated sheets with known truth: the net of the lettering (letter-net.json), from strips cut as the core
// cuts them and from lines that the script draws itself; or what the evidence for a figure weighs (FigureEvidence). The sheets reported
// on are never among them. Usage: learn-figures.php net|evidence FOLDER…

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Reading\Internal\LetterStrip;
use Plinth\Core\Ink\Reading\PageFigure;
use Plinth\Core\Ink\Reading\PageFigures;

require __DIR__.'/measure.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '3G');

/** Whether a figure is among the true ones, with both its ends. */
function isRight(PageFigure $figure, array $truth, PixelToMm $map): bool
{
    [$a, $b] = [$map->toMm($figure->a), $map->toMm($figure->b)];
    foreach ($truth['dimensions'] as $d) {
        [$p, $q] = [new Point(...$d['line'][0]), new Point(...$d['line'][1])];
        $miss = min(max($a->distanceTo($p), $b->distanceTo($q)), max($a->distanceTo($q), $b->distanceTo($p)));
        if (saysSo($figure, $d) && $miss < max(60.0, 6.0 * $truth['mmPerPixel'])) {
            return true;
        }
    }

    return false;
}

$what = $argv[1] ?? '';
[$strips, $rows] = [[], []];
foreach (array_slice($argv, 2) as $folder) {
    foreach (trials($folder) as [$truth, $raster]) {
        if (!isset($truth['dimensions'][0]['line'])) {
            continue;
        }
        $isLight = Paper::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200))))->lightOnDark;
        [$page, $box, $map] = [$raster->page($isLight), new PixelBox(0, 0, $raster->width, $raster->height), mapOf($truth)];
        if ('evidence' === $what) {
            foreach (PageFigures::of($page, $box, static function (float $done): void {})->figures as $figure) {
                $rows[] = ['values' => $figure->evidence->values(), 'true' => isRight($figure, $truth, $map) ? 1.0 : 0.0, 'weight' => 1.0];
            }
            continue;
        }
        foreach (PageFigures::strips($page, $box) as [$at, $strip]) {
            foreach ($truth['dimensions'] as $d) {
                $text = $map->toPixel(new Point(...$d['textAt']));
                if ($text->distanceTo($at) < 0.8 * ($truth['style']['texth'] ?? 2.5) * $truth['scale'] / $truth['mmPerPixel']) {
                    $strips[] = ['ways' => [$strip, LetterStrip::turned($strip)], 'text' => $d['text']];
                }
            }
        }
    }
}
if ('net' === $what) {
    $answer = python('lettering.py', ['strips' => $strips]);
    file_put_contents(__DIR__.'/../core/src/Ink/Reading/Internal/letter-net.json', json_encode($answer['net'], \JSON_UNESCAPED_SLASHES)."\n");
    printf("%d windows, of them those of %d strips of %d; %.3f of those right\n", $answer['windows'], $answer['strips'], count($strips), $answer['rightOnStrips']);
} elseif ('evidence' === $what) {
    $answer = python('logistic.py', ['learn' => $rows, 'test' => []]);
    printf("%d figures, %d right\n  %s\n  Brier %.4f of %.4f\n", count($rows), array_sum(array_column($rows, 'true')), implode(', ', array_map(static fn (string $k, float $v): string => sprintf("'%s' => %.2f", $k, $v), array_keys($answer['weights']), $answer['weights'])), $answer['brier'], $answer['base']);
} else {
    exit("Usage: learn-figures.php net|evidence FOLDER…\n");
}
