<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Internal;

use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\Exception\FitDidNotSettle;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\ShapeModel;

/**
 * Least squares with conditions between observations and parameters (the Gauss–Helmert model): the picks are
 * observations themselves, so a corner that serves a chain of lengths carries its error once.
 *
 * Conditions f(l, x) = 0, linearised B v + A dx + w = 0 with the picks' cofactors Q. With M = B Q Bᵀ (+ the figures' own
 * variances on its diagonal), N = Aᵀ M⁻¹ A:  dx = −N⁻¹ Aᵀ M⁻¹ w,  v = −Q Bᵀ M⁻¹ (w + A dx).
 * Source: Mikhail & Ackermann, Observations and Least Squares (general case); statistics after Baarda, A Testing
 * Procedure for Use in Geodetic Networks (both from memory; tests hold them against simulation).
 *
 * A run object: made for one fit, settled once, then read.
 *
 * @internal
 *
 * @phpstan-type Condition array{kind: 'length'|'grid'|'point', a: string, b: string, target: float, along: Along, variance: float}
 */
final class Adjustment
{
    private const MOST_ROUNDS = 60;
    /** Parameters are of order one; a change below this is under a micrometre across a hundred metres. */
    private const SETTLED = 1e-10;
    private const DIFFERENCE_STEP = 1e-6;
    /** Picks enter almost linearly; a longer step keeps round-off of large coordinates out of the derivative. */
    private const PICK_STEP = 1e-5;

    /** @var list<Condition> */
    private array $conditions = [];
    /** @var list<float> shape parameters, then where the page's centre lies (mm) */
    private array $x;
    /** @var list<int> which of are unknowns */
    private array $free;
    /** @var array<string, array{float, float}> adjusted picks, px */
    private array $picks = [];
    /** @var list<list<float>> m × u */
    private array $a = [];
    /** @var list<array<string, array{float, float}>> per condition: pick → derivative by its two coordinates */
    private array $b = [];
    /** @var list<float> */
    private array $misclosure = [];
    /** @var list<list<float>> M⁻¹ A, m × u */
    private array $g = [];
    /** @var list<list<float>> N⁻¹, u × u */
    private array $covariance = [];
    private ?Cholesky $factor = null;
    /** @var list<float> diagonal of M⁻¹ */
    private array $inverseDiagonal = [];
    /** @var list<float> M⁻¹ (w + A dx) */
    private array $correlates = [];

    /**
     * @param list<float> $shapeStart start of the shape parameters
     * @param list<string> $held names of the parameters that stay at the start (`scale`, `turn`, `place`)
     */
    public function __construct(
        private readonly ShapeModel $model,
        private readonly PageFrame $frame,
        private readonly Observations $observations,
        array $shapeStart,
        float $centreX,
        float $centreY,
        array $held,
    ) {
        $this->x = [...$shapeStart, $centreX, $centreY];
        $names = [...$model->parameters(), 'place', 'place'];
        $this->free = array_keys(array_filter($names, static fn (string $n): bool => !\in_array($n, $held, true)));
        foreach ($observations->lengths as $length) {
            if (!$length->heldOut) {
                $this->conditions[] = ['kind' => 'length', 'a' => $length->a, 'b' => $length->b, 'target' => $length->mm, 'along' => $length->along, 'variance' => $length->sigmaMm ** 2];
            }
        }
        foreach ($observations->grid as $line) {
            $this->conditions[] = ['kind' => 'grid', 'a' => $line->a, 'b' => $line->b, 'target' => $line->directionRad, 'along' => Along::Straight, 'variance' => 0.0];
        }
        foreach ($observations->points as $point) {
            $this->conditions[] = ['kind' => 'point', 'a' => $point->pick, 'b' => $point->pick, 'target' => $point->at->x, 'along' => Along::X, 'variance' => 0.0];
            $this->conditions[] = ['kind' => 'point', 'a' => $point->pick, 'b' => $point->pick, 'target' => $point->at->y, 'along' => Along::Y, 'variance' => 0.0];
        }
    }

    /** @throws FitDidNotSettle */
    public function settle(): void
    {
        $raw = $this->rawPicks();
        $this->picks = $raw;
        for ($round = 0; $round < self::MOST_ROUNDS; ++$round) {
            $this->linearise($raw);
            $change = $this->solveRound($raw);
            if ($change < self::SETTLED) {
                // Only the statistics need it.
                $this->inverseDiagonal = $this->factor?->inverseDiagonal() ?? [];

                return;
            }
        }
        throw FitDidNotSettle::after(self::MOST_ROUNDS);
    }

    /** @return list<float> shape parameters */
    public function shape(): array
    {
        return \array_slice($this->x, 0, -2);
    }

    /** @return array{float, float} mm */
    public function centre(): array
    {
        return [$this->x[\count($this->x) - 2], $this->x[\count($this->x) - 1]];
    }

    public function degreesOfFreedom(): int
    {
        return \count($this->conditions) - \count($this->free);
    }

    /** χ² of the fit: (w + A dx)ᵀ M⁻¹ (w + A dx). */
    public function chiSquare(): float
    {
        $sum = 0.0;
        foreach ($this->correlates as $i => $k) {
            $sum += $k * $this->closed($i);
        }

        return max(0.0, $sum);
    }

    /** Redundancy number of a condition, 0 (nothing checks it) to 1 (it adds nothing to the fit). */
    public function redundancy(int $condition): float
    {
        $used = 0.0;
        foreach ($this->free as $j => $_) {
            foreach ($this->free as $k => $__) {
                $used += $this->a[$condition][$j] * $this->covariance[$j][$k] * $this->g[$condition][$k];
            }
        }

        return max(0.0, min(1.0, 1.0 - $used));
    }

    /** Baarda's standardised residual of a condition; 0 when nothing checks it. */
    public function standardised(int $condition): float
    {
        $variance = $this->inverseDiagonal[$condition];
        foreach ($this->free as $j => $_) {
            foreach ($this->free as $k => $__) {
                $variance -= $this->g[$condition][$j] * $this->covariance[$j][$k] * $this->g[$condition][$k];
            }
        }

        return $variance > 1e-9 * $this->inverseDiagonal[$condition] ? $this->correlates[$condition] / sqrt($variance) : 0.0;
    }

    /** What a length reads between its picks as they were picked, mm. */
    public function reads(KnownLength $length): float
    {
        return $this->measure($this->x, $length->along, $this->rawPick($length->a), $this->rawPick($length->b));
    }

    /** Angle from a grid line to its stated direction, radians in (−π/2, π/2], as picked. */
    public function gridResidual(string $a, string $b, float $directionRad): float
    {
        return $this->angle($this->x, $directionRad, $this->rawPick($a), $this->rawPick($b));
    }

    /**
     * Standard deviation of what a length reads: of the fit, of its own picks, and of what they share.
     *
     * @return float mm
     */
    public function readingSigma(KnownLength $length): float
    {
        $a = $this->rawPick($length->a);
        $b = $this->rawPick($length->b);
        $byParameter = $this->byParameter(fn (array $x): float => $this->measure($x, $length->along, $a, $b));
        [$da, $db] = $this->byPicks(fn (array $p, array $q): float => $this->measure($this->x, $length->along, $p, $q), $a, $b);
        $variance = $this->variance($byParameter);
        $qa = $this->observations->pick($length->a)->sigmaPx ** 2;
        $qb = $this->observations->pick($length->b)->sigmaPx ** 2;
        $variance += $qa * ($da[0] ** 2 + $da[1] ** 2) + $qb * ($db[0] ** 2 + $db[1] ** 2);
        // Cov(x̂, l) = −N⁻¹ Gᵀ B Q: only conditions that use the same picks contribute.
        foreach ($this->b as $i => $row) {
            $shared = 0.0;
            foreach ([[$length->a, $da, $qa], [$length->b, $db, $qb]] as [$id, $d, $q]) {
                if (isset($row[$id])) {
                    $shared += $q * ($row[$id][0] * $d[0] + $row[$id][1] * $d[1]);
                }
            }
            if (0.0 !== $shared) {
                foreach ($byParameter as $j => $dj) {
                    foreach ($this->g[$i] as $k => $gk) {
                        $variance -= 2.0 * $dj * $this->covariance[$j][$k] * $gk * $shared;
                    }
                }
            }
        }

        return sqrt(max(0.0, $variance));
    }

    /**
     * Standard deviation of a true length of the model, from the fit alone, in its worst direction, relative to the
     * length (no unit).
     */
    public function relativeSigma(): float
    {
        $worst = 0.0;
        foreach ([0.0, 45.0, 90.0, 135.0] as $degrees) {
            $du = cos(deg2rad($degrees));
            $dv = sin(deg2rad($degrees));
            $byParameter = $this->byParameter(fn (array $x): float => $this->span($x, $du, $dv));
            $worst = max($worst, $this->variance($byParameter) / $this->span($this->x, $du, $dv) ** 2);
        }

        return sqrt(max(0.0, $worst));
    }

    /** @param list<float> $x */
    private function span(array $x, float $du, float $dv): float
    {
        [$x1, $y1] = $this->model->apply($x, -0.5 * $du, -0.5 * $dv);
        [$x2, $y2] = $this->model->apply($x, 0.5 * $du, 0.5 * $dv);

        return hypot($x2 - $x1, $y2 - $y1);
    }

    /** @param array<string, array{float, float}> $raw */
    private function linearise(array $raw): void
    {
        $this->a = [];
        $this->b = [];
        $this->misclosure = [];
        foreach ($this->conditions as $condition) {
            $a = $this->picks[$condition['a']];
            $b = $this->picks[$condition['b']];
            $this->a[] = $this->byParameter(fn (array $x): float => $this->condition($condition, $x, $a, $b));
            [$da, $db] = $this->byPicks(fn (array $p, array $q): float => $this->condition($condition, $this->x, $p, $q), $a, $b);
            $row = [$condition['a'] => $da];
            if ('point' !== $condition['kind']) {
                $row[$condition['b']] = $db;
            }
            // The misclosure at the picks as they were, carried over the linearisation: w = f(l, x) + B (l⁰ − l).
            $w = $this->condition($condition, $this->x, $a, $b);
            foreach ($row as $id => $d) {
                $w += $d[0] * ($raw[$id][0] - $this->picks[$id][0]) + $d[1] * ($raw[$id][1] - $this->picks[$id][1]);
            }
            $this->b[] = $row;
            $this->misclosure[] = $w;
        }
    }

    /**
     * @param array<string, array{float, float}> $raw
     *
     * @return float the largest change of a parameter
     */
    private function solveRound(array $raw): float
    {
        $m = [];
        foreach ($this->b as $i => $row) {
            $line = [];
            for ($j = 0; $j <= $i; ++$j) {
                $sum = $i === $j ? $this->conditions[$i]['variance'] : 0.0;
                foreach ($row as $id => $d) {
                    if (isset($this->b[$j][$id])) {
                        $sum += $this->observations->pick($id)->sigmaPx ** 2 * ($d[0] * $this->b[$j][$id][0] + $d[1] * $this->b[$j][$id][1]);
                    }
                }
                $line[] = $sum;
            }
            $m[] = $line;
        }
        $factor = Cholesky::of($m) ?? throw FitDidNotSettle::after(1);
        $n = \count($this->conditions);
        $this->g = array_fill(0, $n, []);
        $normal = [];
        $right = [];
        foreach ($this->free as $j => $_) {
            $column = $factor->solve(array_column($this->a, $j));
            foreach ($column as $i => $value) {
                $this->g[$i][] = $value;
            }
            $right[] = -array_sum(array_map(static fn (float $g, float $w): float => $g * $w, $column, $this->misclosure));
        }
        foreach ($this->free as $j => $_) {
            $line = [];
            foreach ($this->free as $k => $__) {
                $sum = 0.0;
                foreach ($this->a as $i => $row) {
                    $sum += $row[$j] * $this->g[$i][$k];
                }
                $line[] = $sum;
            }
            $normal[] = $line;
        }
        $dx = [];
        $this->covariance = [];
        if ([] !== $normal) {
            $normalFactor = Cholesky::of($normal) ?? throw FitDidNotSettle::after(1);
            $dx = $normalFactor->solve($right);
            $this->covariance = $normalFactor->inverse();
        }
        $this->factor = $factor;
        $closed = [];
        foreach ($this->misclosure as $i => $w) {
            foreach ($dx as $j => $d) {
                $w += $this->a[$i][$j] * $d;
            }
            $closed[] = $w;
        }
        $this->misclosure = $closed;
        $this->correlates = $factor->solve($closed);
        $picks = $raw;
        foreach ($this->b as $i => $row) {
            foreach ($row as $id => $d) {
                $q = $this->observations->pick($id)->sigmaPx ** 2 * $this->correlates[$i];
                $picks[$id] = [$picks[$id][0] - $q * $d[0], $picks[$id][1] - $q * $d[1]];
            }
        }
        $change = 0.0;
        foreach ($picks as $id => $p) {
            $change = max($change, hypot($p[0] - $this->picks[$id][0], $p[1] - $this->picks[$id][1]) / $this->frame->unitPx);
        }
        $this->picks = $picks;
        $x = $this->x;
        foreach ($dx as $j => $d) {
            $x[$this->free[$j]] += $d;
            $change = max($change, abs($d) / max(1.0, abs($x[$this->free[$j]])));
        }
        $this->x = array_values($x);

        return $change;
    }

    private function closed(int $condition): float
    {
        return $this->misclosure[$condition];
    }

    /**
     * @param Condition $condition
     * @param list<float> $x
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private function condition(array $condition, array $x, array $a, array $b): float
    {
        return match ($condition['kind']) {
            'length' => $this->measure($x, $condition['along'], $a, $b) - $condition['target'],
            'grid' => $this->angle($x, $condition['target'], $a, $b),
            'point' => $this->place($x, $a)[Along::X === $condition['along'] ? 0 : 1] - $condition['target'],
        };
    }

    /**
     * @param list<float> $x
     * @param array{float, float} $a px
     * @param array{float, float} $b px
     *
     * @return float mm
     */
    private function measure(array $x, Along $along, array $a, array $b): float
    {
        [$ax, $ay] = $this->model->apply($x, ...$this->frame->normalised(...$a));
        [$bx, $by] = $this->model->apply($x, ...$this->frame->normalised(...$b));

        return match ($along) {
            Along::Straight => hypot($bx - $ax, $by - $ay),
            Along::X => abs($bx - $ax),
            Along::Y => abs($by - $ay),
        };
    }

    /**
     * @param list<float> $x
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private function angle(array $x, float $direction, array $a, array $b): float
    {
        [$ax, $ay] = $this->model->apply($x, ...$this->frame->normalised(...$a));
        [$bx, $by] = $this->model->apply($x, ...$this->frame->normalised(...$b));
        $angle = fmod(atan2($by - $ay, $bx - $ax) - $direction, \M_PI);

        return $angle > \M_PI_2 ? $angle - \M_PI : ($angle <= -\M_PI_2 ? $angle + \M_PI : $angle);
    }

    /**
     * @param list<float> $x
     * @param array{float, float} $p
     *
     * @return array{float, float} mm
     */
    private function place(array $x, array $p): array
    {
        [$px, $py] = $this->model->apply($x, ...$this->frame->normalised(...$p));

        return [$px + $x[\count($x) - 2], $py + $x[\count($x) - 1]];
    }

    /**
     * @param callable(list<float>): float $of
     *
     * @return list<float> by each unknown
     */
    private function byParameter(callable $of): array
    {
        $result = [];
        foreach ($this->free as $index) {
            $isPlace = $index >= \count($this->x) - 2;
            $step = $isPlace ? 1.0 : self::DIFFERENCE_STEP; // the place enters linearly, in mm
            $up = $this->x;
            $up[$index] += $step;
            $down = $this->x;
            $down[$index] -= $step;
            $result[] = ($of(array_values($up)) - $of(array_values($down))) / (2.0 * $step);
        }

        return $result;
    }

    /**
     * @param callable(array{float, float}, array{float, float}): float $of
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{array{float, float}, array{float, float}} by the coordinates of a, of b
     */
    private function byPicks(callable $of, array $a, array $b): array
    {
        $h = self::PICK_STEP * $this->frame->unitPx;

        return [
            [
                ($of([$a[0] + $h, $a[1]], $b) - $of([$a[0] - $h, $a[1]], $b)) / (2.0 * $h),
                ($of([$a[0], $a[1] + $h], $b) - $of([$a[0], $a[1] - $h], $b)) / (2.0 * $h),
            ],
            [
                ($of($a, [$b[0] + $h, $b[1]]) - $of($a, [$b[0] - $h, $b[1]])) / (2.0 * $h),
                ($of($a, [$b[0], $b[1] + $h]) - $of($a, [$b[0], $b[1] - $h])) / (2.0 * $h),
            ],
        ];
    }

    /** @param list<float> $byParameter */
    private function variance(array $byParameter): float
    {
        $sum = 0.0;
        foreach ($byParameter as $j => $dj) {
            foreach ($byParameter as $k => $dk) {
                $sum += $dj * $this->covariance[$j][$k] * $dk;
            }
        }

        return $sum;
    }

    /** @return array{float, float} */
    private function rawPick(string $id): array
    {
        $at = $this->observations->pick($id)->at;

        return [$at->x, $at->y];
    }

    /** @return array<string, array{float, float}> */
    private function rawPicks(): array
    {
        $raw = [];
        foreach ($this->observations->picks as $id => $pick) {
            $raw[$id] = [$pick->at->x, $pick->at->y];
        }

        return $raw;
    }
}
