<?php

declare(strict_types=1);

// A furnished storey derived whole, and after one edit, beside GEOS on the whole plan; and how long it takes to settle.

use Plinth\Core\Plan\Column;
use Plinth\Core\Plan\Derivation;
use Plinth\Core\Plan\Divider;
use Plinth\Core\Plan\Opening;
use Plinth\Core\Plan\Room;
use Plinth\Core\Plan\Wall;
use Plinth\Core\Plan\WholeStorey;
use Plinth\Core\Tests\Plan\Plans;

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
    $times = $visited = [];
    mt_srand($about);
    for ($i = 0; $i < 300; ++$i) {
        $old = $walls[mt_rand(0, count($walls) - 1)];
        $new = new Wall($old->id, $old->from->plus(30, 20), $old->to->plus(30, 20), $old->thickness);
        $times[] = timed(static function () use ($plan, $old, $new, &$visited): void {
            $plan->put($new);
            $derivation = new Derivation($plan);
            $affected = $derivation->affected([Derivation::boxOf($old), Derivation::boxOf($new)]);
            $derivation->shapes($affected);
            $derivation->regionsOf($affected);
            $visited[] = $derivation->visited();
        });
        $plan->put($old);
    }
    sort($times);
    sort($visited);
    $middle = $times[150];
    printf("              an edit: %7.2f ms (p95 %.1f), ratio %.3f (target 0.05); nodes looked at %d, p95 %d\n", $middle, $times[285], $middle / $theirs, $visited[150], $visited[285]);
}
