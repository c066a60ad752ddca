<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling\Internal;

use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Numerics\Cholesky;
use Plinth\Core\Numerics\Conditions;
use Plinth\Core\Numerics\Dependence;
use Plinth\Core\Plan\Settling\Contradiction;

/**
 * Every node as near as it can to where it was traced, under all that must hold.
 *
 * Unknown are the places of what is tied together and ways of families (see Unknowns); conditions on these are, by rank: nodes on
 * walls of no family, ends of walls between frames where a figure needs them, figures, and the other walls between frames. A figure
 * that is a sum of earlier ones and differs from it by more than these were rounded contradicts them; one that differs by less is
 * shared among them all. What is not linear in the unknowns is linearised anew where they came to (Gauss and Newton).
 *
 * @internal
 */
final readonly class StoreyAdjustment
{
    /** At a hundred metres still less than a thousandth of a millimetre, radians. */
    private const AT_REST = 1e-10;
    /** Each squares what is left. */
    private const ROUNDS = 12;
    /** A way that cannot be told from one of these is this one, degrees. Common practice, no source: what set squares give. */
    private const SET_SQUARE_DEGREES = 15.0;
    /** A way can be told from another where they are this many standard deviations apart. */
    private const TOLD_APART = 3.0;

    /** @param list<Sought> $figures the surest first */
    public function __construct(private Traced $traced, private Ties $ties, private array $figures)
    {
    }

    /**
     * @param list<Family> $families
     * @param float $meant how far a way may be from one that set squares give and be meant so, radians
     */
    public function solution(array $families, float $meant): Solution
    {
        do {
            $solution = $this->with($families);
            [$families, $drawn] = [$solution->families, false];
            foreach ($families as $f => $family) {
                $step = deg2rad(self::SET_SQUARE_DEGREES);
                $near = $step * round($family->angle / $step);
                if (!$family->isKnown && abs($near - $family->angle) <= min($meant, self::TOLD_APART * $solution->sigmaOf($f))) {
                    $families[$f] = $family->knownAt($near);
                    $drawn = true;
                }
            }
        } while ($drawn);

        return $solution;
    }

    /** @param list<Family> $families */
    private function with(array $families): Solution
    {
        $places = $this->traced->places;
        for ($round = 1;; ++$round) {
            $unknowns = new Unknowns($this->traced, $families, $this->ties);
            [$conditions, $shared, $contradictions] = $this->conditions($unknowns, $places);
            $corrections = $conditions->corrections($shared);
            $turns = $unknowns->turns($corrections);
            $before = $places;
            $places = $unknowns->places($corrections);
            $rests = [] === $this->ties->lines || self::farthest($before, $places) <= Tolerance::STILL_MM / 10.0;
            if ($round >= self::ROUNDS || ($rests && ([] === $turns || max(array_map(abs(...), $turns)) <= self::AT_REST))) {
                return new Solution($families, $places, $contradictions, $unknowns, $conditions);
            }
            foreach ($turns as $f => $turn) {
                $families[$f] = $families[$f]->turnedBy($turn);
            }
            $families = array_values($families);
        }
    }

    /**
     * @param list<array{float, float}> $places where nodes are found so far
     *
     * @return array{Conditions, array<int, float>, list<Contradiction>} with what is shared among conditions, by their numbers
     */
    private function conditions(Unknowns $unknowns, array $places): array
    {
        $conditions = new Conditions($unknowns->variances);
        foreach ($this->ties->lines as [$node, $p, $q]) {
            self::onLine($conditions, $unknowns, $places, $node, $p, $q);
        }
        $measured = [];
        foreach ($this->figures as $sought) {
            $measured[$sought->figure->a] = $measured[$sought->figure->b] = true;
        }
        $later = [];
        foreach ($this->ties->between as $tie) {
            if (isset($measured[$tie[4]])) {
                self::between($conditions, $unknowns, $places, $tie[0], $tie[1], $tie[2], $tie[3], 0.0);
            } else {
                $later[] = $tie;
            }
        }
        [$taken, $rings, $contradictions] = [[], [], []];
        foreach ($this->figures as $sought) {
            $number = $conditions->count();
            $dependence = self::between(
                $conditions,
                $unknowns,
                $places,
                $sought->p,
                $sought->q,
                $sought->family,
                $sought->axis,
                $sought->between,
            );
            if (null === $dependence) {
                $taken[$number] = $sought;
                continue;
            }
            $chain = array_intersect_key($taken, $dependence->shares);
            $allowed = $sought->figure->toleranceMm;
            foreach ($chain as $k => $other) {
                $allowed += abs($dependence->shares[$k]) * $other->figure->toleranceMm;
            }
            if (abs($dependence->by) <= Tolerance::STILL_MM) {
                continue;
            }
            if ([] !== $chain && abs($dependence->by) <= $allowed) {
                $rings[] = [$sought, $dependence];
                continue;
            }
            $contradictions[] = new Contradiction(
                $sought->figure->id,
                array_values(array_map(static fn (Sought $s): string => $s->figure->id, $chain)),
                $sought->way * $dependence->by,
                self::culprit([$sought, ...array_values($chain)], abs($dependence->by)),
            );
        }
        foreach ($later as [$p, $q, $family, $axis]) {
            self::between($conditions, $unknowns, $places, $p, $q, $family, $axis, 0.0);
        }

        return [$conditions, self::shared($rings, $taken), $contradictions];
    }

    /**
     * One node further along an axis of a family than another.
     *
     * @param list<array{float, float}> $places
     */
    private static function between(
        Conditions $conditions,
        Unknowns $unknowns,
        array $places,
        int $p,
        int $q,
        int $family,
        int $axis,
        float $mm,
    ): ?Dependence {
        $row = [];
        $unknowns->along($row, $places, $p, $family, $axis, -1.0);
        $unknowns->along($row, $places, $q, $family, $axis, 1.0);

        return $conditions->take(...$unknowns->condition($row, $mm));
    }

    /**
     * A node on the line through two others. With the unit normal n of the line and the part t of the way at which the node stands,
     * n · (node − (1 − t) p − t q) changes as n · (δnode − (1 − t) δp − t δq).
     *
     * @param list<array{float, float}> $places
     */
    private static function onLine(Conditions $conditions, Unknowns $unknowns, array $places, int $node, int $p, int $q): void
    {
        [[$px, $py], [$qx, $qy], [$x, $y]] = [$places[$p], $places[$q], $places[$node]];
        $length = hypot($qx - $px, $qy - $py);
        if ($length <= 0.0) {
            return;
        }
        [$nx, $ny] = [-($qy - $py) / $length, ($qx - $px) / $length];
        $t = (($x - $px) * $ny - ($y - $py) * $nx) / $length;
        $row = [];
        foreach ([[$node, 1.0], [$p, $t - 1.0], [$q, -$t]] as [$of, $factor]) {
            $unknowns->towards($row, $places, $of, $factor * $nx, $factor * $ny);
        }
        $off = ($x - $px) * $nx + ($y - $py) * $ny;
        $now = $nx * $x + $ny * $y - (1.0 - $t) * ($nx * $px + $ny * $py) - $t * ($nx * $qx + $ny * $qy);
        $conditions->take(...$unknowns->condition($row, $now - $off));
    }

    /**
     * Figures that close a ring within what they were rounded by all give a little, each by its own rounding: of all ways to close
     * the rings the one with the least sum of squares over the squared roundings.
     *
     * @param list<array{Sought, Dependence}> $rings
     * @param array<int, Sought> $taken by number of the condition
     *
     * @return array<int, float>
     */
    private static function shared(array $rings, array $taken): array
    {
        if ([] === $rings) {
            return [];
        }
        $tolerance = static fn (Sought $sought): float => max(Tolerance::STILL_MM, $sought->figure->toleranceMm);
        [$normal, $right] = [[], []];
        foreach ($rings as $i => [$sought, $ring]) {
            $line = [];
            foreach (\array_slice($rings, 0, $i) as [, $other]) {
                $sum = 0.0;
                foreach (array_intersect_key($ring->shares, $other->shares, $taken) as $k => $share) {
                    $sum += $share * $other->shares[$k] * $tolerance($taken[$k]) ** 2;
                }
                $line[] = $sum;
            }
            $own = $tolerance($sought) ** 2;
            foreach (array_intersect_key($ring->shares, $taken) as $k => $share) {
                $own += ($share * $tolerance($taken[$k])) ** 2;
            }
            $line[] = $own;
            $normal[] = $line;
            $right[] = $ring->by;
        }
        $more = [];
        foreach (Cholesky::of($normal)?->solve($right) ?? [] as $i => $multiplier) {
            foreach (array_intersect_key($rings[$i][1]->shares, $taken) as $k => $share) {
                $more[$k] = ($more[$k] ?? 0.0) + $share * $multiplier * $tolerance($taken[$k]) ** 2;
            }
        }

        return $more;
    }

    /**
     * The figure that, were it wrong by the whole discrepancy, would leave the tracing best explained.
     *
     * @param non-empty-list<Sought> $figures
     */
    private static function culprit(array $figures, float $by): string
    {
        $best = $figures[0];
        foreach ($figures as $sought) {
            if (abs($sought->off - $by) < abs($best->off - $by) - Tolerance::STILL_MM) {
                $best = $sought;
            }
        }

        return $best->figure->id;
    }

    /**
     * @param list<array{float, float}> $before
     * @param list<array{float, float}> $after
     */
    private static function farthest(array $before, array $after): float
    {
        $farthest = 0.0;
        foreach ($before as $node => [$x, $y]) {
            $farthest = max($farthest, hypot($after[$node][0] - $x, $after[$node][1] - $y));
        }

        return $farthest;
    }
}
