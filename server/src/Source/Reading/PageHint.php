<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

use Plinth\Core\Geometry\Point;

/** What a file says about its own size and lie: a first hint for the fit, never more. */
final readonly class PageHint
{
    /**
     * @param float $mmPerPixel of the building
     * @param float $turnDegrees turn given to the picture, counter-clockwise as seen
     * @param Point|null $corner model point of the page's lower left corner, where the file names a place near the zero
     * @param string $from who says so, in words
     */
    public function __construct(public float $mmPerPixel, public float $turnDegrees, public ?Point $corner, public string $from)
    {
    }
}
