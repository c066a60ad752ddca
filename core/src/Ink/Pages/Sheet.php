<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Pages\Internal\PhotographedSheet;
use Plinth\Core\Ink\Pages\Internal\SheetEdge;
use Plinth\Core\Ink\Pages\Internal\SlantOfLines;

/** A sheet of paper that a picture shows whole, lying on something darker or lighter than it is. */
final readonly class Sheet
{
    /** px along the longer side that are enough */
    private const SIDE = 1500;
    /** part of the picture that a sheet covers at least */
    private const COVERS = 0.2;

    /**
     * @param array{PixelPoint, PixelPoint, PixelPoint, PixelPoint} $corners top left, top right, bottom right, bottom left, px of the page
     * @param float $sigmaPx standard deviation of each coordinate
     */
    private function __construct(public array $corners, public float $sigmaPx)
    {
    }

    /** @return self|null null where it does not show four straight edges */
    public static function in(GreyRaster $page): ?self
    {
        $factor = max(1, (int) ceil(max($page->width, $page->height) / self::SIDE));
        $raster = $page->shrunk($factor);
        $corners = [];
        foreach (SheetEdge::corners($raster) ?? [] as [$x, $y]) {
            if ($x < 0.0 || $y < 0.0 || $x > $raster->width || $y > $raster->height) {
                return null;
            }
            $corners[] = new PixelPoint($factor * $x, $factor * $y);
        }
        if (4 !== \count($corners)) {
            return null;
        }
        $sheet = new self($corners, $factor * SheetEdge::SIGMA_PX);

        return $sheet->area() > self::COVERS * $page->width * $page->height ? $sheet : null;
    }

    /**
     * What the proportions of a sheet of ISO 216 say of the camera.
     *
     * @return array{ratio: float, part: float}|null focal length over half the picture's diagonal, and its standard deviation as a part of
     *                                               it; null where it may be another sheet, or leans too little to tell
     */
    public function focal(float $width, float $height): ?array
    {
        return $this->view($width, $height)?->focal();
    }

    /** How lines run that run with its edges. */
    public function slant(float $width, float $height): ?SlantOfLines
    {
        $view = $this->view($width, $height);

        return null === $view ? null : SlantOfLines::of(
            ...SheetEdge::pieces($this->corners),
            start: $view->start(),
            width: $width,
            height: $height,
        );
    }

    private function view(float $width, float $height): ?PhotographedSheet
    {
        $unit = hypot($width, $height) / 2.0;
        [$a, $b, $c, $d] = array_map(
            static fn (PixelPoint $p): array => [($p->x - $width / 2.0) / $unit, ($height / 2.0 - $p->y) / $unit],
            $this->corners,
        );

        return PhotographedSheet::of($a, $b, $c, $d, $this->sigmaPx / $unit);
    }

    private function area(): float
    {
        $twice = 0.0;
        foreach ($this->corners as $i => $p) {
            $q = $this->corners[($i + 1) % 4];
            $twice += $p->x * $q->y - $q->x * $p->y;
        }

        return $twice / 2.0;
    }
}
