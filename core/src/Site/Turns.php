<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

/** To which side who walks along a curve turns. */
enum Turns: string
{
    case Left = 'left';
    case Right = 'right';
}
