<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Internal\Condition;

use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\Internal\Condition;

/**
 * A distance between two picks, or from a pick to the line through two others, is as stated.
 *
 * @internal
 */
final readonly class Distance implements Condition
{
    /** @param list<string> $picks a and b; for Along::Across the line's a and c first, then b */
    public function __construct(private array $picks, private Along $along, private float $mm, private ?string $figure)
    {
    }

    public function picks(): array
    {
        return $this->picks;
    }

    public function figures(): array
    {
        return null === $this->figure ? [] : [$this->figure => -1.0];
    }

    public function isPlaced(): bool
    {
        return false;
    }

    public function of(array $at): array
    {
        [[$ax, $ay], [$bx, $by]] = $at;
        $dx = $bx - $ax;
        $dy = $by - $ay;
        if (Along::Across === $this->along) {
            return $this->across($dx, $dy, $at[2][0] - $ax, $at[2][1] - $ay);
        }
        $length = match ($this->along) {
            Along::Straight => hypot($dx, $dy),
            Along::X => abs($dx),
            Along::Y => abs($dy),
        };
        [$gx, $gy] = match ($this->along) {
            Along::Straight => $length > 0.0 ? [$dx / $length, $dy / $length] : [1.0, 0.0],
            Along::X => [$dx < 0.0 ? -1.0 : 1.0, 0.0],
            Along::Y => [0.0, $dy < 0.0 ? -1.0 : 1.0],
        };

        return [$length - $this->mm, [[-$gx, -$gy], [$gx, $gy]]];
    }

    /**
     * |d × e| / |d|, d along the line and e from its beginning to the pick.
     *
     * @return array{float, list<array{float, float}>}
     */
    private function across(float $dx, float $dy, float $ex, float $ey): array
    {
        $d = max(1e-12, hypot($dx, $dy));
        $cross = $dx * $ey - $dy * $ex;
        $sign = $cross < 0.0 ? -1.0 : 1.0;
        $byD = [$sign * $ey / $d - abs($cross) * $dx / $d ** 3, -$sign * $ex / $d - abs($cross) * $dy / $d ** 3];
        $byE = [-$sign * $dy / $d, $sign * $dx / $d];

        return [abs($cross) / $d - $this->mm, [[-$byD[0] - $byE[0], -$byD[1] - $byE[1]], $byD, $byE]];
    }
}
