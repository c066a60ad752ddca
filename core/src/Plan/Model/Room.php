<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** A named room: the region that holds its anchor; its ceiling height in mm where it is not the storey's. */
final readonly class Room
{
    /** @throws UnusableValue */
    public function __construct(
        public string $id,
        public string $name,
        public string $number,
        public Point $anchor,
        public ?float $height = null,
    ) {
        Checked::places("room $id", $anchor);
        Checked::size("room $id/height", $height);
    }
}
