<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Keeps what follows from rows in step with them, and refuses what breaks a rule of several. */
#[AutoconfigureTag]
interface Follower
{
    /** Before anything is written, after all operations; a lower place comes first. */
    public static function place(): int;

    public function follow(Workspace $workspace, Occasion $occasion): void;
}
