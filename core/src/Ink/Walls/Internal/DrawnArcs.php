<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Exchange\ExactLine;
use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Point;

/**
 * What is round among the exact lines of one pen: its arcs, and chords in a row that turn evenly, as files have them that know no arcs.
 *
 * @internal
 *
 * @phpstan-import-type Line from ExactLine
 */
final readonly class DrawnArcs
{
    /** so many chords in a row are an arc, each turned from the one before by no more, radians */
    private const CHORDS = 4;
    private const TURN = 0.22;
    /** part by which chords of one arc may be turned more or less for their length */
    private const EVEN = 0.3;
    /** mm within which lines end on each other */
    private const TOUCH = 0.05;
    /** mm within which corners lie on one circle: decimals of a file at the scale of its sheet */
    private const ON = 0.25;
    /** mm by which arcs may be off a centre that the longest of them alone has told */
    private const NEAR = 3.0;
    /** mm: smaller ones are furniture */
    private const RADIUS = 300.0;
    /** more than this are no walls */
    private const MOST = 4000;
    /** radians from one place of an arc to the next by which it is told */
    private const STEP = 0.06;

    /**
     * @param list<Line> $straight what is left
     * @param list<non-empty-list<Point>> $arcs three places and more of each, in a row, on one circle
     */
    private function __construct(public array $straight, public array $arcs)
    {
    }

    /** @param list<Line> $lines mm, as they were drawn one after the other */
    public static function apart(array $lines): self
    {
        [$straight, $arcs, $run, $turned] = [[], [], [], null];
        foreach ($lines as $line) {
            $rise = $line[5] ?? 0.0;
            if (0.0 !== $rise) {
                $arcs[] = self::places($line, $rise);
                continue;
            }
            $bend = [] === $run ? null : self::bend($run[\count($run) - 1], $line);
            $isOn = null !== $bend && (null === $turned || abs($bend - $turned) < self::EVEN * abs($turned));
            if (!$isOn) {
                self::end($run, $straight, $arcs);
                [$run, $turned] = [[], null];
            } else {
                $turned ??= $bend;
            }
            $run[] = $line;
        }
        self::end($run, $straight, $arcs);

        return new self($straight, \count($arcs) > self::MOST ? [] : $arcs);
    }

    /**
     * Every line with arcs by their chord and by short pieces.
     *
     * @return list<Line>
     */
    public function flat(int $pen): array
    {
        $flat = $this->straight;
        foreach ($this->arcs as $places) {
            $last = $places[\count($places) - 1];
            $flat[] = [$places[0]->x, $places[0]->y, $last->x, $last->y, $pen];
            for ($i = 1; $i < \count($places); ++$i) {
                $flat[] = [$places[$i - 1]->x, $places[$i - 1]->y, $places[$i]->x, $places[$i]->y, $pen];
            }
        }

        return $flat;
    }

    /**
     * Arcs about one centre and more than one radius, the longest first; chords that lie on one of them belong to it.
     *
     * @return array{list<DrawnRound>, list<Line>} and the lines that are in none
     */
    public function rounds(): array
    {
        $left = array_values(array_filter(
            $this->arcs,
            static fn (array $places): bool => DrawnRound::about($places)[2] >= self::RADIUS,
        ));
        usort($left, static fn (array $a, array $b): int => DrawnRound::reach($b) <=> DrawnRound::reach($a));
        $rounds = [];
        while ([] !== $left) {
            [$x, $y] = DrawnRound::about($left[0]);
            // A centre that one arc tells is better known by all that may be about it.
            $near = array_filter($left, static fn (array $places): bool => DrawnRound::spread($places, $x, $y) <= self::NEAR);
            [$u, $v] = DrawnRound::centre(array_values([0 => $left[0]] + $near));
            [$x, $y] = DrawnRound::spread($left[0], $u, $v) <= self::ON ? [$u, $v] : [$x, $y];
            $own = array_filter($near, static fn (array $places): bool => DrawnRound::spread($places, $x, $y) <= self::ON);
            $left = array_values(array_diff_key($left, $own + [0 => true]));
            $round = \count($own) < 2 ? null : DrawnRound::of(array_values($own), self::ON);
            if (null !== $round && $round->isDouble()) {
                $rounds[] = $round;
            }
        }
        $straight = [];
        foreach ($this->straight as $line) {
            foreach ($rounds as $k => $round) {
                $with = $round->with([new Point($line[0], $line[1]), new Point($line[2], $line[3])], self::ON, self::TURN);
                if (null !== $with) {
                    $rounds[$k] = $with;
                    continue 2;
                }
            }
            $straight[] = $line;
        }

        return [$rounds, $straight];
    }

    /**
     * @param Line $line
     *
     * @return non-empty-list<Point>
     */
    private static function places(array $line, float $rise): array
    {
        $arc = new Arc(new Point($line[0], $line[1]), new Point($line[2], $line[3]), $rise);
        $count = max(2, (int) ceil(abs($arc->sweep) / self::STEP));

        return array_map(static fn (int $i): Point => $arc->at($i / $count), range(0, $count));
    }

    /**
     * @param Line $before
     * @param Line $line
     *
     * @return float|null radians turned for every mm; null where the one does not go on as an arc would
     */
    private static function bend(array $before, array $line): ?float
    {
        if (hypot($line[0] - $before[2], $line[1] - $before[3]) > self::TOUCH) {
            return null;
        }
        [$ux, $uy, $vx, $vy] = [$before[2] - $before[0], $before[3] - $before[1], $line[2] - $line[0], $line[3] - $line[1]];
        $turn = atan2($ux * $vy - $uy * $vx, $ux * $vx + $uy * $vy);

        return abs($turn) > self::TURN || abs($turn) < 1e-4 ? null : 2.0 * $turn / (hypot($ux, $uy) + hypot($vx, $vy));
    }

    /**
     * @param list<Line> $run
     * @param list<Line> $straight
     * @param list<non-empty-list<Point>> $arcs
     */
    private static function end(array $run, array &$straight, array &$arcs): void
    {
        if (\count($run) >= self::CHORDS) {
            $places = [new Point($run[0][0], $run[0][1]), ...array_map(static fn (array $l): Point => new Point($l[2], $l[3]), $run)];
            [$x, $y] = DrawnRound::about($places);
            if (DrawnRound::spread($places, $x, $y) <= self::ON) {
                $arcs[] = $places;

                return;
            }
        }
        array_push($straight, ...$run);
    }
}
