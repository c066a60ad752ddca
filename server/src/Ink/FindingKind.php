<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

/** What a whole drawing is searched for. */
enum FindingKind: string
{
    case Walls = 'walls';
    case Figures = 'figures';
    case Facade = 'facade';
}
