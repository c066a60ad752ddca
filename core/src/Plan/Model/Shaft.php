<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** What stands upright through floors, ceilings and the roof, as a chimney does: from and to above the storey's level, mm. */
final readonly class Shaft
{
    /** @throws UnusableValue */
    public function __construct(public string $id, public Contour $outline, public float $base, public float $top)
    {
        Checked::places("chimney $id", ...$outline->corners);
        Checked::within("chimney $id/base", $base);
        Checked::within("chimney $id/top", $top);
        Checked::size("chimney $id/top", $top - $base);
    }
}
