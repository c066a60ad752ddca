<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Tells clients, beside the rows, what a capability has made of them. */
#[AutoconfigureTag]
interface Teller
{
    /** Under which name it stands in the answer. */
    public static function name(): string;

    /** @return string JSON */
    public function tell(Telling $about): string;
}
