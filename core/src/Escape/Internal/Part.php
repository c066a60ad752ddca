<?php

declare(strict_types=1);

namespace Plinth\Core\Escape\Internal;

use Plinth\Core\Escape\ShortestWays;

/**
 * Part of a triangle of the floor, with how far it is from its corners.
 *
 * @internal
 *
 * @phpstan-type Place array{float, float}
 *
 * @phpstan-import-type Cone from ShortestWays
 */
final readonly class Part
{
    /**
     * @param int $triangle that it is part of
     * @param array{Place, Place, Place} $corners mm
     * @param array{float, float, float} $mm from each
     * @param list<Cone> $cones by way of which its places may be nearest
     */
    public function __construct(public int $triangle, public array $corners, public array $mm, public array $cones)
    {
    }

    /** @return array{float, Place} the furthest of its corners */
    public function furthest(): array
    {
        $k = $this->mm[0] >= max($this->mm[1], $this->mm[2]) ? 0 : ($this->mm[1] >= $this->mm[2] ? 1 : 2);

        return [$this->mm[$k], $this->corners[$k]];
    }

    /** @return float no place of it is further: from a corner, and along its longest side */
    public function bound(): float
    {
        [$a, $b, $c] = $this->sides();

        return min($this->mm[0] + max($a, $c), $this->mm[1] + max($a, $b), $this->mm[2] + max($b, $c));
    }

    /**
     * Both halves of it, through the middle of its longest side.
     *
     * @param callable(list<Cone>, Place): float $far
     * @param list<Cone> $cones that still count
     *
     * @return array{self, self}
     */
    public function halves(callable $far, array $cones): array
    {
        [$a, $b, $c] = $this->sides();
        $k = $a >= max($b, $c) ? 0 : ($b >= $c ? 1 : 2);
        [$i, $j, $l] = [$k, ($k + 1) % 3, ($k + 2) % 3];
        [$p, $q, $r] = [$this->corners[$i], $this->corners[$j], $this->corners[$l]];
        $middle = [($p[0] + $q[0]) / 2.0, ($p[1] + $q[1]) / 2.0];
        $there = $far($cones, $middle);

        return [
            new self($this->triangle, [$p, $middle, $r], [$this->mm[$i], $there, $this->mm[$l]], $cones),
            new self($this->triangle, [$middle, $q, $r], [$there, $this->mm[$j], $this->mm[$l]], $cones),
        ];
    }

    /** @return float mm, its longest side: no two places of it are further apart */
    public function size(): float
    {
        return max($this->sides());
    }

    /** @return array{float, float, float} from each corner to the next */
    private function sides(): array
    {
        [[$ax, $ay], [$bx, $by], [$cx, $cy]] = $this->corners;

        return [hypot($bx - $ax, $by - $ay), hypot($cx - $bx, $cy - $by), hypot($ax - $cx, $ay - $cy)];
    }
}
