<?php

declare(strict_types=1);

namespace Plinth\Core\Units\Exception;

use Plinth\Core\Fault\Fault;

interface UnitsException extends Fault
{
}
