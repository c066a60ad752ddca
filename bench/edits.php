<?php

declare(strict_types=1);

// The running stack: a pick over HTTP beside an empty signed-in endpoint.

use Plinth\Server\Tests\Client;
use Plinth\Server\Tests\Desk;

require __DIR__.'/measure.php';

$desk = new Desk(Client::ofStack()->signIn());
$desk->bringIn(__DIR__.'/../demo/sallow-fen-ground.jpg');
$desk->imported();
$empty = $picks = $tries = [];
mt_srand(3);
for ($i = 0; $i < 80; ++$i) {
    $empty[] = timed(static fn () => $desk->client->send('GET', '/api/length?text=1&unit=mm'));
    $picks[] = timed(static fn () => $desk->client->send('GET', sprintf('/api/projects/'.$desk->id.'/pages/%s/found?x=%d&y=%d&reach=15&mmPerPixel=6.35', $desk->page, 600 + mt_rand(0, 2200), 600 + mt_rand(0, 1300))));
}
$ends = [[640.3, 1845.8], [2718.4, 1796.1]];
for ($i = 0; $i < 20; ++$i) {
    $tries[] = timed(static fn () => $desk->client->ok('POST', "/api/projects/$desk->id/try", ['base' => $desk->revision, 'operations' => $desk->knownLength($ends, '132 000')]));
}
printf("Pick refinement over HTTP: p95 %.0f ms, a signed-in endpoint %.0f ms, ratio %.1f (target 40 ms, 4); a first length tried for slips along its walls: p95 %.0f ms\n", p95($picks), p95($empty), p95($picks) / p95($empty), p95($tries));
