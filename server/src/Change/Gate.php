<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Plinth\Server\Account\User;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/** Lets writers of a project in, one at a time. */
interface Gate
{
    /**
     * Holds the project until the transaction ends: writers queue here, and nowhere else.
     *
     * @throws Refusal where the account may not change it, or has nothing to do with it
     */
    public function lock(Uuid $project, User $user): Revised;

    /** The revision that a project is at, for whoever may see it. */
    public function head(Uuid $project): int;
}
