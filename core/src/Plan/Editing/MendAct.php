<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Editing;

/** What can be done about two walls that lie on each other. */
enum MendAct: string
{
    /** The other wall goes on as far as both reached, this one goes; its openings move over. */
    case Merge = 'merge';
    /** This wall moves aside until the two touch. */
    case Beside = 'beside';
    /** This wall ends at the other's line. */
    case Trim = 'trim';
    /** This wall goes: one of the two is curved, or they cross at a flat angle. */
    case Remove = 'remove';
}
