<?php

declare(strict_types=1);

namespace Plinth\Server\Stairs;

/** Along which edges of a stair a rail runs, as one goes up. */
enum StairRail: string
{
    case None = 'none';
    case Left = 'left';
    case Right = 'right';
    case Both = 'both';
}
