<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** What a profile is taken along. */
enum SweepAlong: string
{
    /** the outer faces of the walls that bound rooms, all round */
    case Walls = 'walls';
    /** the lower edge of a roof's underside, all round */
    case Eaves = 'eaves';
    /** its own path */
    case Path = 'path';
}
