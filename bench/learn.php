<?php

declare(strict_types=1);

// Learns from simulated sheets with known truth which lines are walls (Internal/LineNet, written where the core reads it), and then what
// the evidence for proposed walls and openings weighs (WallEvidence, OpeningEvidence, printed). The sheets reported on are never among
// them. Usage: learn.php FOLDER FOLDER [FOLDER TO TEST ON]: lines are learnt from the first (seeds 601 to 960, about an hour), what
// their evidence weighs from the second (401 to 460), where the nets are no surer than on any other sheet.

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Walls\Internal\JudgedLines;
use Plinth\Core\Ink\Walls\Internal\LineNet;
use Plinth\Core\Ink\Walls\Internal\LineSearch;
use Plinth\Core\Ink\Walls\Internal\WallLine;
use Plinth\Core\Ink\Walls\WallEvidence;
use Plinth\Core\Ink\Walls\WallProposals;

require __DIR__.'/measure.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '8G');

/** rounds of judging, hidden units of each net, and its ridge for each thousand lines; by trial on sheets apart */
const ROUNDS = 3;
const HIDDEN = 12;
const RIDGE = 0.625;
/** per cent of what is no wall that a plain drawing shows all the same */
const OTHERS = 3;

/** @return float part of where a line shows that lies on the body of a true wall, openings left out */
function shownOnTruth(WallLine $line, array $truth): float
{
    [$looks, $on] = [0, 0];
    [$ux, $uy] = $line->direction();
    foreach ($line->parts as [$from, $to]) {
        for ($at = $from + 20.0; $at < $to; $at += 40.0) {
            ++$looks;
            [$x, $y] = [$line->from->x + $at * $ux, $line->from->y + $at * $uy];
            foreach ($truth['walls'] as $w) {
                [$dx, $dy] = [$w['to'][0] - $w['from'][0], $w['to'][1] - $w['from'][1]];
                $length = hypot($dx, $dy);
                $along = (($x - $w['from'][0]) * $dx + ($y - $w['from'][1]) * $dy) / $length;
                $off = (($y - $w['from'][1]) * $dx - ($x - $w['from'][0]) * $dy) / $length;
                $isOn = abs($ux * $dy - $uy * $dx) <= sin(deg2rad(5.0)) * $length && abs($off) <= 60.0
                    && $along >= -$w['thickness'] / 2.0 - 30.0 && $along <= $length + $w['thickness'] / 2.0 + 30.0
                    && abs($w['thickness'] - $line->thickness) <= max(60.0, 0.35 * $w['thickness']);
                if ($isOn && [] === array_filter($truth['openings'] ?? [], static fn (array $o): bool => $o['wall'] === $w['id'] && $along > $o['offset'] + 40.0 && $along < $o['offset'] + $o['width'] - 40.0)) {
                    ++$on;
                    break;
                }
            }
        }
    }

    return $looks > 0 ? $on / $looks : 0.0;
}

/** Writes the nets of all rounds; each round's is learnt from what the one before has taken for walls. */
function learnNets(string $folder): void
{
    $sheets = [];
    mt_srand(7);
    foreach (trials($folder) as [$truth, $raster]) {
        if (isset($truth['walls'])) {
            $isLight = Paper::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200))))->lightOnDark;
            $found = LineSearch::in($raster->page($isLight), new PixelBox(0, 0, $raster->width, $raster->height), mapOf($truth), static function (float $done): void {});
            // Once as it is, and once with hardly anything beside its walls: not every drawing is furnished.
            $walls = array_values(array_filter($found->lines, static fn (WallLine $line): bool => mt_rand(0, 99) < OTHERS || shownOnTruth($line, $truth) > 0.6));
            foreach ([$found->lines, $walls] as $lines) {
                $judged = JudgedLines::unjudged($lines);
                $sheets[] = [$judged, array_map(static fn (WallLine $line): float => shownOnTruth($line, $truth), $judged->lines)];
            }
        }
    }
    $nets = [];
    for ($round = 0; $round < ROUNDS; ++$round) {
        [$values, $true, $weight] = [[], [], []];
        foreach ($sheets as [$judged, $is]) {
            foreach ($judged->values() as $i => $of) {
                $values[] = array_values($of);
                $true[] = $is[$i];
                $weight[] = max(0.15, min(3.0, $judged->lines[$i]->seen() / 2000.0));
            }
        }
        $nets[] = $weights = python('net.py', ['values' => $values, 'true' => $true, 'weight' => $weight, 'hidden' => HIDDEN, 'ridge' => RIDGE * count($values) / 1000.0, 'seed' => 1]);
        $sheets = array_map(static fn (array $sheet): array => [$sheet[0]->by(new LineNet($weights)), $sheet[1]], $sheets);
        printf("lines, round %d: %d learnt from\n", $round + 1, count($values));
    }
    file_put_contents(__DIR__.'/../core/src/Ink/Walls/Internal/line-nets.json', json_encode($nets)."\n");
}

/** @return float part of a stretch that lies on a true wall, openings with it */
function truePart(WallEvidence $e, array $walls): float
{
    [$on, $looks] = [0, max(2, (int) ($e->length() / 50.0))];
    for ($i = 0; $i < $looks; ++$i) {
        $p = $e->from->towards($e->to, ($i + 0.5) / $looks);
        foreach ($walls as $w) {
            [$x, $y] = Segment::nearest($p->toArray(), $w['from'], $w['to']);
            $turn = Segment::meeting($e->from->toArray(), $e->to->toArray(), $w['from'], $w['to'], sin(deg2rad(5.0)));
            if (null === $turn && hypot($x - $p->x, $y - $p->y) <= 60.0) {
                ++$on;
                break;
            }
        }
    }

    return $on / $looks;
}

/** @return array{walls: list<array<string, mixed>>, openings: list<array<string, mixed>>} evidence, whether it is true, and how much it counts */
function evidenceIn(string $folder): array
{
    $rows = ['walls' => [], 'openings' => []];
    foreach (trials($folder) as [$truth, $raster]) {
        if (!isset($truth['walls'])) {
            continue;
        }
        $isLight = Paper::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), 1200))))->lightOnDark;
        $found = WallProposals::in($raster->page($isLight), new PixelBox(0, 0, $raster->width, $raster->height), mapOf($truth), static function (float $done): void {});
        foreach ($found->walls as $wall) {
            foreach ($wall->evidence as $e) {
                $rows['walls'][] = ['values' => $e->values(), 'true' => truePart($e, $truth['walls']), 'weight' => $e->length() / 2000.0];
            }
        }
        $byId = array_column($truth['walls'], null, 'id');
        $left = array_map(static function (array $o) use ($byId): array {
            $w = $byId[$o['wall']];
            [$from, $to] = [new Point(...$w['from']), new Point(...$w['to'])];
            $length = $from->distanceTo($to);

            return [$from->towards($to, $o['offset'] / $length), $from->towards($to, ($o['offset'] + $o['width']) / $length)];
        }, $truth['openings'] ?? []);
        foreach ($found->openings as $o) {
            $w = $found->walls[$o->wall];
            $c = $w->from->towards($w->to, $o->offset / $w->length());
            $d = $w->from->towards($w->to, ($o->offset + $o->width) / $w->length());
            $isTrue = 0.0;
            foreach ($left as $k => [$a, $b]) {
                if (min(max($a->distanceTo($c), $b->distanceTo($d)), max($a->distanceTo($d), $b->distanceTo($c))) < 150.0) {
                    $isTrue = 1.0;
                    unset($left[$k]);
                    break;
                }
            }
            $rows['openings'][] = ['values' => $o->evidence->values(), 'true' => $isTrue, 'weight' => 1.0];
        }
    }

    return $rows;
}

if (!isset($argv[2])) {
    exit("Usage: learn.php FOLDER FOLDER [FOLDER TO TEST ON]\n");
}
learnNets($argv[1]);
$learnt = evidenceIn($argv[2]);
$test = isset($argv[3]) ? evidenceIn($argv[3]) : ['walls' => [], 'openings' => []];
foreach (['walls', 'openings'] as $of) {
    $answer = python('logistic.py', ['learn' => $learnt[$of], 'test' => $test[$of]]);
    printf("%s: %d learnt from\n  %s\n  Brier %.4f of %.4f%s\n", $of, count($learnt[$of]), implode(', ', array_map(static fn (string $k, float $v): string => sprintf("'%s' => %.2f", $k, $v), array_keys($answer['weights']), $answer['weights'])), $answer['brier'], $answer['base'], isset($answer['testBrier']) ? sprintf('; on others %.4f of %.4f', $answer['testBrier'], $answer['testBase']) : '');
    foreach ($answer['bins'] ?? [] as [$from, $n, $said, $true]) {
        printf("    from %.1f: %d, said %.2f, true %.2f\n", $from, $n, $said, $true);
    }
}
