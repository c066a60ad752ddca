<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Exchange\ExactLine;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Walls\Internal\DrawnArcs;
use Plinth\Core\Ink\Walls\Internal\DrawnLines;
use Plinth\Core\Ink\Walls\Internal\DrawnStrip;
use Plinth\Core\Ink\Walls\Internal\DrawnWall;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Wall;

/**
 * Walls and openings of a drawing whose lines are known exactly, as where a program has drawn it: ends, faces and jambs are those of its
 * lines.
 *
 * Walls are drawn with one pen of their own: each pen is tried, and the one whose strips between parallel lines make the longest network
 * counts. A strip is within a wall where a ray across it meets an odd number of lines of that pen, or an even one, whichever most strips
 * do. Strips in one line are put together over the walls that end on them and over openings, which have a jamb on either side.
 *
 * Curved walls are strips between two arcs about one centre.
 *
 * @phpstan-import-type Line from ExactLine
 */
final readonly class DrawnWalls
{
    /** Pens that draw so many lines are tried, so many of them, the longest first. */
    private const LINES = [4, 20_000];
    private const PENS = 12;
    /** mm: standard deviation of what a program has drawn, of its file's decimals */
    private const SIGMA = 0.01;
    /** Parts of a network that are no shorter than so much of its longest are walls too. */
    private const PART = 0.2;
    /** mm along what the ink shows, and the part of it that lies on walls drawn exactly */
    private const STEP_MM = 100.0;
    private const AGREED = 0.6;
    /** A wall of the ink with less of it on those is another one. */
    private const OFF = 0.5;
    /** Openings between jambs that say by themselves that these are walls. */
    private const SPEAKING = 3;
    /** An arc is off its radius by no more than this part of it, and so long at least that it is one, radians. */
    private const ROUND = 0.03;
    private const SWEPT = 0.3;
    /** mm: two walls and more, all together, are no drawing of walls below this */
    private const LEAST_MM = 4000.0;

    /**
     * @param list<ProposedWall> $walls
     * @param list<ProposedOpening> $openings
     */
    private function __construct(public array $walls, public array $openings)
    {
    }

    /** @param list<Line> $lines mm */
    public static function in(array $lines): self
    {
        $pens = [];
        foreach ($lines as $line) {
            $pens[$line[4]][] = $line;
        }
        $pens = array_filter($pens, static fn (array $of): bool => \count($of) >= self::LINES[0] && \count($of) <= self::LINES[1]);
        uasort($pens, static fn (array $a, array $b): int => self::drawn($b) <=> self::drawn($a));
        [$best, $most] = [[], 0.0];
        foreach (\array_slice($pens, 0, self::PENS, true) as $of) {
            [$walls, $isMet] = self::network(DrawnStrip::walls(DrawnLines::of(DrawnArcs::apart($of))));
            $length = array_sum(array_map(static fn (DrawnWall $w): float => $w->drawn(), $walls));
            if ($length < self::LEAST_MM) {
                continue;
            }
            // Of the pen of walls most is faces of walls; walls are long, end on each other, and have openings.
            $openings = array_sum(array_map(static fn (DrawnWall $w): int => \count($w->openings), $walls));
            $used = min(1.0, 2.0 * $length / self::drawn($of));
            $worth = $length ** 2 / \count($walls) * (1.0 + $openings / \count($walls)) * $used * $isMet ** 2;
            if ($worth > $most) {
                [$best, $most] = [$walls, $worth];
            }
        }

        return self::told($best, [] === $best ? [] : self::flat($lines));
    }

    /**
     * Whether most of what the ink shows for sure lies on these walls: then both speak of the same, and not of a title block.
     *
     * @param list<ProposedWall> $shown
     */
    public function agreeWith(array $shown): bool
    {
        [$on, $whole] = [0.0, 0.0];
        foreach ($shown as $wall) {
            $length = $wall->isSure() ? $wall->length() : 0.0;
            $whole += $length;
            $on += $length * ($length > 0.0 ? $this->partOf($wall) : 0.0);
        }

        return $whole > 0.0 ? $on >= self::AGREED * $whole : $this->speakForThemselves();
    }

    /** Whether they have so many openings between jambs that they are walls, whatever else is known. */
    public function speakForThemselves(): bool
    {
        return \count($this->openings) >= self::SPEAKING;
    }

    /**
     * With what the ink shows beside them, as where walls are drawn with a second pen or curved: to be looked at, never as sure.
     *
     * @param list<ProposedWall> $shown
     * @param list<ProposedOpening> $openings in those
     */
    public function beside(array $shown, array $openings): self
    {
        [$walls, $inWalls, $places] = [$this->walls, $this->openings, []];
        foreach ($shown as $i => $wall) {
            if ($wall->isSure() && $this->partOf($wall) < self::OFF) {
                $places[$i] = \count($walls);
                $walls[] = $wall->doubted();
            }
        }
        foreach ($openings as $opening) {
            if (isset($places[$opening->wall])) {
                $inWalls[] = $opening->of($places[$opening->wall]);
            }
        }

        return new self($walls, $inWalls);
    }

    /** @return float the part of a wall's centre line that lies in one of these */
    private function partOf(ProposedWall $wall): float
    {
        $lines = array_map(static fn (ProposedWall $w): Wall => $w->wall(''), $this->walls);
        $shown = $wall->wall('');
        $length = $shown->length();
        $count = max(1, (int) ceil($length / self::STEP_MM));
        $on = 0;
        for ($k = 0; $k < $count; ++$k) {
            $place = $shown->at($length * ($k + 0.5) / $count);
            foreach ($lines as $drawn) {
                if ($place->distanceTo($drawn->nearest($place)) <= $drawn->thickness / 2.0) {
                    ++$on;
                    break;
                }
            }
        }

        return $on / $count;
    }

    /** @param list<Line> $lines */
    private static function drawn(array $lines): float
    {
        return array_sum(array_map(static fn (array $l): float => hypot($l[2] - $l[0], $l[3] - $l[1]), $lines));
    }

    /**
     * Those that hang together, their centre lines ending on each other.
     *
     * @param list<DrawnWall> $walls
     *
     * @return array{list<DrawnWall>, float} and which part of their ends meet another
     */
    private static function network(array $walls): array
    {
        [$joined, $part, $ends] = [[], array_keys($walls), []];
        foreach ($walls as $i => $wall) {
            [$joined[$i], $met, $ends[$i]] = $wall->ended($walls);
            foreach ($met as $j) {
                [$from, $to] = [$part[$i], $part[$j]];
                foreach ($from === $to ? [] : array_keys($part, $from, true) as $k) {
                    $part[$k] = $to;
                }
            }
        }
        $lengths = [];
        foreach ($joined as $i => $wall) {
            $lengths[$part[$i]] = ($lengths[$part[$i]] ?? 0.0) + $wall->drawn();
        }
        $least = self::PART * max([0.0, ...array_values($lengths)]);

        $kept = array_filter($part, static fn (int $p): bool => $lengths[$p] >= $least);

        return [
            array_values(array_intersect_key($joined, $kept)),
            array_sum(array_intersect_key($ends, $kept)) / max(1, 2 * \count($kept)),
        ];
    }

    /**
     * @param list<Line> $lines
     *
     * @return list<Line> with every arc by its chord, and by short ones
     */
    private static function flat(array $lines): array
    {
        $pens = [];
        foreach ($lines as $line) {
            $pens[$line[4]][] = $line;
        }

        $flat = [];
        foreach ($pens as $pen => $of) {
            array_push($flat, ...DrawnArcs::apart($of)->flat($pen));
        }

        return $flat;
    }

    /**
     * @param list<DrawnWall> $walls
     * @param list<Line> $lines of all pens, without arcs
     */
    private static function told(array $walls, array $lines): self
    {
        [$told, $openings] = [[], []];
        foreach (array_merge(...array_map(static fn (DrawnWall $w): array => $w->halves(), $walls)) as $i => $wall) {
            [$from, $to] = [new Point(...$wall->axis->at($wall->from)), new Point(...$wall->axis->at($wall->to))];
            $told[] = new ProposedWall($from, $to, $wall->thickness, self::SIGMA, self::SIGMA, 1.0, 'empty', [], $wall->rise());
            foreach ($wall->openings as [$begin, $end]) {
                [$kind, $leafAt, $leafSide] = self::kind($wall->straight($begin, $end), $lines);
                [$offset, $width, $rest] = [$begin - $wall->from, $end - $begin, $wall->to - $end];
                $evidence = new OpeningEvidence(true, 1.0, min($offset, $rest), $width, OpeningKind::Window === $kind, 1.0, false);
                $openings[] = new ProposedOpening($i, $kind, $offset, $width, self::SIGMA, 1.0, $evidence, $leafAt, $leafSide);
            }
        }

        return new self($told, $openings);
    }

    /**
     * @param list<Line> $lines
     *
     * @return array{OpeningKind, 'near'|'far'|null, 'left'|'right'|null} a leaf stands at a jamb; panes run along the wall
     */
    private static function kind(DrawnWall $wall, array $lines): array
    {
        [$from, $to] = [$wall->from, $wall->to];
        $width = $to - $from;
        $half = $wall->thickness / 2.0;
        [$lined, $leaves, $near] = [0.0, [], []];
        foreach ($lines as [$x1, $y1, $x2, $y2]) {
            [$s1, $a1] = $wall->axis->of($x1, $y1);
            [$s2, $a2] = $wall->axis->of($x2, $y2);
            if (max($s1, $s2) < $from - $width || min($s1, $s2) > $to + $width) {
                continue;
            }
            $near[] = [$s1, $a1, $s2, $a2];
            $length = hypot($s2 - $s1, $a2 - $a1);
            // A pane of a curved wall may be drawn by chords.
            $lined += $length > 0.15 * $width && abs($a1 - $a2) < 0.05 * $length && max(abs($a1), abs($a2)) <= $half + 1.0
                && min($s1, $s2) > $from - 0.2 * $width && max($s1, $s2) < $to + 0.2 * $width ? $length : 0.0;
            if ($length < 0.7 * $width || $length > 1.2 * $width || max(abs($a1), abs($a2)) < 0.5 * $width) {
                continue;
            }
            // The end in the wall, then the free one.
            [$sIn, $aIn, $aOut] = abs($a1) < abs($a2) ? [$s1, $a1, $a2] : [$s2, $a2, $a1];
            foreach (['near' => $from, 'far' => $to] as $at => $jamb) {
                if (abs($sIn - $jamb) < 0.12 * $width && abs($aIn) < $half + 0.12 * $width) {
                    $leaves[] = [$sIn, $aIn, $length, $at, $aOut > 0.0 ? 'left' : 'right'];
                }
            }
        }
        foreach ($leaves as [$s, $a, $length, $at, $side]) {
            // Where it swings is drawn; the line of a figure swings nowhere.
            if (self::swings($near, $s, $a, $length, 'left' === $side ? 1.0 : -1.0)) {
                return [OpeningKind::Door, $at, $side];
            }
        }

        return match (true) {
            $lined > 0.6 * $width => [OpeningKind::Window, null, null],
            [] !== $leaves => [OpeningKind::Door, $leaves[0][3], $leaves[0][4]],
            default => [OpeningKind::Opening, null, null],
        };
    }

    /**
     * Whether lines run about a hinge as far as a leaf reaches, or a curve that ends so far from it does at the other jamb.
     *
     * @param list<array{float, float, float, float}> $near along and across
     */
    private static function swings(array $near, float $s, float $a, float $radius, float $side): bool
    {
        $swept = 0.0;
        foreach ($near as [$s1, $a1, $s2, $a2]) {
            $off = max(abs(hypot($s1 - $s, $a1 - $a) - $radius), abs(hypot($s2 - $s, $a2 - $a) - $radius));
            $from = atan2($side * ($a1 - $a), abs($s1 - $s));
            $to = atan2($side * ($a2 - $a), abs($s2 - $s));
            if ($off > self::ROUND * $radius || min($from, $to) < -0.1 || abs($to - $from) > 0.5) {
                continue;
            }
            $swept += abs($to - $from);
            if ($swept > self::SWEPT || ($s1 === $s2 && $a1 === $a2 && $from < 0.1)) {
                return true;
            }
        }

        return false;
    }
}
