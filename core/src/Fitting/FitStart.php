<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/**
 * Where a drawing lies before it is fitted. What no observation determines stays as it is here: the place of the
 * page's centre above all, the turn when no line is known to run with the grid, the scale when no length is known.
 */
final readonly class FitStart
{
    private function __construct(public ?float $mmPerPixel, public float $turnRad, public ?Point $centreMm)
    {
    }

    /** Nothing known: no scale, no turn, the page's lower left corner at the origin. */
    public static function unknown(): self
    {
        return new self(null, 0.0, null);
    }

    public static function from(PixelToMm $present, PageFrame $frame): self
    {
        return new self($present->mmPerPixelAt($frame->centre), $present->turnRadAt($frame->centre), $present->toMm($frame->centre));
    }
}
