<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** What a rectangle turned out to be under the fit; its sides are means of the two opposite ones as picked. */
final readonly class RectangleResult
{
    /** @param float $offSquareDegrees by how much the corner between the first two sides misses a right angle */
    public function __construct(
        public string $id,
        public float $fittedWidthMm,
        public float $fittedDepthMm,
        public float $offSquareDegrees,
        public float $plusMinusMm,
        public float $w,
        public bool $suspect,
    ) {
    }
}
