<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * What a figure may measure: a piece of a dimension line, from one mark on it to another.
 *
 * @internal
 */
final readonly class Span
{
    /**
     * @param array{float, float} $a x and y of one end
     * @param array{float, float} $b and of the other
     * @param float $likely logarithm of how likely it is that the figure means it
     */
    public function __construct(public array $a, public array $b, public float $likely)
    {
    }

    /** How far its ends are from another's, both together, px. */
    public function apart(self $other): float
    {
        return min(
            hypot($this->a[0] - $other->a[0], $this->a[1] - $other->a[1]) + hypot($this->b[0] - $other->b[0], $this->b[1] - $other->b[1]),
            hypot($this->a[0] - $other->b[0], $this->a[1] - $other->b[1]) + hypot($this->b[0] - $other->a[0], $this->b[1] - $other->a[1]),
        );
    }

    public function length(): float
    {
        return hypot($this->b[0] - $this->a[0], $this->b[1] - $this->a[1]);
    }
}
