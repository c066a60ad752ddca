<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\EdgePoints;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\Pen;
use Plinth\Core\Ink\Picks\Internal\ColumnShape;
use Plinth\Core\Ink\Picks\Internal\EdgeLine;
use Plinth\Core\Ink\Picks\Internal\EdgeLines;

/**
 * What a pick means: the corner, crossing, column centre, line or wall face near it, to a part of a pixel, so that nobody
 * has to zoom in for it.
 *
 * Straight edges are fitted to sub-pixel edge points of a window round the pick; two that face each other at a pen's width
 * are a stroke, whose middle counts. Where two lines meet, each is fitted anew without the points near the corner, which blur
 * and bleeding ink round off.
 */
final readonly class PickRefinement
{
    /** What a pick sees round what it may move to, px: edges need some length to be told. */
    private const MARGIN = 22;
    /** px, half side of what is looked at, at least */
    private const LEAST_HALF = 32;
    /** px of the page that a pick must see across */
    private const LEAST_WINDOW = 12;
    /** px that a pick moves at most: beyond, it is not what was meant */
    private const MOST_REACH = 36.0;
    /** Columns are no narrower and no wider than this, mm: common practice, no source. */
    private const COLUMN_MM = [120.0, 1500.0];
    /** px across that a column has at most on the page: what one look takes in */
    private const COLUMN_PX = 110.0;
    /**
     * What bleeding ink, blur and the raster leave of a face's place, px: the median error on simulated scans is smaller, their spread is
     * not.
     */
    private const FLOOR_PX = 0.25;
    /** grey levels: pencil stands out by some thirty, grain by less than this */
    private const FAINTEST = 9.0;
    /** px round a corner that ink and raster round off */
    private const ROUNDED_PX = 4.5;
    /** px that a wall is followed through */
    private const MOST_WALL_PX = 160.0;

    private GreyRaster $window;
    private int $left;
    private int $top;
    private float $x;
    private float $y;

    /**
     * @param int $half half side of the window, px
     * @param float|null $mmPerPixel tells pens from walls; null where nothing is known
     * @param bool $isScene nothing is drawn with a pen, and nothing is a column
     */
    private function __construct(
        private PageInk $pageInk,
        PixelPoint $pick,
        int $half,
        private float $reach,
        private ?float $mmPerPixel,
        private bool $isScene = false,
    ) {
        [$left, $top] = [(int) floor($pick->x) - $half, (int) floor($pick->y) - $half];
        $this->window = $pageInk->window($left, $top, 2 * $half, 2 * $half);
        [$this->left, $this->top] = [max(0, $left), max(0, $top)];
        [$this->x, $this->y] = [$pick->x - $this->left, $pick->y - $this->top];
    }

    /**
     * @param float $reach how far it may move, page pixels; no further than the lens shows
     * @param bool $cornersOnly nothing but corners and crossings will do
     * @param bool $isScene it is a photograph of a building: what shows are edges of surfaces, and a brick is no column
     */
    public static function near(
        PageInk $pageInk,
        PixelPoint $pick,
        float $reach,
        ?float $mmPerPixel = null,
        bool $cornersOnly = false,
        bool $isScene = false,
    ): ?Found {
        $reach = max(2.0, min(self::MOST_REACH, $reach));
        $near = new self($pageInk, $pick, (int) ceil(max(self::LEAST_HALF, $reach + self::MARGIN)), $reach, $mmPerPixel, $isScene);
        $found = $near->found($cornersOnly);
        if (null === $found && !$cornersOnly && !$isScene) {
            $near = new self($pageInk, $pick, (int) ceil(self::COLUMN_PX * 0.75), $reach, $mmPerPixel);
            $found = $near->column(false);
        }

        return null === $found ? null : new Found(
            $found->kind,
            new PixelPoint($found->at->x + $near->left, $found->at->y + $near->top),
            $found->sigmaPx,
            $found->alongDegrees,
            $found->thicknessPx,
        );
    }

    /**
     * The line or face near a pick that runs a stated way, whatever corner may be nearer.
     *
     * @param float $alongDegrees on the page, counter-clockwise as seen
     * @param float $withinDegrees how far it may run off that
     */
    public static function lineNear(
        PageInk $pageInk,
        PixelPoint $pick,
        float $reach,
        float $alongDegrees,
        float $withinDegrees,
        ?float $mmPerPixel = null,
        bool $isScene = false,
    ): ?Found {
        $reach = max(2.0, min(self::MOST_REACH, $reach));
        $near = new self($pageInk, $pick, (int) ceil(max(self::LEAST_HALF, $reach + self::MARGIN)), $reach, $mmPerPixel, $isScene);
        $straight = $near->edges();
        $runs = array_values(
            array_filter(
                EdgeLines::strokes($straight, $near->penPx()),
                static fn (EdgeLine $l): bool => abs(fmod($l->alongDegrees() - $alongDegrees + 630.0, 180.0) - 90.0) <= $withinDegrees,
            ),
        );
        $best = $near->nearest($runs);
        if (null === $best) {
            return null;
        }
        $off = -$best->distance(0.0, 0.0);

        return new Found(
            null === $best->width ? FoundKind::Face : FoundKind::Line,
            new PixelPoint($best->nx * $off + $near->x + $near->left, $best->ny * $off + $near->y + $near->top),
            max(self::FLOOR_PX, $best->sigma),
            $best->alongDegrees(),
        );
    }

    /** @return list<EdgeLine> straight edges in the window, with the pick for their origin */
    private function edges(): array
    {
        if (min($this->window->width, $this->window->height) < self::LEAST_WINDOW) {
            return []; // at the edge of the page
        }
        $counts = count_chars($this->window->bytes, 1);
        $contrast = self::quantile($counts, 0.95) - self::quantile($counts, 0.03);
        $edges = EdgePoints::of($this->quiet(), EdgeLines::LEAST_POINTS, (int) max(self::FAINTEST, min(24.0, 0.2 * $contrast)));
        $points = array_map(fn (array $p): array => [$p[0] - $this->x, $p[1] - $this->y, $p[2], $p[3]], $edges->points ?? []);

        return EdgeLines::in($points);
    }

    private function found(bool $cornersOnly): ?Found
    {
        $straight = $this->edges();
        $lines = EdgeLines::strokes($straight, $this->penPx());
        $corner = $this->corner($lines);
        if ($cornersOnly) {
            return $corner;
        }
        $column = $this->isScene ? null : $this->column(true);
        if (null !== $column && (null === $corner || $this->off($column) < $this->off($corner))) {
            return $column;
        }
        $line = $this->line($lines, $straight);
        // A line under the pointer means more than a corner at the edge of the lens.
        $isFar = null !== $corner
            && null !== $line
            && $this->off($corner) > 0.55 * $this->reach
            && $this->off($line) < 0.4 * $this->off($corner);

        return $isFar ? $line : $corner ?? $line;
    }

    private function off(Found $found): float
    {
        return hypot($found->at->x - $this->x, $found->at->y - $this->y);
    }

    /** @param list<EdgeLine> $lines */
    private function corner(array $lines): ?Found
    {
        $best = null;
        $nearest = \INF;
        foreach ($lines as $i => $a) {
            foreach (\array_slice($lines, $i + 1) as $b) {
                $at = $a->crossing($b);
                if (null === $at || hypot(...$at) > $this->reach) {
                    continue;
                }
                [$a1, $a2] = $a->support($at[0], $at[1], 14.0);
                [$b1, $b2] = $b->support($at[0], $at[1], 14.0);
                $least = EdgeLines::LEAST_POINTS - 2;
                if (max($a1, $a2) < $least || max($b1, $b2) < $least) {
                    continue;
                }
                [$af, $bf] = [$a->without($at[0], $at[1], self::ROUNDED_PX, $least), $b->without($at[0], $at[1], self::ROUNDED_PX, $least)];
                $at = $af->crossing($bf) ?? $at;
                // Long lines count for more than scraps that happen to lie nearer; of the two sides of a thing the nearer wins.
                $weight = min(40, \count($a->points)) * min(40, \count($b->points));
                $cost = (hypot(...$at) + 1.0) / sqrt((float) $weight);
                if ($cost < $nearest && hypot(...$at) <= $this->reach) {
                    $nearest = $cost;
                    $isCrossing = null !== $a->width && null !== $b->width && min($a1, $a2, $b1, $b2) >= 4;
                    $best = new Found(
                        $isCrossing ? FoundKind::Crossing : FoundKind::Corner,
                        new PixelPoint($at[0] + $this->x, $at[1] + $this->y),
                        max(self::FLOOR_PX, hypot($af->sigma, $bf->sigma)),
                    );
                }
            }
        }

        return $best;
    }

    /**
     * @param list<EdgeLine> $lines strokes and faces
     * @param list<EdgeLine> $edges
     */
    private function line(array $lines, array $edges): ?Found
    {
        $best = $this->nearest($lines);
        if (null === $best) {
            return null;
        }
        $off = -$best->distance(0.0, 0.0);

        return new Found(
            null === $best->width ? FoundKind::Face : FoundKind::Line,
            new PixelPoint($best->nx * $off + $this->x, $best->ny * $off + $this->y),
            max(self::FLOOR_PX, $best->sigma),
            $best->alongDegrees(),
            $this->thickness($best, $lines, $edges) ?? (null === $best->width ? $this->walkedThrough($best, $off) : null),
        );
    }

    /** @param list<EdgeLine> $lines */
    private function nearest(array $lines): ?EdgeLine
    {
        $best = null;
        $nearest = \INF;
        foreach ($lines as $line) {
            $off = -$line->distance(0.0, 0.0);
            [$x, $y] = [$line->nx * $off, $line->ny * $off];
            if (abs($off) > $this->reach || array_sum($line->support($x, $y, 12.0)) < 6) {
                continue;
            }
            $cost = (abs($off) + 1.0) / sqrt((float) min(40, \count($line->points)));
            if ($cost < $nearest) {
                $nearest = $cost;
                $best = $line;
            }
        }

        return $best;
    }

    /** A wall thicker than the window shows: from its face into the dark, until it grows light again. */
    private function walkedThrough(EdgeLine $face, float $off): ?float
    {
        $most = self::MOST_WALL_PX;
        [$fx, $fy] = [$face->nx * $off + $this->x + $this->left, $face->ny * $off + $this->y + $this->top];
        [$left, $top] = [
            max(0, (int) floor(min($fx, $fx - $most * $face->nx)) - 3),
            max(0, (int) floor(min($fy, $fy - $most * $face->ny)) - 3),
        ];
        $raster = $this->pageInk->window($left, $top, (int) ceil($most * abs($face->nx)) + 7, (int) ceil($most * abs($face->ny)) + 7);
        $at = static function (float $t) use ($face, $fx, $fy, $left, $top, $raster): ?float {
            [$sum, $n] = [0.0, 0];
            // Averaged a little along the face: one speck is no end of a wall.
            for ($k = -2; $k <= 2; ++$k) {
                $x = (int) floor($fx + $t * $face->nx - $k * $face->ny) - $left;
                $y = (int) floor($fy + $t * $face->ny + $k * $face->nx) - $top;
                if ($x >= 0 && $y >= 0 && $x < $raster->width && $y < $raster->height) {
                    $sum += \ord($raster->bytes[$y * $raster->width + $x]);
                    ++$n;
                }
            }

            return 0 === $n ? null : $sum / $n;
        };
        [$light, $dark] = [$at(2.5), $at(-2.5)];
        if (null === $light || null === $dark) {
            return null;
        }
        $level = ($light + $dark) / 2.0;
        for ($t = 2.5; $t < $most; $t += 0.5) {
            $here = $at(-$t);
            if (null === $here) {
                return null;
            }
            if ($here > $level) {
                return $t;
            }
        }

        return null;
    }

    /**
     * The wall that a face belongs to: the next edge that faces it across the dark, or the next stroke beside a stroke.
     *
     * @param list<EdgeLine> $lines
     * @param list<EdgeLine> $edges
     */
    private function thickness(EdgeLine $face, array $lines, array $edges): ?float
    {
        $most = null === $this->mmPerPixel ? 60.0 : 700.0 / $this->mmPerPixel;
        $best = null;
        foreach (null === $face->width ? $edges : $lines as $other) {
            $isOther = null === $face->width
                ? $face->angleTo($other) > 172.0
                : null !== $other->width && (abs($face->angleTo($other) - 90.0) > 82.0);
            $apart = null === $face->width ? $face->off + $other->off : abs(
                $face->off - ($face->angleTo($other) > 90.0 ? -$other->off : $other->off),
            );
            if (
                $other !== $face
                && $isOther
                && $apart > $this->penPx()
                && $apart <= $most
                && EdgeLines::overlap($face, $other)
                && (null === $best || $apart < $best)
            ) {
                $best = $apart;
            }
        }

        return $best;
    }

    /** @param bool $isMiddle whether the pick must lie in the middle half of it */
    private function column(bool $isMiddle): ?Found
    {
        $counts = count_chars($this->window->bytes, 1);
        $level = (self::quantile($counts, 0.02) + self::quantile($counts, 0.9)) / 2.0;
        $most = null === $this->mmPerPixel ? self::COLUMN_PX : min(self::COLUMN_PX, self::COLUMN_MM[1] / $this->mmPerPixel);
        $least = null === $this->mmPerPixel ? 8.0 : max(5.0, self::COLUMN_MM[0] / $this->mmPerPixel);
        $shape = ColumnShape::at($this->window, (int) $this->x, (int) $this->y, $level, $most);
        if (null === $shape || min($shape->width, $shape->height) < $least) {
            return null;
        }
        [$dx, $dy] = [abs($shape->x - $this->x), abs($shape->y - $this->y)];
        $isNear = $isMiddle ? $dx <= $shape->width / 4.0 && $dy <= $shape->height / 4.0 : max($dx, $dy) <= max(
            $this->reach,
            max($shape->width, $shape->height) / 2.0,
        );

        return $isNear ? new Found(
            FoundKind::Column,
            new PixelPoint($shape->x, $shape->y),
            max(self::FLOOR_PX, 0.6 / sqrt($shape->height)),
        ) : null;
    }

    /** @param array<int, int> $counts by grey value */
    private static function quantile(array $counts, float $part): float
    {
        $left = $part * array_sum($counts);
        foreach ($counts as $value => $count) {
            $left -= $count;
            if ($left <= 0.0) {
                return (float) $value;
            }
        }

        return 255.0;
    }

    private function penPx(): float
    {
        return $this->isScene ? 0.0 : Pen::px($this->mmPerPixel);
    }

    /** Grain is smoothed by a binomial of three, as far as there is any: the weaker the smoothing, the sharper the corners. */
    private function quiet(): GreyRaster
    {
        $w = $this->window->width;
        $h = $this->window->height;
        /** @var list<int> $v */
        $v = array_values((array) unpack('C*', $this->window->bytes));
        $rough = 0;
        $n = 0;
        for ($i = $w + 1; $i < $w * ($h - 1) - 1; $i += 3) {
            // Second differences of a smooth picture vanish; most of a window is smooth.
            $d = abs($v[$i - 1] - 2 * $v[$i] + $v[$i + 1]);
            $rough += min(24, $d);
            ++$n;
        }
        if (0 === $n || $rough / $n < 4.0) {
            return $this->window;
        }
        $out = $this->window->row(0);
        for ($y = 1; $y < $h - 1; ++$y) {
            $o = $y * $w;
            $row = \chr($v[$o]);
            for ($x = 1; $x < $w - 1; ++$x) {
                $i = $o + $x;
                $row .= \chr(
                    (
                        $v[$i - $w - 1] + 2 * $v[$i - $w] + $v[$i - $w + 1]
                        + 2 * ($v[$i - 1] + 2 * $v[$i] + $v[$i + 1])
                        + $v[$i + $w - 1] + 2 * $v[$i + $w] + $v[$i + $w + 1] + 8
                    ) >> 4,
                );
            }
            $out .= $row.\chr($v[$o + $w - 1]);
        }

        return new GreyRaster($w, $h, $out.$this->window->row($h - 1));
    }
}
