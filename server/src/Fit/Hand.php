<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

/** Who says in which direction a line runs. */
enum Hand: string
{
    case Picked = 'picked';
    case Ink = 'ink';
    case Typed = 'typed';
}
