<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

/** What holds where a figure, the ink and a size measured on site differ. */
enum Decided: string
{
    case Open = 'open';
    case Figure = 'figure';
    case Ink = 'ink';
    case Site = 'site';
}
