<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

/** How a door opens: one leaf, two, or sliding along its wall. */
enum Leaf: string
{
    case Single = 'single';
    case Double = 'double';
    case Sliding = 'sliding';
}
