<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Internal\Condition;

use Plinth\Core\Fitting\Internal\Condition;

/**
 * The line through two picks runs in a stated direction, whichever way round.
 *
 * @internal
 */
final readonly class Direction implements Condition
{
    public function __construct(private string $a, private string $b, private float $directionRad)
    {
    }

    public function picks(): array
    {
        return [$this->a, $this->b];
    }

    public function figures(): array
    {
        return [];
    }

    public function isPlaced(): bool
    {
        return false;
    }

    public function of(array $at): array
    {
        $dx = $at[1][0] - $at[0][0];
        $dy = $at[1][1] - $at[0][1];
        $angle = fmod(atan2($dy, $dx) - $this->directionRad, \M_PI);
        $angle = $angle > \M_PI_2 ? $angle - \M_PI : ($angle <= -\M_PI_2 ? $angle + \M_PI : $angle);
        $dd = max(1e-12, $dx * $dx + $dy * $dy);

        return [$angle, [[$dy / $dd, -$dx / $dd], [-$dy / $dd, $dx / $dd]]];
    }
}
