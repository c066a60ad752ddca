<?php

declare(strict_types=1);

// Bodies of a furnished storey, whole and after one edit, beside the derivation of its plan in the same run.

use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\WholeStorey;
use Plinth\Core\Tests\Plan\Plans;

require __DIR__.'/measure.php';

echo "Bodies of a furnished storey beside the derivation of its plan (target: 2 times it; one edit a twentieth of the whole)\n";
foreach ([[8, 13, 200], [42, 63, 5000]] as [$columns, $rows, $about]) {
    $storey = Plans::standing(20_000 + $about, $columns, $rows);
    $whole = new WholeStorey($storey);
    $derive = least(static fn () => Derivation::of($storey), 3);
    $derivation = new Derivation($whole);
    $derivation->everything();
    $all = static fn () => (new BuildingBodies(new Plan([$storey]), [$storey->id => $whole], [$storey->id => $derivation]))->storey($storey->id)->all();
    $bodies = $all();
    $ours = least($all, 3);
    $faces = array_sum(array_map(static fn ($b): int => count($b->form->faces), $bodies));
    printf(
        "  %5d walls, %d openings: %d bodies with %d faces in %7.1f ms, derivation %7.1f ms, ratio %.2f\n",
        ...[count($storey->walls), count($storey->openings), count($bodies), $faces, $ours, $derive, $ours / $derive],
    );
    mt_srand($about);
    $times = [];
    for ($i = 0; $i < 100; ++$i) {
        $old = $storey->walls[mt_rand(0, count($storey->walls) - 1)];
        $new = new Wall($old->id, $old->from->plus(30, 20), $old->to->plus(30, 20), $old->thickness);
        $whole->put($new);
        $times[] = timed(static function () use ($storey, $whole, $old, $new): void {
            $derivation = new Derivation($whole);
            $affected = $derivation->affected([$old->box(), $new->box()]);
            (new BuildingBodies(new Plan([$storey]), [$storey->id => $whole], [$storey->id => $derivation]))->storey($storey->id)->walls($affected);
        });
        $whole->put($old);
    }
    sort($times);
    printf("         one wall moved, and all bodies that it touches: %.2f ms (p95 %.1f), ratio to the whole %.3f\n", $times[50], p95($times), $times[50] / $ours);
}
