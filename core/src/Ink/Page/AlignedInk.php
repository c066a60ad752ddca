<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/**
 * A drawing's ink on a raster of square cells that lies with one direction of the building: what runs that way is level in it,
 * what runs across is plumb, whatever the page does.
 *
 * Values are 0 for paper to 255 for full ink. u runs along the direction and v to its left, mm; the cell in column i and row j has
 * its middle at (left + (i + ½)·cell, bottom + (j + ½)·cell).
 */
final readonly class AlignedInk
{
    /** Between so many cells the mapping to the page is taken for straight. */
    private const STRAIGHT = 16;
    /** rows after which whoever waits hears that the work goes on */
    private const SAY_AFTER = 128;

    /**
     * @param float $turn of the direction in the building, radians
     * @param float $cell mm
     * @param list<string> $rows from the bottom up, one byte for each cell
     */
    private function __construct(
        public float $turn,
        public float $cell,
        public float $left,
        public float $bottom,
        public int $columns,
        public array $rows,
    ) {
    }

    /**
     * @param non-empty-list<Point> $corners of the drawing's extent, mm
     * @param float $cell mm
     * @param (callable(): void)|null $goesOn
     */
    public static function of(
        ReducedInk $page,
        PixelToMm $map,
        array $corners,
        float $turn,
        float $cell,
        ?callable $goesOn = null,
    ): self {
        [$c, $s] = [cos($turn), sin($turn)];
        $us = array_map(static fn (Point $p): float => $c * $p->x + $s * $p->y, $corners);
        $vs = array_map(static fn (Point $p): float => $c * $p->y - $s * $p->x, $corners);
        [$left, $bottom] = [min($us), min($vs)];
        $columns = max(1, (int) ceil((max($us) - $left) / $cell));
        $count = max(1, (int) ceil((max($vs) - $bottom) / $cell));
        $rows = [];
        for ($j = 0; $j < $count; ++$j) {
            if (null !== $goesOn && 0 === $j % self::SAY_AFTER) {
                $goesOn();
            }
            $v = $bottom + ($j + 0.5) * $cell;
            $places = [];
            for ($i = 0; $i <= $columns + self::STRAIGHT; $i += self::STRAIGHT) {
                $u = $left + ($i + 0.5) * $cell;
                $places[] = $page->at($map, new Point($c * $u - $s * $v, $s * $u + $c * $v));
            }
            $rows[] = substr(self::row($page->bytes, $page->width, $page->height, $places), 0, $columns);
        }

        return new self($turn, $cell, $left, $bottom, $columns, $rows);
    }

    /**
     * Values along a broken line over the page, by bilinear interpolation in whole numbers.
     *
     * @param list<array{float, float}> $places every so many cells
     */
    private static function row(string $bytes, int $w, int $h, array $places): string
    {
        $row = [];
        $n = \count($places) - 1;
        for ($i = 0; $i < $n; ++$i) {
            [[$ax, $ay], [$bx, $by]] = [$places[$i], $places[$i + 1]];
            if (min($ax, $bx) < 0.0 || min($ay, $by) < 0.0 || max($ax, $bx) >= $w - 1 || max($ay, $by) >= $h - 1) {
                for ($k = 0; $k < self::STRAIGHT; ++$k) {
                    $row[] = 0;
                }
                continue;
            }
            $x = (int) ($ax * 65536.0);
            $y = (int) ($ay * 65536.0);
            $dx = (int) (($bx - $ax) * 65536.0 / self::STRAIGHT);
            $dy = (int) (($by - $ay) * 65536.0 / self::STRAIGHT);
            for ($k = 0; $k < self::STRAIGHT; ++$k, $x += $dx, $y += $dy) {
                $p = ($y >> 16) * $w + ($x >> 16);
                $fu = ($x >> 8) & 255;
                $upper = \ord($bytes[$p]) * (256 - $fu) + \ord($bytes[$p + 1]) * $fu;
                $lower = \ord($bytes[$p + $w]) * (256 - $fu) + \ord($bytes[$p + $w + 1]) * $fu;
                $fv = ($y >> 8) & 255;
                $row[] = ($upper * (256 - $fv) + $lower * $fv) >> 16;
            }
        }

        return pack('C*', ...$row);
    }

    /** The same, blank but for what lies between these columns and rows. */
    public function within(int $left, int $right, int $bottom, int $top): self
    {
        $blank = str_repeat("\0", $this->columns);
        $rows = [];
        foreach ($this->rows as $j => $row) {
            $rows[] = $j < $bottom || $j > $top ? $blank : str_pad(
                str_repeat("\0", $left).substr($row, $left, $right - $left + 1),
                $this->columns,
                "\0",
            );
        }

        return new self($this->turn, $this->cell, $this->left, $this->bottom, $this->columns, $rows);
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
}
