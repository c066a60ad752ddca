<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/** What is drawn between the faces of a wall. @internal */
enum Filling: string
{
    case Solid = 'solid';
    /** hatched or grey, between two lines */
    case Toned = 'toned';
    case Empty = 'empty';
}
