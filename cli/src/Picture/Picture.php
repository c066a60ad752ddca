<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\Paper;

/** The grey values of a picture file, upright, on white. */
final readonly class Picture
{
    /** Paper is judged on a picture reduced to about so many pixels along its longer side. */
    private const SMALL_PX = 1200;

    public PageInk $page;

    public function __construct(public GreyRaster $raster)
    {
        $paper = Paper::of($raster->shrunk(max(1, intdiv(max($raster->width, $raster->height), self::SMALL_PX))));
        $this->page = $raster->page($paper->lightOnDark);
    }

    public function box(): PixelBox
    {
        return new PixelBox(0.0, 0.0, $this->raster->width, $this->raster->height);
    }
}
