<?php

declare(strict_types=1);

// Walls and openings of vector PDFs by their own lines, held against their truth; the time beside that of the tool that writes the page out.
// Usage: lines.php FOLDER SCORER

use Plinth\Core\Exchange\ExactLine;
use Plinth\Core\Exchange\PostScript\PageLines;
use Plinth\Core\Ink\Walls\DrawnWalls;
use Plinth\Core\Ink\Walls\ProposedWall;

require __DIR__.'/../vendor/autoload.php';

ini_set('memory_limit', '2G');

[, $folder, $scorer] = $argv + [1 => null, 2 => null];
if (null === $folder || null === $scorer) {
    exit("Usage: lines.php FOLDER SCORER\n");
}
/** mm within which an opening's middle is that of a true one */
const SAME_MM = 50.0;

$sums = ['sheets' => 0, 'precision' => 0.0, 'recall' => 0.0, 'true' => 0, 'found' => 0, 'hit' => 0, 'kind' => 0];
[$ours, $theirs, $widths] = [0.0, 0.0, []];
foreach (glob("$folder/*.truth.json") ?: [] as $truthFile) {
    $truth = json_decode((string) file_get_contents($truthFile), true);
    if ('pdf-vector' !== ($truth['encoding'] ?? '')) {
        continue;
    }
    [[$a, $b, $c], [$d, $e, $f]] = $truth['pdfToMm'];
    $begin = hrtime(true);
    $page = (string) shell_exec('pdftops -f 1 -l 1 -noshrink -nocenter '.escapeshellarg("$folder/{$truth['image']}").' - 2>/dev/null');
    $theirs += (hrtime(true) - $begin) / 1e9;
    $begin = hrtime(true);
    $found = DrawnWalls::in(array_map(static fn (array $l): array => ExactLine::mapped(
        $l,
        static fn (float $x, float $y): array => [$a * $x + $b * $y + $c, $d * $x + $e * $y + $f],
    ), PageLines::read($page)));
    $ours += (hrtime(true) - $begin) / 1e9;
    $result = (string) tempnam(sys_get_temp_dir(), 'walls');
    file_put_contents($result, json_encode(['walls' => array_map(
        static fn (ProposedWall $w): array => ['from' => $w->from->toArray(), 'to' => $w->to->toArray(), 'thickness' => $w->thickness],
        $found->walls,
    )]));
    $score = json_decode((string) shell_exec('/usr/bin/python3 '.escapeshellarg($scorer).' walls '.escapeshellarg($result).' '.escapeshellarg($truthFile).' --frame truth'), true) ?? [];
    unlink($result);
    $walls = array_column($truth['walls'], null, 'id');
    $openings = array_map(static function (array $o) use ($walls): array {
        ['from' => [$x1, $y1], 'to' => [$x2, $y2]] = $walls[$o['wall']];
        $part = ($o['offset'] + $o['width'] / 2.0) / hypot($x2 - $x1, $y2 - $y1);

        return [$x1 + $part * ($x2 - $x1), $y1 + $part * ($y2 - $y1), $o['width'], $o['kind']];
    }, $truth['openings']);
    ++$sums['sheets'];
    $sums['precision'] += $score['precision'] ?? 0.0;
    $sums['recall'] += $score['recall'] ?? 0.0;
    $sums['true'] += count($openings);
    foreach ($found->openings as $o) {
        ++$sums['found'];
        $wall = $found->walls[$o->wall];
        $part = ($o->offset + $o->width / 2.0) / $wall->length();
        [$x, $y] = [$wall->from->x + $part * ($wall->to->x - $wall->from->x), $wall->from->y + $part * ($wall->to->y - $wall->from->y)];
        foreach ($openings as [$u, $v, $width, $kind]) {
            if (hypot($u - $x, $v - $y) < SAME_MM) {
                ++$sums['hit'];
                $sums['kind'] += $kind === $o->kind->value ? 1 : 0;
                $widths[] = abs($width - $o->width);
                break;
            }
        }
    }
}
sort($widths);
printf(
    "== Walls by exact lines, %d vector pages: precision %.4f, recall %.4f; of %d openings %d found (%d offered), %d of the right kind, widths off by %.3f mm at 99 %%\n",
    $sums['sheets'], $sums['precision'] / max(1, $sums['sheets']), $sums['recall'] / max(1, $sums['sheets']), $sums['true'], $sums['hit'], $sums['found'], $sums['kind'], $widths[(int) (0.99 * count($widths))] ?? 0.0,
);
printf("   %.2f s a page, pdftops alone %.2f s: ratio %.1f\n", $ours / max(1, $sums['sheets']), $theirs / max(1, $sums['sheets']), $ours / max(1e-9, $theirs));
