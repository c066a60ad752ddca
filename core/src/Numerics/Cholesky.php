<?php

declare(strict_types=1);

namespace Plinth\Core\Numerics;

/**
 * Cholesky factor of a small symmetric positive definite matrix: A = L Lᵀ.
 */
final readonly class Cholesky
{
    /** @param list<list<float>> $lower rows of L, each up to its diagonal */
    private function __construct(private array $lower)
    {
    }

    /**
     * @param list<list<float>> $a n × n, the lower triangle is read
     *
     * @return self|null null when the matrix is not positive definite to working precision
     */
    public static function of(array $a): ?self
    {
        $lower = [];
        foreach ($a as $i => $row) {
            $li = [];
            for ($j = 0; $j < $i; ++$j) {
                $lj = $lower[$j];
                $sum = $row[$j];
                for ($k = 0; $k < $j; ++$k) {
                    $sum -= $li[$k] * $lj[$k];
                }
                $li[] = $sum / $lj[$j];
            }
            $pivot = $row[$i];
            foreach ($li as $value) {
                $pivot -= $value * $value;
            }
            // Relative to the diagonal it came from: less than this is round-off of a singular matrix.
            if (is_nan($pivot) || $pivot <= 1e-14 * $row[$i]) {
                return null;
            }
            $li[] = sqrt($pivot);
            $lower[] = $li;
        }

        return new self($lower);
    }

    /**
     * @param list<float> $b
     *
     * @return list<float> x with A x = b
     */
    public function solve(array $b): array
    {
        $y = $this->forward($b);
        $x = array_fill(0, \count($y), 0.0);
        for ($i = \count($y) - 1; $i >= 0; --$i) {
            $sum = $y[$i];
            for ($k = $i + 1; $k < \count($y); ++$k) {
                $sum -= $this->lower[$k][$i] * $x[$k];
            }
            $x[$i] = $sum / $this->lower[$i][$i];
        }

        return array_values($x);
    }

    /** @return list<list<float>> A⁻¹ */
    public function inverse(): array
    {
        $n = \count($this->lower);
        $columns = [];
        for ($i = 0; $i < $n; ++$i) {
            $unit = array_fill(0, $n, 0.0);
            $unit[$i] = 1.0;
            $columns[] = $this->solve(array_values($unit));
        }

        return $columns; // symmetric: columns are rows
    }

    /** @return list<float> diagonal of A⁻¹: squared lengths of the columns of L⁻¹ */
    public function inverseDiagonal(): array
    {
        $diagonal = [];
        foreach ($this->lower as $i => $pivotRow) {
            // Column i of L⁻¹ begins at row i.
            $column = [1.0 / $pivotRow[$i]];
            $sum = $column[0] ** 2;
            for ($j = $i + 1; $j < \count($this->lower); ++$j) {
                $row = $this->lower[$j];
                $value = 0.0;
                foreach ($column as $k => $above) {
                    $value -= $row[$i + $k] * $above;
                }
                $value /= $row[$j];
                $column[] = $value;
                $sum += $value * $value;
            }
            $diagonal[] = $sum;
        }

        return $diagonal;
    }

    /**
     * @param list<float> $b
     *
     * @return list<float> y with L y = b
     */
    public function forward(array $b): array
    {
        $y = [];
        foreach ($this->lower as $i => $row) {
            $sum = $b[$i];
            foreach ($y as $k => $value) {
                $sum -= $row[$k] * $value;
            }
            $y[] = $sum / $row[$i];
        }

        return $y;
    }
}
