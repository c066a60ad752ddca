<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelPoint;

/** The page's size, the way from its pixels to the normalised coordinates that ShapeModel speaks of, and what is known of it beforehand. */
final readonly class PageFrame
{
    public float $unitPx;
    public PixelPoint $centre;

    public Beforehand $beforehand;

    public function __construct(public float $widthPx, public float $heightPx, ?Beforehand $beforehand = null)
    {
        $this->beforehand = $beforehand ?? Beforehand::exact();
        $this->unitPx = hypot($widthPx, $heightPx) / 2.0;
        $this->centre = new PixelPoint($widthPx / 2.0, $heightPx / 2.0);
    }

    /** @return array{float, float} */
    public function normalised(float $xPx, float $yPx): array
    {
        return [($xPx - $this->centre->x) / $this->unitPx, ($this->centre->y - $yPx) / $this->unitPx];
    }
}
