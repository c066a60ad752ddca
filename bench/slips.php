<?php

declare(strict_types=1);

// The first figure typed on a drawing, as it is and with the usual slips, at the ends of dimension lines and at the faces that they belong
// to: how often the walls beside its ends, or what is written on the drawing, speak against it. Usage: slips.php FOLDER [PART OF]

use Plinth\Core\Fitting\Slip;
use Plinth\Core\Fitting\WrittenFigure;
use Plinth\Core\Fitting\WrittenSize;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Picks\WallsBeside;
use Plinth\Core\Ink\Reading\PageFigure;
use Plinth\Core\Ink\Reading\PageFigures;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '2G');
/** px that a pick is known to */
const PICK_PX = 0.4;

/** The figure with the two digits swapped that make the least difference, but more than one in a hundred. */
function swapped(float $mm): ?float
{
    $text = (string) (int) round($mm);
    $best = null;
    for ($i = 0; $i + 1 < strlen($text); ++$i) {
        $other = (float) (substr($text, 0, $i).$text[$i + 1].$text[$i].substr($text, $i + 2));
        if (abs($other - $mm) > 0.01 * $mm && (null === $best || abs($other - $mm) < abs($best - $mm))) {
            $best = $other;
        }
    }

    return $best;
}

/** Thickness of the wall that an end lies on a face of, mm. */
function wallAt(array $truth, array $end): ?float
{
    foreach ($truth['walls'] as ['from' => [$ax, $ay], 'to' => [$bx, $by], 'thickness' => $t]) {
        $long = hypot($bx - $ax, $by - $ay);
        $along = (($end[0] - $ax) * ($bx - $ax) + ($end[1] - $ay) * ($by - $ay)) / $long;
        $off = abs(($end[0] - $ax) * ($by - $ay) - ($end[1] - $ay) * ($bx - $ax)) / $long;
        if (abs($off - $t / 2) < 2.0 && $along > -$t && $along < $long + $t) {
            return $t;
        }
    }

    return null;
}

/** @return array<string, float> what may be typed for a true dimension, mm */
function typed(array $truth, array $dimension): array
{
    $mm = $dimension['value'];
    $wall = wallAt($truth, $dimension['from']);

    return array_filter([
        'as it is' => $mm, 'ten times' => 10.0 * $mm, 'a tenth' => $mm / 10.0, 'feet for mm' => 304.8 * $mm, 'inches for mm' => 25.4 * $mm,
        'a twelfth' => $mm / 12.0, 'digits swapped' => swapped($mm), 'outside for inside' => null === $wall ? null : $mm + $wall,
    ]);
}

[$part, $of, $k] = [(int) ($argv[2] ?? 0), (int) ($argv[3] ?? 1), -1];
[$asked, $told] = [[], []];
$sized = 0;
foreach (trials($argv[1] ?? exit("Usage: slips.php FOLDER [PART OF]\n")) as $name => [$truth, $raster]) {
    if (++$k % $of !== $part || [] === ($truth['dimensions'] ?? [])) {
        continue;
    }
    $map = mapOf($truth);
    $isLight = Paper::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200))))->lightOnDark;
    $page = $raster->page($isLight);
    $read = PageFigures::of($page, new PixelBox(0, 0, $raster->width, $raster->height), static function (float $done): void {});
    $size = !$read->isSure || null === $read->map ? null : new WrittenSize($read->map, $read->sigmaPx, PageFigures::SIGMA_PART, array_map(
        static fn (PageFigure $f): WrittenFigure => new WrittenFigure($f->text, $f->mm, $f->a, $f->b),
        $read->sure(),
    ));
    $sized += null === $size ? 0 : 1;
    foreach ($truth['dimensions'] as $d) {
        foreach ([$d['line'] ?? null, [$d['from'], $d['to']]] as $ends) {
            if (null === $ends || $d['value'] < 800.0) {
                continue;
            }
            [$a, $b] = array_map(static fn (array $p) => $map->toPixel(new Point(...$p)), $ends);
            $perPixel = null === $size ? null : $size->mmBetween($a, $b) / $a->distanceTo($b);
            $walls = WallsBeside::thicknesses($page, [$a, $b], $perPixel);
            foreach (typed($truth, $d) as $slip => $mm) {
                // Rounded to a whole number, or to a sixteenth of an inch.
                $sigma = hypot(0.5, M_SQRT2 * PICK_PX * ($perPixel ?? 0.0));
                $isAsked = null !== $size
                    ? null !== Slip::byWriting($mm, $sigma, $a, $b, $size, array_map(static fn (float $px): float => $px * $perPixel, $walls))
                    : [] !== array_filter($walls, static fn (float $px): bool => null !== Slip::byWall($mm, $px * $mm / $a->distanceTo($b)));
                $by = null !== $size ? 'writing' : ([] !== $walls ? 'walls' : 'nothing');
                $told[$slip][$by] = ($told[$slip][$by] ?? 0) + 1;
                $asked[$slip][$by] = ($asked[$slip][$by] ?? 0) + ($isAsked ? 1 : 0);
                if ($isAsked && 'as it is' === $slip) {
                    printf("%s: %s questioned by its %s\n", $name, $d['text'], $by);
                }
            }
        }
    }
}
printf("First figures: %d on drawings that say their size themselves (%d), %d others with a wall beside, %d with neither\n", $told['as it is']['writing'] ?? 0, $sized, $told['as it is']['walls'] ?? 0, $told['as it is']['nothing'] ?? 0);
foreach ($told as $slip => $of) {
    printf("  %-20s questioned: by what is written %d of %d (%.1f %%), by walls %d of %d (%.1f %%)\n", $slip, $asked[$slip]['writing'] ?? 0, $of['writing'] ?? 0, 100 * ($asked[$slip]['writing'] ?? 0) / max(1, $of['writing'] ?? 0), $asked[$slip]['walls'] ?? 0, $of['walls'] ?? 0, 100 * ($asked[$slip]['walls'] ?? 0) / max(1, $of['walls'] ?? 0));
}
