<?php

declare(strict_types=1);

// The running stack: an edit over HTTP beside an empty signed-in endpoint.

use Plinth\Server\Tests\Client;
use Plinth\Server\Tests\Desk;

require __DIR__.'/../vendor/autoload.php';


/** @param list<float> $times */
function p95(array $times): float
{
    sort($times);

    return $times[(int) floor(0.95 * (count($times) - 1))];
}

/** @return float ms */
function timed(callable $work): float
{
    $start = hrtime(true);
    $work();

    return (hrtime(true) - $start) / 1e6;
}

foreach ([20, 200] as $count) {
    $desk = new Desk(Client::ofStack()->signIn());
    for ($made = 0; $made < $count; $made += 20) {
        $operations = [];
        for ($i = 0; $i < 20; ++$i) {
            $x = ($made + $i) % 15 * 4000.0;
            $y = intdiv($made + $i, 15) * 3000.0;
            $operations[] = $desk->chain([[$x, $y], [$x + 3900.0, $y]])['operation'];
        }
        $desk->change($operations);
    }
    $empty = [];
    $edits = [];
    for ($i = 0; $i < 60; ++$i) {
        $empty[] = timed(static fn () => $desk->client->send('GET', '/api/length?text=1&unit=mm'));
        $chain = $desk->chain([[$i * 900.0, -5000.0], [$i * 900.0 + 800.0, -5000.0]]);
        $edits[] = timed(static fn () => $desk->change([$chain['operation']]));
    }
    printf("Edit round trip over HTTP with %d walls, answer checked against the contract: p95 %.0f ms, a signed-in endpoint without a plan %.0f ms, ratio %.1f (target 60 ms, 6)\n", $count, p95($edits), p95($empty), p95($edits) / p95($empty));
}

$desk = new Desk(Client::ofStack()->signIn());
$desk->bringIn(__DIR__.'/../demo/sallow-fen-ground.jpg');
$desk->imported();
$empty = $picks = $tries = [];
mt_srand(3);
for ($i = 0; $i < 80; ++$i) {
    $empty[] = timed(static fn () => $desk->client->send('GET', '/api/length?text=1&unit=mm'));
    $picks[] = timed(static fn () => $desk->client->send('GET', sprintf('/api/pages/%s/found?x=%d&y=%d&reach=15&mmPerPixel=6.35', $desk->page, 600 + mt_rand(0, 2200), 600 + mt_rand(0, 1300))));
}
$ends = [[640.3, 1845.8], [2718.4, 1796.1]];
for ($i = 0; $i < 20; ++$i) {
    $tries[] = timed(static fn () => $desk->client->ok('POST', "/api/projects/$desk->id/try", ['base' => $desk->revision, 'operations' => $desk->knownLength($ends, '132 000')]));
}
printf("Pick refinement over HTTP: p95 %.0f ms, a signed-in endpoint %.0f ms, ratio %.1f (target 40 ms, 4); a first length tried for slips along its walls: p95 %.0f ms\n", p95($picks), p95($empty), p95($picks) / p95($empty), p95($tries));
