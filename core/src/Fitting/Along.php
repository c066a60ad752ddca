<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** How a known length runs between its picks: straight, or along the drawing's x or y direction only. */
enum Along: string
{
    case Straight = 'straight';
    case X = 'x';
    case Y = 'y';
}
