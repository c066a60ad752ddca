<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Geometry\Segment;
use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Model\Wall;

/**
 * The planar network of centre lines: ends within a millimetre are one node, an end inside another wall's body lies on
 * that wall's centre line (T), and lines that cross share a node (X).
 *
 * It comes into being where it is asked for: what a node or an edge looks like hangs on its neighbours alone, so the
 * network round an edit is the same whether the rest of the plan was looked at or not.
 *
 * Half-edge 2e runs from an edge's `from` to its `to`, 2e + 1 back.
 *
 * @phpstan-type Edge array{from: int, to: int, half: float, wall: string, divides: bool, at: float}
 * @phpstan-type Half array{start: int, end: int, dx: float, dy: float, length: float, half: float, radius: float}
 */
final class Network
{
    /** Pieces at a flatter angle than this may lie on each other within the tolerance further than from their crossing: the tangent. */
    private const FLAT = 0.1;
    /** Crossings within the tolerance of each other are one node, in a chain of them: its place may be so far from the last, mm. */
    private const CHAIN_MM = 8.0 * Wall::JOIN_MM;

    /** @var list<array{float, float}> */
    public array $nodes = [];
    /** @var list<Edge> between neighbouring nodes; no two edges join the same nodes; `at` is the distance of its start along the wall */
    public array $edges = [];
    /** @var list<Half> half-edge → start, end, direction x, y, length, half thickness, radius (positive: centre to the left) */
    public array $halves = [];
    /** @var list<array{string, string, array{float, float}}> pairs of walls that lie on each other, and where */
    public array $overlaps = [];

    /** @var array<string, int> name of a landing or crossing → node */
    private array $made = [];
    /** @var array<string, list<Piece>> */
    private array $neighbours = [];
    /** @var array<string, list<Piece>> */
    private array $nearEnds = [];
    /** @var array<string, int> end of a piece → node before it is drawn on to a host */
    private array $base = [];
    /** @var array<string, array{float, float}|null> end of a piece → where it is drawn on to */
    private array $landings = [];
    /** @var array<string, array{float, float}> */
    private array $tips = [];
    /** @var array<string, int> */
    private array $ends = [];
    /** @var array<string, array<int, float>> piece → nodes between its ends, and how far from its start */
    private array $cuts = [];
    /** @var array<string, list<int>> piece → its edges, from start to end */
    private array $along = [];
    /** @var array<int, array<string, Piece>> node → pieces that are known to end there */
    private array $endingAt = [];
    /** @var array<int, list<int>> node → half-edges that leave it */
    private array $leaving = [];
    /** @var array<int, list<int>> node → the same, complete and counter-clockwise */
    private array $around = [];
    /** @var array<int, int> half-edge → the next one counter-clockwise about its start */
    private array $after = [];
    /** @var array<int, int> half-edge → the next one clockwise about its start */
    private array $before = [];
    /** @var array<string, int> */
    private array $between = [];

    public function __construct(private readonly PieceSource $pieces, private readonly Effort $effort = new Effort())
    {
    }

    /**
     * The edges of a piece from its start to its end.
     *
     * @return list<int>
     */
    public function along(Piece $piece): array
    {
        if (isset($this->along[$piece->key])) {
            return $this->along[$piece->key];
        }
        $from = $this->end($piece, 0);
        $to = $this->end($piece, 1);
        $a = $this->tip($piece, 0);
        $b = $this->tip($piece, 1);
        $length = hypot($b[0] - $a[0], $b[1] - $a[1]);
        if ($from === $to || $length <= 0.0) {
            return $this->along[$piece->key] = [];
        }
        $cuts = $this->cuts($piece);
        // What meets another that runs along this one, on its line, meets this one too.
        foreach ($this->near($piece) as $other) {
            foreach ($this->leans($piece, $other) ? $this->cuts($other) : [] as $node => $_) {
                if ($node !== $from && $node !== $to && null !== ($at = $this->on($node, $a, $b))) {
                    $cuts[$node] ??= $at * $length;
                }
            }
        }
        asort($cuts);
        $edges = [];
        $previous = $from;
        $at = 0.0;
        $cuts[$to] = $length;
        foreach ($cuts as $node => $reached) {
            if ($node !== $previous) {
                $edges[] = $this->edge($piece, $previous, $node, $piece->start + $at, [
                    ($b[0] - $a[0]) / $length,
                    ($b[1] - $a[1]) / $length,
                ]);
                $previous = $node;
                $at = $reached;
            }
        }

        return $this->along[$piece->key] = $edges;
    }

    /**
     * Nodes between a piece's ends where another ends on it or crosses it.
     *
     * @return array<int, float> node → distance from the start, mm
     */
    private function cuts(Piece $piece): array
    {
        if (isset($this->cuts[$piece->key])) {
            return $this->cuts[$piece->key];
        }
        [$from, $to] = [$this->end($piece, 0), $this->end($piece, 1)];
        [$a, $b] = [$this->tip($piece, 0), $this->tip($piece, 1)];
        $length = hypot($b[0] - $a[0], $b[1] - $a[1]);
        $cuts = [];
        foreach ($this->near($piece) as $other) {
            $start = $this->end($other, 0);
            $end = $this->end($other, 1);
            // T: the other's ends on this line.
            foreach ([$start, $end] as $node) {
                if ($node !== $from && $node !== $to && !isset($cuts[$node]) && null !== ($at = $this->on($node, $a, $b))) {
                    $cuts[$node] = $at * $length;
                }
            }
            // X: a crossing away from all four ends.
            if (
                $start !== $from
                && $start !== $to
                && $end !== $from
                && $end !== $to
                && null !== ($crossing = $this->crossing($piece, $other))
            ) {
                $node = $this->nodeAt(...$crossing);
                if ($node !== $from && $node !== $to) {
                    $cuts[$node] = hypot($crossing[0][0] - $a[0], $crossing[0][1] - $a[1]);
                }
            }
        }

        return $this->cuts[$piece->key] = $cuts;
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return float|null where a node lies on a line within the tolerance, as part of the way from a to b
     */
    private function on(int $node, array $a, array $b): ?float
    {
        [$x, $y, $t] = Segment::nearest($this->nodes[$node], $a, $b);

        return hypot($x - $this->nodes[$node][0], $y - $this->nodes[$node][1]) <= Wall::JOIN_MM ? $t : null;
    }

    private function leans(Piece $piece, Piece $other): bool
    {
        [$ux, $uy] = [$piece->b[0] - $piece->a[0], $piece->b[1] - $piece->a[1]];
        [$vx, $vy] = [$other->b[0] - $other->a[0], $other->b[1] - $other->a[1]];

        return abs($ux * $vy - $uy * $vx) < self::FLAT * abs($ux * $vx + $uy * $vy);
    }

    /**
     * Half-edges that leave a node, counter-clockwise by their direction from −180°.
     *
     * @return list<int>
     */
    public function around(int $node): array
    {
        if (isset($this->around[$node])) {
            return $this->around[$node];
        }
        [$x, $y] = $this->nodes[$node];
        $r = self::CHAIN_MM;
        foreach ($this->pieces->near($x - $r, $y - $r, $x + $r, $y + $r) as $piece) {
            $this->along($piece);
        }
        // What was drawn on to here may lie further off; going along it may tell of others.
        for ($done = -1; $done !== \count($this->endingAt[$node] ?? []);) {
            $done = \count($this->endingAt[$node] ?? []);
            foreach ($this->endingAt[$node] ?? [] as $piece) {
                $this->along($piece);
            }
        }
        $leaving = $this->leaving[$node] ?? [];
        if (\count($leaving) > 1) {
            $angles = [];
            foreach ($leaving as $h) {
                // From node to node, as the edges lie: the faces may run a little aside, and what nearly lies on each other would change
                // places.
                [$toX, $toY] = $this->nodes[$this->halves[$h]['end']];
                $angles[$h] = atan2($toY - $y, $toX - $x);
            }
            asort($angles);
            $leaving = array_keys($angles);
        }

        $n = \count($leaving);
        foreach ($leaving as $i => $h) {
            $this->after[$h] = $leaving[$i + 1 < $n ? $i + 1 : 0];
            $this->before[$h] = $leaving[$i > 0 ? $i - 1 : $n - 1];
        }

        return $this->around[$node] = $leaving;
    }

    /** The half-edge that leaves the same node next counter-clockwise. */
    public function after(int $half): int
    {
        if (!isset($this->after[$half])) {
            $this->around($this->halves[$half]['start']);
        }

        return $this->after[$half];
    }

    /** The half-edge that leaves the same node next clockwise. */
    public function before(int $half): int
    {
        if (!isset($this->before[$half])) {
            $this->around($this->halves[$half]['start']);
        }

        return $this->before[$half];
    }

    /** Whether nothing else meets the end of a piece. */
    public function isFree(Piece $piece, int $side): bool
    {
        return 1 === \count($this->around($this->end($piece, $side)));
    }

    /** Whether one other piece, and no third, meets the end of a piece there. */
    public function isCorner(Piece $piece, int $side): bool
    {
        return 2 === \count($this->around($this->end($piece, $side)));
    }

    /** The node of a piece's end; where it stops inside another wall's body, on that wall's centre line. */
    public function end(Piece $piece, int $side): int
    {
        $key = $piece->ends[$side];
        if (isset($this->ends[$key])) {
            return $this->ends[$key];
        }
        $landing = $this->landing($piece, $side);
        $node = null === $landing ? $this->base($piece, $side) : $this->nodeAt($landing, 'a'.$key, [$piece]);
        $this->endingAt[$node][$piece->key] = $piece;

        return $this->ends[$key] = $node;
    }

    /**
     * Where a piece's end lies before it is one with others within the tolerance.
     *
     * @return array{float, float}
     */
    private function tip(Piece $piece, int $side): array
    {
        $key = $piece->ends[$side];

        return $this->tips[$key] ??= $this->landing($piece, $side) ?? $this->nodes[$this->base($piece, $side)];
    }

    /** Of ends within the tolerance the one whose key comes first makes the node. */
    private function base(Piece $piece, int $side): int
    {
        $key = $piece->ends[$side];
        if (isset($this->base[$key])) {
            return $this->base[$key];
        }
        [$x, $y] = 0 === $side ? $piece->a : $piece->b;
        $first = [$piece, $side];
        $firstKey = $key;
        foreach ($this->nearEnd($piece, $side) as $other) {
            foreach ([$other->a, $other->b] as $s => [$ox, $oy]) {
                if (abs($ox - $x) <= Wall::JOIN_MM && hypot($ox - $x, $oy - $y) <= Wall::JOIN_MM && $other->ends[$s] < $firstKey) {
                    $first = [$other, $s];
                    $firstKey = $other->ends[$s];
                }
            }
        }

        return $this->base[$key] = $firstKey === $key ? $this->newNode($x, $y) : $this->base(...$first);
    }

    /**
     * Where a single end that stops inside another wall's body goes on to.
     *
     * @return array{float, float}|null
     */
    private function landing(Piece $piece, int $side): ?array
    {
        $key = $piece->ends[$side];

        return \array_key_exists($key, $this->landings) ? $this->landings[$key] : $this->landings[$key] = $this->findLanding($piece, $side);
    }

    /** @return array{float, float}|null */
    private function findLanding(Piece $piece, int $side): ?array
    {
        [$x, $y] = 0 === $side ? $piece->a : $piece->b;
        $hosts = [];
        foreach ($this->nearEnd($piece, $side) as $other) {
            foreach ([$other->a, $other->b] as [$ox, $oy]) {
                if (abs($ox - $x) <= Wall::JOIN_MM && hypot($ox - $x, $oy - $y) <= Wall::JOIN_MM) {
                    return null; // it meets another end
                }
            }
            $r = $other->half + Wall::JOIN_MM;
            if (
                max($other->a[0], $other->b[0]) + $r < $x
                || min($other->a[0], $other->b[0]) - $r > $x
                || max($other->a[1], $other->b[1]) + $r < $y
                || min($other->a[1], $other->b[1]) - $r > $y
            ) {
                continue;
            }
            [$nx, $ny] = Segment::nearest([$x, $y], $other->a, $other->b);
            $away = hypot($nx - $x, $ny - $y);
            if ($away <= $r) {
                if ($away <= Wall::JOIN_MM / 1000.0) {
                    return null; // it lies on the line already
                }
                $hosts[] = [$other, $away, $nx, $ny];
            }
        }
        $best = null;
        $start = 0 === $side ? $piece->b : $piece->a;
        foreach ($hosts as [$host, $away, $nx, $ny]) {
            $beyond = 0.0;
            // It is drawn on along its own direction to the centre line, unless it runs nearly along the host.
            $meeting = Segment::meeting($start, [$x, $y], $host->a, $host->b, Tolerance::LANDING_SINE);
            if (null !== $meeting) {
                [$vx, $vy] = [$host->b[0] - $host->a[0], $host->b[1] - $host->a[1]];
                $held = max(0.0, min(1.0, $meeting[1]));
                $beyond = abs($meeting[1] - $held) * hypot($vx, $vy);
                [$nx, $ny] = [$host->a[0] + $held * $vx, $host->a[1] + $held * $vy];
            }
            // Of the chords of an arc the one that is really met.
            if (null === $best || [$beyond, $away, $host->key] < [$best[0], $best[1], $best[3]]) {
                $best = [$beyond, $away, [$nx, $ny], $host->key];
            }
        }

        return null === $best ? null : $best[2];
    }

    /** @return list<Piece> whose bodies may touch this one's, in the order of their keys */
    private function near(Piece $piece): array
    {
        if (isset($this->neighbours[$piece->key])) {
            return $this->neighbours[$piece->key];
        }
        $r = $piece->half + 2.0 * Wall::JOIN_MM;
        $x1 = min($piece->a[0], $piece->b[0]) - $r;
        $y1 = min($piece->a[1], $piece->b[1]) - $r;
        $x2 = max($piece->a[0], $piece->b[0]) + $r;
        $y2 = max($piece->a[1], $piece->b[1]) + $r;
        foreach ([0, 1] as $side) {
            if (null !== ($tip = $this->landing($piece, $side))) {
                // Drawn on to a wall it meets what is drawn on to there as well, from as far as that wall is thick.
                $r = max([$r, ...array_map(static fn (Piece $p): float => 2.0 * $p->half, $this->nearEnd($piece, $side))]);
                [$x1, $y1, $x2, $y2] = [min($x1, $tip[0] - $r), min($y1, $tip[1] - $r), max($x2, $tip[0] + $r), max($y2, $tip[1] + $r)];
            }
        }
        $near = [];
        $others = $this->pieces->near($x1, $y1, $x2, $y2);
        $this->effort->spend(\count($others));
        foreach ($others as $other) {
            [$ax, $ay] = $other->a;
            [$bx, $by] = $other->b;
            $h = $other->half;
            if (
                ($ax < $bx ? $ax : $bx) - $h <= $x2
                && ($ax > $bx ? $ax : $bx) + $h >= $x1
                && ($ay < $by ? $ay : $by) - $h <= $y2
                && ($ay > $by ? $ay : $by) + $h >= $y1
                && $other->key !== $piece->key
            ) {
                $near[$other->key] = $other;
            }
        }
        ksort($near, \SORT_STRING);

        return $this->neighbours[$piece->key] = array_values($near);
    }

    /** @return list<Piece> whose bodies may touch one end of this one, in no order */
    private function nearEnd(Piece $piece, int $side): array
    {
        $key = $piece->ends[$side];
        if (isset($this->nearEnds[$key])) {
            return $this->nearEnds[$key];
        }
        [$x, $y] = 0 === $side ? $piece->a : $piece->b;
        $near = [];
        foreach ($this->pieces->near($x - Wall::JOIN_MM, $y - Wall::JOIN_MM, $x + Wall::JOIN_MM, $y + Wall::JOIN_MM) as $other) {
            if ($other !== $piece) {
                $near[] = $other;
            }
        }

        return $this->nearEnds[$key] = $near;
    }

    /** @param array{float, float} $direction of the whole piece: a node that lies beside it within the tolerance does not turn it */
    private function edge(Piece $piece, int $from, int $to, float $at, array $direction): int
    {
        $key = min($from, $to).','.max($from, $to);
        if (isset($this->between[$key])) {
            $e = $this->between[$key];
            $edge = $this->edges[$e];
            if ($edge['wall'] !== $piece->wall) {
                // A divider along a wall divides nothing more.
                if (!$piece->divides && !$edge['divides']) {
                    [$first, $second] = strcmp($edge['wall'], $piece->wall) < 0
                        ? [$edge['wall'], $piece->wall]
                        : [$piece->wall, $edge['wall']];
                    $this->overlaps[] = [$first, $second, $this->nodes[$to]];
                }
                if ($piece->half > $edge['half'] || ($piece->half === $edge['half'] && strcmp($piece->wall, $edge['wall']) < 0)) {
                    $this->edges[$e] = ['half' => $piece->half, 'wall' => $piece->wall, 'divides' => $piece->divides, 'at' => $at] + $edge;
                    $way = $edge['from'] === $from ? 1.0 : -1.0;
                    // Whichever of the two was met first, the faces run as those of the one that shows.
                    foreach ([2 * $e => $way, 2 * $e + 1 => -$way] as $h => $sign) {
                        $this->halves[$h] = [
                            'dx' => $sign * $direction[0], 'dy' => $sign * $direction[1], 'half' => $piece->half,
                            'radius' => $sign * $piece->radius,
                        ] + $this->halves[$h];
                    }
                }
            }

            return $e;
        }
        $e = \count($this->edges);
        $this->between[$key] = $e;
        $this->edges[] = [
            'from' => $from,
            'to' => $to,
            'half' => $piece->half,
            'wall' => $piece->wall,
            'divides' => $piece->divides,
            'at' => $at,
        ];
        [$ax, $ay] = $this->nodes[$from];
        [$bx, $by] = $this->nodes[$to];
        $length = hypot($bx - $ax, $by - $ay);
        [$dx, $dy] = $direction;
        $half = [
            'start' => $from, 'end' => $to, 'dx' => $dx, 'dy' => $dy, 'length' => $length, 'half' => $piece->half,
            'radius' => $piece->radius,
        ];
        $this->halves[] = $half;
        $this->halves[] = ['start' => $to, 'end' => $from, 'dx' => -$dx, 'dy' => -$dy, 'radius' => -$piece->radius] + $half;
        $this->leaving[$from][] = 2 * $e;
        $this->leaving[$to][] = 2 * $e + 1;
        unset($this->around[$from], $this->around[$to]);

        return $e;
    }

    /**
     * Where two pieces cross, and the name by which that is known; the same from either of them.
     *
     * @return array{array{float, float}, string, list<Piece>}|null
     */
    private function crossing(Piece $p, Piece $q): ?array
    {
        if ($p->key > $q->key) {
            [$p, $q] = [$q, $p];
        }
        $a = $this->tip($p, 0);
        $b = $this->tip($p, 1);
        $crossing = Segment::crossing($a, $b, $this->tip($q, 0), $this->tip($q, 1));

        return null === $crossing ? null : [
            [$a[0] + $crossing[0] * ($b[0] - $a[0]), $a[1] + $crossing[0] * ($b[1] - $a[1])],
            'b'.$p->key."\0".$q->key,
            [$p, $q],
        ];
    }

    /**
     * The node of a landing or a crossing. Within the tolerance of an end it is the end's; of several landings and
     * crossings within the tolerance the one whose name comes first makes the node, whoever asks first.
     *
     * @param array{float, float} $point
     * @param list<Piece> $of that land or cross there
     */
    private function nodeAt(array $point, string $name, array $of): int
    {
        if (isset($this->made[$name])) {
            return $this->made[$name];
        }
        [$x, $y] = $point;
        // What was drawn on to here may end further off.
        $through = array_column($of, null, 'key');
        $nearest = Wall::JOIN_MM;
        $node = null;
        foreach ($this->pieces->near($x - Wall::JOIN_MM, $y - Wall::JOIN_MM, $x + Wall::JOIN_MM, $y + Wall::JOIN_MM) as $piece) {
            foreach ([$piece->a, $piece->b] as $side => [$ex, $ey]) {
                // An end may have been led to another's place, as far again.
                $isNear = abs($ex - $x) <= 2.0 * Wall::JOIN_MM && abs($ey - $y) <= 2.0 * Wall::JOIN_MM;
                if ($isNear && null === $this->landing($piece, $side)) {
                    $base = $this->base($piece, $side);
                    $off = hypot($this->nodes[$base][0] - $x, $this->nodes[$base][1] - $y);
                    if ($off < $nearest) {
                        $nearest = $off;
                        $node = $base;
                    }
                }
            }
            [$nx, $ny] = Segment::nearest($point, $this->tip($piece, 0), $this->tip($piece, 1));
            if (hypot($nx - $x, $ny - $y) <= Wall::JOIN_MM) {
                $through[$piece->key] = $piece;
            }
        }
        if (null !== $node) {
            return $this->made[$name] = $node;
        }
        $first = [$point, $name, $of];
        foreach ($this->others($through) as $other) {
            if ($other[1] < $first[1] && hypot($other[0][0] - $x, $other[0][1] - $y) <= Wall::JOIN_MM) {
                $first = $other;
            }
        }

        return $this->made[$name] = $first[1] === $name ? $this->newNode($x, $y) : $this->nodeAt(...$first);
    }

    /**
     * Landings on some pieces and crossings between them.
     *
     * @param array<string, Piece> $pieces
     *
     * @return \Generator<array{array{float, float}, string, list<Piece>}>
     */
    private function others(array $pieces): \Generator
    {
        foreach ($pieces as $piece) {
            foreach ($this->near($piece) as $other) {
                foreach ([0, 1] as $side) {
                    if (null !== ($landing = $this->landing($other, $side))) {
                        yield [$landing, 'a'.$other->ends[$side], [$other]];
                    }
                }
                if ($other->key > $piece->key && isset($pieces[$other->key]) && null !== ($crossing = $this->crossing($piece, $other))) {
                    yield $crossing;
                }
            }
        }
    }

    private function newNode(float $x, float $y): int
    {
        $this->nodes[] = [$x, $y];

        return \count($this->nodes) - 1;
    }
}
