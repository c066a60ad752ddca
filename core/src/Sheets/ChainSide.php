<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** A side of a plan along which chains of dimensions stand. */
enum ChainSide: string
{
    case Below = 'below';
    case Above = 'above';
    case Left = 'left';
    case Right = 'right';

    /**
     * @param array{float, float} $p of the plan, y up
     *
     * @return array{float, float} along the side, and out of the plan there; mm
     */
    public function of(array $p): array
    {
        return match ($this) {
            self::Below => [$p[0], -$p[1]],
            self::Above => [$p[0], $p[1]],
            self::Left => [$p[1], -$p[0]],
            self::Right => [$p[1], $p[0]],
        };
    }

    /**
     * @param float $along along the side, and $out of the plan, mm
     *
     * @return array{float, float} of the plan
     */
    public function at(float $along, float $out): array
    {
        return match ($this) {
            self::Below => [$along, -$out],
            self::Above => [$along, $out],
            self::Left => [-$out, $along],
            self::Right => [$out, $along],
        };
    }

    /** Whether faces that look there run on along the side, round a building counter-clockwise. */
    public function runsOn(): bool
    {
        return self::Below === $this || self::Right === $this;
    }

    public function isUpright(): bool
    {
        return self::Left === $this || self::Right === $this;
    }
}
