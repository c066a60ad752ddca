<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Geometry\PixelPoint;

/** A scale bar: how long it says that it is, and where it lies on the page. */
final readonly class ReadScaleBar
{
    /**
     * @param string $text length as it is labelled: "5 m", "20'"
     * @param float $mm what that says
     * @param PixelPoint $a its end labelled 0, on the page
     * @param float $sigmaPx how well both ends are known, px of the page
     * @param array{float, float, float, float} $box round it with its labels: left, top, right, bottom, px of the page
     */
    public function __construct(
        public string $text,
        public float $mm,
        public PixelPoint $a,
        public PixelPoint $b,
        public float $sigmaPx,
        public array $box,
    ) {
    }
}
