<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

/** What rows are touched for. */
enum Occasion
{
    /** new work; where a fit moves, what was traced stays */
    case Work;
    /** new work; where a fit moves, what was traced moves along */
    case WorkCarrying;
    /** a change is taken back or done again: what followed from it is among its rows */
    case Replay;
}
