<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Geometry\PixelPoint;

/** A figured dimension read off a page that nothing is known of yet, and the two places that it runs between. */
final readonly class PageFigure
{
    /** confidence from which a figure is taken with the others: of those on simulated sheets one in a hundred is wrong */
    public const SURE = 0.8;

    public float $confidence;

    /**
     * @param string $text as it is written
     * @param float $mm what it says
     * @param float $stepMm its last place
     * @param PixelPoint $a where the dimension line ends, on the page
     * @param float $sigmaPx how well both ends are known, px of the page
     * @param array{float, float, float, float} $box round the lettering: left, top, right, bottom, px of the page
     */
    public function __construct(
        public string $text,
        public float $mm,
        public float $stepMm,
        public PixelPoint $a,
        public PixelPoint $b,
        public float $sigmaPx,
        public array $box,
        public FigureEvidence $evidence,
    ) {
        $this->confidence = $evidence->confidence();
    }

    public function isSure(): bool
    {
        return $this->confidence >= self::SURE;
    }
}
