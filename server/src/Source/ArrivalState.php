<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

enum ArrivalState: string
{
    case Waiting = 'waiting';
    case Taken = 'taken';
    case Refused = 'refused';
}
