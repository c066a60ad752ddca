<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** A thing of true size that stands in a room: its middle, how it is turned, and what it measures; mm. */
final readonly class PlacedObject
{
    /**
     * @param string $kind one of the shipped set
     * @param float $degrees counter-clockwise; without any its front is towards −y
     * @param float $base above the storey's level
     *
     * @throws UnusableValue
     */
    public function __construct(
        public string $id,
        public string $kind,
        public Point $at,
        public float $degrees,
        public float $width,
        public float $depth,
        public float $height,
        public float $base = 0.0,
    ) {
        Checked::places("object $id", $at);
        Checked::within("object $id/degrees", $degrees, 360.0);
        Checked::size("object $id/width", $width, 20_000.0);
        Checked::size("object $id/depth", $depth, 20_000.0);
        Checked::size("object $id/height", $height, 20_000.0);
        Checked::within("object $id/base", $base);
    }
}
