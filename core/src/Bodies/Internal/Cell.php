<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

/**
 * A part of the plan over which a body is solid from certain planes up to certain others.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 */
final readonly class Cell
{
    /**
     * @param non-empty-list<Ring> $rings the outer one counter-clockwise, then holes clockwise
     * @param list<array{HeightPlane, HeightPlane}> $spans from below, none above another's top nor under its bottom
     */
    public function __construct(public array $rings, public array $spans)
    {
    }
}
