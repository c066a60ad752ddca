<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

/** What a wall rests on. */
enum Evidence: string
{
    case Figure = 'figure';
    case Ink = 'ink';
    case FreeHand = 'free hand';
}
