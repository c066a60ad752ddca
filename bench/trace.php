<?php

declare(strict_types=1);

// A furnished storey derived whole, and after one edit, beside GEOS on the whole plan; and how long it takes to settle.

use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\WholeStorey;
use Plinth\Core\Tests\Plan\Plans;
use Plinth\Core\Tests\Plan\Settling\Storey as SettleStorey;

require __DIR__.'/measure.php';

echo "Full derivation of a furnished storey, and one edit of it, beside GEOS on the whole (noding, polygonize, buffers, union, differences)\n";
foreach ([[8, 13, 200], [18, 29, 1000], [42, 63, 5000]] as [$columns, $rows, $about]) {
    $storey = Plans::furnished(20_000 + $about, $columns, $rows);
    $walls = $storey->walls;
    $ours = least(static fn () => Derivation::of($storey), $about > 2000 ? 2 : 5);
    $numbers = array_flip(array_map(static fn (Wall $w): string => $w->id, $walls));
    $theirs = python('derive.py', [
        'walls' => array_map(static fn (Wall $w): array => [...$w->from->toArray(), ...$w->to->toArray(), $w->thickness], $walls),
        'dividers' => array_map(static fn (Divider $d): array => [...$d->from->toArray(), ...$d->to->toArray()], $storey->dividers),
        'columns' => array_map(static fn (Column $c): array => [...$c->centre->toArray(), $c->width, $c->depth, $c->round], $storey->columns),
        'rooms' => array_map(static fn (Room $r): array => $r->anchor->toArray(), $storey->rooms),
        'openings' => array_map(static fn (Opening $o): array => [$numbers[$o->wall], $o->offset, $o->width], $storey->openings),
    ])['ms'];
    printf(
        "  %5d walls, %d rooms, %d columns, %d openings, %d dividers whole: %7.1f ms, GEOS %7.1f ms, ratio %.2f (target 0.33)\n",
        ...[count($walls), count($storey->rooms), count($storey->columns), count($storey->openings), count($storey->dividers), $ours, $theirs, $ours / $theirs],
    );
    $plan = new WholeStorey($storey);
    $atNode = [];
    foreach ($walls as $wall) {
        foreach ([$wall->from, $wall->to] as $node) {
            $atNode["$node->x $node->y"][] = $wall;
        }
    }
    mt_srand($about);
    $edits = [
        'a corner moved with all walls there' => static function () use ($atNode): array {
            $key = array_rand($atNode);

            return array_map(static fn (Wall $w): array => [$w, "{$w->from->x} {$w->from->y}" === $key
                ? new Wall($w->id, $w->from->plus(30, 20), $w->to, $w->thickness)
                : new Wall($w->id, $w->from, $w->to->plus(30, 20), $w->thickness)], $atNode[$key]);
        },
        'a wall torn off its joints, lying on others' => static function () use ($walls): array {
            $w = $walls[mt_rand(0, count($walls) - 1)];

            return [[$w, new Wall($w->id, $w->from->plus(30, 20), $w->to->plus(30, 20), $w->thickness)]];
        },
    ];
    foreach ($edits as $what => $edit) {
        $times = $visited = [];
        for ($i = 0; $i < 300; ++$i) {
            $changes = $edit();
            $times[] = timed(static function () use ($plan, $changes, &$visited): void {
                $boxes = [];
                foreach ($changes as [$old, $new]) {
                    $plan->put($new);
                    array_push($boxes, $old->box(), $new->box());
                }
                $derivation = new Derivation($plan);
                $affected = $derivation->affected($boxes);
                $derivation->shapes($affected);
                $derivation->regionsOf($affected);
                $visited[] = $derivation->visited();
            });
            foreach ($changes as [$old]) {
                $plan->put($old);
            }
        }
        sort($times);
        sort($visited);
        printf("              %s: %.2f ms (p95 %.1f), ratio %.3f (target 0.05); nodes looked at %d, p95 %d\n", ...[$what, $times[150], $times[285], $times[150] / $theirs, $visited[150], $visited[285]]);
    }
}

echo "Settling a storey of 544 walls whose corners are 6 mm off, 60 figures decided; the level one's time is the measure\n";
$level = null;
foreach ([0.0, 30.0, 17.3] as $degrees) {
    $storey = SettleStorey::grid(16, 6.0)->twin([$degrees, 0.0, 0.0]);
    $figures = SettleStorey::gridFigures(16, 60);
    $ms = least(static fn () => $storey->settled($figures), 5);
    $level ??= $ms;
    printf("  turned by %4.1f°: %5.1f ms, ratio %.2f (target 100 ms)\n", $degrees, $ms, $ms / $level);
}
