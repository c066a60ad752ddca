<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/**
 * How much ink a drawing has, pixel by pixel: 0 for paper to 255 for full ink, with the light's fall over the page taken out, at a size
 * that is enough for walls.
 */
final readonly class ReducedInk
{
    /** px along the longer side at which paper is told from ink */
    private const PAPER_SIDE = 1200;
    /** Ink so much weaker than the strongest about it is full ink: thin lines do not reach it. Tried on simulated sheets. */
    private const FULL = 0.84;
    /** rows of the page that are read at once */
    private const BAND = 512;

    private function __construct(
        public int $left,
        public int $top,
        public int $factor,
        public int $width,
        public int $height,
        public string $bytes,
    ) {
    }

    /**
     * @param int $factor so many pixels of the page become one, across and down
     * @param callable(float): void $onProgress part done, 0 to 1
     */
    public static function of(PageInk $pageInk, PixelBox $box, int $factor, callable $onProgress): self
    {
        return self::read($pageInk, $box, $factor, $onProgress, self::ink(...));
    }

    /**
     * How dark each pixel is, 0 for white to 255 for black: of a photograph, which has neither paper nor ink.
     *
     * @param int $factor so many pixels of the page become one, across and down
     * @param callable(float): void $onProgress part done, 0 to 1
     */
    public static function darkness(PageInk $pageInk, PixelBox $box, int $factor, callable $onProgress): self
    {
        return self::read($pageInk, $box, $factor, $onProgress, static fn (GreyRaster $raster): string => $raster->inverted()->bytes);
    }

    /**
     * @param callable(float): void $onProgress
     * @param callable(GreyRaster): string $toBytes what is told of each pixel
     */
    private static function read(PageInk $pageInk, PixelBox $box, int $factor, callable $onProgress, callable $toBytes): self
    {
        $left = max(0, (int) floor($box->left));
        $top = max(0, (int) floor($box->top));
        $band = self::BAND - self::BAND % $factor;
        $bytes = '';
        $width = 0;
        $end = (int) ceil($box->bottom());
        for ($y = $top; $y < $end; $y += $band) {
            $raster = $pageInk->window($left, $y, (int) ceil($box->right()) - $left, min($band, $end - $y));
            if ($raster->height < $factor || $raster->width < $factor) {
                break;
            }
            $raster = $raster->shrunk($factor);
            $width = $raster->width;
            $bytes .= $raster->bytes;
            $onProgress(min(1.0, ($y + $band - $top) / max(1, $end - $top)));
        }
        $height = 0 === $width ? 0 : intdiv(\strlen($bytes), $width);
        if (0 === $height) {
            return new self($left, $top, $factor, 1, 1, "\0");
        }

        return new self($left, $top, $factor, $width, $height, $toBytes(new GreyRaster($width, $height, $bytes)));
    }

    private static function ink(GreyRaster $raster): string
    {
        $sheet = SheetEdges::of($raster);
        $raster = $sheet->filled($raster);
        $factor = max(1, intdiv(max($raster->width, $raster->height), self::PAPER_SIDE));
        $small = $raster->shrunk($factor);
        $paper = Paper::of($small, false);
        $contrasts = $paper->contrasts($small);
        $all = implode('', array_map(\chr(...), range(0, 255)));
        $tables = [];
        $ink = '';
        $cell = $paper->cell * $factor;
        for ($y = 0; $y < $raster->height; ++$y) {
            for ($x = 0; $x < $raster->width; $x += $cell) {
                $index = $paper->cellAt(intdiv($x, $factor), intdiv($y, $factor));
                [$level, $contrast] = [$paper->levels[$index], self::FULL * $contrasts[$index]];
                $tables[$level.' '.$contrast] ??= implode(
                    '',
                    array_map(static fn (int $v): string => \chr((int) max(0, min(255, 255 * ($level - $v) / $contrast))), range(0, 255)),
                );
                $ink .= strtr($raster->row($y, $x, min($cell, $raster->width - $x)), $all, $tables[$level.' '.$contrast]);
            }
        }

        return $sheet->blanked($ink, $raster->width);
    }

    /** Ink at a place of the building, 0 to 255; none off the page. */
    public function inkAt(PixelToMm $map, Point $mm): int
    {
        [$x, $y] = array_map(static fn (float $v): int => (int) round($v), $this->at($map, $mm));

        return $x < 0 || $y < 0 || $x >= $this->width || $y >= $this->height ? 0 : \ord($this->bytes[$y * $this->width + $x]);
    }

    /** The same between pixels: weighted by how near the four about it are; none off the page. */
    public function between(PixelToMm $map, Point $mm): float
    {
        [$x, $y] = $this->at($map, $mm);
        if ($x < 0.0 || $y < 0.0 || $x >= $this->width - 1 || $y >= $this->height - 1) {
            return 0.0;
        }
        [$i, $j] = [(int) $x, (int) $y];
        [$u, $v, $p] = [$x - $i, $y - $j, $j * $this->width + $i];
        $upper = \ord($this->bytes[$p]) * (1.0 - $u) + \ord($this->bytes[$p + 1]) * $u;
        $lower = \ord($this->bytes[$p + $this->width]) * (1.0 - $u) + \ord($this->bytes[$p + $this->width + 1]) * $u;

        return $upper * (1.0 - $v) + $lower * $v;
    }

    /** @return array{float, float} where a place of the building lies, counted from the middle of the first pixel of this raster */
    public function at(PixelToMm $map, Point $mm): array
    {
        $p = $map->toPixel($mm);

        return [($p->x - $this->left) / $this->factor - 0.5, ($p->y - $this->top) / $this->factor - 0.5];
    }
}
