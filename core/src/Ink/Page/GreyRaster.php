<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

use Plinth\Core\Ink\Page\Exception\UnreadableRaster;

/** Grey values in memory: one byte for each pixel, row by row, 0 black to 255 white. */
final readonly class GreyRaster
{
    /** @throws UnreadableRaster when the bytes do not fill the size exactly */
    public function __construct(public int $width, public int $height, public string $bytes)
    {
        if ($width < 1 || $height < 1 || \strlen($bytes) !== $width * $height) {
            throw UnreadableRaster::wrongLength($width, $height, \strlen($bytes));
        }
    }

    public function row(int $y, int $from = 0, ?int $length = null): string
    {
        return substr($this->bytes, $y * $this->width + $from, $length ?? $this->width - $from);
    }

    /** The part inside the box, which is cut to the raster first and holds at least one pixel of it. */
    public function crop(int $left, int $top, int $width, int $height): self
    {
        [$left, $top, $width, $height] = self::inside($this->width, $this->height, $left, $top, $width, $height);
        $bytes = '';
        for ($y = $top; $y < $top + $height; ++$y) {
            $bytes .= $this->row($y, $left, $width);
        }

        return new self($width, $height, $bytes);
    }

    /**
     * A box cut to a page of the given size; it holds at least one pixel of it.
     *
     * @return array{int, int, int<1, max>, int<1, max>} left, top, width, height
     */
    public static function inside(int $pageWidth, int $pageHeight, int $left, int $top, int $width, int $height): array
    {
        $left = max(0, min($pageWidth - 1, $left));
        $top = max(0, min($pageHeight - 1, $top));

        return [$left, $top, max(1, min($pageWidth - $left, $width)), max(1, min($pageHeight - $top, $height))];
    }

    /** As a page of its own. */
    public function page(bool $lightOnDark = false): PageInk
    {
        return new RasterPage($this, $lightOnDark);
    }

    /** Light and dark exchanged. */
    public function inverted(): self
    {
        $light = implode('', array_map(\chr(...), range(255, 0)));

        return new self($this->width, $this->height, strtr($this->bytes, implode('', array_map(\chr(...), range(0, 255))), $light));
    }

    /** Turned by a quarter, counter-clockwise as seen. */
    public function turned(): self
    {
        $rows = str_split($this->bytes, max(1, $this->width));
        $out = '';
        for ($x = $this->width - 1; $x >= 0; --$x) {
            foreach ($rows as $row) {
                $out .= $row[$x];
            }
        }

        return new self($this->height, $this->width, $out);
    }

    /**
     * The raster at a smaller size by averaging whole blocks of pixels; an incomplete last block is left out.
     *
     * @param int $factor ≥ 1
     */
    public function shrunk(int $factor): self
    {
        if (1 === $factor) {
            return $this;
        }
        $w = intdiv($this->width, $factor);
        $h = intdiv($this->height, $factor);
        $n = $factor * $factor;
        $out = '';
        for ($y = 0; $y < $h; ++$y) {
            $sums = array_fill(0, $w, 0);
            for ($k = 0; $k < $factor; ++$k) {
                $row = $this->row($y * $factor + $k);
                for ($x = 0, $i = 0; $x < $w; ++$x) {
                    $sum = 0;
                    for ($j = 0; $j < $factor; ++$j) {
                        $sum += \ord($row[$i++]);
                    }
                    $sums[$x] += $sum;
                }
            }
            foreach ($sums as $sum) {
                $out .= \chr(intdiv($sum, $n));
            }
        }

        return new self($w, $h, $out);
    }
}
