<?php

declare(strict_types=1);

// Brings every trial drawing in through the running stack and holds what arrives against its truth: size, way up, colours
// (beside OpenCV's own reading of the file), pages, cuts, exact line ends. Usage: trial.php FOLDER

use Plinth\Core\Geometry\PixelBox;
use Plinth\Server\Tests\Client;
use Plinth\Server\Tests\Desk;

require __DIR__.'/../vendor/autoload.php';

$folder = $argv[1] ?? exit("Usage: trial.php FOLDER\n");

/** @return array{float, float} likeness of the grey pictures, greatest difference of the mean colours */
function likeness(string $preview, string $file): array
{
    $answer = shell_exec('/usr/bin/python3 '.escapeshellarg(__DIR__.'/outside/likeness.py').' '.escapeshellarg($preview).' '.escapeshellarg($file));

    return json_decode((string) $answer, true) ?? [0.0, 255.0];
}

foreach (glob($folder.'/*.truth.json') ?: [] as $truthFile) {
    $truth = json_decode((string) file_get_contents($truthFile), true);
    $file = $folder.'/'.$truth['image'];
    $desk = new Desk(Client::ofStack()->signIn());
    $state = $desk->bringIn($file, $truth['image']);
    $pages = Desk::rows($state, 'page');
    usort($pages, static fn (array $a, array $b): int => $a['values']['number'] <=> $b['values']['number']);
    $truths = $truth['pages'] ?? [$truth];
    $notes = [count($pages) === count($truths) ? '' : sprintf('%d PAGES OF %d', count($pages), count($truths))];
    foreach ($pages as $i => $page) {
        $desk->page = $page['id'];
        $progress = $desk->imported();
        [$w, $h] = $truths[$i]['size'];
        // A vector page has no pixels of its own: ours has more of them, in the same proportion.
        $factor = 'pdf-vector' === $truths[$i]['encoding'] ? $page['values']['resolution'] / $truths[$i]['renderDpi'] : 1.0;
        $right = abs($page['values']['width'] - $w * $factor) <= 1 && abs($page['values']['height'] - $h * $factor) <= 1;
        $notes[] = sprintf('%d × %d %s %s', $page['values']['width'], $page['values']['height'], $right ? 'right' : "WRONG ($w × $h)", $progress['state'].' '.$progress['message']);
        $preview = (string) tempnam(sys_get_temp_dir(), 'prev');
        file_put_contents($preview, $desk->client->send('GET', "/api/projects/$desk->id/pages/{$page['id']}/preview")[1]['text'] ?? '');
        if (!str_ends_with($file, '.pdf')) {
            $notes[] = vsprintf('likeness %.3f, colour off %.0f', likeness($preview, $file));
        }
        unlink($preview);
        foreach ($truths[$i]['drawings'] ?? [] as $drawing) {
            $best = max([0.0, ...array_map(static fn (array $c): float => (new PixelBox(...$c))->likeness(new PixelBox(...$drawing['rectPx'])), $progress['made']['cuts'])]);
            $notes[] = sprintf('cut %s %.3f', $drawing['name'], $best);
        }
        if (1 < ($progress['made']['lines'] ?? 0) && 'pdf-vector' === $truths[$i]['encoding']) {
            $lines = $desk->client->ok('GET', "/api/projects/$desk->id/pages/{$page['id']}/lines");
            $m = $truths[$i]['pixelToMm'];
            $worst = 0.0;
            foreach ($truths[$i]['rooms'] as $room) {
                foreach ($room['polygon'] as [$x, $y]) {
                    $px = [($x - $m[0][2]) / $m[0][0] * $factor, ($y - $m[1][2]) / $m[1][1] * $factor];
                    $worst = max($worst, min(array_map(static fn (array $l): float => min(hypot($l[0] - $px[0], $l[1] - $px[1]), hypot($l[2] - $px[0], $l[3] - $px[1])), $lines)));
                }
            }
            $notes[] = sprintf('%d lines, room corners within %.3f px', count($lines), $worst);
        }
    }
    printf("  %-26s %s\n", $truth['image'], implode('; ', array_filter($notes)));
}
