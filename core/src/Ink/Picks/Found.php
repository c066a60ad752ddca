<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks;

use Plinth\Core\Geometry\PixelPoint;

/** What the ink shows at a pick. */
final readonly class Found
{
    /**
     * @param float $sigmaPx standard deviation of each coordinate, across the line where it is one
     * @param float|null $alongDegrees direction of the line or face on the page, modulo 180, counter-clockwise as seen
     * @param float|null $thicknessPx of the wall whose face it is, where its other face is near enough to be seen
     */
    public function __construct(
        public FoundKind $kind,
        public PixelPoint $at,
        public float $sigmaPx,
        public ?float $alongDegrees = null,
        public ?float $thicknessPx = null,
    ) {
    }
}
