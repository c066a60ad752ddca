<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelPoint;

/** A dimension figured on the drawing, that nobody has stated. */
final readonly class WrittenFigure
{
    /**
     * @param string $text as it is written
     * @param float $mm what it says
     * @param PixelPoint $a where its dimension line ends, on the page
     */
    public function __construct(public string $text, public float $mm, public PixelPoint $a, public PixelPoint $b)
    {
    }
}
