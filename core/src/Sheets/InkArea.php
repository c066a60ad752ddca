<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** What is filled on a sheet, its holes left out. */
final readonly class InkArea
{
    /**
     * @param list<list<array{float, float}>> $rings mm
     * @param float $grey from black, 0, to paper, 1
     * @param array{int, int, int}|null $colour red, green and blue of 255 instead of grey
     */
    public function __construct(public array $rings, public float $grey, public ?array $colour = null)
    {
    }
}
