<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\ReducedInk;
use Plinth\Core\Ink\Picks\Gap;
use Plinth\Core\Ink\Walls\OpeningEvidence;
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
    private const WIDEST_MM = 3200.0;
    /** No leaf of a door is wider: common practice, no source. */
    private const WIDEST_LEAF_MM = 1250.0;
    /** how plain the weaker jamb of an opening is where its wall shows too, 0 to 1; by trial (bench ink) */
    private const PLAIN = 0.4;
    /** mm that the gap on the page may lie off the one between a wall's parts */
    private const OFF_MM = 400.0;
    /** mm within which a jamb is looked for: where the page shows no gap, and where it does */
    private const JAMB_MM = [180.0, 50.0];
    /** Where lines run through so much of a gap that the page itself does not show, it is a window. */
    private const LINED = 0.7;

    /**
     * @param list<WallLine> $walls
     * @param list<float> $confidences of the walls
     * @param callable(float): void $onProgress
     *
     * @return list<ProposedOpening>
     */
    public static function in(
        array $walls,
        array $confidences,
        PageInk $pageInk,
        ReducedInk $page,
        PixelToMm $map,
        callable $onProgress,
    ): array {
        $found = [];
        foreach ($walls as $i => $wall) {
            $jambs = Jambs::of($page, $map, $wall);
            $gaps = self::gaps($wall, $walls);
            $in = static fn (float $from, float $to): ?ProposedOpening => self::opening(
                $i,
                $wall,
                [$from, $to],
                $jambs,
                $confidences[$i],
                $pageInk,
                $map,
            );
            $mine = array_values(array_filter(array_map(static fn (array $gap): ?ProposedOpening => $in(...$gap), $gaps)));
            $mine = [...$mine, ...self::framed($jambs, $gaps, $in)];
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
     * Openings where the wall shows as well: their gap has to be plain.
     *
     * @param list<array{float, float}> $gaps where it does not show
     * @param callable(float, float): ?ProposedOpening $in
     *
     * @return list<ProposedOpening>
     */
    private static function framed(Jambs $jambs, array $gaps, callable $in): array
    {
        $found = [];
        foreach ($jambs->framed(self::LEAST_MM, self::WIDEST_MM) as [$from, $to, $kinds]) {
            $isNew = [] === array_filter($gaps, static fn (array $g): bool => $from < $g[1] && $g[0] < $to);
            $opening = $isNew ? $in($from, $to) : null;
            if (
                null !== $opening
                && $opening->evidence->isGap
                && $opening->evidence->jamb >= self::PLAIN
                && $opening->evidence->fromEnd >= self::LEAST_MM
                && \in_array($opening->kind, $kinds, true)
            ) {
                $found[] = $opening;
            }
        }

        return $found;
    }

    /** @param array{float, float} $between where the wall does not show, mm from its beginning */
    private static function opening(
        int $index,
        WallLine $wall,
        array $between,
        Jambs $jambs,
        float $confidence,
        PageInk $pageInk,
        PixelToMm $map,
    ): ?ProposedOpening {
        [$ux, $uy] = $wall->direction();
        [$from, $to] = $between;
        $at = $wall->from->plus(($from + $to) / 2.0 * $ux, ($from + $to) / 2.0 * $uy);
        $gap = Gap::around($pageInk, $map, $wall->from, $wall->to, $wall->thickness, $at);
        if (null !== $gap && max(abs($gap->from - $from), abs($gap->from + $gap->width - $to)) > self::OFF_MM) {
            $gap = null;
        }
        if (null !== $gap) {
            [$from, $to] = [$gap->from, $gap->from + $gap->width];
        }
        $within = self::JAMB_MM[null === $gap ? 0 : 1];
        [$nearAt, $near] = $jambs->near($from, $within, 1);
        [$farAt, $far] = $jambs->near($to, $within, -1);
        [$from, $to] = null === $gap ? [$nearAt, $farAt] : [$from, $to];
        if ($to - $from < self::LEAST_MM) {
            return null;
        }
        $stands = $gap ?? Gap::between($pageInk, $map, $wall->from, $wall->to, $wall->thickness, $from, $to);
        // What swings beside a gap that no leaf closes is a door of another wall.
        $isDoor = null !== $stands->leafSide && $to - $from <= self::WIDEST_LEAF_MM;
        $isLined = null === $gap && !$isDoor ? $jambs->inked($from, $to) > self::LINED : $stands->lined;
        $evidence = new OpeningEvidence(
            null !== $gap,
            min($near, $far),
            min($from, $wall->length() - $to),
            $to - $from,
            null !== $gap && $gap->lined,
            $confidence,
            Filling::Solid === $wall->look->filling,
        );

        return new ProposedOpening(
            $index,
            $isLined ? OpeningKind::Window : ($isDoor ? OpeningKind::Door : OpeningKind::Opening),
            $from,
            $to - $from,
            $stands->sigmaMm,
            $evidence->confidence(),
            $evidence,
            $isDoor ? $stands->leafAt : null,
            $isDoor ? $stands->leafSide : null,
        );
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
