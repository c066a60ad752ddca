<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

use Brick\Math\BigInteger;
use Plinth\Core\Geometry\Exception\TooTangled;

/**
 * What closed rings cover together: unions and differences of whatever overlaps, touches or lies on each other.
 *
 * Corners are put on a grid of 2²⁹ steps across all that is given (a fifth of a micrometre in a hundred metres). On it every
 * comparison is exact in 64-bit integers, so that no ring comes out open or crossed, however flat the angles. Crossings are put on the
 * grid as well, and every line is led through all places so made that it passes within half a step of (snap rounding; Hobby 1999,
 * from memory). Corners that were given come out as they were given.
 *
 * Every layer has a winding number at each place: counter-clockwise rings count up. What is wanted is said by the winding numbers of
 * all layers. Those are worked out once for each connected group of lines and carried on from face to face.
 *
 * A line is told by x and y of its lower left end, of its upper right one, and how often each layer runs that way.
 *
 * @phpstan-import-type Ring from Polygon
 *
 * @phpstan-type Line array{int, int, int, int, list<int>}
 * @phpstan-type Shape array{outer: non-empty-list<array{float, float}>, holes: list<non-empty-list<array{float, float}>>}
 */
final class Overlay
{
    private const STEPS = 1 << 29;
    private const ROUNDS = 8;
    /** So near to a half, floating point does not tell which side of it a place lies on. */
    private const DOUBTFUL = 1e-5;
    /** Corners that lie no further off the line between their neighbours were made by crossings there; grid steps. */
    private const STRAIGHT = 2.0;

    private float $x = 0.0;
    private float $y = 0.0;
    private float $step = 1.0;
    /** @var array<string, array{int, int}> place on the grid → the one that it was settled into */
    private array $settled = [];
    /** @var array<string, array{float, float}> what a place on the grid was given as */
    private array $given = [];
    /** @var list<array{int, int}> */
    private array $places = [];
    /** @var list<array{int, int}> half-edge 2e from the line's first end, 2e + 1 back: numbers of places where it starts and ends */
    private array $halves = [];
    /** @var list<list<int>> line → how often each layer runs along it from its first end */
    private array $weights = [];
    /** @var array<int, int> half-edge → the next one round the face to its left */
    private array $next = [];
    /** @var array<int, int> half-edge → the next one clockwise about its start */
    private array $clockwise = [];
    /** @var array<int, list<int>> half-edge → winding number of each layer to its left */
    private array $windings = [];

    /**
     * Parts of the plane, each with its holes, where the winding numbers are as wanted.
     *
     * @param non-empty-list<list<Ring>> $layers
     * @param callable(list<int>): bool $isWanted by the winding number of each layer
     *
     * @return list<Shape> outer rings counter-clockwise, holes clockwise; parts that touch in a point are two
     *
     * @throws TooTangled
     */
    public static function parts(array $layers, callable $isWanted): array
    {
        return (new self($layers))->traced($isWanted);
    }

    /**
     * All that rings cover.
     *
     * @param list<Ring> $rings counter-clockwise
     *
     * @return list<Shape>
     */
    public static function union(array $rings): array
    {
        return self::parts([$rings], static fn (array $w): bool => $w[0] > 0);
    }

    /**
     * What some rings cover and others do not.
     *
     * @param list<Ring> $rings counter-clockwise
     * @param list<Ring> $without counter-clockwise
     *
     * @return list<Shape>
     */
    public static function difference(array $rings, array $without): array
    {
        return self::parts([$rings, $without], static fn (array $w): bool => $w[0] > 0 && $w[1] <= 0);
    }

    /** @param list<Shape> $shapes */
    public static function area(array $shapes): float
    {
        $area = 0.0;
        foreach ($shapes as ['outer' => $outer, 'holes' => $holes]) {
            $area += Polygon::area($outer) + array_sum(array_map(Polygon::area(...), $holes));
        }

        return $area;
    }

    /** @param non-empty-list<list<Ring>> $layers */
    private function __construct(array $layers)
    {
        $points = array_merge(...array_map(static fn (array $rings): array => array_merge(...$rings), $layers));
        if ([] === $points) {
            return;
        }
        [$x1, $y1, $x2, $y2] = Polygon::bounds($points);
        $this->x = ($x1 + $x2) / 2.0;
        $this->y = ($y1 + $y2) / 2.0;
        $this->step = max($x2 - $x1, $y2 - $y1, 1e-9) / self::STEPS;
        $this->settle($points);
        $this->link($this->noded($this->lines($layers)));
        if ([] !== $this->places) {
            $this->wind(\count($layers));
        }
    }

    /**
     * @param non-empty-list<list<Ring>> $layers
     *
     * @return array<string, Line> by their ends
     */
    private function lines(array $layers): array
    {
        $lines = [];
        foreach ($layers as $layer => $rings) {
            $weights = array_fill(0, \count($layers), 0);
            $weights[$layer] = 1;
            foreach ($rings as $ring) {
                if ([] === $ring) {
                    continue;
                }
                $from = $this->place($ring[\count($ring) - 1]);
                foreach ($ring as $point) {
                    $to = $this->place($point);
                    self::add($lines, $from, $to, array_values($weights));
                    $from = $to;
                }
            }
        }

        return $lines;
    }

    /**
     * Puts corners on the grid; those in neighbouring places, as the same corner computed twice may be, into one.
     *
     * @param non-empty-list<array{float, float}> $points
     */
    private function settle(array $points): void
    {
        // In an order that does not hang on that of the rings.
        sort($points);
        foreach ($points as $point) {
            [$x, $y] = $place = $this->rounded($point);
            if (isset($this->settled["$x $y"])) {
                continue;
            }
            foreach ([[-1, -1], [-1, 0], [-1, 1], [0, -1], [0, 1]] as [$dx, $dy]) {
                $near = $this->settled[($x + $dx).' '.($y + $dy)] ?? null;
                if ($near === [$x + $dx, $y + $dy]) {
                    $place = $near;
                    break;
                }
            }
            $this->settled["$x $y"] = $place;
            $this->given["$place[0] $place[1]"] ??= $point;
        }
    }

    /**
     * @param array{float, float} $point
     *
     * @return array{int, int}
     */
    private function rounded(array $point): array
    {
        return [(int) round(($point[0] - $this->x) / $this->step), (int) round(($point[1] - $this->y) / $this->step)];
    }

    /**
     * @param array{float, float} $point one of those that were settled
     *
     * @return array{int, int}
     */
    private function place(array $point): array
    {
        [$x, $y] = $this->rounded($point);

        return $this->settled["$x $y"] ?? [$x, $y];
    }

    /**
     * @param array<string, Line> $lines
     * @param array{int, int} $from
     * @param array{int, int} $to
     * @param list<int> $weights
     */
    private static function add(array &$lines, array $from, array $to, array $weights): void
    {
        if ($from === $to) {
            return;
        }
        if ($from > $to) {
            [$from, $to] = [$to, $from];
            $weights = array_map(static fn (int $w): int => -$w, $weights);
        }
        $key = "$from[0] $from[1] $to[0] $to[1]";
        if (isset($lines[$key])) {
            $weights = array_map(static fn (int $a, int $b): int => $a + $b, $lines[$key][4], $weights);
        }
        $lines[$key] = [...$from, ...$to, $weights];
    }

    /**
     * @param array<string, Line> $lines
     *
     * @return list<Line> that meet in their ends alone
     */
    private function noded(array $lines): array
    {
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $lines = array_values(array_filter($lines, static fn (array $line): bool => [] !== array_filter($line[4], static fn (int $w): bool => 0 !== $w)));
            // From left to right: only lines that are still open may meet the next one.
            usort($lines, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
            $hot = self::crossings($lines);
            // Once at least: an end may lie as good as on another line.
            if ($round > 0 && [] === $hot) {
                return $lines;
            }
            foreach ($lines as [$ax, $ay, $bx, $by]) {
                $hot["$ax $ay"] = [$ax, $ay];
                $hot["$bx $by"] = [$bx, $by];
            }
            $lines = self::through($lines, array_values($hot));
        }
        throw TooTangled::afterRounds(self::ROUNDS);
    }

    /**
     * Places on the grid nearest to where two lines cross, or where an end of one lies within another.
     *
     * @param list<Line> $lines from left to right
     *
     * @return array<string, array{int, int}>
     */
    private static function crossings(array $lines): array
    {
        $found = [];
        $open = [];
        foreach ($lines as $i => [$ax, $ay, $bx, $by]) {
            [$low, $high] = $ay < $by ? [$ay, $by] : [$by, $ay];
            foreach ($open as $k => [$right, $otherLow, $otherHigh]) {
                if ($right < $ax) {
                    unset($open[$k]);
                } elseif ($otherLow <= $high && $otherHigh >= $low) {
                    [$cx, $cy, $dx, $dy] = $lines[$k];
                    // Twice the areas that the ends of one make with the other: exact.
                    $c = ($bx - $ax) * ($cy - $ay) - ($by - $ay) * ($cx - $ax);
                    $d = ($bx - $ax) * ($dy - $ay) - ($by - $ay) * ($dx - $ax);
                    $a = ($dx - $cx) * ($ay - $cy) - ($dy - $cy) * ($ax - $cx);
                    $b = ($dx - $cx) * ($by - $cy) - ($dy - $cy) * ($bx - $cx);
                    if ((($a < 0 && $b > 0) || ($a > 0 && $b < 0)) && (($c < 0 && $d > 0) || ($c > 0 && $d < 0))) {
                        $at = [$ax + self::part($a, $a - $b, $bx - $ax), $ay + self::part($a, $a - $b, $by - $ay)];
                        $found["$at[0] $at[1]"] = $at;
                        continue;
                    }
                    foreach ([[$cx, $cy, $c, $ax, $ay, $bx, $by], [$dx, $dy, $d, $ax, $ay, $bx, $by], [$ax, $ay, $a, $cx, $cy, $dx, $dy], [$bx, $by, $b, $cx, $cy, $dx, $dy]] as [$x, $y, $off, $x1, $y1, $x2, $y2]) {
                        $isWithin = 0 === $off && $x >= $x1 && $x <= $x2 && $y >= min($y1, $y2) && $y <= max($y1, $y2);
                        if ($isWithin && ($x !== $x1 || $y !== $y1) && ($x !== $x2 || $y !== $y2)) {
                            $found["$x $y"] = [$x, $y];
                        }
                    }
                }
            }
            $open[$i] = [$bx, $low, $high];
        }

        return $found;
    }

    /** The nearest whole number to numerator / denominator · length; a half goes up. */
    private static function part(int $numerator, int $denominator, int $length): int
    {
        $about = $numerator / $denominator * $length + 0.5;
        $whole = floor($about);
        if (abs($about - round($about)) > self::DOUBTFUL) {
            return (int) $whole;
        }
        [$numerator, $denominator] = $denominator < 0 ? [-$numerator, -$denominator] : [$numerator, $denominator];
        $twice = BigInteger::of($numerator)->multipliedBy(2 * $length)->plus($denominator);

        return $twice->quotient(BigInteger::of($denominator)->multipliedBy(2))->toInt() - ($twice->isNegative() && !$twice->remainder(BigInteger::of($denominator)->multipliedBy(2))->isZero() ? 1 : 0);
    }

    /**
     * Lines led through every one of some places that they pass within half a step of: what did not cross before does not afterwards.
     *
     * @param list<Line> $lines
     * @param list<array{int, int}> $hot
     *
     * @return array<string, Line>
     */
    private static function through(array $lines, array $hot): array
    {
        [$left, $width, $columns] = self::columns($hot);
        $led = [];
        foreach ($lines as [$ax, $ay, $bx, $by, $weights]) {
            [$dx, $dy] = [$bx - $ax, $by - $ay];
            $reach = $dx + abs($dy);
            $points = [];
            $last = intdiv($bx - $left, $width);
            for ($c = intdiv($ax - $left, $width); $c <= $last; ++$c) {
                // Where the line runs in this column, and a little beyond.
                [$x1, $x2] = [max($ax, $left + $c * $width), min($bx, $left + ($c + 1) * $width)];
                [$y1, $y2] = 0 === $dx ? [$ay, $by] : [$ay + $dy / $dx * ($x1 - $ax), $ay + $dy / $dx * ($x2 - $ax)];
                [$low, $high] = $y1 < $y2 ? [(int) floor($y1) - 2, (int) ceil($y2) + 2] : [(int) floor($y2) - 2, (int) ceil($y1) + 2];
                $column = $columns[$c] ?? [];
                for ($i = self::firstFrom($column, $low); isset($column[$i]) && $column[$i][0] <= $high; ++$i) {
                    [$y, $x] = $column[$i];
                    if ($x < $ax || $x > $bx || $y < min($ay, $by) || $y > max($ay, $by)) {
                        continue;
                    }
                    $off = $dx * ($y - $ay) - $dy * ($x - $ax);
                    $beyond = 2 * abs($off) - $reach;
                    // Of its square's sides and corners a place has the left and the lower ones, and where those meet.
                    if ($beyond < 0 || (0 === $beyond && $dy < 0 && $off > 0)) {
                        $points[] = [$dx * ($x - $ax) + $dy * ($y - $ay), [$x, $y]];
                    }
                }
            }
            usort($points, static fn (array $p, array $q): int => $p[0] <=> $q[0]);
            foreach ($points as $k => [, $point]) {
                if ($k > 0) {
                    self::add($led, $points[$k - 1][1], $point, $weights);
                }
            }
        }

        return $led;
    }

    /**
     * Places by upright columns, about as many as there are places in each.
     *
     * @param list<array{int, int}> $places
     *
     * @return array{int, positive-int, array<int, list<array{int, int}>>} left end, width, and y and x of the places in each column from below
     */
    private static function columns(array $places): array
    {
        $xs = array_column($places, 0);
        $left = [] === $xs ? 0 : min($xs);
        $width = max(1, (int) ceil(([] === $xs ? 0 : max($xs) - $left) / max(1.0, sqrt(\count($xs)))));
        $columns = [];
        foreach ($places as [$x, $y]) {
            $columns[intdiv($x - $left, $width)][] = [$y, $x];
        }
        foreach ($columns as $c => $column) {
            sort($column);
            $columns[$c] = $column;
        }

        return [$left, $width, $columns];
    }

    /** @param list<array{int, int}> $sorted by what comes first in each */
    private static function firstFrom(array $sorted, int $least): int
    {
        [$low, $high] = [0, \count($sorted)];
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            [$low, $high] = $sorted[$middle][0] < $least ? [$middle + 1, $high] : [$low, $middle];
        }

        return $low;
    }

    /**
     * Half-edges about each place, counter-clockwise.
     *
     * @param list<Line> $lines
     */
    private function link(array $lines): void
    {
        $numbers = [];
        $leaving = [];
        foreach ($lines as $e => [$ax, $ay, $bx, $by, $weights]) {
            $ends = [];
            foreach ([[$ax, $ay], [$bx, $by]] as [$x, $y]) {
                $key = "$x $y";
                if (!isset($numbers[$key])) {
                    $numbers[$key] = \count($this->places);
                    $this->places[] = [$x, $y];
                }
                $ends[] = $numbers[$key];
            }
            $this->halves[] = [$ends[0], $ends[1]];
            $this->halves[] = [$ends[1], $ends[0]];
            $leaving[$ends[0]][] = 2 * $e;
            $leaving[$ends[1]][] = 2 * $e + 1;
            $this->weights[] = $weights;
        }
        foreach ($leaving as $halves) {
            usort($halves, $this->turn(...));
            $n = \count($halves);
            foreach ($halves as $i => $h) {
                $this->clockwise[$h] = $halves[($i + $n - 1) % $n];
            }
        }
        foreach (array_keys($this->halves) as $h) {
            $this->next[$h] = $this->clockwise[$h ^ 1];
        }
    }

    /** Which of two half-edges that leave a place comes first, counter-clockwise from the direction along −x. */
    private function turn(int $a, int $b): int
    {
        [$ax, $ay] = $this->direction($a);
        [$bx, $by] = $this->direction($b);
        $isUpper = static fn (int $x, int $y): int => $y > 0 || (0 === $y && $x > 0) ? 1 : 0;

        return [$isUpper($ax, $ay), $ay * $bx] <=> [$isUpper($bx, $by), $ax * $by];
    }

    /** @return array{int, int} */
    private function direction(int $half): array
    {
        [$from, $to] = $this->halves[$half];

        return [$this->places[$to][0] - $this->places[$from][0], $this->places[$to][1] - $this->places[$from][1]];
    }

    /** Winding numbers of all faces, group by group. */
    private function wind(int $layers): void
    {
        $group = [];
        $first = [];
        foreach (array_keys($this->halves) as $start) {
            if (isset($group[$start])) {
                continue;
            }
            $leftmost = $start;
            $stack = [$start];
            while (null !== ($h = array_pop($stack))) {
                if (isset($group[$h])) {
                    continue;
                }
                $group[$h] = $start;
                $leftmost = $this->places[$this->halves[$h][0]] < $this->places[$this->halves[$leftmost][0]] ? $h : $leftmost;
                array_push($stack, $h ^ 1, $this->next[$h]);
            }
            $first[$start] = $leftmost;
        }
        $strips = $this->strips();
        foreach ($first as $name => $leftmost) {
            // What lies to the left of a group's leftmost place lies outside it: to the left of the half-edge that comes in there last.
            $half = $this->outward($leftmost);
            $outside = $this->around($strips, $this->places[$this->halves[$leftmost][0]], $name, $group, $layers);
            $stack = [[$half, $outside]];
            while (null !== ($top = array_pop($stack))) {
                [$h, $winding] = $top;
                if (isset($this->windings[$h])) {
                    continue;
                }
                $face = [];
                for ($k = $h; !isset($this->windings[$k]); $k = $this->next[$k]) {
                    $this->windings[$k] = $winding;
                    $face[] = $k;
                }
                foreach ($face as $k) {
                    // To the left of a line that runs along its weight there is so much more than to the right.
                    $sign = 0 === $k % 2 ? 1 : -1;
                    $stack[] = [$k ^ 1, array_map(static fn (int $w, int $weight): int => $w - $sign * $weight, $winding, $this->weights[$k >> 1])];
                }
            }
        }
    }

    /** Of the half-edges that leave a group's leftmost place, lowest of such, the one with the outside to its left. */
    private function outward(int $leaving): int
    {
        // All directions lie from straight down, without it, over +x to straight up: the last counter-clockwise has the outside to its left.
        $best = $leaving;
        for ($h = $this->clockwise[$leaving]; $h !== $leaving; $h = $this->clockwise[$h]) {
            [$ax, $ay] = $this->direction($best);
            [$bx, $by] = $this->direction($h);
            if ($ax * $by - $ay * $bx > 0) {
                $best = $h;
            }
        }

        return $best;
    }

    /**
     * Lines by level strips, about as many as there are lines in each.
     *
     * @return array{int, positive-int, array<int, list<int>>} bottom, height, and the lines that reach into each strip
     */
    private function strips(): array
    {
        $ys = array_column($this->places, 1);
        $bottom = min($ys);
        $height = max(1, (int) ceil((max($ys) - $bottom) / sqrt(\count($this->weights))));
        $strips = [];
        foreach (array_keys($this->weights) as $e) {
            [$a, $b] = $this->halves[2 * $e];
            [$low, $high] = [min($ys[$a], $ys[$b]), max($ys[$a], $ys[$b])];
            for ($i = intdiv($low - $bottom, $height); $i <= intdiv($high - $bottom, $height); ++$i) {
                $strips[$i][] = $e;
            }
        }

        return [$bottom, $height, $strips];
    }

    /**
     * Winding numbers at a place by what lies to its left, its own group left out.
     *
     * @param array{int, positive-int, array<int, list<int>>} $strips
     * @param array{int, int} $place
     * @param array<int, int> $group
     *
     * @return list<int>
     */
    private function around(array $strips, array $place, int $own, array $group, int $layers): array
    {
        $winding = array_fill(0, $layers, 0);
        [$x, $y] = $place;
        [$bottom, $height, $lines] = $strips;
        foreach ($lines[intdiv($y - $bottom, $height)] ?? [] as $e) {
            $weights = $this->weights[$e];
            if ($group[2 * $e] === $own) {
                continue;
            }
            [$ax, $ay] = $this->places[$this->halves[2 * $e][0]];
            [$bx, $by] = $this->places[$this->halves[2 * $e][1]];
            if (($ay > $y) === ($by > $y)) {
                continue;
            }
            // Whether the place lies to the right of the line as it runs upward.
            $off = ($bx - $ax) * ($y - $ay) - ($by - $ay) * ($x - $ax);
            $isUpward = $by > $ay;
            if ($isUpward === $off < 0) {
                foreach ($weights as $layer => $weight) {
                    $winding[$layer] -= $isUpward ? $weight : -$weight;
                }
            }
        }

        return array_values($winding);
    }

    /**
     * @param callable(list<int>): bool $isWanted
     *
     * @return list<Shape>
     */
    private function traced(callable $isWanted): array
    {
        $isIn = array_map($isWanted, $this->windings);
        $outers = [];
        $holes = [];
        $done = [];
        foreach (array_keys($this->halves) as $start) {
            if (isset($done[$start]) || !$isIn[$start] || $isIn[$start ^ 1]) {
                continue;
            }
            $ring = [];
            $h = $start;
            do {
                $done[$h] = true;
                $ring[] = $this->places[$this->halves[$h][0]];
                // On along the border, keeping to what is in.
                $h = $this->next[$h];
                while ($isIn[$h ^ 1]) {
                    $h = $this->clockwise[$h];
                }
            } while (!isset($done[$h]));
            $ring = self::straightened($ring);
            if (\count($ring) < 3) {
                continue;
            }
            $ring = array_map(fn (array $p): array => $this->given["$p[0] $p[1]"] ?? [$this->x + $p[0] * $this->step, $this->y + $p[1] * $this->step], $ring);
            if (Polygon::area($ring) > 0.0) {
                $outers[] = ['outer' => $ring, 'holes' => []];
            } else {
                $holes[] = $ring;
            }
        }
        usort($outers, static fn (array $a, array $b): int => Polygon::area($a['outer']) <=> Polygon::area($b['outer']));
        foreach ($holes as $hole) {
            foreach ($outers as $i => ['outer' => $outer]) {
                if (self::isWithin($hole, $outer)) {
                    $outers[$i]['holes'][] = $hole;
                    continue 2;
                }
            }
        }

        return $outers;
    }

    /**
     * Without corners that are none.
     *
     * @param non-empty-list<array{int, int}> $ring
     *
     * @return list<array{int, int}>
     */
    private static function straightened(array $ring): array
    {
        // From a place that is a corner, on to the next that lies away from it.
        $first = (int) array_search(min($ring), $ring, true);
        $apart = [];
        foreach ([...\array_slice($ring, $first), ...\array_slice($ring, 0, $first)] as [$x, $y]) {
            $last = $apart[\count($apart) - 1] ?? null;
            if (null === $last || hypot($x - $last[0], $y - $last[1]) > self::STRAIGHT) {
                $apart[] = [$x, $y];
            }
        }
        $kept = [$apart[0]];
        foreach ($apart as $i => [$x, $y]) {
            if ($i > 0) {
                [$px, $py] = $kept[\count($kept) - 1];
                [$qx, $qy] = $apart[$i + 1] ?? $apart[0];
                $off = abs(($qx - $px) * ($y - $py) - ($qy - $py) * ($x - $px));
                if ($off > self::STRAIGHT * hypot($qx - $px, $qy - $py)) {
                    $kept[] = [$x, $y];
                }
            }
        }

        return $kept;
    }

    /**
     * Whether a ring lies within another that it may touch in single places, but does not cross.
     *
     * @param non-empty-list<array{float, float}> $ring
     * @param list<array{float, float}> $outer
     */
    private static function isWithin(array $ring, array $outer): bool
    {
        [$from, $to, $longest] = [$ring[0], $ring[0], 0.0];
        foreach ($ring as $i => $p) {
            $q = $ring[$i + 1] ?? $ring[0];
            $length = hypot($q[0] - $p[0], $q[1] - $p[1]);
            [$from, $to, $longest] = $length > $longest ? [$p, $q, $length] : [$from, $to, $longest];
        }
        $inside = 0;
        foreach ([0.25, 0.5, 0.75] as $t) {
            $inside += Polygon::contains($outer, $from[0] + $t * ($to[0] - $from[0]), $from[1] + $t * ($to[1] - $from[1])) ? 1 : -1;
        }

        return $inside > 0;
    }
}
