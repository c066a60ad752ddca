<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Facades;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Facades\Internal\Candidate;
use Plinth\Core\Ink\Facades\Internal\Candidates;
use Plinth\Core\Ink\Facades\Internal\Chosen;
use Plinth\Core\Ink\Facades\Internal\PlacedEdge;
use Plinth\Core\Ink\Page\AlignedInk;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\ReducedInk;

/**
 * The openings that a straightened photograph of a facade or a drawn elevation shows.
 *
 * The picture is laid on a raster that runs level. Upright edges (of a photograph) or lines (of a drawing) that go on for a while are
 * something like jambs; two beside each other are an opening as far up and down as both go on, ended by what runs level there. Of those
 * that lie in one another the outermost counts: frames have more edges than one. Each of the four edges is then placed on the picture
 * itself, piece by piece, and how far the pieces lie off each other says how well.
 */
final class FacadeOpenings
{
    /** mm, at least: coarser than most photographs, fine enough for a frame */
    private const CELL_MM = 10.0;
    /** mm within which an edge of a photograph is looked for: as far as a frame is wide; at the sill nearer, as its board may be thin */
    private const FRAME_MM = 72.0;
    private const SILL_MM = 62.0;
    /** mm within which a line of a drawing is looked for */
    private const LINES_MM = 35.0;
    /** how likely what was chosen is an opening, by its odds alone: of a drawing, of a photograph (bench facades) */
    private const CALIBRATION = [[0.5, 1.0], [3.19, 1.98]];
    /** cells at most: what lies far off in a slanting photograph is none of the facade */
    private const MOST_CELLS = 3_000_000;

    /**
     * @param PixelBox $box the elevation on its page
     * @param PixelToMm $map to the side's plane
     * @param bool $isPhotograph of the building itself, and no drawing of it
     * @param callable(float): void $onProgress part done, 0 to 1; it may throw to stop the work
     *
     * @return list<ShownOpening> the likeliest first, however doubtful
     */
    public static function in(PageInk $pageInk, PixelBox $box, PixelToMm $map, bool $isPhotograph, callable $onProgress): array
    {
        $share = $isPhotograph ? 1.0 : 0.5;
        $found = self::look($pageInk, $box, $map, $isPhotograph, static fn (float $done) => $onProgress($share * $done));
        if ($isPhotograph || self::sure($found) > 1) {
            return $found;
        }
        // A photograph may be taken for a drawing, as a plastered wall is as blank as paper: which it is stays open, and nothing is sure.
        $other = self::look($pageInk, $box, $map, true, static fn (float $done) => $onProgress(0.5 + 0.5 * $done));

        return self::sure($other) <= self::sure($found) ? $found : array_map(
            static fn (ShownOpening $o): ShownOpening => $o->inDoubt(),
            $other,
        );
    }

    /** @param list<ShownOpening> $found */
    private static function sure(array $found): int
    {
        return \count(array_filter($found, static fn (ShownOpening $o): bool => $o->isSure()));
    }

    /**
     * @param callable(float): void $onProgress
     *
     * @return list<ShownOpening>
     */
    private static function look(PageInk $pageInk, PixelBox $box, PixelToMm $map, bool $isPhotograph, callable $onProgress): array
    {
        $read = static fn (float $done) => $onProgress(0.3 * $done);
        $page = $isPhotograph ? ReducedInk::darkness($pageInk, $box, 1, $read) : ReducedInk::of($pageInk, $box, 1, $read);
        $corners = array_map($map->toMm(...), $box->corners());
        $scale = $map->mmPerPixelAt($box->centre());
        $cell = max(self::CELL_MM, $scale, sqrt(self::areaMm2($corners) / self::MOST_CELLS));
        $level = AlignedInk::of($page, $map, $corners, 0.0, $cell, static fn () => $onProgress(0.4));
        $onProgress(0.5);
        $candidates = Candidates::in($level, $isPhotograph, static fn (float $done) => $onProgress(0.5 + 0.4 * $done));

        return array_map(
            static fn (Candidate $c): ShownOpening => self::placed($c, $page, $map, $isPhotograph),
            Chosen::of($candidates, $isPhotograph),
        );
    }

    private static function placed(Candidate $c, ReducedInk $page, PixelToMm $map, bool $isPhotograph): ShownOpening
    {
        $scale = $map->mmPerPixelAt($map->toPixel(new Point(($c->left + $c->right) / 2.0, ($c->sill + $c->head) / 2.0)));
        $near = static fn (bool $isUpright, float $at, int $outside, float $from, float $to, float $within): PlacedEdge => PlacedEdge::near(
            $page,
            $map,
            $isUpright,
            $at,
            $outside,
            [$from, $to],
            $isPhotograph,
            $scale,
            $isPhotograph ? $within : self::LINES_MM,
        );
        $left = $near(true, $c->left, -1, $c->sill, $c->head, self::FRAME_MM);
        $right = $near(true, $c->right, 1, $c->sill, $c->head, self::FRAME_MM);
        $sill = $near(false, $c->sill, -1, $left->at, $right->at, self::SILL_MM);
        $head = $near(false, $c->head, 1, $left->at, $right->at, self::FRAME_MM);
        $frame = max(array_map(static fn (PlacedEdge $e): float => $e->inner ?? 0.0, [$left, $right, $sill, $head]));
        [$left, $right] = [$left->besideAFrame($frame), $right->besideAFrame($frame)];
        [$sill, $head] = [$sill->besideAFrame($frame), $head->besideAFrame($frame)];

        [$base, $factor] = self::CALIBRATION[$isPhotograph ? 1 : 0];

        return new ShownOpening(
            $left->at,
            $right->at,
            $sill->at,
            $head->at,
            [$left->sigma, $right->sigma, $sill->sigma, $head->sigma],
            1.0 / (1.0 + exp(-$base - $factor * $c->odds)),
        );
    }

    /** @param non-empty-list<Point> $corners */
    private static function areaMm2(array $corners): float
    {
        $xs = array_map(static fn (Point $p): float => $p->x, $corners);
        $ys = array_map(static fn (Point $p): float => $p->y, $corners);

        return (max($xs) - min($xs)) * (max($ys) - min($ys));
    }
}
