<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\AlignedInk;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\ReducedInk;
use Plinth\Core\Ink\Reading\Internal\Letters;

/**
 * A drawing made ready for text recognition: upright, dark on white, at a size that recognisers like, and with only those pieces of
 * ink in it that can be letters and figures; walls, lines and furniture are left out.
 */
final readonly class TextPicture
{
    /** mm along its longer side that paper is taken for of which nobody knows how large it is: A3, common practice, no source */
    public const USUAL_PAPER_MM = 420.0;

    /** px that a text of 2.5 mm on paper shall be high; below it recognition fails, above it is wasted */
    private const TEXT_PX = 34.0;
    /** mm on paper: the usual height of figures, ISO 3098 (from memory) */
    private const PAPER_TEXT_MM = 2.5;
    /** The raster is no finer than a third of the page's own pixels, and no larger than this many cells. */
    private const FINEST = 3.0;
    /** cells of the raster: what a recogniser takes in memory */
    private const MOST_CELLS = 2.2e7;
    /** Pieces of ink are letters when they are so high or wide, part of the text height. */
    private const LETTER = [0.1, 2.3];

    private function __construct(private AlignedInk $ink, public GreyRaster $level)
    {
    }

    /**
     * @param float $paperScale n of 1:n that the drawing was made at, roughly
     * @param callable(float): void $onProgress part done, 0 to 1
     */
    public static function of(PageInk $pageInk, PixelBox $box, PixelToMm $map, float $paperScale, callable $onProgress): self
    {
        $own = $map->mmPerPixelAt($box->centre());
        $textMm = self::PAPER_TEXT_MM * $paperScale;
        $corners = array_map($map->toMm(...), $box->corners());
        [$xs, $ys] = [array_map(static fn (Point $p): float => $p->x, $corners), array_map(static fn (Point $p): float => $p->y, $corners)];
        $area = (max($xs) - min($xs)) * (max($ys) - min($ys));
        $cell = max($textMm / self::TEXT_PX, $own / self::FINEST, sqrt($area / self::MOST_CELLS));
        $page = ReducedInk::of(
            $pageInk,
            $box,
            max(1, (int) floor($cell / $own + 0.05)),
            static fn (float $done) => $onProgress(0.2 * $done),
        );
        $ink = AlignedInk::of($page, $map, $corners, 0.0, $cell, static fn () => $onProgress(0.2));
        $onProgress(0.7);
        $level = self::letters($ink, $textMm);
        $onProgress(1.0);

        return new self($ink, $level);
    }

    /** The same turned clockwise by a quarter, so that what was written upward is level. */
    public function turned(): GreyRaster
    {
        // A half turn and a quarter back.
        return (new GreyRaster($this->level->width, $this->level->height, strrev($this->level->bytes)))->turned();
    }

    /** Where a pixel of the level picture is, mm. */
    public function ofLevel(float $x, float $y): Point
    {
        return new Point($this->ink->left + $x * $this->ink->cell, $this->ink->bottom + ($this->level->height - $y) * $this->ink->cell);
    }

    /** Where a pixel of the turned picture is, mm. */
    public function ofTurned(float $x, float $y): Point
    {
        return $this->ofLevel($y, $this->level->height - $x);
    }

    /** @return array{float, float} where a place is on the level picture, px */
    public function onLevel(Point $p): array
    {
        return [($p->x - $this->ink->left) / $this->ink->cell, $this->level->height - ($p->y - $this->ink->bottom) / $this->ink->cell];
    }

    /** @return array{float, float} where a place is on the turned picture, px */
    public function onTurned(Point $p): array
    {
        [$x, $y] = $this->onLevel($p);

        return [$this->level->height - $y, $x];
    }

    private static function letters(AlignedInk $ink, float $textMm): GreyRaster
    {
        $text = $textMm / $ink->cell;
        $rows = Letters::in($ink->rows, self::LETTER[0] * $text, self::LETTER[1] * $text);

        // The raster's rows run upward, a picture's down.
        return (new GreyRaster($ink->columns, \count($rows), implode('', array_reverse($rows))))->inverted();
    }
}
