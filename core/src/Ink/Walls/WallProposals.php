<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Ink\Page\AlignedInk;
use Plinth\Core\Ink\Page\EdgePoints;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\ReducedInk;
use Plinth\Core\Ink\Walls\Internal\Columns;
use Plinth\Core\Ink\Walls\Internal\Filling;
use Plinth\Core\Ink\Walls\Internal\Openings;
use Plinth\Core\Ink\Walls\Internal\Pens;
use Plinth\Core\Ink\Walls\Internal\Signs;
use Plinth\Core\Ink\Walls\Internal\Strip;
use Plinth\Core\Ink\Walls\Internal\Strips;
use Plinth\Core\Ink\Walls\Internal\WallLine;
use Plinth\Core\Ink\Walls\Internal\WallLines;
use Plinth\Core\Ink\Walls\Internal\WallNetwork;

/**
 * The walls, openings and columns that a whole drawing shows.
 *
 * The ink is laid on a raster that runs with each direction that many of its edges have. Across that direction every scan line passes
 * from paper to ink and back; passages at the same height from line to line are edges, and two of them beside each other with the same
 * filling between are a stretch of wall: solid, toned (hatched, grey) or empty between two lines of the wider pen. Stretches in one
 * line are put together over openings, and of all those the ones that meet each other make the building. Each is then probed on the
 * page itself, and its gaps are looked at for what opening they are.
 */
final readonly class WallProposals
{
    /** Walls are looked for at about this size, mm; coarser drawings are laid on a finer raster than their own. */
    private const CELL_MM = [8.0, 12.0];
    /** part of full ink that counts as ink, 0 to 255 */
    private const LEVEL = 90;
    /**
     * Other directions than the strongest have at least this part of its strength, and differ by so many degrees; so many are looked at.
     */
    private const DIRECTION_PART = 0.01;
    /** degrees between two directions that are looked into: nearer ones find the same walls */
    private const DIRECTIONS_APART = 8.0;
    /** directions that are looked into: each costs as much as the first */
    private const MOST_DIRECTIONS = 4;
    /** degrees by which the histogram of edges may be off */
    private const NEARLY_LEVEL = 3.0;
    /** radians: a wall of five metres wanders by less than its lines are wide */
    private const LEVEL_ENOUGH = 0.003;
    /** what the steps take of the whole */
    private const READ = 0.15;
    /** part of the work done when walls are laid */
    private const LAID = 0.75;
    /** The first manner of drawing walls that explains this part of what the best one does is taken. */
    private const GOOD_ENOUGH = 0.87;
    /** Where one pen drew everything, dimension lines and furniture pass for walls of two lines more easily. */
    private const ONE_PEN = 0.5;

    /**
     * @param list<ProposedWall> $walls
     * @param list<ProposedOpening> $openings
     * @param list<ProposedColumn> $columns
     */
    private function __construct(public array $walls, public array $openings, public array $columns)
    {
    }

    /**
     * @param PixelBox $box the drawing on its page
     * @param callable(float): void $onProgress part done, 0 to 1; it may throw to stop the work
     */
    public static function in(PageInk $pageInk, PixelBox $box, PixelToMm $map, callable $onProgress): self
    {
        $scale = $map->mmPerPixelAt($box->centre());
        $factor = max(1, (int) floor(self::CELL_MM[0] / $scale + 0.05));
        $cell = max(self::CELL_MM[0], min(self::CELL_MM[1], $scale * $factor));
        $page = ReducedInk::of($pageInk, $box, $factor, static fn (float $done) => $onProgress(self::READ * $done));
        $corners = array_map($map->toMm(...), $box->corners());

        $directions = [0.0];
        $strips = [];
        $signs = [];
        $turns = [];
        for ($k = 0; $k < \count($directions); ++$k) {
            $ink = AlignedInk::of($page, $map, $corners, $directions[$k], $cell);
            if (0 === $k) {
                $directions = self::directions($ink);
                if (0.0 !== $directions[0]) {
                    $ink = AlignedInk::of($page, $map, $corners, $directions[0], $cell);
                }
            }
            $onProgress(self::READ + (self::LAID - self::READ) * ($k + 0.7) / \count($directions));
            $columns = $ink->columns();
            $slope = Strips::slope($columns, $ink->rows, $cell, self::LEVEL);
            foreach ($turns as $turn) {
                if (abs(fmod($ink->turn + $slope - $turn + 1.125 * \M_PI, \M_PI_2) - 0.125 * \M_PI) < deg2rad(self::NEARLY_LEVEL)) {
                    continue 2; // what ran that way belongs to a direction that was looked at
                }
            }
            if (abs($slope) > self::LEVEL_ENOUGH) {
                $ink = AlignedInk::of($page, $map, $corners, $ink->turn + $slope, $cell);
                $columns = $ink->columns();
            }
            $turns[$k] = $ink->turn;
            $strips[$k] = [
                ...Strips::in($columns, $ink->left, $ink->bottom, $cell, self::LEVEL, false),
                ...Strips::in($ink->rows, $ink->bottom, $ink->left, $cell, self::LEVEL, true),
            ];
            $signs[$k] = new Signs([$columns, $ink->rows], [$ink->left, $ink->bottom], $cell, self::LEVEL);
            $onProgress(self::READ + (self::LAID - self::READ) * ($k + 1) / \count($directions));
        }
        $lines = self::lines($strips, $signs, $turns, $cell);
        $probed = [];
        foreach ($lines as $i => $line) {
            $probed[] = $line->probed($pageInk, $map);
            $onProgress(self::LAID + (1.0 - self::LAID) * 0.6 * ($i + 1) / \count($lines));
        }
        $joined = WallNetwork::joined(WallNetwork::without($probed));
        $walls = array_map(static fn (WallLine $l): ProposedWall => $l->proposal($joined), $joined);
        $openings = Openings::in(
            $joined,
            $pageInk,
            $map,
            static fn (float $done) => $onProgress(self::LAID + (1.0 - self::LAID) * (0.6 + 0.4 * $done)),
        );

        return new self($walls, $openings, Columns::of($strips[0], $turns[0], $joined));
    }

    /** @return non-empty-list<float> radians, the strongest first */
    private static function directions(AlignedInk $ink): array
    {
        $edges = EdgePoints::of((new GreyRaster($ink->columns, \count($ink->rows), implode('', $ink->rows)))->shrunk(2));
        $found = [];
        foreach ($edges?->directions(self::DIRECTION_PART, self::DIRECTIONS_APART) ?? [] as $degrees) {
            // The raster's rows run upward: angles count as in the building.
            $degrees = $degrees > 45.0 ? $degrees - 90.0 : $degrees;
            $found[] = deg2rad(abs($degrees) < self::NEARLY_LEVEL ? 0.0 : $degrees);
        }

        return [] === $found ? [0.0] : \array_slice($found, 0, self::MOST_DIRECTIONS);
    }

    /**
     * @param array<int, list<Strip>> $strips by direction
     * @param array<int, Signs> $signs
     * @param array<int, float> $turns
     *
     * @return list<WallLine>
     */
    private static function lines(array $strips, array $signs, array $turns, float $cell): array
    {
        $pens = Pens::of($strips[0]);
        $tried = [];
        foreach ([[Filling::Solid], [Filling::Toned], [Filling::Empty], [Filling::Toned, Filling::Empty]] as $fillings) {
            $lines = [];
            foreach ($strips as $k => $of) {
                foreach (WallLines::of($of, $fillings, $pens, $cell, $signs[$k]) as $strip) {
                    $lines[] = WallLine::of($strip, $turns[$k], 0 !== $k);
                }
            }
            $lines = WallNetwork::of($lines);
            $tried[] = [WallNetwork::worth($lines), $lines];
        }
        $most = max(array_column($tried, 0));
        foreach ($tried as [$worth, $lines]) {
            if ($worth > 0.0 && $worth >= ($pens->wide > 0.0 ? self::GOOD_ENOUGH : self::ONE_PEN) * $most) {
                return $lines;
            }
        }

        return [];
    }
}
