<?php

declare(strict_types=1);

// Learns what the evidence for proposed walls and openings weighs (WallEvidence, OpeningEvidence) from simulated sheets with known truth.
// The sheets reported on are never among them. Usage: learn.php FOLDER [FOLDER TO TEST ON]

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Walls\WallEvidence;
use Plinth\Core\Ink\Walls\WallProposals;

require __DIR__.'/measure.php';
require __DIR__.'/drawings.php';

ini_set('memory_limit', '2G');

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

$learnt = evidenceIn($argv[1] ?? exit("Usage: learn.php FOLDER [FOLDER TO TEST ON]\n"));
$test = isset($argv[2]) ? evidenceIn($argv[2]) : ['walls' => [], 'openings' => []];
foreach (['walls', 'openings'] as $of) {
    $answer = python('logistic.py', ['learn' => $learnt[$of], 'test' => $test[$of]]);
    printf("%s: %d learnt from\n  %s\n  Brier %.4f of %.4f%s\n", $of, count($learnt[$of]), implode(', ', array_map(static fn (string $k, float $v): string => sprintf("'%s' => %.2f", $k, $v), array_keys($answer['weights']), $answer['weights'])), $answer['brier'], $answer['base'], isset($answer['testBrier']) ? sprintf('; on others %.4f of %.4f', $answer['testBrier'], $answer['testBase']) : '');
    foreach ($answer['bins'] ?? [] as [$from, $n, $said, $true]) {
        printf("    from %.1f: %d, said %.2f, true %.2f\n", $from, $n, $said, $true);
    }
}
