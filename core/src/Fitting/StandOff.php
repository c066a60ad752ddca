<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Exception\UnusableStandOff;

/** What stands before the wall plane of a photograph reads too large by its nearness: by D / (D − d), similar triangles. */
final readonly class StandOff
{
    /**
     * @param float $mm d, how far it stands before the wall plane; behind it, negative
     * @param float $seenFromMm D, from where the picture was taken to the wall plane, > d
     */
    public function __construct(public float $mm, public float $seenFromMm)
    {
        if ($seenFromMm <= 0.0 || $mm >= $seenFromMm) {
            throw UnusableStandOff::behindTheCamera($mm, $seenFromMm);
        }
    }

    /** @return float what a length that stands off seems to be on the wall plane, over what it is */
    public function factor(): float
    {
        return $this->seenFromMm / ($this->seenFromMm - $this->mm);
    }
}
