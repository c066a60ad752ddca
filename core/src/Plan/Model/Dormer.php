<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** A box on a roof, open to below: its outer faces, its level top above the storey's level, and how thick its walls and lid are, mm. */
final readonly class Dormer
{
    /** @throws UnusableValue */
    public function __construct(public string $id, public Contour $outline, public float $top, public float $thickness)
    {
        Checked::places("dormer $id", ...$outline->corners);
        Checked::within("dormer $id/top", $top);
        Checked::size("dormer $id/thickness", $thickness, Wall::THICKEST_MM);
    }
}
