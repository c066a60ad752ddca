<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\PageInk;

/**
 * How dark a drawing is across a line, taken at places along it: each profile is a mean over a short stretch, so that grain averages out.
 *
 * @internal
 */
final readonly class Profiles
{
    /** samples to a pixel of the page across the line */
    private const FINE = 2.0;
    /** rows that one profile is the mean of */
    private const ROWS = 7;

    /**
     * @param list<float> $along places along the line, mm from its beginning
     * @param list<list<float>> $rows darkness over paper, grey levels, from the right of the line to its left
     * @param float $reach mm to either side
     * @param float $step mm between two samples
     */
    private function __construct(public array $along, public array $rows, public float $reach, public float $step)
    {
    }

    /**
     * @param list<array{float, float}> $stretches along the line, mm from its beginning: one profile each
     * @param float $reach mm to either side
     */
    public static function across(PageInk $pageInk, PixelToMm $map, Point $from, Point $to, array $stretches, float $reach): ?self
    {
        $length = $from->distanceTo($to);
        if ($length <= 0.0 || [] === $stretches) {
            return null;
        }
        [$ux, $uy] = [($to->x - $from->x) / $length, ($to->y - $from->y) / $length];
        $scale = $map->mmPerPixelAt($map->toPixel($from->plus(0.5 * $length * $ux, 0.5 * $length * $uy)));
        $step = $scale / self::FINE;
        $count = 2 * (int) ceil($reach / $step) + 1;
        $reach = ($count - 1) / 2 * $step;
        $ends = [];
        foreach ([min(array_column($stretches, 0)), max(array_column($stretches, 1))] as $t) {
            foreach ([-1.0, 1.0] as $side) {
                $ends[] = $map->toPixel($from->plus($t * $ux - $side * $reach * $uy, $t * $uy + $side * $reach * $ux));
            }
        }
        [$xs, $ys] = [array_map(static fn ($p): float => $p->x, $ends), array_map(static fn ($p): float => $p->y, $ends)];
        [$left, $top] = [max(0, (int) floor(min($xs)) - 2), max(0, (int) floor(min($ys)) - 2)];
        if (max($xs) <= $left + 4 || max($ys) <= $top + 4) {
            return null;
        }
        $raster = $pageInk->window($left, $top, (int) ceil(max($xs)) + 3 - $left, (int) ceil(max($ys)) + 3 - $top);
        if (min($raster->width, $raster->height) < 4) {
            return null;
        }
        [$w, $h, $bytes] = [$raster->width, $raster->height, $raster->bytes];
        $along = [];
        $rows = [];
        foreach ($stretches as [$t0, $t1]) {
            $sums = array_fill(0, $count, 0.0);
            for ($r = 0; $r < self::ROWS; ++$r) {
                $t = $t0 + ($t1 - $t0) * ($r + 0.5) / self::ROWS;
                $a = $map->toPixel($from->plus($t * $ux + $reach * $uy, $t * $uy - $reach * $ux));
                $b = $map->toPixel($from->plus($t * $ux - $reach * $uy, $t * $uy + $reach * $ux));
                [$x, $y] = [$a->x - $left - 0.5, $a->y - $top - 0.5];
                [$dx, $dy] = [($b->x - $a->x) / ($count - 1), ($b->y - $a->y) / ($count - 1)];
                for ($k = 0; $k < $count; ++$k, $x += $dx, $y += $dy) {
                    $i = (int) $x;
                    $j = (int) $y;
                    if ($x < 0.0 || $y < 0.0 || $i >= $w - 1 || $j >= $h - 1) {
                        $sums[$k] += 255.0;
                        continue;
                    }
                    $p = $j * $w + $i;
                    $upper = \ord($bytes[$p]);
                    $lower = \ord($bytes[$p + $w]);
                    $fu = $x - $i;
                    $upper += (\ord($bytes[$p + 1]) - $upper) * $fu;
                    $lower += (\ord($bytes[$p + $w + 1]) - $lower) * $fu;
                    $sums[$k] += $upper + ($lower - $upper) * ($y - $j);
                }
            }
            // Paper is what is lightest there, but for a speck.
            $sorted = $sums;
            sort($sorted);
            $paper = $sorted[(int) (0.85 * ($count - 1))] / self::ROWS;
            $along[] = ($t0 + $t1) / 2.0;
            $rows[] = array_values(array_map(static fn (float $s): float => max(0.0, $paper - $s / self::ROWS), $sums));
        }

        return new self($along, $rows, $reach, $step);
    }

    /**
     * The median of all of them, each shifted to where the line really runs.
     *
     * @param callable(float): float $shift mm to the left, by the place along
     *
     * @return list<float>
     */
    public function together(callable $shift): array
    {
        $count = \count($this->rows[0] ?? []);
        $offs = array_map(static fn (float $t): float => $shift($t), $this->along);
        $out = [];
        for ($k = 0; $k < $count; ++$k) {
            $values = [];
            foreach ($this->rows as $r => $row) {
                $values[] = $this->value($row, $k + $offs[$r] / $this->step);
            }
            sort($values);
            $out[] = $values[intdiv(\count($values), 2)];
        }

        return $out;
    }

    /** @param list<float> $row */
    private function value(array $row, float $k): float
    {
        $k = max(0.0, min(\count($row) - 1.001, $k));
        $i = (int) $k;

        return $row[$i] + ($row[$i + 1] - $row[$i]) * ($k - $i);
    }
}
