<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Geometry\PixelPoint;

/** A line that runs along one of the two directions of a leaning picture's lines. */
final readonly class LeaningLine
{
    /**
     * @param bool $runsDown whether it is of those that run down the page, not across it
     * @param float $sigmaPx standard deviation of either end, across the line
     */
    public function __construct(public PixelPoint $a, public PixelPoint $b, public bool $runsDown, public float $sigmaPx)
    {
    }
}
