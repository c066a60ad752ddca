<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** Scales of reduction that are recommended (ISO 5455): 1, 2 and 5, times ten as often as is wanted. */
final class PrintScale
{
    /** 1 : so much */
    private const RECOMMENDED = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000];

    /**
     * The largest recommended scale at which something fits.
     *
     * @param float $width mm of what is drawn, and $height
     * @param float $roomWidth mm of paper, and $roomHeight
     */
    public static function fitting(float $width, float $height, float $roomWidth, float $roomHeight): int
    {
        foreach (self::RECOMMENDED as $scale) {
            if ($width / $scale <= $roomWidth && $height / $scale <= $roomHeight) {
                return $scale;
            }
        }

        return self::RECOMMENDED[\count(self::RECOMMENDED) - 1];
    }
}
