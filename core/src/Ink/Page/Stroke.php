<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

/** A drawn line between its two edges, scan lines and cells. @internal */
final readonly class Stroke
{
    public function __construct(public int $from, public int $to, public Chain $lower, public Chain $upper)
    {
    }

    /** Part of its scan lines where both its edges were seen. */
    public function even(): float
    {
        return min($this->lower->even(), $this->upper->even());
    }

    public function height(): float
    {
        return ($this->lower->height() + $this->upper->height()) / 2.0;
    }
}
