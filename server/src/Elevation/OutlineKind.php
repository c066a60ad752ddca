<?php

declare(strict_types=1);

namespace Plinth\Server\Elevation;

/** What an outline goes round. */
enum OutlineKind: string
{
    case Face = 'face';
    case Slab = 'slab';
    case Ceiling = 'ceiling';
    case Roof = 'roof';
    case Chimney = 'chimney';
    case Dormer = 'dormer';
    case RoofEdge = 'roof edge';
    case Kerb = 'kerb';
    case Plinth = 'plinth';
    case Void = 'void';
}
