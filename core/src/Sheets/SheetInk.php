<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** What is drawn on a sheet: areas first, then lines, then words. */
final readonly class SheetInk
{
    /**
     * @param list<InkArea> $areas
     * @param list<InkLine> $lines
     * @param list<InkText> $texts
     */
    public function __construct(public array $areas = [], public array $lines = [], public array $texts = [])
    {
    }

    public function with(self $other): self
    {
        return new self([...$this->areas, ...$other->areas], [...$this->lines, ...$other->lines], [...$this->texts, ...$other->texts]);
    }
}
