<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** A line on a sheet: mm of paper from its upper left corner, y down. */
final readonly class InkLine
{
    /** Widths of ISO 128-2, mm: twice as wide from one to the next but one. */
    public const FINE = 0.18;
    public const NARROW = 0.25;
    public const MEDIUM = 0.35;
    public const WIDE = 0.5;
    public const BROAD = 0.7;

    /**
     * @param list<array{float, float}> $points
     * @param float $width mm
     * @param list<float> $dashes drawn, not drawn, … in widths of the line
     * @param string $key of what is told, so that it can be pointed at
     * @param array{int, int, int}|null $colour red, green and blue of 255; black without
     */
    public function __construct(
        public array $points,
        public float $width,
        public array $dashes = [],
        public bool $closed = false,
        public string $key = '',
        public ?array $colour = null,
    ) {
    }
}
