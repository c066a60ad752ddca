<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

/** What of a curved leg its length gives, beside its radius. */
enum CurveFigure: string
{
    case Chord = 'chord';
    case Arc = 'arc';
    case Angle = 'angle';
}
