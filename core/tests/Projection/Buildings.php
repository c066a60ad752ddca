<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Projection;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Sweep;
use Plinth\Core\Plan\Model\SweepAlong;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Tests\Bodies\House;
use Plinth\Core\Tests\Plan\Plans;

/** Buildings of one or two storeys, each another: walls that were drawn by an unsteady hand, with openings, floors, columns and roofs. */
final class Buildings
{
    public static function of(int $seed): Plan
    {
        if (0 === $seed % 10) {
            return (new House(0.0, 0.0, 0 === $seed % 20 ? 0.0 : fmod(37.0 * $seed, 300.0)))->plan();
        }
        mt_srand($seed);
        $ground = Plans::standing(9000 + $seed, mt_rand(0, 1) + $seed % 2 + 1, $seed % 3 > 0 ? 2 : 1);
        if (0 === $seed % 3) {
            return new Plan([$ground]);
        }
        // Above it the same, but for a wall or two; every other one under a roof.
        $upper = new Storey(
            'u',
            'Upper',
            2700.0,
            2500.0,
            array_map(
                static fn (Wall $w): Wall => new Wall("u$w->id", $w->from, $w->to, $w->thickness),
                array_values(array_filter($ground->walls, static fn (Wall $w, int $i): bool => 0 !== ($i + $seed) % 7, \ARRAY_FILTER_USE_BOTH)),
            ),
        );
        $corners = $ground->floors[0]->outline->corners;
        $roof = 0 === $seed % 2 && 4 === \count($corners)
            ? [new PitchedRoof('r', $corners, [35.0, 0 === $seed % 4 ? null : 45.0, 35.0, 45.0], [400.0, 300.0, 400.0, 300.0], 2500.0, 180.0)]
            : [];

        return new Plan([$ground, $upper->built(
            array_map(static fn (Slab $f): Slab => new Slab("u$f->id", $f->outline, 0.0, 220.0), $ground->floors),
            roofs: $roof,
            sweeps: 0 === $seed % 4 ? [] : [self::moulding($seed)],
        )]);
    }

    /** A band or a cornice of four or five corners, all round the upper walls; nowhere is one refused for a notch it does not fit into. */
    private static function moulding(int $seed): Sweep
    {
        [$out, $up] = [(float) mt_rand(20, 90), (float) mt_rand(60, 300)];
        $corners = [[0.0, 0.0], [$out * 0.6, 0.0], [$out, $up * 0.4], ...(1 === $seed % 2 ? [[$out, $up]] : []), [0.0, $up]];
        $profile = new Contour(array_map(static fn (array $p): Point => new Point(...$p), $corners));

        return new Sweep('m', $profile, SweepAlong::Walls, level: (float) mt_rand(200, 2000));
    }
}
