<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Internal\Condition;

use Plinth\Core\Fitting\Internal\Condition;

/**
 * Two sides of a rectangle meet at a right angle.
 *
 * @internal
 */
final readonly class SquareCorner implements Condition
{
    public function __construct(private string $corner, private string $one, private string $other)
    {
    }

    public function picks(): array
    {
        return [$this->corner, $this->one, $this->other];
    }

    public function figures(): array
    {
        return [];
    }

    public function isPlaced(): bool
    {
        return false;
    }

    /** Radians that the angle misses the right one by. */
    public function of(array $at): array
    {
        [$d, $e] = [[$at[1][0] - $at[0][0], $at[1][1] - $at[0][1]], [$at[2][0] - $at[0][0], $at[2][1] - $at[0][1]]];
        $cross = $d[0] * $e[1] - $d[1] * $e[0];
        $angle = atan2(abs($cross), $d[0] * $e[0] + $d[1] * $e[1]) - \M_PI_2;
        $sign = $cross < 0.0 ? -1.0 : 1.0;
        $dd = max(1e-12, $d[0] ** 2 + $d[1] ** 2);
        $ee = max(1e-12, $e[0] ** 2 + $e[1] ** 2);
        // The angle grows as e turns on and d turns back.
        $byD = [$sign * $d[1] / $dd, -$sign * $d[0] / $dd];
        $byE = [-$sign * $e[1] / $ee, $sign * $e[0] / $ee];

        return [$angle, [[-$byD[0] - $byE[0], -$byD[1] - $byE[1]], $byD, $byE]];
    }
}
