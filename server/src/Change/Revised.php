<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Symfony\Component\Uid\Uuid;

/** What has revisions: a project. */
interface Revised
{
    public function id(): Uuid;

    public function head(): int;

    /** @return int the next revision, which it is at from now on */
    public function advance(): int;
}
