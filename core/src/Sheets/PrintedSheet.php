<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** A sheet as it is printed. */
final readonly class PrintedSheet
{
    /**
     * @param float $width mm
     * @param float $height mm
     * @param list<InkGroup> $groups
     * @param string $title what it is called in a list of sheets
     */
    public function __construct(public float $width, public float $height, public array $groups, public string $title)
    {
    }

    /** All that is on it. */
    public function ink(): SheetInk
    {
        return SheetInk::all(array_map(static fn (InkGroup $g): SheetInk => $g->all(), $this->groups));
    }
}
