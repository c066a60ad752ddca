<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

/** A page that is held in memory. */
final readonly class RasterPage implements PageInk
{
    private GreyRaster $raster;

    public function __construct(GreyRaster $raster, bool $lightOnDark = false)
    {
        $this->raster = $lightOnDark ? $raster->inverted() : $raster;
    }

    public function window(int $left, int $top, int $width, int $height): GreyRaster
    {
        return $this->raster->crop($left, $top, $width, $height);
    }
}
