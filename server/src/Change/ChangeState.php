<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

enum ChangeState: string
{
    /** in force; may be undone */
    case Done = 'done';
    /** taken back; may be done again */
    case Undone = 'undone';
    /** taken back, and its author has gone on since */
    case Left = 'left';
    /** itself an undo or a redo */
    case Step = 'step';
}
