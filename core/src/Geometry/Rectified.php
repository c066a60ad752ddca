<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/**
 * The picture of a slanted photograph as it looks from straight ahead: which part of the model it shows, how finely, and from
 * where on the page each of its pixels comes.
 */
final readonly class Rectified
{
    private const HUGE_PX = 1e6;

    /**
     * @param PixelToMm $pageToMm the fit that it was made by
     * @param PixelToMm $toMm its own pixels → mm, by one scale
     */
    private function __construct(public PixelToMm $pageToMm, public int $width, public int $height, public PixelToMm $toMm)
    {
    }

    /**
     * As fine as the page is in the drawing's middle, or coarser where that would take too many pixels.
     *
     * @param PixelBox $drawing part of the page that it shows; lies before the fit's horizon
     * @param float $mostPixels width × height at most
     */
    public static function of(PixelToMm $pageToMm, PixelBox $drawing, float $mostPixels): self
    {
        $corners = array_map($pageToMm->toMm(...), $drawing->corners());
        $xs = array_map(static fn (Point $p): float => $p->x, $corners);
        $ys = array_map(static fn (Point $p): float => $p->y, $corners);
        [$left, $top, $width, $height] = [min($xs), max($ys), max($xs) - min($xs), max($ys) - min($ys)];
        $mmPerPixel = max($pageToMm->mmPerPixelAt($drawing->centre()), sqrt($width * $height / $mostPixels));

        return new self(
            $pageToMm,
            max(1, (int) ceil($width / $mmPerPixel)),
            max(1, (int) ceil($height / $mmPerPixel)),
            PixelToMm::similar($mmPerPixel, 0.0, new PixelPoint(0.0, 0.0), new Point($left, $top)),
        );
    }

    /** Where on the page a point of this picture comes from; far off the page beyond the horizon. */
    public function toPage(PixelPoint $p): PixelPoint
    {
        $at = $this->pageToMm->toPixel($this->toMm->toMm($p));

        return $this->pageToMm->depthAt($at) > 0.0 && is_finite($at->x) && is_finite($at->y) && abs($at->x) + abs($at->y) < self::HUGE_PX
            ? $at
            : new PixelPoint(-self::HUGE_PX, -self::HUGE_PX);
    }

    /**
     * Every so many pixels, row by row from the top left, where the pixel comes from: x and y as little-endian 32-bit floats, counted as
     * picture tools do, with the middle of the first pixel at 0. The last column and row lie at or beyond the edge.
     *
     * @return array{int, int, string} columns, rows, and the values
     */
    public function grid(int $step): array
    {
        $columns = intdiv($this->width + $step - 1, $step) + 1;
        $rows = intdiv($this->height + $step - 1, $step) + 1;
        $lines = [];
        for ($j = 0; $j < $rows; ++$j) {
            $values = [];
            for ($i = 0; $i < $columns; ++$i) {
                $at = $this->toPage(new PixelPoint($i * $step + 0.5, $j * $step + 0.5));
                $values[] = $at->x - 0.5;
                $values[] = $at->y - 0.5;
            }
            $lines[] = pack('g*', ...$values);
        }

        return [$columns, $rows, implode('', $lines)];
    }
}
