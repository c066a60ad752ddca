<?php

declare(strict_types=1);

namespace Plinth\Core\Plan;

use Plinth\Core\Geometry\Point;

/** A line that bounds rooms where there is no wall. */
final readonly class Divider
{
    public function __construct(public string $id, public Point $from, public Point $to)
    {
    }
}
