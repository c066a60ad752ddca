<?php

declare(strict_types=1);

namespace Plinth\Core\Escape;

/** How one gets into the open air from the upper end of a stair, down that stair. */
final readonly class StairEscape
{
    /**
     * @param string $storey where it begins, below
     * @param EscapeRoute|null $route null where there is no final exit that one reaches
     */
    public function __construct(public string $stair, public string $storey, public ?EscapeRoute $route)
    {
    }
}
