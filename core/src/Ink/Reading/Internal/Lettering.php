<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * A row of letters.
 *
 * u runs along it and v to its right (down, where it is read level), px of the ink; the origin is the ink's.
 *
 * @internal
 */
final readonly class Lettering
{
    /** parts of both lengths together, and of the height, within which the middles of one row found twice lie */
    private const SAME = [0.45, 0.8];

    /**
     * @param float $direction it is read in, or against, radians with y down
     * @param float $slope by which the row runs off that direction, dv/du
     */
    public function __construct(
        public float $direction,
        public float $from,
        public float $to,
        public float $head,
        public float $foot,
        public float $slope,
        public int $pieces,
    ) {
    }

    public function height(): float
    {
        return $this->foot - $this->head + 1.0;
    }

    /** @return array{float, float} x and y of its middle */
    public function middle(): array
    {
        $u = ($this->from + $this->to) / 2.0;
        $v = ($this->head + $this->foot) / 2.0;
        [$c, $s] = [cos($this->direction), sin($this->direction)];

        return [$u * $c - $v * $s, $u * $s + $v * $c];
    }

    /** Whether the two have most of their letters in common. */
    public function overlaps(self $other): bool
    {
        [$x, $y] = $this->middle();
        [$u, $v] = $other->middle();
        [$c, $s] = [cos($this->runs()), sin($this->runs())];

        return abs(($u - $x) * $c + ($v - $y) * $s) < self::SAME[0] * ($this->length() + $other->length())
            && abs(($v - $y) * $c - ($u - $x) * $s) < self::SAME[1] * $this->height();
    }

    public function length(): float
    {
        return $this->to - $this->from;
    }

    /** Direction that it runs in, radians with y down. */
    public function runs(): float
    {
        return $this->direction + atan($this->slope);
    }

    public function between(float $from, float $to): self
    {
        return new self($this->direction, $from, $to, $this->head, $this->foot, $this->slope, $this->pieces);
    }
}
