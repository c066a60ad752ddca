<?php

declare(strict_types=1);

namespace Plinth\Core\Escape\Internal;

/**
 * Part of a triangle of the floor, with how far it is from its corners.
 *
 * @internal
 *
 * @phpstan-type Place array{float, float}
 */
final readonly class Part
{
    /**
     * @param int $triangle that it is part of
     * @param array{Place, Place, Place} $corners mm
     * @param array{float, float, float} $mm from each
     */
    public function __construct(public int $triangle, public array $corners, public array $mm)
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
     * @param callable(int, Place): float $far
     *
     * @return array{self, self}
     */
    public function halves(callable $far): array
    {
        [$a, $b, $c] = $this->sides();
        $k = $a >= max($b, $c) ? 0 : ($b >= $c ? 1 : 2);
        [$i, $j, $l] = [$k, ($k + 1) % 3, ($k + 2) % 3];
        [$p, $q, $r] = [$this->corners[$i], $this->corners[$j], $this->corners[$l]];
        $middle = [($p[0] + $q[0]) / 2.0, ($p[1] + $q[1]) / 2.0];
        $there = $far($this->triangle, $middle);

        return [
            new self($this->triangle, [$p, $middle, $r], [$this->mm[$i], $there, $this->mm[$l]]),
            new self($this->triangle, [$middle, $q, $r], [$there, $this->mm[$j], $this->mm[$l]]),
        ];
    }

    /** @return array{float, float, float} from each corner to the next */
    private function sides(): array
    {
        [[$ax, $ay], [$bx, $by], [$cx, $cy]] = $this->corners;

        return [hypot($bx - $ax, $by - $ay), hypot($cx - $bx, $cy - $by), hypot($ax - $cx, $ay - $cy)];
    }
}
