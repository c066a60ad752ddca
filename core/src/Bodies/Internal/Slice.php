<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

/**
 * A stretch of a wall, and from which planes up to which something fills it or is cut out of it.
 *
 * @internal
 */
final readonly class Slice
{
    /** @param list<array{HeightPlane, HeightPlane}> $spans from below */
    public function __construct(public float $from, public float $to, public array $spans)
    {
    }
}
