<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** How an opening ends above: level, in part of a circle, in half of one; or it is round all about. */
enum OpeningHead: string
{
    case Level = 'level';
    case Segment = 'segment';
    case Semicircle = 'semicircle';
    case Round = 'round';
}
