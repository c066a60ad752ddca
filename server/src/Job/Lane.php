<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

/** Each has workers of its own: quick work never waits behind slow work, nor anything that somebody asked for behind what nobody did. */
enum Lane: string
{
    /** seconds: somebody waits for it before they can go on */
    case Quick = 'quick';
    /** up to minutes */
    case Slow = 'slow';
    /** what nobody has asked for yet: its workers leave the processor to all others */
    case Idle = 'idle';
}
