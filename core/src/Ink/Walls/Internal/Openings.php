<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Picks\Gap;
use Plinth\Core\Ink\Walls\ProposedOpening;
use Plinth\Core\Plan\Model\OpeningKind;

/**
 * What the gaps of found walls are.
 *
 * @internal
 */
final class Openings
{
    /** Openings are no narrower than this: common practice, no source. */
    private const LEAST_MM = 350.0;
    /** A gap that the page itself did not show any better is believed by so much. */
    private const COARSE = 0.5;

    /**
     * @param list<WallLine> $walls
     * @param callable(float): void $onProgress
     *
     * @return list<ProposedOpening>
     */
    public static function in(array $walls, PageInk $pageInk, PixelToMm $map, callable $onProgress): array
    {
        $found = [];
        foreach ($walls as $i => $wall) {
            [$ux, $uy] = $wall->direction();
            $mine = [];
            foreach (self::gaps($wall, $walls) as [$from, $to]) {
                $at = $wall->from->plus(($from + $to) / 2.0 * $ux, ($from + $to) / 2.0 * $uy);
                $gap = Gap::around($pageInk, $map, $wall->from, $wall->to, $wall->thickness, $at);
                if (null !== $gap && (abs($gap->from - $from) > 400.0 || abs($gap->from + $gap->width - $to) > 400.0)) {
                    $gap = null;
                }
                if (null !== $gap) {
                    $mine[] = new ProposedOpening(
                        $i,
                        $gap->lined ? OpeningKind::Window : (null === $gap->leafSide ? OpeningKind::Opening : OpeningKind::Door),
                        $gap->from,
                        $gap->width,
                        $gap->sigmaMm,
                        0.9,
                        $gap->leafAt,
                        $gap->leafSide,
                    );
                } elseif ($to - $from >= self::LEAST_MM) {
                    $mine[] = new ProposedOpening($i, OpeningKind::Opening, $from, $to - $from, 40.0, self::COARSE);
                }
            }
            foreach ($mine as $k => $opening) {
                foreach (\array_slice($mine, 0, $k) as $before) {
                    if ($opening->offset < $before->offset + $before->width && $before->offset < $opening->offset + $opening->width) {
                        continue 2;
                    }
                }
                if ($opening->offset > 0.0 && $opening->offset + $opening->width < $wall->length()) {
                    $found[] = $opening;
                }
            }
            $onProgress(($i + 1) / \count($walls));
        }

        return $found;
    }

    /**
     * Where the wall does not show, less what other walls cover.
     *
     * @param list<WallLine> $walls
     *
     * @return list<array{float, float}>
     */
    private static function gaps(WallLine $wall, array $walls): array
    {
        $ends = [0.0];
        foreach ($wall->parts as [$a, $b]) {
            array_push($ends, $a, $b);
        }
        $ends[] = $wall->length();
        $gaps = [];
        [$ux, $uy] = $wall->direction();
        for ($k = 0; $k < \count($ends); $k += 2) {
            [$from, $to] = [max(0.0, $ends[$k]), min($wall->length(), $ends[$k + 1])];
            foreach ($walls as $other) {
                if ($other === $wall || $other->isParallelTo($wall)) {
                    continue;
                }
                [$vx, $vy] = $other->direction();
                $sine = $ux * $vy - $uy * $vx;
                $t = (($other->from->x - $wall->from->x) * $vy - ($other->from->y - $wall->from->y) * $vx) / $sine;
                $at = $wall->from->plus($t * $ux, $t * $uy);
                $half = $other->thickness / 2.0 / abs($sine);
                if ($other->distance($at) > $wall->thickness / 2.0 + 5.0 || $t + $half < $from || $t - $half > $to) {
                    continue;
                }
                // The larger piece beside it remains.
                if ($t - $half - $from > $to - $t - $half) {
                    $to = $t - $half;
                } else {
                    $from = $t + $half;
                }
            }
            if ($to - $from >= self::LEAST_MM - 60.0) {
                $gaps[] = [$from, $to];
            }
        }

        return $gaps;
    }
}
