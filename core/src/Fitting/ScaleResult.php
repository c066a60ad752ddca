<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** How the stated scale stands to the fit. */
final readonly class ScaleResult
{
    /** @param float $ratio fitted over stated */
    public function __construct(public float $ratio, public float $w, public bool $suspect)
    {
    }
}
