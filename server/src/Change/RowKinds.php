<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** A capability registers its kinds of rows by one of these. */
#[AutoconfigureTag]
interface RowKinds
{
    /** @return list<class-string<ProjectRow>> */
    public function rows(): array;
}
