<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Http\Refusal;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;
use Symfony\Component\Uid\Uuid;

/** Tells what a change will cost from the request alone, before anything is locked. */
#[AutoconfigureTag]
interface Price
{
    /**
     * @param list<JsonValue> $operations
     *
     * @throws Refusal where it is more than one change may cost
     */
    public function check(Uuid $project, array $operations): void;
}
