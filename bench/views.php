<?php

declare(strict_types=1);

// A side and a section of a furnished storey, beside the derivation of its plan in the same run.

use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Projection\KeptView;
use Plinth\Core\Projection\Projection;
use Plinth\Core\Projection\View;
use Plinth\Core\Tests\Plan\Plans;

require __DIR__.'/measure.php';

echo "Sides and sections of a furnished storey beside the derivation of its plan (target: 4.4 times it at 200 walls)\n";
foreach ([[8, 13, 200], [26, 40, 2000]] as [$columns, $rows, $about]) {
    $storey = Plans::standing(20_000 + $about, $columns, $rows);
    $derive = least(static fn () => Derivation::of($storey), 3);
    $bodies = BuildingBodies::of(new Plan([$storey]));
    $walls = $storey->walls;
    $one = intdiv(count($walls), 2);
    $walls[$one] = new Wall($walls[$one]->id, $walls[$one]->from, $walls[$one]->to, $walls[$one]->thickness, height: 1500.0);
    $edited = BuildingBodies::of(new Plan([$storey->with($walls, $storey->openings)]));
    foreach ([
        'side' => View::side(new Point(0.0, -5000.0), new Point(1000.0, -5000.0)),
        'side aslant' => View::side(new Point(0.0, -5000.0), new Point(1000.0, -5350.0)),
        'section' => View::section([new Point(0.0, 9600.0), new Point(1000.0, 9600.0)]),
    ] as $name => $view) {
        $lines = count(Projection::of($bodies, $view)->lines);
        $ours = least(static fn () => Projection::of($bodies, $view), 3);
        printf(
            "  %5d walls, %5d bodies, %-11s %5d lines in %7.1f ms, derivation %7.1f ms, ratio %.2f\n",
            count($storey->walls),
            count($bodies),
            $name,
            $lines,
            $ours,
            $derive,
            $ours / $derive,
        );
        // One wall of them is made lower, as an edit does it: only what that touches is drawn again.
        $kept = KeptView::of($bodies, $view);
        $again = $kept->again($edited, $view)->redone;
        $ours = least(static fn () => $kept->again($edited, $view), 3);
        printf("  %s after an edit of one wall: %d bodies drawn again in %.1f ms, ratio %.2f\n", str_repeat(' ', 24), $again, $ours, $ours / $derive);
    }
}
