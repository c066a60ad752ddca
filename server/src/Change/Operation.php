<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Plinth\Core\Exchange\Json\JsonValue;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** One of the things that a client's change may do, beside adding, setting, removing and moving rows. */
#[AutoconfigureTag]
interface Operation
{
    /** `do` of the operation; what it takes stands under the same key */
    public static function name(): string;

    /** @param Base $base what the change was composed on: rows that others have touched since are in conflict */
    public function apply(Workspace $workspace, JsonValue $wanted, Base $base): void;
}
