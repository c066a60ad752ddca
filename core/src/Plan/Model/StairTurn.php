<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** What lies where the walking line of a stair has a corner. */
enum StairTurn: string
{
    case Landing = 'landing';
    case Winders = 'winders';
}
