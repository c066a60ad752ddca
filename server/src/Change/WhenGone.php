<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

/** What becomes of a row when one that it names is to go. */
enum WhenGone
{
    /** it stays, and so does the one it names */
    case Holds;
    /** it would stand on nothing, and goes too */
    case GoesAlong;
    /** it stays and names none any more */
    case LetsGo;
}
