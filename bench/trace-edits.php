<?php

declare(strict_types=1);

// The running stack: an edit of a small and of a large storey over HTTP beside an empty signed-in endpoint. The large one
// stays for the board's frames; its address is written to the file named.

use Plinth\Core\Tests\Plan\Plans;
use Plinth\Server\Tests\Client;
use Plinth\Server\Tests\Desk;

require __DIR__.'/measure.php';

/** Walls of a shaken grid as rows, some hundred in a change; ids of walls by their place. */
function storeyOf(Desk $desk, int $columns, int $rows): array
{
    $nodes = $walls = $operations = [];
    foreach (Plans::shaken(7, $columns, $rows) as $wall) {
        $ends = [];
        foreach ([$wall->from, $wall->to] as $p) {
            $key = sprintf('%.3f,%.3f', $p->x, $p->y);
            if (!isset($nodes[$key])) {
                $nodes[$key] = Desk::newId();
                $operations[] = ['do' => 'add', 'type' => 'node', 'id' => $nodes[$key], 'values' => ['storey' => $desk->storey, 'drawing' => null, 'x' => $p->x, 'y' => $p->y]];
            }
            $ends[] = $nodes[$key];
        }
        $walls[] = $id = Desk::newId();
        $operations[] = ['do' => 'add', 'type' => 'wall', 'id' => $id, 'values' => ['storey' => $desk->storey, 'fromNode' => $ends[0], 'toNode' => $ends[1], 'thickness' => $wall->thickness, 'line' => 'centre', 'evidence' => 'ink']];
        if (count($operations) >= 400) {
            $desk->change($operations);
            $operations = [];
        }
    }
    if ([] !== $operations) {
        $desk->change($operations);
    }

    return $walls;
}

foreach ([[8, 13, 60], [27, 39, 100]] as [$columns, $rows, $target]) {
    $desk = new Desk(Client::ofStack()->signIn());
    $walls = storeyOf($desk, $columns, $rows);
    $empty = $edits = $moves = [];
    mt_srand(5);
    for ($i = 0; $i < 80; ++$i) {
        $empty[] = timed(static fn () => $desk->client->send('GET', '/api/length?text=1&unit=mm'));
        $wall = $walls[mt_rand(0, count($walls) - 1)];
        $edits[] = timed(static fn () => $desk->change([['do' => 'set', 'type' => 'wall', 'id' => $wall, 'values' => ['thickness' => 100 + mt_rand(0, 200)]]]));
        $moves[] = timed(static fn () => $desk->change([['do' => 'shift', 'shift' => ['wall' => $wall, 'left' => mt_rand(-20, 20) + 0.5]]]));
    }
    printf("Edit round trip over HTTP with %d walls, answer checked against the contract: a thickness p95 %.0f ms, a wall moved p95 %.0f ms, a signed-in endpoint without a plan %.0f ms, ratios %.1f and %.1f (target %d ms, 6)\n", count($walls), p95($edits), p95($moves), p95($empty), p95($edits) / p95($empty), p95($moves) / p95($empty), $target);
}

$desk = new Desk(Client::ofStack()->signIn());
$walls = storeyOf($desk, 43, 66);
$answer = timed(static fn () => $desk->client->ok('GET', "/api/projects/$desk->id"));
printf("The whole of a project of %d walls, read and checked: %.0f ms\n", count($walls), $answer);
file_put_contents($argv[1] ?? '/dev/null', $desk->id);
