<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Exception;

interface ExchangeException extends \Throwable
{
}
