<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelPoint;

/** A picked point of a page with the standard deviation of each of its coordinates, px. */
final readonly class Pick
{
    public function __construct(public string $id, public PixelPoint $at, public float $sigmaPx)
    {
    }
}
