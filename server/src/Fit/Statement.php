<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Symfony\Component\Uid\Uuid;

/** A row from which a drawing's fit follows. */
interface Statement
{
    public function drawing(): Uuid;
}
