<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Plinth\Core\Ink\Page\GreyFile;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\PageInk;

/** The ink of one imported page. */
final readonly class InkOfPage implements PageInk
{
    /** @param string $version of the page's pictures: while it is the same, so is the ink */
    public function __construct(private GreyFile $file, public string $version)
    {
    }

    public function window(int $left, int $top, int $width, int $height): GreyRaster
    {
        return $this->file->window($left, $top, $width, $height);
    }
}
