<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** Which line of a wall was traced and stays put when the thickness changes; left and right as seen from its start. */
enum Line: string
{
    case Centre = 'centre';
    case Left = 'left';
    case Right = 'right';
}
