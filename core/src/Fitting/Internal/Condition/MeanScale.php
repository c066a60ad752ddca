<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Internal\Condition;

use Plinth\Core\Fitting\Internal\Condition;

/**
 * A small right-angled triangle of the page is as large in the model as the stated scale has it.
 *
 * @internal
 */
final readonly class MeanScale implements Condition
{
    /**
     * @param list<string> $picks three free of error, one pixel unit apart along x and y
     * @param float $sideMm the unit's true length
     */
    public function __construct(private array $picks, private float $sideMm, private string $figure)
    {
    }

    public function picks(): array
    {
        return $this->picks;
    }

    public function figures(): array
    {
        return [$this->figure => -1.0];
    }

    public function isPlaced(): bool
    {
        return false;
    }

    /** Half the logarithm of the areas' ratio: the logarithm of the ratio of the scales. */
    public function of(array $at): array
    {
        [$d, $e] = [[$at[1][0] - $at[0][0], $at[1][1] - $at[0][1]], [$at[2][0] - $at[0][0], $at[2][1] - $at[0][1]]];
        $cross = $d[0] * $e[1] - $d[1] * $e[0];
        $byD = [0.5 * $e[1] / $cross, -0.5 * $e[0] / $cross];
        $byE = [-0.5 * $d[1] / $cross, 0.5 * $d[0] / $cross];

        return [0.5 * log(abs($cross) / $this->sideMm ** 2), [[-$byD[0] - $byE[0], -$byD[1] - $byE[1]], $byD, $byE]];
    }
}
