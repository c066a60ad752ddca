<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Geometry\Point;

/** A figured dimension that was read from a drawing, and the two places that it runs between. */
final readonly class ReadFigure
{
    /**
     * @param string $text as read
     * @param float $mm what it says
     * @param float $stepMm its last place
     * @param Point $a where the dimension line ends, mm of the present fit
     * @param float $spanMm between the two by the present fit
     * @param bool $isLevel runs along x, otherwise along y
     * @param array{float, float, float, float} $box round the text, mm: left, bottom, right, top
     * @param float $confidence 0 to 1
     */
    public function __construct(
        public string $text,
        public float $mm,
        public float $stepMm,
        public Point $a,
        public Point $b,
        public float $spanMm,
        public bool $isLevel,
        public array $box,
        public float $confidence,
    ) {
    }

    /** By how much the drawing is longer than the figure says, part of it. */
    public function off(): float
    {
        return $this->spanMm / $this->mm - 1.0;
    }
}
