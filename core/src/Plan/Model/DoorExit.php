<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** What a door leads to for who escapes: a protected way, which is an exit of its storey, or the open air. */
enum DoorExit: string
{
    case None = 'none';
    case Storey = 'storey';
    case Final = 'final';
}
