<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages\Internal;

/**
 * A short straight piece of an edge that runs with the drawing's grid.
 *
 * @internal
 */
final readonly class EdgePiece
{
    /**
     * @param float $x of its middle, px, and $y likewise, down
     * @param float $direction radians, clockwise as seen, from −90° to 90° of its family's
     * @param float $weight Σ of the squared distances of its points from its middle, px²: the reciprocal of its direction's variance
     */
    public function __construct(public float $x, public float $y, public float $direction, public float $weight)
    {
    }
}
