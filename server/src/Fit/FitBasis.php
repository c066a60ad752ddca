<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

/** What the scale of a drawing rests on, weakest first; all but the last are guesses. */
enum FitBasis: string
{
    /** nothing is known: the page is taken for an A3 sheet at 1:100 */
    case Paper = 'paper';
    /** the resolution tag, and 1:100 */
    case Resolution = 'resolution';
    /** another drawing of the same page that is trued, at the same scale */
    case Page = 'page';
    /** a world file, or the unit that a DXF names */
    case File = 'file';
    /** known lengths */
    case Lengths = 'lengths';
}
