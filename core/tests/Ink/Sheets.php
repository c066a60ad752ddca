<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use Plinth\Core\Geometry\PixelAffine;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyRaster;

/** Draws small sheets for tests: rows of bytes, black lines on grey paper, with grain from a seed. */
final class Sheets
{
    /** @var array<int, string> */
    private array $rows;

    public function __construct(public readonly int $width, public readonly int $height, int $paper = 235, int $grain = 0, int $seed = 1)
    {
        mt_srand($seed);
        $this->rows = [];
        for ($y = 0; $y < $height; ++$y) {
            $row = '';
            for ($x = 0; $x < $width; ++$x) {
                $row .= \chr(max(0, min(255, $paper + ($grain > 0 ? mt_rand(-$grain, $grain) : 0))));
            }
            $this->rows[] = $row;
        }
    }

    public function fill(int $left, int $top, int $width, int $height, int $grey = 30): self
    {
        for ($y = max(0, $top); $y < min($this->height, $top + $height); ++$y) {
            $from = max(0, $left);
            $count = min($this->width, $left + $width) - $from;
            if ($count > 0) {
                $this->rows[$y] = substr_replace($this->rows[$y], str_repeat(\chr($grey), $count), $from, $count);
            }
        }

        return $this;
    }

    public function frame(int $left, int $top, int $width, int $height, int $pen = 2, int $grey = 30): self
    {
        return $this->fill($left, $top, $width, $pen, $grey)->fill(
            $left,
            $top + $height - $pen,
            $width,
            $pen,
            $grey,
        )->fill($left, $top, $pen, $height, $grey)->fill($left + $width - $pen, $top, $pen, $height, $grey);
    }

    /** A plan of a few rooms with a title below it. */
    public function plan(int $left, int $top, int $width, int $height): self
    {
        $this->frame($left, $top, $width, $height, 6)->fill($left + intdiv($width, 3), $top, 4, $height)->fill(
            $left,
            $top + intdiv($height, 2),
            intdiv($width, 3),
            4,
        );
        for ($i = 0; $i < 12; ++$i) {
            $this->fill($left + 20 + 9 * $i, $top + $height + 14, 6, 9);
        }

        return $this;
    }

    public function raster(): GreyRaster
    {
        return new GreyRaster($this->width, $this->height, implode('', $this->rows));
    }

    /** The raster as it lies after an affine map, bilinear, on paper of the given grey. */
    public static function warped(GreyRaster $from, PixelAffine $map, int $width, int $height, int $paper = 235): GreyRaster
    {
        $back = $map->inverse();
        $out = '';
        for ($y = 0; $y < $height; ++$y) {
            for ($x = 0; $x < $width; ++$x) {
                $at = $back->of(new PixelPoint($x + 0.5, $y + 0.5));
                [$u, $v] = [$at->x - 0.5, $at->y - 0.5];
                [$i, $j] = [(int) floor($u), (int) floor($v)];
                if ($i < 0 || $j < 0 || $i >= $from->width - 1 || $j >= $from->height - 1) {
                    $out .= \chr($paper);
                    continue;
                }
                $p = static fn (int $a, int $b): int => \ord($from->bytes[$b * $from->width + $a]);
                $upper = $p($i, $j) + ($p($i + 1, $j) - $p($i, $j)) * ($u - $i);
                $lower = $p($i, $j + 1) + ($p($i + 1, $j + 1) - $p($i, $j + 1)) * ($u - $i);
                $out .= \chr((int) round($upper + ($lower - $upper) * ($v - $j)));
            }
        }

        return new GreyRaster($width, $height, $out);
    }
}
