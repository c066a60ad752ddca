<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Point;

/** A named room: the region that holds its anchor; its ceiling height in mm where it is not the storey's. */
final readonly class Room
{
    public function __construct(
        public string $id,
        public string $name,
        public string $number,
        public Point $anchor,
        public ?float $height = null,
    ) {
    }
}
