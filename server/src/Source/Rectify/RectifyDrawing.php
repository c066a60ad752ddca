<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Rectify;

/** Asks the worker for the picture of a slanted photograph as it looks from straight ahead. */
final readonly class RectifyDrawing
{
    /** @param string $shape of the fit that it is wanted for */
    public function __construct(public string $drawing, public string $shape)
    {
    }
}
