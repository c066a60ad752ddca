<?php

declare(strict_types=1);

namespace Plinth\Core\Projection;

/** What a line of a view shows (ISO 128): the edge of what is cut, an edge that is seen, one that lies behind something. */
enum LineRole: string
{
    case Cut = 'cut';
    case Visible = 'visible';
    case Hidden = 'hidden';
}
