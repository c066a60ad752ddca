<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks;

/** What a pick was put on. */
enum FoundKind: string
{
    case Corner = 'corner';
    case Crossing = 'crossing';
    case Column = 'column centre';
    case Line = 'line';
    case Face = 'wall face';
}
