<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Ink\Page\AlignedInk;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\ReducedInk;

/**
 * All that may be walls of a drawing, in every direction that many of its edges have and in every manner in which walls are drawn.
 *
 * @internal
 */
final readonly class LineSearch
{
    /** Walls are looked for at about this size, mm; coarser drawings are laid on a finer raster than their own. */
    private const CELL_MM = [8.0, 12.0];
    /** part of full ink that counts as ink, 0 to 255 */
    private const LEVEL = 90;
    /** degrees by which the histogram of edges may be off */
    private const NEARLY_LEVEL = 3.0;
    /** degrees between directions in which the same walls are found */
    private const ONE_WAY = 4.0;
    /** radians: a wall of five metres wanders by less than its lines are wide */
    private const LEVEL_ENOUGH = 0.003;
    /**
     * Manners of drawing walls, and by how much further than ruled lines those of one wall lie off each other: grey turns into dots and
     * into full ink by parts on a fax, and lines by hand wander.
     */
    private const MANNERS = [
        [[Filling::Solid], 1.0], [[Filling::Toned], 1.0], [[Filling::Empty], 1.0], [[Filling::Toned, Filling::Empty], 1.0],
        [[Filling::Solid, Filling::Toned], 1.0], [[Filling::Toned, Filling::Empty], 2.5],
    ];
    /** lines drawn round one another */
    private const MOST_FRAMES = 2;
    /** mm: what reaches so near to the frame belongs to it */
    private const FROM_FRAME_MM = 50.0;
    /** mm at ends and in thickness: what differs by less was found twice */
    private const TWICE_MM = [60.0, 15.0];
    /** part of the work that reading the ink takes */
    private const READ = 0.2;

    /**
     * @param list<WallLine> $lines those that two manners have found once
     * @param ReducedInk $page the ink at the size at which walls are looked for
     * @param AlignedInk|null $main the ink laid along the strongest direction
     */
    private function __construct(public array $lines, public ReducedInk $page, public ?AlignedInk $main)
    {
    }

    /**
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
        [$main, $frame] = [null, null];
        for ($k = 0; $k < \count($directions); ++$k) {
            $done = self::READ + (1.0 - self::READ) * $k / \count($directions);
            $goesOn = static fn () => $onProgress($done);
            $ink = AlignedInk::of($page, $map, $corners, $directions[$k], $cell, $goesOn);
            if (0 === $k) {
                $directions = self::directions($ink);
                if (0.0 !== $directions[0]) {
                    $ink = AlignedInk::of($page, $map, $corners, $directions[0], $cell, $goesOn);
                }
            }
            $onProgress(self::READ + (1.0 - self::READ) * ($k + 0.7) / \count($directions));
            $columns = $ink->columns();
            $others = array_map(static fn (float $turn): float => self::off($turn, $ink->turn), array_values($turns));
            $slope = Strips::slope($columns, $ink->rows, $cell, self::LEVEL, $others);
            foreach ($others as $off) {
                if (min(abs($off), abs($off - $slope)) < deg2rad(self::ONE_WAY)) {
                    continue 2; // what runs that way belongs to a direction that was looked at
                }
            }
            if (abs($slope) > self::LEVEL_ENOUGH) {
                $ink = AlignedInk::of($page, $map, $corners, $ink->turn + $slope, $cell, $goesOn);
                $columns = $ink->columns();
            }
            if (0 === $k) {
                [$ink, $columns, $frame] = self::withoutFrames($ink, $columns);
                $main = $ink;
            }
            $turns[$k] = $ink->turn;
            $strips[$k] = [
                ...Strips::in($columns, $ink->left, $ink->bottom, $cell, self::LEVEL, false),
                ...Strips::in($ink->rows, $ink->bottom, $ink->left, $cell, self::LEVEL, true),
            ];
            $signs[$k] = new Signs([$columns, $ink->rows], [$ink->left, $ink->bottom], $cell, self::LEVEL);
            $onProgress(self::READ + (1.0 - self::READ) * ($k + 1) / \count($directions));
        }

        return new self(self::lines($strips, $signs, $turns, $cell, $frame), $page, $main);
    }

    /** @return float radians from one direction to another, −45° to 45°: walls run along both and square to both */
    private static function off(float $to, float $from): float
    {
        return fmod($to - $from + 10.25 * \M_PI, \M_PI_2) - 0.25 * \M_PI;
    }

    /**
     * The ink without the lines drawn round the sheet, of which there may be two, and what lies beyond.
     *
     * @param list<string> $columns of the ink
     *
     * @return array{AlignedInk, list<string>, array{float, float, float, float}|null} the ink, its columns, and the place inside the frame:
     *                                                                                 left, right, bottom, top, mm of the aligned raster
     */
    private static function withoutFrames(AlignedInk $ink, array $columns): array
    {
        $frame = null;
        for ($round = 0; $round < self::MOST_FRAMES; ++$round) {
            $inner = SheetFrame::within($ink, $columns, self::LEVEL);
            if (null === $inner) {
                break;
            }
            $ink = $ink->within(...$inner);
            $columns = $ink->columns();
            $frame = [
                $ink->left + $inner[0] * $ink->cell, $ink->left + $inner[1] * $ink->cell,
                $ink->bottom + $inner[2] * $ink->cell, $ink->bottom + $inner[3] * $ink->cell,
            ];
        }

        return [$ink, $columns, $frame];
    }

    /** @return non-empty-list<float> radians, the strongest first */
    private static function directions(AlignedInk $ink): array
    {
        return array_map(
            static fn (float $degrees): float => deg2rad(abs($degrees) < self::NEARLY_LEVEL ? 0.0 : $degrees),
            Directions::of($ink),
        );
    }

    /**
     * @param array<int, list<Strip>> $strips by direction
     * @param array<int, Signs> $signs
     * @param array<int, float> $turns
     * @param array{float, float, float, float}|null $frame left, right, bottom, top, mm of the raster of the first direction
     *
     * @return list<WallLine>
     */
    private static function lines(array $strips, array $signs, array $turns, float $cell, ?array $frame): array
    {
        $pens = Pens::of($strips[0]);
        $lines = [];
        foreach (self::MANNERS as [$fillings, $wander]) {
            foreach ($strips as $k => $of) {
                foreach (WallLines::of($of, $fillings, $pens, $cell, $signs[$k], $wander) as $strip) {
                    $line = WallLine::of($strip, $turns[$k], $pens, $wander > 1.0);
                    if ((0 === $k || null === $frame || self::isInside($line, $turns[0], $frame)) && !self::isAmong($line, $lines)) {
                        $lines[] = $line;
                    }
                }
            }
        }

        return $lines;
    }

    /** @param list<WallLine> $lines */
    private static function isAmong(WallLine $line, array $lines): bool
    {
        foreach ($lines as $other) {
            if (
                $line->look->filling === $other->look->filling
                && abs($line->thickness - $other->thickness) < self::TWICE_MM[1]
                && $line->from->distanceTo($other->from) < self::TWICE_MM[0]
                && $line->to->distanceTo($other->to) < self::TWICE_MM[0]
                && abs($line->seen() - $other->seen()) < self::TWICE_MM[0]
            ) {
                return true;
            }
        }

        return false;
    }

    /** @param array{float, float, float, float} $frame left, right, bottom, top */
    private static function isInside(WallLine $line, float $turn, array $frame): bool
    {
        [$c, $s] = [cos($turn), sin($turn)];
        foreach ([$line->from, $line->to] as $end) {
            [$u, $v] = [$c * $end->x + $s * $end->y, $c * $end->y - $s * $end->x];
            if (
                $u < $frame[0] + self::FROM_FRAME_MM
                || $u > $frame[1] - self::FROM_FRAME_MM
                || $v < $frame[2] + self::FROM_FRAME_MM
                || $v > $frame[3] - self::FROM_FRAME_MM
            ) {
                return false;
            }
        }

        return true;
    }
}
