<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;
use Symfony\Component\Uid\Uuid;

/** Asks, in the same transaction, for what a copy of a project needs beside its rows. */
#[AutoconfigureTag]
interface Copied
{
    public function copied(Uuid $copy): void;
}
