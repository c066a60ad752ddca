<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\SheetInk;

/**
 * A dimension by itself, at any angle (ISO 129-1): its line, a stroke at either end, its figure over the middle, read from below or from
 * the right.
 *
 * @internal
 */
final class DimensionInk
{
    private const TEXT_MM = 2.5;
    private const OVER_LINE_MM = 0.9;
    private const STROKE_MM = 1.5;

    /**
     * @param array{float, float} $from mm of paper
     * @param array{float, float} $to
     */
    public static function between(array $from, array $to, string $figure): SheetInk
    {
        $lines = [new InkLine([$from, $to], InkLine::NARROW)];
        $angle = atan2($from[1] - $to[1], $to[0] - $from[0]);
        foreach ([$from, $to] as [$x, $y]) {
            $half = self::STROKE_MM / 2.0;
            [$dx, $dy] = [$half * cos($angle + \M_PI_4) * \M_SQRT2, $half * sin($angle + \M_PI_4) * \M_SQRT2];
            $lines[] = new InkLine([[$x - $dx, $y + $dy], [$x + $dx, $y - $dy]], InkLine::MEDIUM);
        }
        $degrees = self::readable(rad2deg($angle));

        return new SheetInk([], $lines, [new InkText(
            ($from[0] + $to[0]) / 2.0 - self::OVER_LINE_MM * sin(deg2rad($degrees)),
            ($from[1] + $to[1]) / 2.0 - self::OVER_LINE_MM * cos(deg2rad($degrees)),
            $figure,
            self::TEXT_MM,
            'middle',
            $degrees,
        )]);
    }

    /** The same direction as words run in it that are read from below or from the right (ISO 129-1): over −90° to 90°. */
    public static function readable(float $degrees): float
    {
        return $degrees > 90.0 + 1e-6 ? $degrees - 180.0 : ($degrees <= -90.0 + 1e-6 ? $degrees + 180.0 : $degrees);
    }
}
