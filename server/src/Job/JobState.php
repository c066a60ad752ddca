<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

/** Where a piece of long work is in its life. */
enum JobState: string
{
    case Waiting = 'waiting';
    case Working = 'working';
    case Done = 'done';
    case Failed = 'failed';
    case Stopped = 'stopped';
}
