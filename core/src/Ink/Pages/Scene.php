<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\Paper;

/**
 * Whether a picture shows a building itself and no drawing of one: most of a drawing is blank paper, of one
 * ground; joints between bricks are not, and a plastered wall, its roof and the sky are not alike. Its limits were set by looking
 * at 46 simulated facades and some hundred drawings; how it does on others is told in docs/accuracy.md.
 */
final class Scene
{
    /** part of full ink by which a pixel of blank paper differs from it at most */
    private const BLANK = 0.18;
    /** A drawing has at least so much blank paper, 0 to 1; one that is light on dark has more. */
    private const PAPER = [0.68, 0.79];
    /** Every so many pixels one is looked at, both ways. */
    private const STEP = 2;
    /** grey levels by which neighbouring places of one sheet differ at most: beyond that one thing ends and another begins */
    private const STEPS_OFF = 12;
    /** part of all neighbours that differ so on a picture of many things; a sheet that lies on something has its edge alone */
    private const STEPS = [0.07, 0.04];
    /** Half of a sheet is at least so light. */
    private const LIGHT = 200;
    /** bits of a level that tell grounds apart, and the part of a blueprint that its two commonest grounds make up */
    private const GROUND = [4, 0.85];

    /** @param GreyRaster $small a page reduced to some 1000 to 1500 px along its longer side, as it is */
    public static function isShown(GreyRaster $small, Paper $paper): bool
    {
        if ($paper->lightOnDark) {
            return self::ground($paper) < self::GROUND[1] || self::blank($small->inverted(), $paper) < self::PAPER[1];
        }
        $steps = self::steps($paper);
        $levels = $paper->levels;
        sort($levels);
        $isDark = $levels[intdiv(\count($levels), 2)] < self::LIGHT;

        return ($isDark && $steps > self::STEPS[0]) || ($steps > self::STEPS[1] && self::blank($small, $paper) < self::PAPER[0]);
    }

    /** @return float part of all places that the two commonest grounds make up */
    private static function ground(Paper $paper): float
    {
        $counts = array_count_values(array_map(static fn (int $level): int => $level >> self::GROUND[0], $paper->levels));
        rsort($counts);

        return ($counts[0] + ($counts[1] ?? 0)) / \count($paper->levels);
    }

    /** @return float part of all that is looked at that is blank paper */
    private static function blank(GreyRaster $raster, Paper $paper): float
    {
        [$looks, $blank] = [0, 0];
        for ($y = 0; $y < $raster->height; $y += self::STEP) {
            for ($x = 0; $x < $raster->width; $x += self::STEP) {
                ++$looks;
                $off = abs($paper->at($x, $y) - \ord($raster->bytes[$y * $raster->width + $x]));
                $blank += $off < self::BLANK * $paper->contrast ? 1 : 0;
            }
        }

        return $blank / max(1, $looks);
    }

    /** @return float part of all neighbouring places that are not alike */
    private static function steps(Paper $paper): float
    {
        [$pairs, $steps] = [0, 0];
        foreach ($paper->levels as $i => $level) {
            $isLast = 0 === ($i + 1) % $paper->columns;
            foreach ([$isLast ? null : $paper->levels[$i + 1] ?? null, $paper->levels[$i + $paper->columns] ?? null] as $other) {
                if (null !== $other) {
                    ++$pairs;
                    $steps += abs($level - $other) > self::STEPS_OFF ? 1 : 0;
                }
            }
        }

        return $steps / max(1, $pairs);
    }
}
