<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

/** What a known length runs between. */
enum Ends: string
{
    case OuterFace = 'outer face';
    case InnerFace = 'inner face';
    case Axis = 'axis';
    case Centre = 'centre';
}
