<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Exception;

use Plinth\Core\Fault\Fault;

interface FittingException extends Fault
{
}
