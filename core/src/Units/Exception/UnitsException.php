<?php

declare(strict_types=1);

namespace Plinth\Core\Units\Exception;

interface UnitsException extends \Throwable
{
}
