<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** How a finish falls into pieces. */
enum FinishPattern: string
{
    case Plain = 'plain';
    case Tiles = 'tiles';
    case Boards = 'boards';
}
