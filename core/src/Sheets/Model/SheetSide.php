<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Model;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Projection\Exception\UndrawableView;
use Plinth\Core\Projection\View;

/** A side or a section as a plan document has it: where one looks from. */
final readonly class SheetSide
{
    /**
     * @param non-empty-list<Point> $line from left to right as one looks, with the jogs of a section; mm of the plan
     * @param bool $cut whether it is a section along its line
     * @param float|null $depth mm behind it that are shown; all there is without it
     */
    public function __construct(
        public string $id,
        public string $name,
        public array $line,
        public bool $cut = false,
        public ?float $depth = null,
    ) {
    }

    /** @throws UndrawableView */
    public function looks(): View
    {
        $depth = $this->depth ?? \INF;

        return $this->cut ? View::section($this->line, $depth) : View::side($this->line[0], $this->line[1] ?? $this->line[0], $depth);
    }
}
