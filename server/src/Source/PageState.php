<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

enum PageState: string
{
    case Waiting = 'waiting';
    case Working = 'working';
    case Ready = 'ready';
    case Stopped = 'stopped';
    case Failed = 'failed';
}
