<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Reading\TextPicture;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;

/** What a drawing's fit is taken for until something is stated about it: the file's own hint, a neighbour's fit, or the paper. */
final readonly class FirstGuess
{
    /** Every drawing is taken for 1:100: common practice, no source. */
    public const SCALE = 100.0;
    /** Resolution tags outside this range are screen defaults or nonsense, not scans. */
    private const SCAN_RESOLUTION = [90.0, 2400.0];

    /** @return array<string, scalar|null> values of a fit about which nothing is stated */
    public static function values(Page $page, Drawing $drawing): array
    {
        return DrawingFit::valuesOf(self::of($page, $drawing), self::basis($page));
    }

    /**
     * The mapping of a drawing about which nothing is stated: its lower left corner as shown at the origin, unless the file names a place.
     */
    public static function of(Page $page, Drawing $drawing): PixelToMm
    {
        $hint = $page->hint();
        $mmPerPixel = $hint->mmPerPixel ?? self::paperMmPerPixel($page) * self::SCALE;
        $turn = deg2rad(($hint->turnDegrees ?? 0.0) + 90.0 * $drawing->turns());
        if (null !== $hint?->corner && 0 === $drawing->turns()) {
            return PixelToMm::similar($mmPerPixel, $turn, new PixelPoint(0.0, $page->height()), $hint->corner);
        }

        return self::cornered($drawing, $mmPerPixel, $turn);
    }

    /** The mapping of this scale and turn that puts the lower left corner of the drawing, as it then shows, at the origin. */
    public static function cornered(Drawing $drawing, float $mmPerPixel, float $turnRad): PixelToMm
    {
        $box = $drawing->box();
        $centre = $box->centre();
        $map = PixelToMm::similar($mmPerPixel, $turnRad, $centre, new Point(0.0, 0.0));
        $corners = array_map($map->toMm(...), $box->corners());

        return PixelToMm::similar(
            $mmPerPixel,
            $turnRad,
            $centre,
            new Point(
                -min(array_map(static fn (Point $p): float => $p->x, $corners)),
                -min(array_map(static fn (Point $p): float => $p->y, $corners)),
            ),
        );
    }

    public static function basis(Page $page): FitBasis
    {
        return null !== $page->hint() ? FitBasis::File : (self::hasScanResolution($page) ? FitBasis::Resolution : FitBasis::Paper);
    }

    /** @return array<string, scalar|null> values of a fit with the scale and turn of a trued drawing on the same page */
    public static function fromNeighbour(Drawing $drawing, Drawing $trued, DrawingFit $fit): array
    {
        $at = $trued->box()->centre();
        $map = $fit->pixelToMm();

        return DrawingFit::valuesOf(
            self::cornered($drawing, $map->mmPerPixelAt($at), $map->turnRadAt($at) + deg2rad(90.0 * ($drawing->turns() - $trued->turns()))),
            FitBasis::Page,
        );
    }

    /** mm of paper */
    public static function paperMmPerPixel(Page $page): float
    {
        return self::hasScanResolution($page) ? 25.4 / (float) $page->resolution() : TextPicture::USUAL_PAPER_MM / max($page->width(), $page->height());
    }

    private static function hasScanResolution(Page $page): bool
    {
        return $page->resolution() >= self::SCAN_RESOLUTION[0] && $page->resolution() <= self::SCAN_RESOLUTION[1];
    }
}
