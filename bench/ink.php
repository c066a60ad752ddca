<?php

declare(strict_types=1);

// What the ink gives, drawing by drawing, worst first, over simulated scans with known truth: walls probed by one click, walls and openings
// proposed (beside OpenCV's line segments, paired), and names read. Usage: ink.php FOLDER [SCORE.PY]

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Reading\RoomNames;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Core\Ink\Reading\TextPicture;
use Plinth\Core\Ink\Walls\WallProposals;
use Plinth\Core\Ink\Walls\WallUnder;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '2G');
mt_srand(7);
$folder = $argv[1] ?? exit("Usage: ink.php FOLDER [SCORE.PY]\n");
$score = $argv[2] ?? null;
$work = sys_get_temp_dir().'/ink-bench-'.getmypid();

/** @return list<ReadWord> */
function read(Plinth\Core\Ink\Page\GreyRaster $picture, string $work): array
{
    file_put_contents($work.'.pgm', "P5 $picture->width $picture->height 255\n".$picture->bytes);

    return ReadWord::ofTable((string) shell_exec('OMP_THREAD_LIMIT=1 tesseract '.escapeshellarg($work.'.pgm').' stdout --psm 11 -l eng tsv 2>/dev/null'));
}

/** Part of a wall's length that runs along true ones: within 60 mm and 3°. */
function along(array $truth, Point $from, Point $to): float
{
    $length = $from->distanceTo($to);
    [$ux, $uy] = [($to->x - $from->x) / $length, ($to->y - $from->y) / $length];
    [$n, $hit] = [max(2, (int) ($length / 100.0)), 0];
    for ($i = 0; $i < $n; ++$i) {
        [$x, $y] = [$from->x + ($i + 0.5) / $n * $length * $ux, $from->y + ($i + 0.5) / $n * $length * $uy];
        foreach ($truth['walls'] as ['from' => [$ax, $ay], 'to' => [$bx, $by], 'thickness' => $t]) {
            $l = hypot($bx - $ax, $by - $ay);
            [$vx, $vy] = [($bx - $ax) / $l, ($by - $ay) / $l];
            $s = ($x - $ax) * $vx + ($y - $ay) * $vy;
            if (abs(($x - $ax) * $vy - ($y - $ay) * $vx) < 60.0 && abs($ux * $vy - $uy * $vx) < 0.052 && $s > -$t && $s < $l + $t) {
                ++$hit;
                break;
            }
        }
    }

    return $hit / $n;
}

/** @param list<array{float, float, float}> $said confidence, what came true of it, and how much it counts */
function calibration(string $title, array $said): void
{
    echo "$title, by what confidence says: share of all, said, true\n";
    $all = array_sum(array_column($said, 2));
    foreach ([[0.0, 0.1], [0.1, 0.3], [0.3, 0.6], [0.6, 0.8], [0.8, 0.95], [0.95, 1.01]] as [$from, $to]) {
        $here = array_filter($said, static fn (array $s): bool => $s[0] >= $from && $s[0] < $to);
        $weight = array_sum(array_column($here, 2));
        if ($weight > 0.0) {
            printf("  %.2f to %.2f: %5.1f %%  %.2f  %.2f\n", $from, min(1.0, $to), 100.0 * $weight / $all, array_sum(array_map(static fn (array $s): float => $s[0] * $s[2], $here)) / $weight, array_sum(array_map(static fn (array $s): float => $s[1] * $s[2], $here)) / $weight);
        }
    }
}

[$rows, $probe, $nameRows] = [[], [], []];
[$wallsSaid, $openingsSaid] = [[], []];
$names = [0, 0];
foreach (trials($folder) as $name => [$whole, $raster]) {
    foreach (isset($whole['walls']) ? [$whole] : array_filter($whole['drawings'] ?? [], static fn (array $d): bool => 'plan' === ($d['kind'] ?? '') && isset($d['walls'])) as $truth) {
        $truth += ['mmPerPixel' => $whole['mmPerPixel']];
        $label = $name.(isset($truth['rectPx']) ? ' '.strtolower($truth['name']) : '');
        $box = isset($truth['rectPx']) ? new PixelBox(...$truth['rectPx']) : new PixelBox(0, 0, $raster->width, $raster->height);
        $map = mapOf($truth);
        $isLight = Paper::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200))))->lightOnDark;
        $page = $raster->page($isLight);
        [$hits, $tries, $centre, $thick] = [0, 0, [], []];
        foreach ($truth['walls'] as $w) {
            $l = hypot($w['to'][0] - $w['from'][0], $w['to'][1] - $w['from'][1]);
            [$ux, $uy] = [($w['to'][0] - $w['from'][0]) / $l, ($w['to'][1] - $w['from'][1]) / $l];
            $s = null;
            for ($try = 0; $try < 20 && null === $s; ++$try) {
                $at = $l * uniform(0.1, 0.9);
                $isFree = $at > $w['thickness'] + 300 && $at < $l - $w['thickness'] - 300 && [] === array_filter($truth['openings'] ?? [], static fn (array $o): bool => $o['wall'] === $w['id'] && $at > $o['offset'] - 150 && $at < $o['offset'] + $o['width'] + 150);
                $s = $isFree ? $at : null;
            }
            if (null === $s) {
                continue;
            }
            ++$tries;
            $d = uniform(-0.4, 0.4) * $w['thickness'];
            $p = WallUnder::at($page, $map, new Point($w['from'][0] + $s * $ux - $d * $uy, $w['from'][1] + $s * $uy + $d * $ux));
            if (null === $p) {
                continue;
            }
            $off = (($p->from->x + $p->to->x) / 2 - $w['from'][0]) * -$uy + (($p->from->y + $p->to->y) / 2 - $w['from'][1]) * $ux;
            if (abs(($p->to->x - $p->from->x) * $uy - ($p->to->y - $p->from->y) * $ux) > 0.05 * $p->length() || abs($off) > 60 || abs($p->thickness - $w['thickness']) > 60) {
                continue;
            }
            ++$hits;
            $centre[] = abs($off) / $truth['mmPerPixel'];
            $thick[] = abs($p->thickness - $w['thickness']) / $truth['mmPerPixel'];
        }
        $probe[] = [$hits / max(1, $tries), sprintf('  %-34s %d of %d, centre %.2f, thickness %.2f px', $label, $hits, $tries, quantile($centre, 0.5), quantile($thick, 0.5))];
        $from = hrtime(true);
        $found = WallProposals::in($page, $box, $map, static function (float $done): void {});
        $seconds = (hrtime(true) - $from) / 1e9;
        foreach ($found->walls as $w) {
            $wallsSaid[] = [$w->confidence, along($truth, $w->from, $w->to), $w->from->distanceTo($w->to)];
        }
        $sure = array_filter($found->walls, static fn ($w): bool => $w->isSure());
        $openings = array_filter($found->openings, static fn ($o): bool => $o->isSure() && isset($sure[$o->wall]));
        [$need, $hit, $kind, $used, $true] = [[], [], 0, [], []];
        $byId = array_column($truth['walls'], null, 'id');
        foreach ($truth['openings'] ?? [] as $o) {
            $w = $byId[$o['wall']];
            $l = hypot($w['to'][0] - $w['from'][0], $w['to'][1] - $w['from'][1]);
            $place = static fn (float $t): Point => new Point($w['from'][0] + $t * ($w['to'][0] - $w['from'][0]) / $l, $w['from'][1] + $t * ($w['to'][1] - $w['from'][1]) / $l);
            [$a, $b] = [$place($o['offset']), $place($o['offset'] + $o['width'])];
            $need[$o['kind']] = ($need[$o['kind']] ?? 0) + 1;
            $true[] = [$a, $b];
            foreach ($openings as $k => $q) {
                $pw = $found->walls[$q->wall];
                [$vx, $vy] = [($pw->to->x - $pw->from->x) / $pw->length(), ($pw->to->y - $pw->from->y) / $pw->length()];
                [$c, $d] = [$pw->from->plus($q->offset * $vx, $q->offset * $vy), $pw->from->plus(($q->offset + $q->width) * $vx, ($q->offset + $q->width) * $vy)];
                if (!isset($used[$k]) && min(max($a->distanceTo($c), $b->distanceTo($d)), max($a->distanceTo($d), $b->distanceTo($c))) < 150) {
                    $used[$k] = true;
                    $hit[$o['kind']] = ($hit[$o['kind']] ?? 0) + 1;
                    $kind += $q->kind->value === $o['kind'] ? 1 : 0;
                    break;
                }
            }
        }
        foreach ($found->openings as $q) {
            $pw = $found->walls[$q->wall];
            if (!$pw->isSure()) {
                continue;
            }
            [$c, $d] = [$pw->from->towards($pw->to, $q->offset / $pw->length()), $pw->from->towards($pw->to, ($q->offset + $q->width) / $pw->length())];
            $isTrue = [] !== array_filter($true, static fn (array $t): bool => min(max($t[0]->distanceTo($c), $t[1]->distanceTo($d)), max($t[0]->distanceTo($d), $t[1]->distanceTo($c))) < 150);
            $openingsSaid[] = [$q->confidence, $isTrue ? 1.0 : 0.0, 1.0];
        }
        $gaps = implode(', ', array_map(static fn (string $k, int $n): string => sprintf('%ss %d of %d', $k, $hit[$k] ?? 0, $n), array_keys($need), $need));
        $line = sprintf('%s; kind right %d, false %d; columns %d of %d; %.1f s', $gaps, $kind, count($openings) - count($used), count($found->columns), count($truth['columns'] ?? []), $seconds);
        if (null !== $score) {
            $ours = scored($score, $work, 'walls', ['walls' => array_map(static fn ($w): array => ['from' => $w->from->toArray(), 'to' => $w->to->toArray(), 'thickness' => $w->thickness], array_values($sure))], $truth);
            file_put_contents($work.'.pgm', "P5 $raster->width $raster->height 255\n".$raster->bytes);
            $theirs = scored($score, $work, 'walls', json_decode((string) shell_exec('/usr/bin/python3 '.escapeshellarg(__DIR__.'/outside/segments.py').' '.escapeshellarg($work.'.pgm').' '.$truth['mmPerPixel']), true) ?? [], $truth);
            $rows[] = [min($ours['precision'] ?? 0, $ours['recall'] ?? 0), sprintf("  %-34s precision %.3f, recall %.3f, centre %.1f, thickness %.1f mm; OpenCV's %.2f, %.2f\n    %s", $label, $ours['precision'] ?? 0, $ours['recall'] ?? 0, $ours['medianPositionErrorMm'] ?? NAN, $ours['medianThicknessErrorMm'] ?? NAN, $theirs['precision'] ?? 0, $theirs['recall'] ?? 0, $line)];
        } else {
            $rows[] = [0, sprintf("  %-34s %d walls of %d\n    %s", $label, count($sure), count($truth['walls']), $line)];
        }
        if ([] === ($truth['rooms'] ?? [])) {
            continue;
        }
        $picture = TextPicture::of($page, $box, $map, (float) $truth['scale'], static function (float $done): void {});
        $read = RoomNames::of($picture, read($picture->level, $work), read($picture->turned(), $work));
        $known = 0;
        foreach ($truth['rooms'] as $room) {
            $known += [] === array_filter($read, static fn ($r): bool => $r->name === mb_strtoupper($room['name'])) ? 0 : 1;
        }
        $names = [$names[0] + count($truth['rooms']), $names[1] + $known];
        $nameRows[] = [$known / max(1, count($truth['rooms'])), sprintf('  %-34s names %d of %d', $label, $known, count($truth['rooms']))];
    }
}
array_map(unlink(...), glob($work.'*') ?: []);
foreach (['Probe: one click on each wall; medians in px' => $probe, 'Proposals'.(null === $score ? '' : ', by the scorer') => $rows, 'Names read' => $nameRows] as $title => $lines) {
    usort($lines, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
    echo "$title\n", implode("\n", array_column($lines, 1)), "\n";
}
calibration('Walls by length', $wallsSaid);
calibration('Openings', $openingsSaid);
printf("  all: names %d of %d\n", $names[1], $names[0]);
