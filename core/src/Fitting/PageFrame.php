<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelPoint;

/** The page's size, and the way from its pixels to the normalised coordinates that ShapeModel speaks of. */
final readonly class PageFrame
{
    public float $unitPx;
    public PixelPoint $centre;

    public function __construct(public float $widthPx, public float $heightPx)
    {
        $this->unitPx = hypot($widthPx, $heightPx) / 2.0;
        $this->centre = new PixelPoint($widthPx / 2.0, $heightPx / 2.0);
    }

    /** @return array{float, float} */
    public function normalised(float $xPx, float $yPx): array
    {
        return [($xPx - $this->centre->x) / $this->unitPx, ($this->centre->y - $yPx) / $this->unitPx];
    }
}
