<?php

declare(strict_types=1);

namespace Plinth\Core\Roof;

/** Where two facets of a roof meet. */
enum RoofLineKind: string
{
    case Ridge = 'ridge';
    case Hip = 'hip';
    case Valley = 'valley';
    case Verge = 'verge';
    /** two pieces of wall, or of one plane */
    case Seam = 'seam';
}
