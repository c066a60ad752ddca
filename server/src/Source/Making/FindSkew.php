<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

/** Asks the worker how far the drawings of a page are turned on it, once the page can be worked on. */
final readonly class FindSkew
{
    public function __construct(public string $page)
    {
    }
}
