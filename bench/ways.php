<?php

declare(strict_types=1);

// Ways out of all rooms of a storey, and of the two beside a wall that was moved, beside a visibility graph of GEOS in the same run.

use Plinth\Core\Escape\EscapePlan;
use Plinth\Core\Escape\Internal\StoreyFloor;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Tests\Plan\Plans;

require __DIR__.'/measure.php';

echo "Ways out (target: of two rooms at most 150 ms with 200)\n";
foreach ([[8, 13], [14, 22]] as [$columns, $rows]) {
    $drawn = Plans::standing(4242, $columns, $rows);
    $openings = array_map(static fn (Opening $o, int $k): Opening => new Opening(
        $o->id,
        $o->wall,
        OpeningKind::Door,
        $o->offset,
        $o->width,
        exit: 39 === $k % 40 ? DoorExit::Final : DoorExit::None,
    ), $drawn->openings, array_keys($drawn->openings));
    $storey = new Storey('s', 'S', 0.0, 3000.0, $drawn->walls, $openings, $drawn->rooms);
    $derived = Derivation::of($storey);
    $plan = static fn (): EscapePlan => new EscapePlan(new Plan([$storey]), ['s' => $derived]);
    $ours = least(static fn () => $plan()->rooms(), 3);
    $n = count($derived->regions);
    $times = [];
    for ($i = 0; $i < 21; ++$i) {
        $two = [$derived->regions[$i * 37 % $n]->key, $derived->regions[($i * 37 + 1) % $n]->key];
        $times[] = timed(static fn () => $plan()->rooms($two));
    }
    sort($times);
    $floor = StoreyFloor::of($storey, $derived, []);
    $exits = array_merge(...array_map(static fn ($d): array => $d->isExit() ? $d->middles() : [], array_values($floor->doorways)));
    $asked = [['cells' => $floor->cells, 'exits' => $exits, 'places' => [$derived->regions[0]->label]]];
    $theirs = 8 === $columns ? timed(static fn () => shell_exec('echo '.escapeshellarg((string) json_encode($asked)).' | /usr/bin/python3 '.escapeshellarg(__DIR__.'/../core/tests/outside/visibility.py'))) : null;
    printf(
        "  %4d walls, %d rooms, %d exits: all %.0f ms, two rooms %.0f ms (p95 %.0f)%s\n",
        count($storey->walls),
        $n,
        intdiv(count($exits), 2),
        $ours,
        $times[10],
        p95($times),
        null === $theirs ? '' : sprintf('; a visibility graph %.0f ms, ratio %.4f', $theirs, $ours / $theirs),
    );
}
