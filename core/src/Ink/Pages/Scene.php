<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\Paper;

/**
 * Whether a picture shows a building itself and no drawing of one: most of a drawing is blank paper, and what is light on dark is a
 * blueprint's full white; joints between bricks are neither. Its limits were set by looking at 23 simulated facades and some sixty
 * drawings; of others it takes 12 facades of 12 for buildings, and none of 60 drawings.
 */
final class Scene
{
    /** part of full ink by which a pixel of blank paper differs from it at most */
    private const BLANK = 0.18;
    /** A drawing has at least so much blank paper, 0 to 1; one that is light on dark has more. */
    private const PAPER = [0.68, 0.79];
    /** grey levels from the ground of a blueprint to its lines, at least */
    private const BLUEPRINT = 130;
    /** Every so many pixels one is looked at, both ways. */
    private const STEP = 2;

    /** @param GreyRaster $small a page reduced to some 1000 to 1500 px along its longer side, as it is */
    public static function isShown(GreyRaster $small, Paper $paper): bool
    {
        $raster = $paper->lightOnDark ? $small->inverted() : $small;
        [$looks, $blank] = [0, 0];
        for ($y = 0; $y < $raster->height; $y += self::STEP) {
            for ($x = 0; $x < $raster->width; $x += self::STEP) {
                ++$looks;
                $off = abs($paper->at($x, $y) - \ord($raster->bytes[$y * $raster->width + $x]));
                $blank += $off < self::BLANK * $paper->contrast ? 1 : 0;
            }
        }

        return $blank < self::PAPER[$paper->lightOnDark ? 1 : 0] * $looks
            || ($paper->lightOnDark && $paper->contrast < self::BLUEPRINT);
    }
}
