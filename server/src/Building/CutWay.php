<?php

declare(strict_types=1);

namespace Plinth\Server\Building;

/** How a view is cut. */
enum CutWay: string
{
    case None = 'none';
    case Level = 'level';
    case Upright = 'upright';
}
