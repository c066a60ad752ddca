<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

/** Asks the worker to read the figures and names that are written on a drawing. */
final readonly class ReadFigures
{
    /** @param string $basis page, cut and fit it is asked for */
    public function __construct(public string $drawing, public string $basis)
    {
    }
}
