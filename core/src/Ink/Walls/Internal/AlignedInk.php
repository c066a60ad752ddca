<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/**
 * A drawing's ink on a raster of square cells that lies with one direction of the building: what runs that way is level in it,
 * what runs across is plumb, whatever the page does.
 *
 * Values are 0 for paper to 255 for full ink. u runs along the direction and v to its left, mm; the cell in column i and row j has
 * its middle at (left + (i + ½)·cell, bottom + (j + ½)·cell).
 *
 * @internal
 */
final readonly class AlignedInk
{
    /** Between so many cells the mapping to the page is taken for straight. */
    private const STRAIGHT = 16;

    /**
     * @param float $turn of the direction in the building, radians
     * @param float $cell mm
     * @param list<string> $rows from the bottom up, one byte for each cell
     */
    private function __construct(public float $turn, public float $cell, public float $left, public float $bottom, public int $columns, public array $rows)
    {
    }

    /**
     * @param list<Point> $corners of the drawing's extent, mm
     * @param float $cell mm
     */
    public static function of(InkPage $page, PixelToMm $map, array $corners, float $turn, float $cell): self
    {
        [$c, $s] = [cos($turn), sin($turn)];
        $us = array_map(static fn (Point $p): float => $c * $p->x + $s * $p->y, $corners);
        $vs = array_map(static fn (Point $p): float => $c * $p->y - $s * $p->x, $corners);
        [$left, $bottom] = [min([0.0, ...$us] === [0.0] ? [0.0] : $us), min([0.0, ...$vs] === [0.0] ? [0.0] : $vs)];
        $columns = max(1, (int) ceil((max([$left, ...$us]) - $left) / $cell));
        $count = max(1, (int) ceil((max([$bottom, ...$vs]) - $bottom) / $cell));
        [$w, $h, $bytes] = [$page->width, $page->height, $page->bytes];
        $rows = [];
        for ($j = 0; $j < $count; ++$j) {
            $v = $bottom + ($j + 0.5) * $cell;
            $row = '';
            $next = $page->at($map, new Point($c * ($left + 0.5 * $cell) - $s * $v, $s * ($left + 0.5 * $cell) + $c * $v));
            for ($i = 0; $i < $columns; $i += self::STRAIGHT) {
                [$x, $y] = $next;
                $u = $left + ($i + self::STRAIGHT + 0.5) * $cell;
                $next = $page->at($map, new Point($c * $u - $s * $v, $s * $u + $c * $v));
                [$dx, $dy] = [($next[0] - $x) / self::STRAIGHT, ($next[1] - $y) / self::STRAIGHT];
                $end = min($columns, $i + self::STRAIGHT);
                for ($k = $i; $k < $end; ++$k, $x += $dx, $y += $dy) {
                    $iu = (int) $x;
                    $iv = (int) $y;
                    if ($x < 0.0 || $y < 0.0 || $iu >= $w - 1 || $iv >= $h - 1) {
                        $row .= "\0";
                        continue;
                    }
                    $p = $iv * $w + $iu;
                    $upper = \ord($bytes[$p]);
                    $lower = \ord($bytes[$p + $w]);
                    $fu = $x - $iu;
                    $upper += (\ord($bytes[$p + 1]) - $upper) * $fu;
                    $lower += (\ord($bytes[$p + $w + 1]) - $lower) * $fu;
                    $row .= \chr((int) ($upper + ($lower - $upper) * ($y - $iv)));
                }
            }
            $rows[] = $row;
        }

        return new self($turn, $cell, $left, $bottom, $columns, $rows);
    }

    /** @return list<string> columns from left to right, each from the bottom up */
    public function columns(): array
    {
        $columns = array_fill(0, $this->columns, '');
        foreach (array_chunk($this->rows, 64) as $rows) {
            $block = [];
            foreach ($rows as $row) {
                $block[] = $row;
            }
            for ($i = 0; $i < $this->columns; ++$i) {
                $piece = '';
                foreach ($block as $row) {
                    $piece .= $row[$i];
                }
                $columns[$i] .= $piece;
            }
        }

        return array_values($columns);
    }

    public function point(float $u, float $v): Point
    {
        [$c, $s] = [cos($this->turn), sin($this->turn)];

        return new Point($c * $u - $s * $v, $s * $u + $c * $v);
    }
}
