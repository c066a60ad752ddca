<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Internal;

use Plinth\Core\Fitting\Exception\FitDidNotSettle;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\ShapeModel;
use Plinth\Core\Numerics\Cholesky;

/**
 * Least squares with conditions between observations and parameters (the Gauss–Helmert model): the picks are
 * observations themselves, so a corner that serves a chain of lengths carries its error once, and so are the figures, so that
 * a width which holds at both ends of a room counts once.
 *
 * Conditions f(l, x) = 0, linearised B v + A dx + w = 0 with the picks' cofactors Q. With M = B Q Bᵀ, N = Aᵀ M⁻¹ A:  dx = −N⁻¹ Aᵀ M⁻¹ w,  v
 * = −Q Bᵀ M⁻¹ (w + A dx).
 * Source: Mikhail & Ackermann, Observations and Least Squares (general case); statistics after Baarda, A Testing
 * Procedure for Use in Geodetic Networks (both from memory; tests hold them against simulation).
 *
 * A run object: made for one fit, settled once, then read.
 *
 * @internal
 */
final class Adjustment
{
    private const MOST_ROUNDS = 60;
    /** Parameters are of order one; a change below this is under a micrometre across a hundred metres. */
    private const SETTLED = 1e-10;
    private const DIFFERENCE_STEP = 1e-6;
    /** part of its standard deviation beforehand below which something has tested a parameter */
    private const TESTED = 0.7;
    /** part of a condition's variance */
    private const OWN_ERROR = 1e-9;

    /** @var list<Condition> */
    private array $conditions;
    /** @var array<string, int> */
    private array $index;
    /** @var list<float> shape parameters, then where the page's centre lies (mm) */
    private array $x;
    /** @var list<int> which of them are unknowns */
    private array $free;
    /** @var array<string, array{float, float}> adjusted picks, px */
    private array $picks;
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
     * @param array<string, array{float, float}> $raw where the picks were picked, px
     * @param array<string, float> $pickSigmas standard deviation of each coordinate, px
     * @param array<string, Condition> $conditions by the key under which they are asked about
     * @param array<string, float> $figureSigmas in the unit of each figure
     * @param list<float> $shapeStart start of the shape parameters
     * @param list<string> $held names of the parameters that stay at the start (`scale`, `turn`, `place`)
     */
    public function __construct(
        private readonly ShapeModel $model,
        private readonly PageFrame $frame,
        private readonly array $raw,
        private readonly array $pickSigmas,
        array $conditions,
        private readonly array $figureSigmas,
        array $shapeStart,
        float $centreX,
        float $centreY,
        array $held,
    ) {
        $this->x = [...$shapeStart, $centreX, $centreY];
        $names = [...$model->parameters(), 'place', 'place'];
        $this->free = array_keys(array_filter($names, static fn (string $n): bool => !\in_array($n, $held, true)));
        $this->conditions = array_values($conditions);
        $this->index = array_flip(array_keys($conditions));
        $this->picks = $raw;
    }

    /** @throws FitDidNotSettle */
    public function settle(): void
    {
        for ($round = 0; $round < self::MOST_ROUNDS; ++$round) {
            $this->linearise();
            $change = $this->solveRound();
            if ($change < self::SETTLED) {
                // Only the statistics need it.
                $this->inverseDiagonal = $this->factor?->inverseDiagonal() ?? [];

                return;
            }
        }
        throw FitDidNotSettle::after(self::MOST_ROUNDS);
    }

    /** Whether of a parameter hardly more is known than was beforehand; false where nothing was, or it is none. */
    public function isUntested(string $parameter): bool
    {
        $index = array_search($parameter, $this->model->parameters(), true);
        $sigma = $this->model->priors($this->x)[$index] ?? null;
        $free = array_search($index, $this->free, true);

        return null !== $sigma && false !== $free && sqrt(max(0.0, $this->covariance[$free][$free])) > self::TESTED * $sigma;
    }

    /** Where pixels go under the parameters as they are now. */
    private function mapping(): Mapping
    {
        return new Mapping($this->model, $this->frame, $this->x, $this->free);
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
        return \count($this->conditions) + \count($this->model->priors($this->x)) - \count($this->free);
    }

    /** χ² of what is known beforehand: no statement, but what statements may be held against. */
    public function chiSquareBeforehand(): float
    {
        $sum = 0.0;
        foreach ($this->model->priors($this->x) as $index => $sigma) {
            $sum += ($this->x[$index] / $sigma) ** 2;
        }

        return $sum;
    }

    /** χ² of the fit: (w + A dx)ᵀ M⁻¹ (w + A dx). */
    public function chiSquare(): float
    {
        $sum = 0.0;
        foreach ($this->correlates as $i => $k) {
            $sum += $k * $this->misclosure[$i];
        }

        return max(0.0, $sum);
    }

    /** Redundancy number of a condition, 0 (nothing checks it) to 1 (it adds nothing to the fit). */
    public function redundancy(string $key): float
    {
        $i = $this->index[$key];
        $used = 0.0;
        foreach ($this->free as $j => $_) {
            foreach ($this->free as $k => $__) {
                $used += $this->a[$i][$j] * $this->covariance[$j][$k] * $this->g[$i][$k];
            }
        }

        return max(0.0, min(1.0, 1.0 - $used));
    }

    /**
     * Baarda's standardised residual of a figure that enters these conditions alike; 0 when nothing checks it. With e that is 1 in
     * them: w = eᵀ k / √(eᵀ (M⁻¹ − G N⁻¹ Gᵀ) e).
     */
    public function standardised(string ...$keys): float
    {
        $e = array_fill(0, \count($this->conditions), 0.0);
        $sum = 0.0;
        $g = array_fill(0, \count($this->free), 0.0);
        foreach ($keys as $key) {
            $i = $this->index[$key];
            $e[$i] = 1.0;
            $sum += $this->correlates[$i];
            foreach ($this->g[$i] as $j => $gj) {
                $g[$j] += $gj;
            }
        }
        $whole = 1 === \count($keys) ? $this->inverseDiagonal[$this->index[$keys[array_key_first($keys)]]] : array_sum(
            array_map(static fn (float $x, float $y): float => $x * $y, $e, $this->factor?->solve(array_values($e)) ?? []),
        );
        $variance = $whole;
        foreach ($g as $j => $gj) {
            foreach ($g as $k => $gk) {
                $variance -= $gj * $this->covariance[$j][$k] * $gk;
            }
        }

        return $variance > 1e-9 * $whole ? $sum / sqrt($variance) : 0.0;
    }

    /** What a condition amounts to at the picks as they were picked: fitted minus stated, in its own unit. */
    public function residual(Condition $condition): float
    {
        return $condition->of(
            array_map(fn (string $id): array => $this->mapping()->to($this->raw[$id], $condition->isPlaced()), $condition->picks()),
        )[0];
    }

    /** Standard deviation of what a condition reads: of the fit, of its own picks, and of what they share; its figure left out. */
    public function readingSigma(Condition $condition): float
    {
        $jacobians = [];
        foreach ($condition->picks() as $id) {
            $jacobians[$id] = $this->mapping()->jacobian($this->raw[$id]);
        }
        [, $byParameter, $byPick] = $this->derivatives($condition, $jacobians);
        $variance = $this->variance($byParameter);
        foreach ($byPick as $id => $d) {
            $variance += $this->pickSigmas[$id] ** 2 * ($d[0] ** 2 + $d[1] ** 2);
        }
        // Cov(x̂, l) = −N⁻¹ Gᵀ B Q: only conditions that use the same picks contribute.
        foreach ($this->b as $i => $row) {
            $shared = 0.0;
            foreach ($byPick as $id => $d) {
                if (isset($row[$id])) {
                    $shared += $this->pickSigmas[$id] ** 2 * ($row[$id][0] * $d[0] + $row[$id][1] * $d[1]);
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
     * Where a point of the page lies from another one of it.
     *
     * @return array{float, float} mm
     */
    public function from(float $xPx, float $yPx, float $fromXPx, float $fromYPx): array
    {
        [$x, $y] = $this->mapping()->to([$xPx, $yPx], false);
        [$fromX, $fromY] = $this->mapping()->to([$fromXPx, $fromYPx], false);

        return [$x - $fromX, $y - $fromY];
    }

    /**
     * Standard deviation of where a point of the page comes to lie, against another one of it: the longer half axis of its error
     * ellipse, of the fit alone.
     *
     * @return float mm
     */
    public function sigmaBetween(float $xPx, float $yPx, float $fromXPx, float $fromYPx): float
    {
        [, , $jx, $jy] = $this->mapping()->jacobian([$xPx, $yPx]);
        [, , $fx, $fy] = $this->mapping()->jacobian([$fromXPx, $fromYPx]);
        $dx = [];
        $dy = [];
        foreach ($jx as $k => $_) {
            $dx[] = $jx[$k] - $fx[$k];
            $dy[] = $jy[$k] - $fy[$k];
        }
        $xx = $this->variance($dx);
        $yy = $this->variance($dy);
        $xy = 0.0;
        foreach ($dx as $j => $dj) {
            foreach ($dy as $k => $dk) {
                $xy += $dj * $this->covariance[$j][$k] * $dk;
            }
        }

        return sqrt(max(0.0, ($xx + $yy) / 2.0 + hypot(($xx - $yy) / 2.0, $xy)));
    }

    /**
     * Standard deviation of a true length of the model, relative to the length (no unit), and what the length comes to, mm.
     *
     * @param array{float, float} $from normalised coordinates of its ends on the page
     * @param array{float, float} $to
     *
     * @return array{float, float}
     */
    public function relativeSigma(array $from, array $to): array
    {
        $mm = $this->between($this->x, $from, $to);
        $byParameter = $this->byParameter(fn (array $x): float => $this->between($x, $from, $to));

        return [sqrt(max(0.0, $this->variance($byParameter))) / $mm, $mm];
    }

    /**
     * @param list<float> $x
     * @param array{float, float} $from
     * @param array{float, float} $to
     */
    private function between(array $x, array $from, array $to): float
    {
        [$x1, $y1] = $this->model->apply($x, ...$from);
        [$x2, $y2] = $this->model->apply($x, ...$to);

        return hypot($x2 - $x1, $y2 - $y1);
    }

    private function linearise(): void
    {
        $this->a = [];
        $this->b = [];
        $this->misclosure = [];
        $jacobians = array_map($this->mapping()->jacobian(...), $this->picks);
        foreach ($this->conditions as $condition) {
            [$w, $byParameter, $byPick] = $this->derivatives($condition, $jacobians);
            // The misclosure at the picks as they were, carried over the linearisation: w = f(l, x) + B (l⁰ − l).
            foreach ($byPick as $id => $d) {
                $w += $d[0] * ($this->raw[$id][0] - $this->picks[$id][0]) + $d[1] * ($this->raw[$id][1] - $this->picks[$id][1]);
            }
            $this->a[] = $byParameter;
            $this->b[] = $byPick;
            $this->misclosure[] = $w;
        }
    }

    /**
     * @param array<string, array{float, float, list<float>, list<float>, array{float, float, float, float}}> $jacobians
     *
     * @return array{float, list<float>, array<string, array{float, float}>} value, derivatives by the unknowns, and by the coordinates of
     *                                                                       each pick
     */
    private function derivatives(Condition $condition, array $jacobians): array
    {
        $placed = $condition->isPlaced();
        [$px, $py] = $placed ? $this->centre() : [0.0, 0.0];
        $ids = $condition->picks();
        $at = [];
        foreach ($ids as $id) {
            $at[] = [$jacobians[$id][0] + $px, $jacobians[$id][1] + $py];
        }
        [$value, $gradients] = $condition->of($at);
        $byParameter = [];
        $byPick = [];
        $places = \count($this->x) - 2;
        foreach ($this->free as $k => $index) {
            $sum = 0.0;
            if ($placed || $index < $places) {
                foreach ($ids as $n => $id) {
                    $sum += $gradients[$n][0] * $jacobians[$id][2][$k] + $gradients[$n][1] * $jacobians[$id][3][$k];
                }
            }
            $byParameter[] = $sum;
        }
        foreach ($ids as $n => $id) {
            [$xx, $xy, $yx, $yy] = $jacobians[$id][4];
            $byPick[$id] = [$gradients[$n][0] * $xx + $gradients[$n][1] * $yx, $gradients[$n][0] * $xy + $gradients[$n][1] * $yy];
        }

        return [$value, $byParameter, $byPick];
    }

    /** @return float the largest change of a parameter */
    private function solveRound(): float
    {
        $m = [];
        foreach ($this->b as $i => $row) {
            $figures = $this->conditions[$i]->figures();
            $line = [];
            for ($j = 0; $j <= $i; ++$j) {
                $sum = 0.0;
                foreach ($this->conditions[$j]->figures() as $id => $d) {
                    if (isset($figures[$id])) {
                        $sum += $this->figureSigmas[$id] ** 2 * $d * $figures[$id];
                    }
                }
                foreach ($row as $id => $d) {
                    if (isset($this->b[$j][$id])) {
                        $sum += $this->pickSigmas[$id] ** 2 * ($d[0] * $this->b[$j][$id][0] + $d[1] * $this->b[$j][$id][1]);
                    }
                }
                // Statements may say the same of the same picks: a trace of an error of its own keeps each condition apart.
                $line[] = $i === $j ? $sum * (1.0 + self::OWN_ERROR) : $sum;
            }
            $m[] = $line;
        }
        $factor = Cholesky::of($m) ?? throw FitDidNotSettle::after(1);
        $n = \count($this->conditions);
        $this->g = array_fill(0, $n, []);
        $known = [];
        foreach ($this->model->priors($this->x) as $index => $sigma) {
            $known[(int) array_search($index, $this->free, true)] = 1.0 / $sigma ** 2;
        }
        $normal = [];
        $right = [];
        foreach ($this->free as $j => $_) {
            $column = $factor->solve(array_column($this->a, $j));
            foreach ($column as $i => $value) {
                $this->g[$i][] = $value;
            }
            $right[] = -array_sum(
                array_map(static fn (float $g, float $w): float => $g * $w, $column, $this->misclosure),
            ) - $this->x[$this->free[$j]] * ($known[$j] ?? 0.0);
        }
        foreach ($this->free as $j => $_) {
            $line = [];
            foreach ($this->free as $k => $__) {
                $sum = 0.0;
                foreach ($this->a as $i => $row) {
                    $sum += $row[$j] * $this->g[$i][$k];
                }
                $line[] = $j === $k ? $sum + ($known[$j] ?? 0.0) : $sum;
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
        $picks = $this->raw;
        foreach ($this->b as $i => $row) {
            foreach ($row as $id => $d) {
                $q = $this->pickSigmas[$id] ** 2 * $this->correlates[$i];
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

    /**
     * @param callable(list<float>): float $of does not depend on the place
     *
     * @return list<float> by each unknown
     */
    private function byParameter(callable $of): array
    {
        $result = [];
        foreach ($this->free as $index) {
            $up = $this->x;
            $up[$index] += self::DIFFERENCE_STEP;
            $down = $this->x;
            $down[$index] -= self::DIFFERENCE_STEP;
            $result[] = ($of(array_values($up)) - $of(array_values($down))) / (2.0 * self::DIFFERENCE_STEP);
        }

        return $result;
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
}
