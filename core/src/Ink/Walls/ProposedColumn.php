<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Geometry\Point;

/** A column that the ink shows. */
final readonly class ProposedColumn
{
    /** @param float $turn of its width against +x, radians */
    public function __construct(
        public Point $centre,
        public float $width,
        public float $depth,
        public float $turn,
        public float $confidence,
    ) {
    }
}
