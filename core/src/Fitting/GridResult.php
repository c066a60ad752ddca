<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

final readonly class GridResult
{
    /** @param float $residualDegrees from its stated direction to the line as fitted, counter-clockwise */
    public function __construct(public string $id, public float $residualDegrees, public float $w, public float $redundancy)
    {
    }
}
