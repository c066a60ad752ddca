<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\Pen;

/** How thick the walls are that the ink shows beside the end of a length. */
final class WallsBeside
{
    /** px from the end: a corner has no thickness, and beside it the other wall runs on; some way along, the faces tell */
    private const BESIDE_PX = [45, 110];
    /** px about a place in which a wall is looked for, and more of them further off */
    private const REACH_PX = 3.0;
    private const REACH_PART = 0.05;

    /**
     * @param list<PixelPoint> $ends
     * @param float|null $mmPerPixel null where no scale is known
     *
     * @return list<float> of each end that has one the thinnest wall beside it, px
     */
    public static function thicknesses(PageInk $page, array $ends, ?float $mmPerPixel): array
    {
        $walls = [];
        foreach ($ends as $at) {
            $seen = [];
            foreach (self::BESIDE_PX as $d) {
                foreach ([[$d, 0], [-$d, 0], [0, $d], [0, -$d]] as [$dx, $dy]) {
                    $place = new PixelPoint($at->x + $dx, $at->y + $dy);
                    $found = PickRefinement::near($page, $place, self::REACH_PX + self::REACH_PART * $d, $mmPerPixel);
                    // The stroke of a pen is no wall, whatever a figure makes of it.
                    if (null !== $found?->thicknessPx && $found->thicknessPx > Pen::PX[1]) {
                        $seen[] = $found->thicknessPx;
                    }
                }
            }
            if ([] !== $seen) {
                $walls[] = min($seen);
            }
        }

        return $walls;
    }
}
