<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** What is left open in the floor of a storey, and in the ceiling below it. */
final readonly class FloorVoid
{
    /** @throws UnusableValue */
    public function __construct(public string $id, public Contour $outline)
    {
        Checked::places("void $id", ...$outline->corners);
    }
}
