<?php

declare(strict_types=1);

namespace Plinth\Server\Elevation;

/** What an outline goes round. */
enum OutlineKind: string
{
    case Face = 'face';
    case Slab = 'slab';
    case Ceiling = 'ceiling';
    case RoofEdge = 'roof edge';
    case Kerb = 'kerb';
    case Plinth = 'plinth';
    case Void = 'void';
}
