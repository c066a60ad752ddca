<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Geometry\PixelAffine;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyFile;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\Paper;
use Plinth\Core\Ink\Pages\Internal\Coarse;
use Plinth\Core\Ink\Pages\Internal\Patches;

/**
 * Finds how a newer scan lies on an older one of the same sheet: any quarter turn, some degrees of skew, another
 * resolution, a slight stretch. First the whole ink of both as one blurred shape, then places with corners, matched by
 * normalised cross-correlation (the standard measure; Lewis 1995 from memory) at the reduced size and at the full one,
 * with an affine mapping through those that agree.
 */
final class Registration
{
    /** places that agree: an affine map has six unknowns, three points' worth; more than twice that */
    private const LEAST_POINTS = 8;
    /** Places that lie further off than this many times the median are of something else. */
    private const OUTLIER = 3.5;

    /**
     * @param GreyRaster $oldSmall the whole old page at a reduced size, and likewise the new one
     * @param list<array{PixelPoint, PixelPoint}> $pairs the same places picked by hand, old then new; two are enough
     *
     * @return Registered|null null when the two do not seem to show the same sheet
     */
    public static function between(GreyFile $old, GreyRaster $oldSmall, GreyFile $new, GreyRaster $newSmall, array $pairs = []): ?Registered
    {
        $oldFactor = $old->width / $oldSmall->width;
        $newFactor = $new->width / $newSmall->width;
        if (\count($pairs) >= 2) {
            $start = PixelAffine::through($pairs);
        } else {
            $coarse = Coarse::between($oldSmall, Paper::of($oldSmall), $newSmall, Paper::of($newSmall));
            if (null === $coarse) {
                return null;
            }
            $start = self::rescaled($coarse, $oldFactor, $newFactor);
        }
        $spots = Patches::spots($oldSmall);
        $small = self::agreed(Patches::matched(
            $oldSmall->page(),
            $newSmall->page(),
            $spots, self::rescaled($start, 1.0 / $oldFactor, 1.0 / $newFactor), 14, 9,
        ));
        if (null === $small) {
            return \count($pairs) >= 2 ? self::byHand($pairs) : null;
        }
        $full = self::agreed(Patches::matched(
            $old,
            $new,
            array_map(
                static fn (PixelPoint $p): PixelPoint => new PixelPoint(floor($p->x * $oldFactor), floor($p->y * $oldFactor)),
                $spots,
            ),
            self::rescaled($small->map, $oldFactor, $newFactor), 20, (int) ceil(1.2 * $oldFactor) + 2,
        ));

        return $full ?? (\count($pairs) >= 2 ? self::byHand($pairs) : null);
    }

    /** @param non-empty-list<array{PixelPoint, PixelPoint}> $pairs */
    private static function byHand(array $pairs): Registered
    {
        $map = PixelAffine::through($pairs);

        return self::judged($map, $pairs);
    }

    /**
     * @param list<array{PixelPoint, PixelPoint}> $pairs
     */
    private static function agreed(array $pairs): ?Registered
    {
        // A few wrong ones pull the first mapping off, so it is made again from those that lie best.
        for ($round = 0; $round < 6; ++$round) {
            if (\count($pairs) < self::LEAST_POINTS) {
                return null;
            }
            $map = PixelAffine::through($pairs);
            $off = array_map(static fn (array $pair): float => $map->of($pair[0])->distanceTo($pair[1]), $pairs);
            $sorted = $off;
            sort($sorted);
            $limit = max(0.3, self::OUTLIER * $sorted[intdiv(\count($sorted), 2)]);
            if (max($off) <= $limit) {
                return self::judged($map, $pairs);
            }
            $pairs = array_values(array_filter($pairs, static fn (int $i): bool => $off[$i] <= $limit, \ARRAY_FILTER_USE_KEY));
        }

        return \count($pairs) < self::LEAST_POINTS ? null : self::judged(PixelAffine::through($pairs), $pairs);
    }

    /** @param non-empty-list<array{PixelPoint, PixelPoint}> $pairs */
    private static function judged(PixelAffine $map, array $pairs): Registered
    {
        $back = $map->inverse();
        $off = array_map(static fn (array $pair): float => $back->of($pair[1])->distanceTo($pair[0]), $pairs);

        return new Registered(
            $map,
            \count($pairs),
            sqrt(array_sum(array_map(static fn (float $d): float => $d * $d, $off)) / \count($off)),
            max($off),
        );
    }

    /** The same mapping between the pages at other sizes: old × $old, new × $new. */
    private static function rescaled(PixelAffine $map, float $old, float $new): PixelAffine
    {
        return new PixelAffine(
            $map->a * $new / $old,
            $map->b * $new / $old,
            $map->c * $new,
            $map->d * $new / $old,
            $map->e * $new / $old,
            $map->f * $new,
        );
    }
}
