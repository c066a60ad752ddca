<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/** A room or field of known width and depth by its four corners, in order round it; the width runs from a to b. */
final readonly class Rectangle
{
    /**
     * @param list<string> $corners ids of four picks, in order round it
     * @param float $widthMm from the first corner to the second, > 0
     * @param float $depthMm from the second to the third, > 0
     * @param float $sigmaMm standard deviation of either figure, ≥ 0
     */
    public function __construct(
        public string $id,
        public array $corners,
        public float $widthMm,
        public float $depthMm,
        public float $sigmaMm,
    ) {
    }
}
