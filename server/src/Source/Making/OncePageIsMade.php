<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Plinth\Server\Change\RowId;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Is told of every page that can be worked on from now, in the transaction that makes it so. */
#[AutoconfigureTag]
interface OncePageIsMade
{
    public function made(RowId $page): void;
}
