<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

/**
 * How wide a drawn line is taken for at most: what is wider is something drawn, and not the pen that drew it.
 *
 * In the building by the widest pen of a plan, on the page by what a scan makes of the finest and of the widest one.
 */
final class Pen
{
    /** mm in the building: 0.7 mm at 1:100, and the blur of a scan; common practice, no source */
    public const WIDEST_MM = 75.0;
    /** px: blur leaves no line narrower, and no pen is drawn wider */
    public const PX = [4.0, 10.0];
    /** px, where no scale is known */
    private const UNKNOWN_PX = 5.0;

    /** @param float|null $mmPerPixel null where no scale is known */
    public static function px(?float $mmPerPixel): float
    {
        return null === $mmPerPixel ? self::UNKNOWN_PX : max(self::PX[0], min(self::PX[1], self::WIDEST_MM / $mmPerPixel));
    }

    /** In cells of a reduced page, of so many mm each; there nothing is known of the page's own pixels. */
    public static function cells(float $mmPerCell): float
    {
        return max(self::PX[0] + 0.5, self::WIDEST_MM / $mmPerCell);
    }
}
