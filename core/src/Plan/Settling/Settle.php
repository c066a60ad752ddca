<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Model\Figure;
use Plinth\Core\Plan\Model\JoinedWall;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Settling\Internal\Families;
use Plinth\Core\Plan\Settling\Internal\Family;
use Plinth\Core\Plan\Settling\Internal\Solution;
use Plinth\Core\Plan\Settling\Internal\Sought;
use Plinth\Core\Plan\Settling\Internal\StoreyAdjustment;
use Plinth\Core\Plan\Settling\Internal\Ties;
use Plinth\Core\Plan\Settling\Internal\Traced;

/**
 * Adjusts the tracing of a storey by least squares: every node stays as near as it can to where it was traced, walls that run nearly
 * level, plumb, parallel or square to each other do, ends stay on the walls they end on, and decided figures hold.
 *
 * 1. `Families`: which walls are meant to run one way. 2. `Ties`: what is one unknown by that, and the way of each family.
 * 3. `Adjustment`: least squares under what is left, figures by rank. 4. Here: figures are measured in what came out.
 *
 * A storey may lie anywhere and be turned any way: the same is found. What the grid adds is that ways near it are its own; a way near
 * none that set squares give is estimated, and its own uncertainty is part of every ±.
 *
 * Figures are taken by rank: overall ones first, then those between centre lines, then details; among these those that the tracing
 * agrees with best.
 */
final class Settle
{
    /** Walls that run off by less are meant to be level, plumb, parallel or square to each other. */
    public const MEANT_DEGREES = 1.0;
    /** Standard deviation of a node of which nothing is said, mm. */
    private const SIGMA_MM = 10.0;
    /** Figures are detail unless they reach over this part of the storey. */
    private const OVERALL = 0.93;
    /** A figure holds where it is off by no more than this beyond its rounding, mm. */
    private const HOLDS_MM = 1e-3;
    /** How often it is looked whether more walls run one way by now. */
    private const ROUNDS = 5;

    /**
     * @param list<JoinedWall> $walls of one storey
     * @param array<array-key, Point> $nodes by the names that the walls use
     * @param array<array-key, float> $sigmas standard deviation of each node's place, mm; 10 where nothing is said
     * @param list<Figure> $figures
     */
    public static function storey(array $walls, array $nodes, array $sigmas = [], array $figures = []): Settled
    {
        $traced = Traced::storey($walls, $nodes, $sigmas, self::SIGMA_MM);
        $meant = deg2rad(self::MEANT_DEGREES);
        $members = Families::members($traced, $meant);
        $round = 1;
        do {
            $families = Families::of($members, $traced);
            $ties = new Ties($traced, $families);
            [$sought, $unheld] = self::sought($figures, $traced, $ties, $families);
            $solution = (new StoreyAdjustment($traced, $ties, $sought))->solution($families, $meant);
            // What runs one way now that did not before is meant to as well: settling again shall move nothing. But not what figures
            // or its like turned by much more than that: it was not traced so.
            $now = $traced->at($solution->places);
            [$before, $members] = [$members, Families::members($now->without($traced->turnedBeyond($now, 2.0 * $meant)), $meant)];
        } while ($members !== $before && ++$round <= self::ROUNDS);
        $moves = [];
        [$farthest, $largest] = [null, 0.0];
        foreach ($solution->places as $node => [$x, $y]) {
            $by = hypot($x - $traced->places[$node][0], $y - $traced->places[$node][1]);
            if ($by > Tolerance::STILL_MM) {
                $moves[$traced->names[$node]] = new Point($traced->middle->x + $x, $traced->middle->y + $y);
            }
            if ($by > max($largest, Tolerance::STILL_MM)) {
                [$farthest, $largest] = [$traced->names[$node], $by];
            }
        }
        $against = array_flip(array_map(static fn (Contradiction $c): string => $c->figure, $solution->contradictions));
        $held = [];
        foreach ($sought as $one) {
            if (isset($against[$one->figure->id])) {
                continue;
            }
            if (self::holds($one, $traced, $solution->families[$one->family], $solution)) {
                $held[] = $one->figure->id;
            } else {
                $unheld[] = new Unheld($one->figure->id, Why::NotReached);
            }
        }

        return new Settled(
            $moves,
            $farthest,
            $largest,
            $solution->contradictions,
            self::straightened($traced, $solution),
            $held,
            $unheld,
            array_combine($traced->names, $solution->sigmas()),
        );
    }

    /**
     * @param list<Figure> $figures
     * @param list<Family> $families
     *
     * @return array{list<Sought>, list<Unheld>} the surest first
     */
    private static function sought(array $figures, Traced $traced, Ties $ties, array $families): array
    {
        [$sought, $ranks, $unheld] = [[], [], []];
        $reaches = [];
        foreach ($figures as $figure) {
            [$a, $b] = [$figure->a, $figure->b];
            $f = $ties->familyOf[$a] ?? null;
            $gone = array_filter([$a, $b], static fn (string $wall): bool => !isset($traced->thicknesses[$wall]));
            $curved = array_filter([$a, $b], static fn (string $wall): bool => !isset($traced->straight[$wall]));
            if ([] !== $gone || [] !== $curved) {
                $unheld[] = new Unheld($figure->id, [] !== $gone ? Why::WallGone : Why::Curved);
                continue;
            }
            if (null === $f || $f !== ($ties->familyOf[$b] ?? null) || $families[$f]->normals[$a] !== $families[$f]->normals[$b]) {
                $off = $traced->angle($b) - $traced->angle($a);
                $unheld[] = new Unheld($figure->id, Why::NotParallel, rad2deg(abs($off - \M_PI * round($off / \M_PI))));
                continue;
            }
            $one = Sought::of($figure, $traced, $ties, $families[$f]);
            $reach = $reaches[$f][$one->axis] ??= self::reach($traced, $families[$f], $one->axis);
            $ranks[] = match (true) {
                $figure->mm >= self::OVERALL * $reach => 0,
                Line::Centre === $figure->aSide && Line::Centre === $figure->bSide => 1,
                default => 2,
            };
            $sought[] = $one;
        }
        uksort(
            $sought,
            static fn (int $a, int $b): int => [
                $ranks[$a],
                round($sought[$a]->off, 6),
                $sought[$a]->figure->id,
            ] <=> [$ranks[$b], round($sought[$b]->off, 6), $sought[$b]->figure->id],
        );

        return [array_values($sought), $unheld];
    }

    /** How far a storey reaches along an axis, mm. */
    private static function reach(Traced $traced, Family $family, int $axis): float
    {
        [$nx, $ny] = $family->axis($axis);
        $at = array_map(static fn (array $p): float => $p[0] * $nx + $p[1] * $ny, $traced->places);

        return [] === $at ? 0.0 : max($at) - min($at);
    }

    /** Whether what lies between two faces, measured at both ends of both walls, is what the figure says. */
    private static function holds(Sought $sought, Traced $traced, Family $family, Solution $solution): bool
    {
        [$nx, $ny] = $family->axis($sought->axis);
        $figure = $sought->figure;
        $shift = Sought::shift(
            $traced,
            $figure->b,
            $figure->bSide,
            $nx,
            $ny,
        ) - Sought::shift($traced, $figure->a, $figure->aSide, $nx, $ny);
        foreach ($traced->straight[$figure->a] as $p) {
            foreach ($traced->straight[$figure->b] as $q) {
                [[$px, $py], [$qx, $qy]] = [$solution->places[$p], $solution->places[$q]];
                $mm = $sought->way * (($qx - $px) * $nx + ($qy - $py) * $ny + $shift);
                if (abs($mm - $figure->mm) > $figure->toleranceMm + self::HOLDS_MM) {
                    return false;
                }
            }
        }

        return true;
    }

    private static function straightened(Traced $traced, Solution $solution): int
    {
        $count = 0;
        foreach ($solution->families as $family) {
            foreach ($family->normals as $id => $axis) {
                [$nx, $ny] = $family->axis($axis);
                [$a, $b] = $traced->straight[$id];
                $across = [];
                foreach ([$traced->places, $solution->places] as $places) {
                    $across[] = abs(($places[$b][0] - $places[$a][0]) * $nx + ($places[$b][1] - $places[$a][1]) * $ny);
                }
                $count += $across[0] > Tolerance::STILL_MM && $across[1] <= Tolerance::STILL_MM ? 1 : 0;
            }
        }

        return $count;
    }
}
