<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

/** Asks the worker to decode a page and cut it into tiles. */
final readonly class ImportPage
{
    public function __construct(public string $page)
    {
    }
}
