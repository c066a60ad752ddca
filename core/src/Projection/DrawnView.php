<?php

declare(strict_types=1);

namespace Plinth\Core\Projection;

/** What a side or a section shows. */
final readonly class DrawnView
{
    /**
     * @param list<ViewLine> $lines
     * @param list<CutFace> $faces
     */
    public function __construct(public array $lines, public array $faces)
    {
    }

    /** @return array{float, float, float, float}|null least u and v, most u and v, mm; null where nothing is seen */
    public function bounds(): ?array
    {
        $places = [];
        foreach ($this->lines as $line) {
            array_push($places, $line->from, $line->to);
        }
        foreach ($this->faces as $face) {
            array_push($places, ...$face->outer);
        }

        return [] === $places ? null : [
            min(array_column($places, 0)),
            min(array_column($places, 1)),
            max(array_column($places, 0)),
            max(array_column($places, 1)),
        ];
    }
}
