<?php

declare(strict_types=1);

namespace Plinth\Core\Escape\Internal;

use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\Storey;

/**
 * A storey with what of it is walked on.
 *
 * @internal
 */
final readonly class WalkedStorey
{
    /** @param list<int> $cells numbers of its cells in the whole floor, in the order of those of its own */
    public function __construct(public Storey $storey, public DerivedStorey $derived, public StoreyFloor $floor, public array $cells)
    {
    }

    /** @return list<int> numbers of the cells of a region */
    public function cellsOf(int $region): array
    {
        $cells = [];
        foreach ($this->floor->regions as $k => $of) {
            if ($of === $region) {
                $cells[] = $this->cells[$k];
            }
        }

        return $cells;
    }
}
