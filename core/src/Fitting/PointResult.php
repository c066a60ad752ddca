<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

final readonly class PointResult
{
    public function __construct(public string $id, public float $residualMm, public float $w, public bool $suspect = false)
    {
    }
}
