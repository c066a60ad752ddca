<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Page\Blob;
use Plinth\Core\Ink\Page\Blobs;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\Paper;

/**
 * Proposes how a page falls into drawings. Connected ink is gathered by nearness, small things (titles, level marks,
 * figures) to the nearest; two large bodies stay apart unless they face each other closely along a good part of their
 * length, as the parts of one building do. The frame of the sheet and its title block are left out.
 *
 * All shares below are of the page's longer side, by common practice of laying out sheets, no source.
 */
final class Cuts
{
    /** part of the page's longer side that parts one drawing from the next; by trial on drawn sheets (CutsTest) */
    private const FAR = 0.045;
    /** part of the page's longer side that a drawing has at least, both ways; by trial (CutsTest) */
    private const BODY = 0.1;
    /** part of the page's longer side: what faces a drawing within this belongs to it; by trial (CutsTest) */
    private const FACING_DISTANCE = 0.025;
    /** part of the shorter side along which two boxes face each other at least; by trial (CutsTest) */
    private const FACING_SHARE = 0.2;
    /** part of the page's longer side: boxes this near touch, as a frame and what it frames; by trial (CutsTest) */
    private const TOUCHING = 0.008;
    /** of the side along which it lies */
    private const SHALLOW = 0.45;
    /** part of the page's longer side by which a cut is drawn wider than its ink */
    private const MARGIN = 0.004;
    /** Dust: this small and this far from anything, it belongs to nothing. Letters have neighbours. */
    private const SPECK = 0.008;
    /** part of the page's longer side; by trial (CutsTest) */
    private const ALONE = 0.012;
    /** px of ink in the reduced page: less is grain */
    private const SPECK_PX = 3;
    /** More pieces than this is a photograph's texture: only the larger ones are looked at. */
    private const MOST_BLOBS = 2500;

    /**
     * @param GreyRaster $small a page reduced to some 1000 to 1500 px along its longer side
     *
     * @return list<PixelBox> in pixels of the raster, in reading order; empty when nothing on it is as large as a drawing
     */
    public static function propose(GreyRaster $small, Paper $paper): array
    {
        $longer = max($small->width, $small->height);
        $blobs = array_values(array_filter(Blobs::of($small, $paper), static fn (Blob $b): bool => $b->ink >= self::SPECK_PX));
        if (\count($blobs) > self::MOST_BLOBS) {
            usort($blobs, static fn (Blob $a, Blob $b): int => $b->ink <=> $a->ink);
            $blobs = \array_slice($blobs, 0, self::MOST_BLOBS);
        }
        $groups = self::gathered(self::withoutFrame($blobs, $small->width, $small->height), $longer);
        $boxes = [];
        foreach ($groups as $group) {
            $box = self::boxOf($group);
            if (self::isBody($box, $longer)) {
                $boxes[] = $box->grown(self::MARGIN * $longer, $small->width, $small->height);
            }
        }
        // Reading order: by rows that overlap, then from the left.
        usort(
            $boxes,
            static fn (PixelBox $a, PixelBox $b): int => abs($a->top - $b->top) < 0.5 * min($a->height, $b->height)
                ? $a->left <=> $b->left
                : $a->top <=> $b->top,
        );

        return $boxes;
    }

    /**
     * @param list<Blob> $blobs
     *
     * @return list<Blob>
     */
    private static function withoutFrame(array $blobs, int $width, int $height): array
    {
        $page = new PixelBox(0, 0, $width, $height);
        $middle = new PixelBox(0.25 * $width, 0.25 * $height, 0.5 * $width, 0.5 * $height);
        $frames = [];
        $rest = [];
        foreach ($blobs as $blob) {
            $isWide = $blob->box->width > 0.75 * $width;
            $isHigh = $blob->box->height > 0.75 * $height;
            $isRing = $isWide && $isHigh && 0 === $blob->inkIn($middle);
            // The edge of the sheet on a scanner's lid or a table.
            $atEdge = ($isWide || $isHigh) && (
                $blob->box->left <= 1
                || $blob->box->top <= 1
                || $blob->box->right() >= $page->width - 1
                || $blob->box->bottom() >= $page->height - 1
            ) && 0 === $blob->inkIn($middle);
            if ($isRing || $atEdge) {
                $frames[] = $blob;
            } else {
                $rest[] = $blob;
            }
        }
        if ([] === $frames) {
            return $rest;
        }
        $fields = Blobs::enclosed($frames, $width, $height);
        usort($fields, static fn (Blob $a, Blob $b): int => $b->ink <=> $a->ink);
        $drawingField = self::runsByRow($fields[0] ?? null);

        return array_values(array_filter($rest, static function (Blob $blob) use ($drawingField): bool {
            [$y, $from] = $blob->runs[intdiv(\count($blob->runs), 2)];
            foreach ($drawingField[$y] ?? [] as [$a, $b]) {
                if ($from >= $a - 1 && $from <= $b) {
                    return true;
                }
            }

            return false;
        }));
    }

    /** @return array<int, list<array{int, int}>> */
    private static function runsByRow(?Blob $blob): array
    {
        $rows = [];
        foreach ($blob->runs ?? [] as [$y, $from, $to]) {
            $rows[$y][] = [$from, $to];
        }

        return $rows;
    }

    /**
     * @param list<Blob> $blobs
     *
     * @return list<non-empty-list<Blob>>
     */
    private static function gathered(array $blobs, int $longer): array
    {
        $far = self::FAR * $longer;
        $order = array_keys($blobs);
        usort($order, static fn (int $i, int $j): int => $blobs[$i]->box->left <=> $blobs[$j]->box->left);
        $pairs = [];
        foreach ($order as $n => $i) {
            $box = $blobs[$i]->box;
            for ($m = $n + 1; $m < \count($order); ++$m) {
                $other = $blobs[$order[$m]]->box;
                if ($other->left > $box->right() + $far) {
                    break;
                }
                $gap = $box->gap($other);
                if ($gap <= $far) {
                    $pairs[] = [$gap, $i, $order[$m]];
                }
            }
        }
        usort($pairs, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $group = array_keys($blobs);
        /** @var array<int, non-empty-list<Blob>> $members */
        $members = array_map(static fn (Blob $b): array => [$b], $blobs);
        $boxes = array_map(static fn (Blob $b): PixelBox => $b->box, $blobs);
        foreach ($pairs as [$gap, $i, $j]) {
            $a = $group[$i];
            $b = $group[$j];
            if ($a === $b || ($gap > self::ALONE * $longer && (self::isSpeck($boxes[$a], $longer) || self::isSpeck($boxes[$b], $longer)))) {
                continue;
            }
            if (
                self::isBody($boxes[$a], $longer)
                && self::isBody($boxes[$b], $longer)
                && !self::belongTogether($members[$a], $members[$b], $boxes[$a], $boxes[$b], $longer)
            ) {
                continue;
            }
            if (\count($members[$a]) < \count($members[$b])) {
                [$a, $b] = [$b, $a];
            }
            $members[$a] = [...$members[$a], ...$members[$b]];
            $boxes[$a] = $boxes[$a]->union($boxes[$b]);
            unset($members[$b]);
            foreach ($group as $k => $of) {
                if ($of === $b) {
                    $group[$k] = $a;
                }
            }
        }

        return array_values($members);
    }

    private static function isSpeck(PixelBox $box, int $longer): bool
    {
        return max($box->width, $box->height) < self::SPECK * $longer;
    }

    private static function isBody(PixelBox $box, int $longer): bool
    {
        return $box->width > self::BODY * $longer && $box->height > self::BODY * $longer;
    }

    /**
     * @param non-empty-list<Blob> $a
     * @param non-empty-list<Blob> $b
     */
    private static function belongTogether(array $a, array $b, PixelBox $boxA, PixelBox $boxB, int $longer): bool
    {
        if ($boxA->overlap($boxB) > 0.15 * min($boxA->area(), $boxB->area())) {
            return true;
        }
        $acrossX = min($boxA->right(), $boxB->right()) - max($boxA->left, $boxB->left);
        $acrossY = min($boxA->bottom(), $boxB->bottom()) - max($boxA->top, $boxB->top);
        $besides = $acrossX < $acrossY;
        $depth = $besides ? min($boxA->width, $boxB->width) : min($boxA->height, $boxB->height);
        if ($boxA->gap($boxB) <= self::TOUCHING * $longer && $depth < self::SHALLOW * max($acrossX, $acrossY)) {
            return true; // a chain of dimensions along the side of a plan
        }
        $near = self::FACING_DISTANCE * $longer;
        $aFirst = $besides ? $boxA->left < $boxB->left : $boxA->top < $boxB->top;
        $first = self::profile($aFirst ? $a : $b, $besides, true);
        $second = self::profile($aFirst ? $b : $a, $besides, false);
        $facing = 0;
        foreach ($first as $at => $edge) {
            if (isset($second[$at]) && $second[$at] - $edge < $near) {
                ++$facing;
            }
        }

        return $facing > self::FACING_SHARE * ($besides ? min($boxA->height, $boxB->height) : min($boxA->width, $boxB->width));
    }

    /**
     * The outline as seen from the other body: for each row the last or first ink column, or for each column the row.
     *
     * @param non-empty-list<Blob> $blobs
     *
     * @return array<int, int>
     */
    private static function profile(array $blobs, bool $byRow, bool $last): array
    {
        $edge = [];
        foreach ($blobs as $blob) {
            foreach ($blob->runs as [$y, $from, $to]) {
                if ($byRow) {
                    $edge[$y] = $last ? max($edge[$y] ?? 0, $to) : min($edge[$y] ?? \PHP_INT_MAX, $from);
                } else {
                    for ($x = $from; $x < $to; ++$x) {
                        $edge[$x] = $last ? max($edge[$x] ?? 0, $y + 1) : min($edge[$x] ?? \PHP_INT_MAX, $y);
                    }
                }
            }
        }

        return $edge;
    }

    /** @param non-empty-list<Blob> $blobs */
    private static function boxOf(array $blobs): PixelBox
    {
        $box = $blobs[0]->box;
        foreach ($blobs as $blob) {
            $box = $box->union($blob->box);
        }

        return $box;
    }
}
