<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

/** The ink of a page: grey values, dark on light whichever way the page was drawn. */
interface PageInk
{
    /** The part of the page inside a box of pixels; the box is cut to the page first, and holds at least one pixel of it. */
    public function window(int $left, int $top, int $width, int $height): GreyRaster;
}
