<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Refusal;

/** Long work that people ask for and stop. */
interface AskedFor extends JobKind
{
    /**
     * Names all that it would be made from now: asked for again of the same while it is under way, it is asked for once.
     *
     * @return string of at most 40 characters
     *
     * @throws Refusal where there is nothing that it could be made from
     */
    public function basis(RowId $about): string;
}
