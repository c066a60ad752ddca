<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/**
 * A floor or a ceiling: an outline, its top above the storey's own level, and its thickness downward from there, mm.
 */
final readonly class Slab
{
    /**
     * @param float $finish of a floor, the uppermost part of its thickness: its top is the finished level, and walls stand beneath it
     *
     * @throws UnusableValue
     */
    public function __construct(
        public string $id,
        public Contour $outline,
        public float $top,
        public float $thickness,
        public float $finish = 0.0,
    ) {
        Checked::places("slab $id", ...$outline->corners);
        Checked::within("slab $id/top", $top);
        Checked::size("slab $id/thickness", $thickness, Wall::THICKEST_MM);
        Checked::within("slab $id/finish", $finish, $thickness);
    }
}
