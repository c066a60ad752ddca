<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages\Internal;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Numerics\Median;

/**
 * The edge of a sheet that is met first from one side of a picture, where it is straight.
 *
 * @internal
 */
final readonly class SheetEdge
{
    /** lines looked along, away from the corners: part of the sheet's side left out at either end */
    private const LINES = 240;
    private const CORNERS = 0.15;
    /** and first, in the middle of the picture, for where about the edge lies: how many, and in which part */
    private const FIRST = [15, 0.3];
    /** part of the picture that is looked into, and at its border, for what the sheet lies on */
    private const INTO = 0.45;
    private const BORDER_PX = 4;
    /** px on either side of an edge whose means differ; grey levels by which they do at least, and part of what they differ by in all */
    private const BESIDE_PX = 4;
    private const LEAST_STEP = 12.0;
    private const STEP_PART = 0.4;
    /** px that a place lies off the edge, and part of the places that do not */
    private const OFF_PX = 1.5;
    private const STRAIGHT = 0.6;
    /** pieces that an edge counts as among those of other lines */
    private const PIECES = 4;
    /** px that paper lies straight to: by trial */
    public const SIGMA_PX = 0.15;

    /**
     * @param array{float, float} $from a place on it
     * @param array{float, float} $along its direction, length 1
     */
    private function __construct(private array $from, private array $along)
    {
    }

    /** @return list<array{float, float}>|null top left, top right, bottom right, bottom left; null where four edges do not show */
    public static function corners(GreyRaster $raster): ?array
    {
        $about = [];
        foreach (['top', 'right', 'bottom', 'left'] as $side) {
            [$long] = self::size($raster, $side);
            [$from, $to] = [$long * (1.0 - self::FIRST[1]) / 2.0, $long * (1.0 + self::FIRST[1]) / 2.0];
            $places = self::places($raster, $side, self::FIRST[0], $from, $to);
            if (\count($places) < self::STRAIGHT * self::FIRST[0]) {
                return null;
            }
            $about[$side] = Median::of(array_column($places, 1));
        }
        $edges = [];
        foreach (['left', 'top', 'right', 'bottom'] as $side) {
            [$long] = self::size($raster, $side);
            [$before, $after] = 'top' === $side || 'bottom' === $side ? ['left', 'right'] : ['top', 'bottom'];
            $from = $about[$before];
            $sheet = $long - $about[$after] - $from;
            $edge = self::of($raster, $side, $from + self::CORNERS * $sheet, $from + (1.0 - self::CORNERS) * $sheet);
            if (null === $edge) {
                return null;
            }
            $edges[] = $edge;
        }
        $corners = [];
        foreach ($edges as $i => $edge) {
            $corner = $edge->meets($edges[($i + 1) % 4]);
            if (null === $corner) {
                return null;
            }
            $corners[] = $corner;
        }

        return $corners;
    }

    /** @param 'top'|'right'|'bottom'|'left' $side */
    private static function of(GreyRaster $raster, string $side, float $from, float $to): ?self
    {
        [, $deep] = self::size($raster, $side);
        $places = self::places($raster, $side, self::LINES, $from, $to);
        $line = [] === $places ? null : self::line($places);
        if (null === $line) {
            return null;
        }
        [$a, $b] = $line;
        $norm = hypot(1.0, $b);
        [$from, $along] = match ($side) {
            'top' => [[0.0, $a], [1.0, $b]],
            'bottom' => [[0.0, $deep - $a], [1.0, -$b]],
            'left' => [[$a, 0.0], [$b, 1.0]],
            'right' => [[$deep - $a, 0.0], [-$b, 1.0]],
        };

        return new self($from, [$along[0] / $norm, $along[1] / $norm]);
    }

    /** @return array{float, float}|null where two edges meet */
    private function meets(self $other): ?array
    {
        $cross = $this->along[0] * $other->along[1] - $this->along[1] * $other->along[0];
        if (abs($cross) < 0.3) {
            return null;
        }
        [$dx, $dy] = [$other->from[0] - $this->from[0], $other->from[1] - $this->from[1]];
        $t = ($dx * $other->along[1] - $dy * $other->along[0]) / $cross;

        return [$this->from[0] + $t * $this->along[0], $this->from[1] + $t * $this->along[1]];
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

    /**
     * @param 'top'|'right'|'bottom'|'left' $side
     *
     * @return array{int, int} px along the side and away from it
     */
    private static function size(GreyRaster $raster, string $side): array
    {
        return 'top' === $side || 'bottom' === $side ? [$raster->width, $raster->height] : [$raster->height, $raster->width];
    }

    /**
     * Where what lies at the border ends, along some lines away from it.
     *
     * @param 'top'|'right'|'bottom'|'left' $side
     *
     * @return list<array{float, float}> px along the side and away from it
     */
    private static function places(GreyRaster $raster, string $side, int $lines, float $from, float $to): array
    {
        [, $deep] = self::size($raster, $side);
        $places = [];
        for ($k = 0; $k < $lines; ++$k) {
            $at = (int) ($from + ($to - $from) * ($k + 0.5) / $lines);
            $depth = self::firstStep(self::profile($raster, $side, $at, (int) (self::INTO * $deep)));
            if (null !== $depth) {
                $places[] = [$at + 0.5, $depth];
            }
        }

        return $places;
    }

    /**
     * @param 'top'|'right'|'bottom'|'left' $side
     *
     * @return list<int> grey values from the border inward
     */
    private static function profile(GreyRaster $raster, string $side, int $at, int $depth): array
    {
        $values = [];
        for ($d = 0; $d < $depth; ++$d) {
            [$x, $y] = match ($side) {
                'top' => [$at, $d],
                'bottom' => [$at, $raster->height - 1 - $d],
                'left' => [$d, $at],
                'right' => [$raster->width - 1 - $d, $at],
            };
            $values[] = \ord($raster->bytes[$y * $raster->width + $x]);
        }

        return $values;
    }

    /**
     * Where what lies at the border ends.
     *
     * @param list<int> $values
     *
     * @return float|null px from the border, to a part of one
     */
    private static function firstStep(array $values): ?float
    {
        $n = \count($values);
        if ($n < 4 * self::BESIDE_PX) {
            return null;
        }
        $sums = [0];
        foreach ($values as $v) {
            $sums[] = $sums[\count($sums) - 1] + $v;
        }
        $paper = Median::of(array_map(floatval(...), \array_slice($values, intdiv($n, 2))));
        $border = Median::of(array_map(floatval(...), \array_slice($values, 0, self::BORDER_PX)));
        $least = max(self::LEAST_STEP, self::STEP_PART * abs($paper - $border));
        $w = self::BESIDE_PX;
        $step = static fn (int $i): float => abs($sums[$i + $w] - 2 * $sums[$i] + $sums[$i - $w]) / $w;
        for ($i = $w; $i <= $n - $w; ++$i) {
            if ($step($i) < $least) {
                continue;
            }
            // Up to the steepest place, where a parabola through it and its neighbours is highest.
            while ($i < $n - $w && $step($i + 1) > $step($i)) {
                ++$i;
            }
            if ($i <= $w || $i >= $n - $w) {
                return null;
            }
            [$p, $q, $r] = [$step($i - 1), $step($i), $step($i + 1)];
            $bend = $p - 2.0 * $q + $r;

            return $i + (0.0 === $bend ? 0.0 : ($p - $r) / (2.0 * $bend));
        }

        return null;
    }

    /**
     * The line that most places lie on.
     *
     * @param non-empty-list<array{float, float}> $places along and deep
     *
     * @return array{float, float}|null depth at 0, and slope
     */
    private static function line(array $places): ?array
    {
        [$best, $most] = [null, 0];
        $n = \count($places);
        for ($i = 0; $i < $n; $i += 5) {
            for ($k = $i + intdiv($n, 3); $k < $n; $k += 5) {
                [[$x, $y], [$u, $v]] = [$places[$i], $places[$k]];
                $b = ($v - $y) / ($u - $x);
                $count = 0;
                foreach ($places as [$s, $t]) {
                    $count += abs($t - $y - $b * ($s - $x)) < self::OFF_PX ? 1 : 0;
                }
                [$best, $most] = $count > $most ? [[$y - $b * $x, $b], $count] : [$best, $most];
            }
        }
        if (null === $best || $most < self::STRAIGHT * self::LINES) {
            return null;
        }
        [$a, $b] = $best;
        for ($round = 0; $round < 3; ++$round) {
            $on = array_values(array_filter($places, static fn (array $p): bool => abs($p[1] - $a - $b * $p[0]) < self::OFF_PX));
            $n = \count($on);
            [$mx, $my] = [array_sum(array_column($on, 0)) / $n, array_sum(array_column($on, 1)) / $n];
            [$xx, $xy] = [0.0, 0.0];
            foreach ($on as [$x, $y]) {
                $xx += ($x - $mx) ** 2;
                $xy += ($x - $mx) * ($y - $my);
            }
            $b = $xy / $xx;
            $a = $my - $b * $mx;
        }

        return [$a, $b];
    }
}
