<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

enum Axis: string
{
    case X = 'x';
    case Y = 'y';
}
