<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** What carries the treads of a stair: all that lies under them, a slab, strings at both edges, or nothing that shows. */
enum StairBuild: string
{
    case Solid = 'solid';
    case Slab = 'slab';
    case Strings = 'strings';
    case Open = 'open';
}
