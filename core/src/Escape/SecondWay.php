<?php

declare(strict_types=1);

namespace Plinth\Core\Escape;

/** Another way out from the same place, to another exit: of all that there are the one that parts soonest, and then the shortest. */
final readonly class SecondWay
{
    /**
     * @param float $singleMm how far one has no choice: until both ways part
     * @param float $degrees between both where they part
     */
    public function __construct(public EscapeRoute $route, public float $singleMm, public float $degrees)
    {
    }
}
