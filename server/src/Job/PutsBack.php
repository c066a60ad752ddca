<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

/** Long work that has something to put back when it comes to nothing. */
interface PutsBack extends JobKind
{
    public function putBack(Job $job): void;
}
