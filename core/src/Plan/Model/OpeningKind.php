<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

enum OpeningKind: string
{
    case Door = 'door';
    case Window = 'window';
    case Opening = 'opening';
}
