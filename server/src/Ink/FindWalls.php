<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

/** Asks the worker to find the walls that a drawing shows. */
final readonly class FindWalls
{
    /** @param string $basis page, cut and fit it is asked for */
    public function __construct(public string $drawing, public string $basis)
    {
    }
}
