<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

/** What lies at a level. */
enum LevelKind: string
{
    case Ground = 'ground';
    case FinishedFloor = 'finished floor';
    case Sill = 'sill';
    case Head = 'head';
    case Eaves = 'eaves';
    case Ridge = 'ridge';
    case Other = 'other';
}
