<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages\Internal;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\SheetEdges;

/**
 * One of a sheet's edges to a part of a pixel: a line through the steepest places of the step that SheetEdges has found coarsely.
 *
 * @internal
 */
final readonly class SheetEdge
{
    /** places looked at, and part of the sheet's side left out at either end: other edges are near there */
    private const PLACES = 200;
    private const CORNERS = 0.1;
    /** part of the picture's longer side to either side of the coarse line that is looked into */
    private const REACH = 0.02;
    /** px on either side of a place whose means differ, and grey levels by which they do at least */
    private const BESIDE_PX = 3;
    private const LEAST_STEP = 12.0;
    /** and part of what they differ by in all */
    private const STEP_PART = 0.4;
    /** px that a place lies off the edge, round by round; and part of the places that do not */
    private const OFF_PX = [25.0, 5.0, 2.0, 1.5, 1.5];
    private const STRAIGHT = 0.5;
    /** pieces that an edge counts as among those of other lines */
    private const PIECES = 4;
    /** px that paper lies straight to: by trial */
    public const SIGMA_PX = 0.15;

    /**
     * @param bool $level whether it runs along the top or the bottom: y = a + b x, else x = a + b y
     * @param bool $far whether it is the bottom or the right one
     */
    private function __construct(private bool $level, private bool $far, private float $a, private float $b)
    {
    }

    /** @return list<array{float, float}>|null top left, top right, bottom right, bottom left; null where four straight edges do not show */
    public static function corners(GreyRaster $raster): ?array
    {
        $sides = SheetEdges::of($raster)->sides;
        if (4 !== \count($sides)) {
            return null;
        }
        $coarse = [
            new self(false, false, ...$sides['left']),
            new self(true, false, ...$sides['top']),
            new self(false, true, ...$sides['right']),
            new self(true, true, ...$sides['bottom']),
        ];
        $edges = [];
        foreach ($coarse as $i => $edge) {
            $edge = $edge->refined($raster, $edge->meets($coarse[($i + 3) % 4]), $edge->meets($coarse[($i + 1) % 4]));
            if (null === $edge) {
                return null;
            }
            $edges[] = $edge;
        }

        return array_map(static fn (int $i): array => $edges[$i]->meets($edges[($i + 1) % 4]), [0, 1, 2, 3]);
    }

    /**
     * Pieces of the edges between four corners: those that run across the picture, and those that run down it as SlantOfLines has them.
     *
     * @param array{PixelPoint, PixelPoint, PixelPoint, PixelPoint} $corners
     *
     * @return array{list<EdgePiece>, list<EdgePiece>}
     */
    public static function pieces(array $corners): array
    {
        $pieces = [[], []];
        foreach ($corners as $i => $p) {
            $q = $corners[($i + 1) % 4];
            [$x, $y, $u, $v] = [$p->x, $p->y, $q->x, $q->y];
            // From left to right, and from top to bottom.
            [$dx, $dy] = $i < 2 ? [$u - $x, $v - $y] : [$x - $u, $y - $v];
            $isDown = 1 === $i % 2;
            for ($k = 0; $k < self::PIECES; ++$k) {
                $part = ($k + 0.5) / self::PIECES;
                $pieces[$i % 2][] = new EdgePiece(
                    $x + $part * ($u - $x),
                    $y + $part * ($v - $y),
                    $isDown ? atan2(-$dx, $dy) : atan2($dy, $dx),
                    (hypot($dx, $dy) / self::PIECES) ** 3 / 12.0,
                );
            }
        }

        return $pieces;
    }

    /** @return array{float, float} where a level edge and one that is none meet, px */
    private function meets(self $other): array
    {
        [$level, $upright] = $this->level ? [$this, $other] : [$other, $this];
        $x = ($upright->a + $upright->b * $level->a) / (1.0 - $upright->b * $level->b);

        return [$x, $level->a + $level->b * $x];
    }

    /**
     * @param array{float, float} $from corner at one end, px
     * @param array{float, float} $to at the other
     */
    private function refined(GreyRaster $raster, array $from, array $to): ?self
    {
        $along = $this->level ? 0 : 1;
        $first = $from[$along] + self::CORNERS * ($to[$along] - $from[$along]);
        $last = $to[$along] + self::CORNERS * ($from[$along] - $to[$along]);
        $places = [];
        for ($k = 0; $k < self::PLACES; ++$k) {
            $t = floor($first + ($last - $first) * ($k + 0.5) / self::PLACES) + 0.5;
            $at = $this->stepAt($raster, $t);
            if (null !== $at) {
                $places[] = [$t, $at];
            }
        }
        $edge = $this;
        foreach (self::OFF_PX as $off) {
            $on = array_filter($places, static fn (array $p): bool => abs($p[1] - $edge->a - $edge->b * $p[0]) < $off);
            if ([] === $on || \count($on) < self::STRAIGHT * self::PLACES) {
                return null;
            }
            $edge = $edge->through($on);
        }

        return $edge;
    }

    /** @param non-empty-array<array{float, float}> $places along and across */
    private function through(array $places): self
    {
        $n = \count($places);
        [$mt, $ms] = [array_sum(array_column($places, 0)) / $n, array_sum(array_column($places, 1)) / $n];
        [$tt, $ts] = [0.0, 0.0];
        foreach ($places as [$t, $s]) {
            $tt += ($t - $mt) ** 2;
            $ts += ($t - $mt) * ($s - $ms);
        }
        $b = $tt > 0.0 ? $ts / $tt : 0.0;

        return new self($this->level, $this->far, $ms - $b * $mt, $b);
    }

    /** Where the step lies beside one place of the coarse line, px across; null where there is none. */
    private function stepAt(GreyRaster $raster, float $t): ?float
    {
        $across = $this->level ? $raster->height : $raster->width;
        $middle = (int) round($this->a + $this->b * $t);
        $reach = (int) ceil(self::REACH * max($raster->width, $raster->height)) + self::BESIDE_PX;
        [$low, $high] = [max(0, $middle - $reach), min($across - 1, $middle + $reach)];
        if ((int) $t < 0 || (int) $t >= ($this->level ? $raster->width : $raster->height)) {
            return null;
        }
        $sums = [0];
        for ($s = $low; $s <= $high; ++$s) {
            [$x, $y] = $this->level ? [(int) $t, $s] : [$s, (int) $t];
            $sums[] = $sums[\count($sums) - 1] + \ord($raster->bytes[$y * $raster->width + $x]);
        }
        $w = self::BESIDE_PX;
        $n = \count($sums) - 1;
        // From what it lies on inward: a frame drawn along the edge is met later.
        $at = fn (int $i): int => $this->far ? $n - $i : $i;
        $step = static fn (int $i): float => abs($sums[$at($i) + $w] - 2 * $sums[$at($i)] + $sums[$at($i) - $w]) / $w;
        $levels = [abs($sums[$at($w)] - $sums[$at(0)]) / $w, abs($sums[$n] - $sums[0]) / $n];
        $least = max(self::LEAST_STEP, self::STEP_PART * abs($levels[1] - $levels[0]));
        for ($i = $w; $i <= $n - $w - 1; ++$i) {
            if ($step($i) < $least) {
                continue;
            }
            while ($i < $n - $w && $step($i + 1) > $step($i)) {
                ++$i;
            }
            if ($i <= $w || $i >= $n - $w) {
                return null;
            }
            // A parabola through the steepest place and its neighbours.
            $bend = $step($i - 1) - 2.0 * $step($i) + $step($i + 1);
            $off = $bend < 0.0 ? ($step($i - 1) - $step($i + 1)) / (2.0 * $bend) : 0.0;

            return $low + $at($i) + ($this->far ? -$off : $off);
        }

        return null;
    }
}
