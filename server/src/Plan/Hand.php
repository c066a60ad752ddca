<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

/** A side of a wall as seen from its start, or the jamb nearer to the start (left) or its end (right). */
enum Hand: string
{
    case Left = 'left';
    case Right = 'right';
}
