<?php

declare(strict_types=1);

// How true photographs of walls and sketches of sites come out, over simulated ones with known truth; OpenCV beside ours on the same
// points; and how long a photograph of 12 million pixels takes to straighten beside the picture tool alone.
// Usage: photographs.php FOLDER

use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\ControlPoint;
use Plinth\Core\Fitting\Exception\FittingException;
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
use Plinth\Core\Geometry\Rectified;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Pages\Skew;
use Plinth\Core\Ink\Picks\JointCount;
use Plinth\Core\Ink\Picks\TracedLine;
use Plinth\Core\Site\Leg;
use Plinth\Core\Site\Traverse;
use Plinth\Core\Units\Bearing;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '2G');
mt_srand(12);

/** A hand is off by some pixels. */
function byHand(PixelToMm $true, float $x, float $y, float $px = 1.5): PixelPoint
{
    $at = $true->toPixel(new Point($x, $y));

    return new PixelPoint($at->x + uniform(-$px, $px), $at->y + uniform(-$px, $px));
}

/** The wall by its courses at both ends, its width low and high, and level and plumb edges followed by their ink. */
function wall(string $name, array $truth, GreyRaster $raster): ?array
{
    $true = mapOf($truth);
    [$x1, $y1, $x2, $y2] = $truth['extent'];
    ['gauge' => $gauge, 'joint' => $joint, 'firstBed' => $first, 'count' => $n] = $truth['courses'];
    $bed = static fn (int $i): float => $first + $i * $gauge + $joint / 2;
    [$picks, $lengths, $grid, $points, $wrong] = [[], [], [], [], 0];
    $pick = static function (PixelPoint $at, float $sigma) use (&$picks): string {
        $picks[] = new Pick('p'.count($picks), $at, $sigma);

        return end($picks)->id;
    };
    foreach ([$x1 + 60, $x2 - 100] as $x) {
        $count = JointCount::along($raster->page(), byHand($true, $x, $bed(2)), byHand($true, $x, $bed($n - 3)));
        $wrong += null === $count || $n - 5 !== $count->spaces ? 1 : 0;
        if (null !== $count && count($count->ticks) === $count->spaces + 1) {
            $lengths[] = new KnownLength("c$x", $a = $pick($count->ticks[0], 0.4), $b = $pick($count->ticks[$count->spaces], 0.4), ($n - 5) * $gauge, 2.0);
            $points[] = [$count->ticks[0], new Point($x, $bed(2))];
            $points[] = [$count->ticks[$count->spaces], new Point($x, $bed($n - 3))];
        }
    }
    $edges = [[[$x1 + 200, $bed(3)], [$x2 - 200, $bed(3)], 'x'], [[$x1 + 200, $bed($n - 4)], [$x2 - 200, $bed($n - 4)], 'x'], [[$x1, $y1 + 300], [$x1, $y2 - 100], 'y'], [[$x2, $y1 + 300], [$x2, $y2 - 100], 'y']];
    $corners = [];
    foreach ($edges as $k => [$from, $to, $axis]) {
        $line = TracedLine::between($raster->page(), byHand($true, ...$from), byHand($true, ...$to), 8.0, $truth['mmPerPixel']);
        if (null === $line) {
            continue;
        }
        $grid[] = new GridPick("g$k", $pick($line->a, max(0.2, $line->sigmaPx)), $pick($line->b, max(0.2, $line->sigmaPx)), 'x' === $axis ? 0.0 : \M_PI_2);
        $corners[$k] = $line;
    }
    if (!isset($corners[2], $corners[3])) {
        printf("  %-22s its edges are not to be followed\n", $name);

        return null;
    }
    // Widths from edge to edge: the plumb lines' own picks.
    $ends = array_slice($grid, -2);
    $lengths[] = new KnownLength('low', $ends[0]->a, $ends[1]->a, $x2 - $x1, 3.0, Along::X);
    $lengths[] = new KnownLength('high', $ends[0]->b, $ends[1]->b, $x2 - $x1, 3.0, Along::X);
    $frame = new PageFrame($raster->width, $raster->height);
    try {
        $fit = (new Fitter(Model::Perspective->shape()))->fit(new Observations($picks, $lengths, $grid), $frame, FitStart::unknown());
    } catch (FittingException $e) {
        printf("  %-22s %s\n", $name, $e->getMessage());

        return null;
    }
    $rms = rmsPx($fit->pixelToMm, $true, $truth) * $truth['mmPerPixel'];
    $height = static fn (float $y): float => $fit->pixelToMm->toMm($true->toPixel(new Point(($x1 + $x2) / 2, $y)))->y;
    $base = $truth['levels'][0]['y'];
    $heights = array_map(static fn (array $l): float => abs($height($l['y']) - $height($base) - ($l['y'] - $base)), array_slice($truth['levels'], 1));
    $gaugeOff = ($height($bed($n - 3)) - $height($bed(2))) / ($n - 5) / $gauge - 1.0;
    $skew = Skew::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), Skew::SIDE))));
    $trueSkew = fmod($truth['skewDegrees'] ?? -rad2deg($true->turnRadAt($true->toPixel(new Point(($x1 + $x2) / 2, ($y1 + $y2) / 2)))), 90.0);
    // The same points to both: corners of the counts with what truth says of them.
    $controls = array_map(static fn (array $p, int $k): ControlPoint => new ControlPoint("k$k", "q$k", $p[1]), $points, array_keys($points));
    $ours = $theirs = NAN;
    if (4 === count($points)) {
        $ours = rmsPx((new Fitter(Model::Perspective->shape()))->fit(new Observations(array_map(static fn (array $p, int $k): Pick => new Pick("q$k", $p[0], 0.3), $points, array_keys($points)), [], [], $controls), $frame, FitStart::unknown())->pixelToMm, $true, $truth) * $truth['mmPerPixel'];
        $process = proc_open(['/usr/bin/python3', __DIR__.'/../core/tests/outside/homography.py'], [['pipe', 'r'], ['pipe', 'w']], $pipes);
        fwrite($pipes[0], json_encode(['sets' => [array_map(static fn (array $p): array => [[$p[0]->x, $p[0]->y], [$p[1]->x, $p[1]->y]], $points)]]));
        fclose($pipes[0]);
        $theirs = rmsPx(PixelToMm::ofMatrix(json_decode((string) stream_get_contents($pipes[1]), true)['maps'][0]), $true, $truth) * $truth['mmPerPixel'];
        proc_close($process);
    }
    printf(
        "  %-22s RMS %.1f mm over the face (±%.0f over 10 m%s), gauge off %.2f %%, heights within %.0f mm, counts wrong %d of 2, skew in the middle off %.2f°; four points: ours %.1f mm, OpenCV %.1f mm\n",
        $name, $rms, $fit->plusMinusMmPer10m, null === $fit->pixelToMm->lens ? '' : ', lens', 100 * $gaugeOff, max($heights), $wrong, abs(($skew->degrees ?? NAN) - $trueSkew), $ours, $theirs,
    );

    return [$rms, abs($gaugeOff), max($heights), abs(($skew->degrees ?? NAN) - $trueSkew)];
}

/** Trued by one wall of the building; each leg's direction and length off the ink, and the boundary closed from them. */
function site(string $name, array $truth, GreyRaster $raster): array
{
    $true = mapOf($truth);
    $known = $truth['building']['knownWall'];
    $wall = TracedLine::between($raster->page(), byHand($true, ...$known['from']), byHand($true, ...$known['to']), 8.0);
    $picks = [new Pick('a', null === $wall ? byHand($true, $known['from'][0], $known['from'][1], 0.5) : $wall->a, 0.4), new Pick('b', null === $wall ? byHand($true, $known['to'][0], $known['to'][1], 0.5) : $wall->b, 0.4)];
    // Along the wall its ends are where the hand put them on the corners.
    $direction = atan2($known['to'][1] - $known['from'][1], $known['to'][0] - $known['from'][0]);
    $fit = (new Fitter())->fit(new Observations($picks, [new KnownLength('w', 'a', 'b', round($known['length'], -1), 5.0)], [new GridPick('g', 'a', 'b', $direction)]), new PageFrame($raster->width, $raster->height), FitStart::unknown());
    [$bearings, $lengths, $legs] = [[], [], []];
    foreach ($truth['legs'] as $leg) {
        [$a, $b] = [byHand($true, ...$leg['from']), byHand($true, ...$leg['to'])];
        $line = TracedLine::between($raster->page(), $a, $b, 10.0);
        [$p, $q] = [$fit->pixelToMm->toMm($line->a ?? $a), $fit->pixelToMm->toMm($line->b ?? $b)];
        $bearing = Bearing::along($q->x - $p->x, $q->y - $p->y);
        // A page that lies upside down is turned by quarters first: that is not measured here.
        $bearings[] = abs(fmod($bearing->degrees - $leg['exactBearingDegrees'] + 630.0, 180.0) - 90.0);
        $lengths[] = abs($p->distanceTo($q) / hypot($leg['to'][0] - $leg['from'][0], $leg['to'][1] - $leg['from'][1]) - 1.0);
        // The figure as written, the direction off the ink.
        $legs[] = new Leg($bearing, 1000.0 * $leg['lengthM']);
    }
    $closed = Traverse::closed($legs);
    printf(
        "  %-22s bearings off the ink within %.3f°, leg lengths by one wall of the building within %.2f %%; written lengths with bearings off the ink close within %.0f mm (1 : %.0f), area off %.3f %%\n",
        $name, max($bearings), 100 * max($lengths), $closed->misclosureMm(), $closed->precision() ?? INF, 100 * abs($closed->areaM2() / $truth['lotAreaM2'] - 1),
    );

    return [max($bearings), max($lengths)];
}

/** Straightening 12 million pixels: our grid and the picture tool, beside the tool alone with an index that is there already. */
function straightening(string $image, array $truth): void
{
    $work = sys_get_temp_dir().'/straighten-'.getmypid();
    mkdir($work);
    $run = static function (string $command) use ($work): float {
        $from = hrtime(true);
        exec("cd $work && VIPS_CONCURRENCY=2 $command", $out, $code);
        0 === $code || exit("$command failed\n");

        return (hrtime(true) - $from) / 1e6;
    };
    $factor = sqrt(12e6 / ($truth['size'][0] * $truth['size'][1]));
    $run("vips resize $image big.jpg $factor");
    $run('vips copy big.jpg big.v');
    $head = unpack('Vwidth/Vheight', (string) file_get_contents("$work/big.v", false, null, 4, 8));
    $m = array_merge(...$truth['pixelToMm']);
    foreach ([0, 1, 3, 4, 6, 7] as $i) {
        $m[$i] /= $factor;
    }
    [$ours, $alone, $grids] = [[], [], []];
    for ($i = 0; $i < 3; ++$i) {
        $from = hrtime(true);
        $rectified = Rectified::of(PixelToMm::ofMatrix($m), new PixelBox(0, 0, $head['width'], $head['height']), 3e7);
        [$columns, $rows, $grid] = $rectified->grid(16);
        file_put_contents("$work/grid.raw", $grid);
        $grids[] = $mine = (hrtime(true) - $from) / 1e6;
        $index = $run("vips rawload grid.raw grid.v $columns $rows 2 --format float") + $run("vips affine grid.v index.v '16 0 0 16' --interpolate bilinear --oarea '0 0 {$rectified->width} {$rectified->height}'");
        $fetch = $run('vips mapim big.jpg straight.v index.v --interpolate bilinear');
        $tiles = $run("vips dzsave straight.v tiles$i --layout google --suffix .jpg[Q=86]");
        $ours[] = $mine + $index + $fetch + $tiles;
        $alone[] = $fetch + $tiles;
    }
    exec('rm -rf '.escapeshellarg($work));
    printf("  %d × %d px straightened to %d × %d with tiles: %.0f ms, of it the grid %.0f ms; the picture tool alone with an index at hand %.0f ms: ratio %.2f\n", $head['width'], $head['height'], $rectified->width, $rectified->height, min($ours), min($grids), min($alone), min($ours) / min($alone));
}

$folder = $argv[1] ?? exit("Usage: photographs.php FOLDER\n");
[$walls, $sites, $first] = [[], [], null];
echo "Photographs of walls by their courses and edges; sites by their ink\n";
foreach (trials($folder) as $name => [$truth, $raster, $image]) {
    if ('elevation' === ($truth['kind'] ?? '')) {
        $first ??= [realpath($image), $truth];
        $walls[] = wall($name, $truth, $raster);
    } elseif ('site' === ($truth['kind'] ?? '')) {
        $sites[] = site($name, $truth, $raster);
    }
}
$walls = array_values(array_filter($walls));
if ([] !== $walls) {
    printf("  RMS over the face median %.1f mm, worst %.1f mm; heights worst %.0f mm; skew in the middle median %.2f° (target 0.2)\n", quantile(array_column($walls, 0), 0.5), max(array_column($walls, 0)), max(array_column($walls, 2)), quantile(array_column($walls, 3), 0.5));
}
if (null !== $first) {
    straightening(...$first);
}
