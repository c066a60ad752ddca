<?php

declare(strict_types=1);

namespace Plinth\Core\Numerics;

/**
 * Least squares under linear conditions: of all x with C x = d the one that minimises Σ (x − x₀)² / σ².
 *
 * With Lagrange's multipliers x − x₀ = V Cᵀ λ where (C V Cᵀ) λ = d − C x₀ and V = diag(σ²); the covariance of x is
 * V − V Cᵀ (C V Cᵀ)⁻¹ C V. Conditions are taken one by one, the factor of C V Cᵀ growing by one sparse row each. A row whose pivot
 * vanishes is a sum of earlier ones: it is not taken, and the row says of which, with which shares, and by how much it differs.
 *
 * Source: constrained least squares by the null-space-free (dual) form, any textbook of adjustment computations (from memory).
 */
final class Conditions
{
    /** A pivot below this part of what it came from is round-off. */
    private const DEPENDENT = 1e-9;
    /** A share below this is round-off. */
    private const NO_SHARE = 1e-6;

    /** @var list<array<int, float>> conditions that were taken, by variable */
    private array $rows = [];
    /** @var list<float> d − C x₀ of each */
    private array $misfits = [];
    /** @var array<int, list<int>> conditions in which a variable stands */
    private array $uses = [];
    /** @var list<float> diagonal of the factor */
    private array $pivots = [];
    /** @var list<array<int, float>> columns of the factor below the diagonal, by row */
    private array $columns = [];
    /** @var list<array<int, float>> rows of the factor before the diagonal, by column */
    private array $lower = [];
    /** @var list<float> L⁻¹ (d − C x₀) */
    private array $forward = [];

    /** @param array<int, float> $variances σ² of each variable */
    public function __construct(private readonly array $variances)
    {
    }

    /**
     * @param array<int, float> $row coefficients by variable
     * @param float $misfit what the row shall be less what it is at x₀
     *
     * @return Dependence|null null when it was taken; its number is how many were taken before
     */
    public function take(array $row, float $misfit): ?Dependence
    {
        $beside = [];
        $own = 0.0;
        foreach ($row as $variable => $factor) {
            $own += $factor * $factor * $this->variances[$variable];
            foreach ($this->uses[$variable] ?? [] as $k) {
                $beside[$k] = ($beside[$k] ?? 0.0) + $factor * $this->rows[$k][$variable] * $this->variances[$variable];
            }
        }
        $lower = $this->solvedForward($beside);
        [$pivot, $by] = [$own, $misfit];
        foreach ($lower as $k => $value) {
            $pivot -= $value * $value;
            $by -= $value * $this->forward[$k];
        }
        if ($pivot <= self::DEPENDENT * $own || $own <= 0.0) {
            $shares = array_filter($this->solvedBackward($lower), static fn (float $share): bool => abs($share) > self::NO_SHARE);
            ksort($shares);

            return new Dependence($shares, $by);
        }
        $number = \count($this->rows);
        $diagonal = sqrt($pivot);
        foreach ($lower as $k => $value) {
            $this->columns[$k][$number] = $value;
        }
        foreach (array_keys($row) as $variable) {
            $this->uses[$variable][] = $number;
        }
        $this->rows[] = $row;
        $this->misfits[] = $misfit;
        $this->pivots[] = $diagonal;
        $this->columns[] = [];
        $this->lower[] = $lower;
        $this->forward[] = $by / $diagonal;

        return null;
    }

    public function count(): int
    {
        return \count($this->rows);
    }

    /**
     * @param array<int, float> $more to add to misfits, by the number of the condition
     *
     * @return array<int, float> x − x₀ of every variable that goes elsewhere
     */
    public function corrections(array $more = []): array
    {
        if ([] === $more) {
            $forward = $this->forward;
        } else {
            $forward = $this->solvedForward(array_filter(
                array_map(
                    static fn (float $misfit, int $k): float => $misfit + ($more[$k] ?? 0.0),
                    $this->misfits,
                    array_keys($this->misfits),
                ),
                static fn (float $misfit): bool => 0.0 !== $misfit,
            ));
        }
        $corrections = [];
        foreach ($this->solvedBackward($forward) as $k => $multiplier) {
            foreach (0.0 === $multiplier ? [] : $this->rows[$k] as $variable => $factor) {
                $corrections[$variable] = ($corrections[$variable] ?? 0.0) + $factor * $multiplier * $this->variances[$variable];
            }
        }

        return $corrections;
    }

    /**
     * @param list<int> $variables
     *
     * @return list<list<float>>
     */
    public function covariance(array $variables): array
    {
        $reaches = array_map($this->reach(...), $variables);
        $all = [];
        foreach ($variables as $i => $a) {
            $line = [];
            foreach ($variables as $j => $b) {
                $value = $a === $b ? $this->variances[$a] : 0.0;
                foreach ($reaches[$i] as $k => $reach) {
                    $value -= $reach * ($reaches[$j][$k] ?? 0.0);
                }
                $line[] = $value;
            }
            $all[] = $line;
        }

        return $all;
    }

    /** @return array<int, float> L⁻¹ C V of a variable */
    private function reach(int $variable): array
    {
        $beside = [];
        foreach ($this->uses[$variable] ?? [] as $k) {
            $beside[$k] = $this->rows[$k][$variable] * $this->variances[$variable];
        }

        return $this->solvedForward($beside);
    }

    /**
     * @param array<int, float> $right
     *
     * @return array<int, float> y with L y = right, only where it is not zero
     */
    private function solvedForward(array $right): array
    {
        // What is reached only grows towards higher numbers, so the least open one is done for good.
        /** @var \SplMinHeap<int> $open */
        $open = new \SplMinHeap();
        foreach (array_keys($right) as $k) {
            $open->insert($k);
        }
        $y = [];
        while (!$open->isEmpty()) {
            $k = $open->extract();
            if (0.0 === $right[$k]) {
                continue;
            }
            $value = $y[$k] = $right[$k] / $this->pivots[$k];
            foreach ($this->columns[$k] as $row => $factor) {
                if (!isset($right[$row])) {
                    $right[$row] = 0.0;
                    $open->insert($row);
                }
                $right[$row] -= $factor * $value;
            }
        }

        return $y;
    }

    /**
     * @param array<int, float> $right
     *
     * @return array<int, float> x with Lᵀ x = right, only where it is not zero
     */
    private function solvedBackward(array $right): array
    {
        /** @var \SplMaxHeap<int> $open */
        $open = new \SplMaxHeap();
        foreach (array_keys($right) as $k) {
            $open->insert($k);
        }
        $x = [];
        while (!$open->isEmpty()) {
            $k = $open->extract();
            $value = $x[$k] = $right[$k] / $this->pivots[$k];
            foreach (0.0 === $value ? [] : $this->lower[$k] as $column => $factor) {
                if (!isset($right[$column])) {
                    $right[$column] = 0.0;
                    $open->insert($column);
                }
                $right[$column] -= $factor * $value;
            }
        }

        return $x;
    }
}
