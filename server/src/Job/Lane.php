<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

/** Quick work has workers of its own, so that it never waits behind slow work. */
enum Lane: string
{
    /** seconds: somebody waits for it before they can go on */
    case Quick = 'quick';
    /** up to minutes */
    case Slow = 'slow';
}
