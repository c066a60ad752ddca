<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Walls\Internal\Columns;
use Plinth\Core\Ink\Walls\Internal\Cycles;
use Plinth\Core\Ink\Walls\Internal\JudgedLines;
use Plinth\Core\Ink\Walls\Internal\LineSearch;
use Plinth\Core\Ink\Walls\Internal\Openings;
use Plinth\Core\Ink\Walls\Internal\OpeningsAtEnds;
use Plinth\Core\Ink\Walls\Internal\WallJoints;
use Plinth\Core\Ink\Walls\Internal\WallLine;

/**
 * The walls, openings and columns that a whole drawing shows.
 *
 * The ink is laid on a raster that runs with each direction that many of its edges have. Across that direction every scan line passes
 * from paper to ink and back; passages at the same height from line to line are edges, and two of them beside each other with the same
 * filling between are a stretch of wall: solid, toned (hatched, grey) or empty between two lines of the wider pen. Stretches in one
 * line are put together over openings. Which of all those are walls is judged by how they show and how they stand to each other. Each is
 * then probed on the page itself, and its gaps are looked at for what opening they are.
 */
final readonly class WallProposals
{
    /** part of the work done when walls are laid */
    private const LAID = 0.75;
    /** What the page itself does not show where it was seen is a wall only if it is so likely and shows for so long, mm. */
    private const UNSHOWN = [0.6, 1500.0];

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
        $search = LineSearch::in($pageInk, $box, $map, static fn (float $done) => $onProgress(self::LAID * $done));
        $lines = JudgedLines::walls($search->lines);
        $probed = [];
        foreach ($lines as $i => $line) {
            $probed[] = $line->probed($pageInk, $map);
            $onProgress(self::LAID + (1.0 - self::LAID) * 0.6 * ($i + 1) / \count($lines));
        }
        $joined = WallJoints::of(array_values(array_filter($probed, self::isShown(...))));
        [$walls, $proposed] = self::told(OpeningsAtEnds::drawnOn($joined, $pageInk, $map));
        $openings = Openings::in(
            $walls,
            array_map(static fn (ProposedWall $w): float => $w->confidence, $proposed),
            $pageInk,
            $search->page,
            $map,
            static fn (float $done) => $onProgress(self::LAID + (1.0 - self::LAID) * (0.6 + 0.4 * $done)),
        );

        return new self($proposed, $openings, null === $search->main ? [] : Columns::of($search->main, $walls));
    }

    /** Whether the page itself shows it, or it is hardly anything but a wall. */
    private static function isShown(WallLine $line): bool
    {
        return null !== $line->probe || ($line->confidence >= self::UNSHOWN[0] && $line->seen() > self::UNSHOWN[1]);
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
}
