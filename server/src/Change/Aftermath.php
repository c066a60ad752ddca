<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Does what comes of a change once its rows are written, in the same transaction. */
#[AutoconfigureTag]
interface Aftermath
{
    public function after(Workspace $workspace, int $revision): void;
}
