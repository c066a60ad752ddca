<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

use Plinth\Core\Geometry\Internal\Grid;
use Plinth\Core\Geometry\Internal\Noding;

/**
 * What closed rings cover together: unions and differences of whatever overlaps, touches or lies on each other.
 *
 * Corners are put on a grid so fine that nothing is seen of it, where every comparison is exact: no ring comes out open or crossed,
 * however flat the angles. Lines are cut where they meet (see Noding). Corners that were given come out as they were given.
 *
 * Every layer has a winding number at each place: counter-clockwise rings count up. What is wanted is said by the winding numbers of
 * all layers. Those are worked out once for each connected group of lines and carried on from face to face. The numbers of all layers
 * go together in one whole number, a few bits each.
 *
 * @phpstan-import-type Ring from Polygon
 *
 * @phpstan-type Shape array{outer: non-empty-list<array{float, float}>, holes: list<non-empty-list<array{float, float}>>}
 */
final class Overlay
{
    /** of a layer's winding number */
    private const BITS = 20;
    /** Corners that lie no further off the line between their neighbours were made by crossings there; grid steps. */
    private const STRAIGHT = 2.0;

    private readonly Grid $grid;
    /** @var list<array{int, int}> */
    private array $places = [];
    /** @var list<array{int, int}> half-edge 2e from the line's first end, 2e + 1 back: numbers of places where it starts and ends */
    private array $halves = [];
    /** @var list<int> line → how often layers run along it from its first end */
    private array $weights = [];
    /** @var array<int, int> half-edge → the next one round the face to its left */
    private array $next = [];
    /** @var array<int, int> half-edge → the next one clockwise about its start */
    private array $clockwise = [];
    /** @var array<int, int> half-edge → winding numbers of layers to its left */
    private array $windings = [];

    /**
     * Parts of the plane, each with its holes, where the winding numbers are as wanted.
     *
     * @param non-empty-list<list<Ring>> $layers
     * @param callable(list<int>): bool $isWanted by the winding number of each layer
     *
     * @return list<Shape> outer rings counter-clockwise, holes clockwise; parts that touch in a point are two
     */
    public static function parts(array $layers, callable $isWanted): array
    {
        return (new self($layers))->traced(\count($layers), $isWanted);
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
        $this->grid = new Grid([] === $points ? [[0.0, 0.0]] : $points);
        $noding = new Noding();
        foreach ($layers as $layer => $rings) {
            foreach ($rings as $ring) {
                $places = array_map($this->grid->place(...), $ring);
                foreach ($places as $i => $to) {
                    $noding->add($places[$i > 0 ? $i - 1 : \count($places) - 1], $to, 1 << self::BITS * $layer);
                }
            }
        }
        $this->link($noding->noded());
        if ([] !== $this->places) {
            $this->wind();
        }
    }

    /**
     * Half-edges about each place, counter-clockwise.
     *
     * @param array<int, array<int, int>> $lines weights by first and second end
     */
    private function link(array $lines): void
    {
        $numbers = [];
        $leaving = [];
        foreach ($lines as $from => $ends) {
            foreach ($ends as $to => $weight) {
                if (0 === $weight) {
                    continue;
                }
                foreach ([$from, $to] as $place) {
                    if (!isset($numbers[$place])) {
                        $numbers[$place] = \count($this->places);
                        $this->places[] = [$place >> Grid::BITS, $place & Grid::LOW];
                    }
                }
                [$a, $b] = [$numbers[$from], $numbers[$to]];
                $h = \count($this->halves);
                $this->halves[] = [$a, $b];
                $this->halves[] = [$b, $a];
                $leaving[$a][] = $h;
                $leaving[$b][] = $h + 1;
                $this->weights[] = $weight;
            }
        }
        foreach ($leaving as $halves) {
            $n = \count($halves);
            if ($n > 2) {
                usort($halves, $this->turn(...));
            }
            foreach ($halves as $i => $h) {
                $this->clockwise[$h] = $halves[$i > 0 ? $i - 1 : $n - 1];
            }
        }
        foreach ($this->clockwise as $h => $clockwise) {
            $this->next[$h ^ 1] = $clockwise;
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
    private function wind(): void
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
            $outside = $this->around($strips, $this->places[$this->halves[$leftmost][0]], $name, $group);
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
                    $stack[] = [$k ^ 1, 0 === ($k & 1) ? $winding - $this->weights[$k >> 1] : $winding + $this->weights[$k >> 1]];
                }
            }
        }
    }

    /** Of the half-edges that leave a group's leftmost place, lowest of such, the one with the outside to its left. */
    private function outward(int $leaving): int
    {
        // All directions lie from straight down, without it, over +x to straight up: the last counter-clockwise has the outside to its
        // left.
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
        [$bottom, $top] = [Grid::LOW, 0];
        foreach ($ys as $y) {
            [$bottom, $top] = [min($bottom, $y), max($top, $y)];
        }
        $height = max(1, (int) ceil(($top - $bottom) / sqrt(\count($this->weights))));
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
     */
    private function around(array $strips, array $place, int $own, array $group): int
    {
        $winding = 0;
        [$x, $y] = $place;
        [$bottom, $height, $lines] = $strips;
        foreach ($lines[intdiv($y - $bottom, $height)] ?? [] as $e) {
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
                $winding -= $isUpward ? $this->weights[$e] : -$this->weights[$e];
            }
        }

        return $winding;
    }

    /**
     * @param callable(list<int>): bool $isWanted
     *
     * @return list<Shape>
     */
    private function traced(int $layers, callable $isWanted): array
    {
        [$known, $isIn] = [[], []];
        foreach ($this->windings as $h => $winding) {
            $isIn[$h] = $known[$winding] ??= $isWanted(self::ofLayers($winding, $layers));
        }
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
            $ring = array_map(fn (array $p): array => $this->grid->point(($p[0] << Grid::BITS) + $p[1]), $ring);
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

    /** @return list<int> */
    private static function ofLayers(int $winding, int $layers): array
    {
        $half = 1 << (self::BITS - 1);
        $numbers = [];
        for ($layer = 0; $layer < $layers; ++$layer) {
            $numbers[] = $number = (($winding + $half) & (2 * $half - 1)) - $half;
            $winding = ($winding - $number) >> self::BITS;
        }

        return $numbers;
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
