<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Units\Length;

/** Whence a length is known, and how far that can be trusted. */
enum Standing: string
{
    case Figured = 'figured';
    case Taped = 'taped';
    case KnownFromElsewhere = 'known from elsewhere';
    case Estimated = 'estimated';
    case Module = 'module';
    case ScaleBar = 'scale bar';

    /** Draughtsman's hand on paper, and a tape on site: common practice, no source. */
    private const DRAFTING_PAPER_MM = 0.2;
    private const TAPED_MM = 5.0;
    private const ESTIMATED_PART = 0.03;

    /**
     * Standard deviation of the figure as a statement about the drawing: its rounding, the hand that drew it, and the
     * standing's own, root of the sum of squares.
     *
     * @param float $scale denominator of the drawing's scale, 50 for 1:50
     * @param float $drafting how large this draughtsman's error is beside the usual one
     *
     * @return float mm
     */
    public function sigmaMm(Length $figure, float $scale, float $drafting = 1.0): float
    {
        $own = match ($this) {
            self::Taped => self::TAPED_MM,
            self::Estimated => self::ESTIMATED_PART * abs($figure->mm),
            default => 0.0,
        };

        return sqrt($figure->roundingSigmaMm() ** 2 + ($drafting * self::DRAFTING_PAPER_MM * $scale) ** 2 + $own ** 2);
    }
}
