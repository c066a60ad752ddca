<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** How a known length runs between its picks: straight, along the drawing's x or y direction only, or across from a line. */
enum Along: string
{
    case Straight = 'straight';
    case X = 'x';
    case Y = 'y';
    /** from one line to a point of a second that runs beside it */
    case Across = 'across';
}
