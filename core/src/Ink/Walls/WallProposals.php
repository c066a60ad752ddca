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
use Plinth\Core\Ink\Walls\Internal\Cycles;
use Plinth\Core\Ink\Walls\Internal\DoorsAtEnds;
use Plinth\Core\Ink\Walls\Internal\Filling;
use Plinth\Core\Ink\Walls\Internal\Openings;
use Plinth\Core\Ink\Walls\Internal\Pens;
use Plinth\Core\Ink\Walls\Internal\SheetFrame;
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
    /** Manners of drawing walls, tried in this order: grey turns into dots and into full ink by parts on a fax. */
    private const MANNERS = [
        [Filling::Solid], [Filling::Toned], [Filling::Empty], [Filling::Toned, Filling::Empty], [Filling::Solid, Filling::Toned],
    ];
    /** lines drawn round one another */
    private const MOST_FRAMES = 2;
    /** mm: what reaches so near to the frame belongs to it */
    private const FROM_FRAME_MM = 50.0;
    /** mm of a stretch that tells that its direction is one of the building */
    private const LONG_MM = 1200.0;
    /** of what runs so in the first direction, the part that makes another one a direction of the building */
    private const ODD_PART = 0.25;
    /** what the steps take of the whole */
    private const READ = 0.15;
    /** part of the work done when walls are laid */
    private const LAID = 0.75;
    /** The first manner of drawing walls that explains this part of what the best one does is taken. */
    private const GOOD_ENOUGH = 0.9;
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
     *
     * @return self all that was looked into, however doubtful
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
            $onProgress(self::READ + (self::LAID - self::READ) * ($k + 1) / \count($directions));
        }
        $lines = self::lines($strips, $signs, $turns, $cell, $frame);
        $probed = [];
        foreach ($lines as $i => $line) {
            $probed[] = $line->probed($pageInk, $map);
            $onProgress(self::LAID + (1.0 - self::LAID) * 0.6 * ($i + 1) / \count($lines));
        }
        $joined = WallNetwork::joined(WallNetwork::without($probed));
        [$walls, $proposed] = self::told(DoorsAtEnds::drawnOn($joined, $pageInk, $map));
        $openings = Openings::in(
            $walls,
            array_map(static fn (ProposedWall $w): float => $w->confidence, $proposed),
            $pageInk,
            $page,
            $map,
            static fn (float $done) => $onProgress(self::LAID + (1.0 - self::LAID) * (0.6 + 0.4 * $done)),
        );

        return new self($proposed, $openings, null === $main ? [] : Columns::of($main, $walls));
    }

    /** Without what is hardly a wall, and the openings in it. */
    public function worthALook(): self
    {
        return $this->only(static fn (ProposedWall $w): bool => $w->confidence >= ProposedWall::WORTH_A_LOOK, $this->openings);
    }

    /** What is accepted together. */
    public function sure(): self
    {
        return $this->only(
            static fn (ProposedWall $w): bool => $w->isSure(),
            array_filter($this->openings, static fn (ProposedOpening $o): bool => $o->isSure()),
        );
    }

    /**
     * @param callable(ProposedWall): bool $isWanted
     * @param array<ProposedOpening> $openings
     */
    private function only(callable $isWanted, array $openings): self
    {
        $kept = array_filter($this->walls, $isWanted);
        $place = array_flip(array_keys($kept));
        $theirs = [];
        foreach ($openings as $opening) {
            if (isset($place[$opening->wall])) {
                $theirs[] = $opening->of($place[$opening->wall]);
            }
        }

        return new self(array_values($kept), $theirs, $this->columns);
    }

    /**
     * How sure each wall is; of one that is sure in part, that part alone.
     *
     * @param list<WallLine> $lines
     *
     * @return array{list<WallLine>, list<ProposedWall>}
     */
    private static function told(array $lines): array
    {
        [$walls, $proposed] = [[], []];
        $stretches = Cycles::stretches($lines);
        foreach ($lines as $i => $line) {
            $evidence = $line->evidence($lines, $stretches[$i]);
            $sure = array_keys(array_filter($evidence, static fn (WallEvidence $e): bool => $e->confidence() >= ProposedWall::SURE));
            [$first, $last] = [] === $sure ? [0, \count($evidence) - 1] : [$sure[0], $sure[\count($sure) - 1]];
            [$sum, $length] = [0.0, 0.0];
            for ($k = $first; $k <= $last; ++$k) {
                $of = max(1.0, $evidence[$k]->length());
                [$sum, $length] = [$sum + $of * $evidence[$k]->confidence(), $length + $of];
            }
            $from = 0 === $first ? $line->from : $evidence[$first]->from;
            $to = \count($evidence) - 1 === $last ? $line->to : $evidence[$last]->to;
            $walls[] = $line = $line->between($from, $to);
            $proposed[] = $line->proposal($sum / max(1.0, $length), $evidence);
        }

        return [$walls, $proposed];
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
     * @param array{float, float, float, float}|null $frame left, right, bottom, top, mm of the raster of the first direction
     *
     * @return list<WallLine>
     */
    private static function lines(array $strips, array $signs, array $turns, float $cell, ?array $frame): array
    {
        $pens = Pens::of($strips[0]);
        $tried = [];
        foreach (self::MANNERS as $fillings) {
            $lines = [];
            $inFirst = 0.0;
            foreach ($strips as $k => $of) {
                $found = WallLines::of($of, $fillings, $pens, $cell, $signs[$k]);
                // A direction is odd where few long stretches run in it.
                $long = array_sum(array_map(static fn (Strip $s): float => $s->seen() > self::LONG_MM ? $s->seen() : 0.0, $found));
                $inFirst = 0 === $k ? $long : $inFirst;
                foreach ($found as $strip) {
                    $line = WallLine::of($strip, $turns[$k], 0 !== $k && $long < self::ODD_PART * $inFirst);
                    if (0 === $k || null === $frame || self::isInside($line, $turns[0], $frame)) {
                        $lines[] = $line;
                    }
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
