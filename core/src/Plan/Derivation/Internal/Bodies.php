<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation\Internal;

use Plinth\Core\Geometry\Clip;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Effort;
use Plinth\Core\Plan\Network\Face;
use Plinth\Core\Plan\Network\Faces;
use Plinth\Core\Plan\Network\Piece;
use Plinth\Core\Plan\Network\PieceSource;

/**
 * The body of each edge by itself, and which of them run into others beside their joints.
 *
 * Where none does, walking round the faces tells all there is to tell. Where some do, what they cover together is found by laying
 * their bodies over each other.
 *
 * The body of an edge is its strip, on either side cut back to its neighbour's centre line where that stands at less than a right
 * angle, and at each end the wedges between it and its neighbours where those stand beyond half a turn.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Polygon
 * @phpstan-import-type Shape from Overlay
 *
 * @phpstan-type Hull array{points: Ring, box: array{float, float, float, float}}
 */
final class Bodies
{
    /**
     * What laying two bodies over each other costs, and one ring among many: as so many pairs of lines that are held against each other.
     */
    private const PAIR = 200;
    private const RING = 20;
    /** What two bodies share is no overlap below this, mm²: a thousand kilometres out doubles tell a metre by a ten-thousandth of a mm². */
    private const LEAST_MM2 = 0.001;
    /** Two that lie on each other no deeper than this touch: areas know of it, nobody is told. Half of what joins ends, mm. */
    private const SLIGHT_MM = Wall::JOIN_MM / 2.0;
    /** A mitre of another wall reaches so far from its end at first; further where thicker walls are about, mm. */
    private const MARGIN_MM = 1000.0;
    /** So many chords stand for one of the network's, where an arc lies on others. */
    private const CHORDS = 2;
    /** Walls that lean on each other by less than this lie on each other: the cosine of 20°. */
    private const ALONGSIDE = 0.94;

    /** @var array<int, list<Ring>> */
    private array $rings = [];
    /** @var array<int, Hull> */
    private array $hulls = [];
    /** @var array<int, array<int, array{float, float}>> edge → edges that it runs into beside a joint, and where */
    private array $overlaps = [];
    /** @var array<int, array<int, true>> edge → edges that it runs into by less than anybody sees */
    private array $slight = [];
    /** @var array<int, float> */
    private array $areas = [];
    /** @var array<int, bool> */
    private array $plain = [];

    public function __construct(
        private readonly PieceSource $pieces,
        private readonly Faces $faces,
        private readonly Effort $effort = new Effort(),
    ) {
    }

    /** Whether an edge's faces meet those of its neighbours within its length, and its body no other. */
    public function isPlain(int $edge): bool
    {
        return $this->plain[$edge] ??= !$this->runsAway($edge) && [] === $this->overlaps($edge);
    }

    /**
     * Edges that an edge's body runs into where they do not meet it, and the middle of what both cover.
     *
     * @return array<int, array{float, float}>
     */
    public function overlaps(int $edge): array
    {
        if (isset($this->overlaps[$edge])) {
            return $this->overlaps[$edge];
        }
        $found = [];
        $network = $this->faces->network;
        if ($network->edges[$edge]['half'] > 0.0) {
            ['box' => $box] = $this->hull($edge);
            foreach ($this->near($box) as $other) {
                if (
                    $other !== $edge
                    && !$this->meet($edge, $other)
                    && !$this->areOfOneArc($edge, $other)
                    && null !== ($at = $this->shared($edge, $other))
                ) {
                    $found[$other] = $at;
                }
            }
        }

        return $this->overlaps[$edge] = $found;
    }

    /** Whether an edge runs into another by less than anybody sees. */
    public function isSlight(int $edge, int $other): bool
    {
        $this->overlaps($edge);

        return isset($this->slight[$edge][$other]);
    }

    /**
     * Edges that meet an edge at a flat angle, so that their bodies lie on each other as far as the shorter of them goes, and where.
     *
     * @return array<int, array{float, float}>
     */
    public function alongside(int $edge): array
    {
        $found = [];
        $halves = $this->faces->network->halves;
        foreach ([2 * $edge, 2 * $edge + 1] as $half) {
            foreach (array_keys($this->faces->runningAwayWith($half)) as $other) {
                if ($this->leans($half, $other)) {
                    $reach = min($halves[$half]['length'], $halves[$other]['length']) / 2.0;
                    [$x, $y] = $this->faces->network->nodes[$halves[$half]['start']];
                    $found[$other >> 1] = [$x + $reach * $halves[$half]['dx'], $y + $reach * $halves[$half]['dy']];
                }
            }
        }

        return $found;
    }

    /** @return array{float, float}|null where an edge is shorter than what it meets there is thick */
    public function tooShortAt(int $edge): ?array
    {
        foreach ([2 * $edge, 2 * $edge + 1] as $half) {
            foreach ($this->faces->runningAwayWith($half) as $other => $isOwn) {
                if ($isOwn && !$this->leans($half, $other)) {
                    return $this->faces->network->nodes[$this->faces->network->halves[$half]['start']];
                }
            }
        }

        return null;
    }

    /** @return bool whether two edges are both beside one that is shorter than they are thick: they belong together there */
    public function areJoinedByOneTooShort(int $edge, int $other): bool
    {
        foreach ($this->neighbours($edge) as $between) {
            if ($this->runsAway($between) && $this->meet($between, $other)) {
                return true;
            }
        }

        return false;
    }

    /** mm² that an edge adds to those before it: all of them together are their union */
    public function area(int $edge): float
    {
        if (isset($this->areas[$edge])) {
            return $this->areas[$edge];
        }
        $network = $this->faces->network;
        $rings = $this->of($edge);
        $box = Polygon::bounds(array_merge([$network->nodes[$network->edges[$edge]['from']]], ...$rings));
        $without = [];
        foreach ($this->near($box) as $other) {
            $isOther = $other !== $edge && $network->edges[$other]['half'] > 0.0;
            if (
                !$isOther
                || (!$this->meet($edge, $other) && !isset($this->overlaps($edge)[$other]))
                || $this->liesBeside($edge, $other)
                || $this->liesBeside($other, $edge)
            ) {
                continue;
            }
            if ($this->isPlain($other)) {
                $without[] = $this->quad($other);
            } elseif ($this->comesBefore($other, $edge)) {
                $without = [...$without, ...$this->of($other)];
            }
        }

        $this->effort->spend(self::RING * \count($without));

        return $this->areas[$edge] = Overlay::area(Overlay::difference($rings, self::within($without, $box)));
    }

    /**
     * What straight edges and the chords of arcs cover that no others do. Straight ones come first: at the ends of arcs the faces of
     * single chords fold back over each other, and what the straight ones leave is theirs.
     *
     * @param non-empty-list<int> $edges one straight one, or all chords of an arc
     *
     * @return list<Shape>
     */
    public function footprint(array $edges): array
    {
        $network = $this->faces->network;
        $isArc = static fn (int $e): bool => 0.0 !== $network->halves[2 * $e]['radius'];
        ['wall' => $wall, 'half' => $half] = $network->edges[$edges[0]];
        $isCurved = $isArc($edges[0]);
        if (!$isCurved && ($this->isPlain($edges[0]) || 0.0 === $half)) {
            return 0.0 === $half ? [] : [['outer' => $this->quad($edges[0]), 'holes' => []]];
        }
        $rings = array_merge(...array_map($this->of(...), $edges));
        $points = array_merge(...$rings);
        $without = [];
        foreach ([] === $points ? [] : $this->near(Polygon::bounds($points)) as $other) {
            $of = $network->edges[$other]['wall'];
            if (\in_array($other, $edges, true) || 0.0 === $network->edges[$other]['half'] || ($isCurved && $of === $wall)) {
                continue;
            }
            if ($isArc($other)) {
                array_push($without, ...($isCurved && strcmp($of, $wall) < 0 ? $this->of($other) : []));
            } elseif ($this->isPlain($other)) {
                $without[] = $this->quad($other);
            } elseif ($isCurved || $this->comesBefore($other, $edges[0])) {
                array_push($without, ...$this->of($other));
            }
        }
        $this->effort->spend(self::RING * \count($without));
        // An arc lies between the faces of its neighbours, too, however they fold.
        $faces = $isCurved ? array_map($this->quad(...), $edges) : [];

        return Overlay::parts([$rings, $faces, $without], static fn (array $w): bool => ($w[0] > 0 || 0 !== $w[1]) && $w[2] <= 0);
    }

    /**
     * What bodies leave of a face.
     *
     * @param list<Face> $islands outer faces of what stands free inside
     *
     * @return list<Shape>
     */
    public function clear(Face $face, array $islands): array
    {
        if ([] === $face->centre) {
            return [];
        }
        $box = Polygon::bounds($face->centre);
        $bounding = [];
        foreach ([$face, ...$islands] as $ring) {
            foreach ($ring->halves as $half) {
                $bounding[$half >> 1] = true;
            }
        }
        $without = [];
        foreach ($this->near($box) as $edge) {
            // One that runs into no other keeps between the faces on either side of it.
            if (isset($bounding[$edge]) || !$this->isPlain($edge)) {
                array_push($without, ...$this->covers($edge));
            }
        }

        $this->effort->spend(self::RING * \count($without));

        return Overlay::difference(
            [$face->centre, ...array_map(static fn (Face $island): array => $island->centre, $islands)],
            self::within($without, $box),
        );
    }

    /**
     * Parts of convex rings in a box: what lies outside it changes nothing, to the last digit.
     *
     * @param list<Ring> $rings
     * @param array{float, float, float, float} $box
     *
     * @return list<Ring>
     */
    private static function within(array $rings, array $box): array
    {
        return array_values(
            array_filter(
                array_map(static fn (array $ring): array => Clip::box($ring, $box), $rings),
                static fn (array $ring): bool => \count($ring) > 2,
            ),
        );
    }

    /**
     * @param list<int> $edges
     *
     * @return list<Shape> what they cover together
     */
    public function union(array $edges): array
    {
        return Overlay::union(array_merge(...array_map($this->covers(...), $edges)));
    }

    /**
     * What an edge covers together with all others: of a plain one as its faces meet those of its neighbours.
     *
     * @return list<Ring>
     */
    private function covers(int $edge): array
    {
        ['half' => $half, 'radius' => $radius] = $this->faces->network->halves[2 * $edge];

        return 0.0 === $radius && $half > 0.0 && $this->isPlain($edge) ? [$this->quad($edge)] : $this->of($edge);
    }

    /** @return list<int> edges that meet an edge at either end */
    public function neighbours(int $edge): array
    {
        $network = $this->faces->network;
        ['from' => $from, 'to' => $to] = $network->edges[$edge];
        $found = [];
        foreach ([...$network->around($from), ...$network->around($to)] as $half) {
            $found[$half >> 1] = true;
        }
        unset($found[$edge]);

        return array_keys($found);
    }

    private function leans(int $half, int $other): bool
    {
        ['dx' => $ax, 'dy' => $ay] = $this->faces->network->halves[$half];
        ['dx' => $bx, 'dy' => $by] = $this->faces->network->halves[$other];

        return $ax * $bx + $ay * $by > self::ALONGSIDE;
    }

    private function runsAway(int $edge): bool
    {
        $network = $this->faces->network;
        foreach ([2 * $edge, 2 * $edge + 1] as $half) {
            $before = $network->before($half);
            if ($this->faces->runsAwayAfter($half) || $this->faces->runsAwayAfter($before)) {
                return true;
            }
            // The right face runs from the first point of one corner to the last of another: those may have passed each other.
            ['dx' => $dx, 'dy' => $dy, 'radius' => $radius] = $network->halves[$half];
            $atEnd = $this->faces->corner($half ^ 1);
            [[$x, $y], [$toX, $toY]] = [$this->faces->corner($before)[0], $atEnd[\count($atEnd) - 1]];
            if (0.0 === $radius && ($toX - $x) * $dx + ($toY - $y) * $dy < 0.0) {
                return true;
            }
        }

        return false;
    }

    /** @return list<Ring> counter-clockwise; none of a divider */
    private function of(int $edge): array
    {
        return $this->rings[$edge] ??= $this->make($edge);
    }

    /** @return list<Ring> */
    private function make(int $edge): array
    {
        $network = $this->faces->network;
        $rings = [];
        foreach ([2 * $edge, 2 * $edge + 1] as $half) {
            ['start' => $start, 'end' => $end, 'dx' => $dx, 'dy' => $dy, 'half' => $thickness] = $network->halves[$half];
            if (0.0 === $thickness) {
                return [];
            }
            [$a, $b] = [$network->nodes[$start], $network->nodes[$end]];
            [$nx, $ny] = [-$dy * $thickness, $dx * $thickness];
            $strip = 0.0 === $network->halves[$half]['radius'] ? [
                $a,
                $b,
                [$b[0] + $nx, $b[1] + $ny],
                [$a[0] + $nx, $a[1] + $ny],
            ] : $this->curved($half);
            $strip = $this->cutBack($strip, $a, $half, $network->after($half), -1.0);
            $strip = $this->cutBack($strip, $b, $half ^ 1, $network->before($half ^ 1), 1.0);
            if (\count($strip) > 2) {
                $rings[] = $strip;
            }
            $rings = [...$rings, ...$this->wedges($half), ...$this->wedges($network->before($half))];
        }

        return $rings;
    }

    /**
     * What the corner between a half-edge and the next one counter-clockwise adds to their strips.
     *
     * @return list<Ring>
     */
    private function wedges(int $out): array
    {
        $network = $this->faces->network;
        $in = $network->after($out);
        ['start' => $start, 'dx' => $ox, 'dy' => $oy, 'half' => $outHalf, 'radius' => $outRadius] = $network->halves[$out];
        ['dx' => $ix, 'dy' => $iy, 'half' => $inHalf, 'radius' => $inRadius] = $network->halves[$in];
        [$x, $y] = $network->nodes[$start];
        $isCurvedInside = (0.0 !== $outRadius || 0.0 !== $inRadius) && $ox * $iy - $oy * $ix > 0.0;
        if ($isCurvedInside || $this->faces->endSquareAfter($out)) {
            return [];
        }
        $fan = [
            [$x - $oy * $outHalf, $y + $ox * $outHalf],
            ...array_reverse($this->faces->corner($out)),
            [$x + $iy * $inHalf, $y - $ix * $inHalf],
        ];
        $rings = [];
        foreach (\array_slice($fan, 1) as $i => $to) {
            $ring = [[$x, $y], $fan[$i], $to];
            $area = Polygon::area($ring);
            // Where one face is cut short the fan turns back on the strips; they may be shorter than it.
            if ($area > 0.0 || ($area < 0.0 && $this->faces->runsAwayAfter($out))) {
                $rings[] = $area > 0.0 ? $ring : array_reverse($ring);
            }
        }

        return $rings;
    }

    /**
     * What lies between the chord of an arc and its left face, which is drawn by shorter chords that take in exactly its area.
     *
     * @return Ring
     */
    private function curved(int $half): array
    {
        $network = $this->faces->network;
        ['dx' => $dx, 'dy' => $dy, 'length' => $length, 'half' => $thickness, 'radius' => $radius] = $network->halves[$half];
        [[$ax, $ay], $b] = [$network->nodes[$network->halves[$half]['start']], $network->nodes[$network->halves[$half]['end']]];
        $angle = 2.0 * asin(min(1.0, $length / (2.0 * $radius)));
        $toCentre = $radius * cos($angle / 2.0);
        [$cx, $cy] = [$ax + $length / 2.0 * $dx - $toCentre * $dy, $ay + $length / 2.0 * $dy + $toCentre * $dx];
        $each = $angle / self::CHORDS;
        $face = ($radius - $thickness / cos($angle / 2.0)) / $radius * sqrt($each / sin($each));
        $strip = [[$ax, $ay], $b];
        for ($k = self::CHORDS; $k >= 0; --$k) {
            [$c, $s] = [$face * cos($k * $each), $face * sin($k * $each)];
            $strip[] = [$cx + $c * ($ax - $cx) - $s * ($ay - $cy), $cy + $s * ($ax - $cx) + $c * ($ay - $cy)];
        }

        return $strip;
    }

    /**
     * @param Ring $strip convex
     * @param array{float, float} $node
     * @param float $side −1 keeps what lies to the right of the neighbour, 1 what lies to its left
     *
     * @return Ring
     */
    private function cutBack(array $strip, array $node, int $half, int $neighbour, float $side): array
    {
        ['dx' => $dx, 'dy' => $dy] = $this->faces->network->halves[$half];
        ['dx' => $nx, 'dy' => $ny] = $this->faces->network->halves[$neighbour];
        $isSharp = $half !== $neighbour && $dx * $nx + $dy * $ny > 0.0 && $side * ($dx * $ny - $dy * $nx) < 0.0;
        // Of faces that never meet neither holds the other back.
        if (!$isSharp || $this->faces->endSquareAfter($side < 0.0 ? $half : $neighbour)) {
            return $strip;
        }

        return Clip::leftOf($strip, $node, [$side * $nx, $side * $ny]);
    }

    /** @return non-empty-list<array{float, float}> between its two nodes, as its faces meet those of its neighbours */
    private function quad(int $edge): array
    {
        $network = $this->faces->network;
        [$right, $left] = $this->faces->sides(2 * $edge);

        return self::withoutSpikes([
            $network->nodes[$network->edges[$edge]['from']],
            ...$right,
            $network->nodes[$network->edges[$edge]['to']],
            ...$left,
        ]);
    }

    /**
     * Where a thin wall goes on in a thick one, the step between their faces is walked out and back.
     *
     * @param non-empty-list<array{float, float}> $ring
     *
     * @return non-empty-list<array{float, float}> without places at which it turns straight back
     */
    private static function withoutSpikes(array $ring): array
    {
        for ($i = 0; $i < \count($ring) && \count($ring) > 3; ++$i) {
            [[$ax, $ay], [$bx, $by], [$cx, $cy]] = [$ring[(0 === $i ? \count($ring) : $i) - 1], $ring[$i], $ring[($i + 1) % \count($ring)]];
            [$px, $py, $qx, $qy] = [$bx - $ax, $by - $ay, $cx - $bx, $cy - $by];
            $off = abs($px * $qy - $py * $qx);
            if ($px * $qx + $py * $qy < 0.0 && $off <= Tolerance::ROUND_OFF_MM * max(hypot($px, $py), hypot($qx, $qy))) {
                $left = [...\array_slice($ring, 0, $i), ...\array_slice($ring, $i + 1)];
                [$ring, $i] = [[] === $left ? $ring : $left, -1];
            }
        }

        return $ring;
    }

    /** @return Hull */
    private function hull(int $edge): array
    {
        if (!isset($this->hulls[$edge])) {
            $points = $this->corners($edge);
            $this->hulls[$edge] = ['points' => $points, 'box' => [] === $points ? [\INF, \INF, -\INF, -\INF] : Polygon::bounds($points)];
        }

        return $this->hulls[$edge];
    }

    /** @return Ring places that an edge's body lies between */
    private function corners(int $edge): array
    {
        $network = $this->faces->network;
        ['start' => $from, 'end' => $to, 'dx' => $dx, 'dy' => $dy, 'half' => $half, 'radius' => $radius] = $network->halves[2 * $edge];
        if (0.0 === $half) {
            return [];
        }
        if (0.0 !== $radius) {
            return array_merge(...$this->of($edge));
        }
        [[$ax, $ay], [$bx, $by], $nx, $ny] = [$network->nodes[$from], $network->nodes[$to], -$dy * $half, $dx * $half];

        return [
            [$ax + $nx, $ay + $ny], [$ax - $nx, $ay - $ny], [$bx + $nx, $by + $ny], [$bx - $nx, $by - $ny],
            ...$this->faces->corner(2 * $edge), ...$this->faces->corner($network->before(2 * $edge)),
            ...$this->faces->corner(2 * $edge + 1), ...$this->faces->corner($network->before(2 * $edge + 1)),
            // Where faces never meet, a neighbour's line cuts the strip and its wedges reach elsewhere.
            ...($this->runsAway($edge) ? array_merge(...$this->of($edge)) : []),
        ];
    }

    /**
     * @param array{float, float, float, float} $box
     *
     * @return list<int> edges whose bodies may reach into a box
     */
    private function near(array $box): array
    {
        [$x1, $y1, $x2, $y2] = $box;
        $margin = self::MARGIN_MM;
        do {
            $reach = $margin;
            $pieces = $this->pieces->near($x1 - $reach, $y1 - $reach, $x2 + $reach, $y2 + $reach);
            $margin = max([$reach, ...array_map(static fn (Piece $p): float => Faces::MITRE_LIMIT * $p->half, $pieces)]);
        } while ($margin > $reach);
        $found = [];
        foreach ($pieces as $piece) {
            foreach ($this->faces->network->along($piece) as $edge) {
                ['box' => [$u1, $v1, $u2, $v2]] = $this->hull($edge);
                if ($u1 <= $x2 && $u2 >= $x1 && $v1 <= $y2 && $v2 >= $y1) {
                    $found[$edge] = true;
                }
            }
        }

        return array_keys($found);
    }

    private function meet(int $edge, int $other): bool
    {
        ['from' => $a, 'to' => $b] = $this->faces->network->edges[$edge];
        ['from' => $c, 'to' => $d] = $this->faces->network->edges[$other];

        return $a === $c || $a === $d || $b === $c || $b === $d;
    }

    /** Chords of an arc lie beside each other as long as it is not bent within its own thickness. */
    private function areOfOneArc(int $edge, int $other): bool
    {
        $network = $this->faces->network;

        return 0.0 !== $network->halves[2 * $edge]['radius'] && $network->edges[$edge]['wall'] === $network->edges[$other]['wall'];
    }

    /** @return array{float, float}|null the middle of the largest area that both bodies cover */
    private function shared(int $edge, int $other): ?array
    {
        if ($this->liesBeside($edge, $other) || $this->liesBeside($other, $edge)) {
            return null;
        }
        $this->effort->spend(self::PAIR);
        $network = $this->faces->network;
        if (0.0 === $network->halves[2 * $edge]['radius'] && 0.0 === $network->halves[2 * $other]['radius']) {
            [$area, $largest] = self::sharedByConvex($this->of($edge), $this->of($other));

            return $this->middleOf($edge, $other, $area, $largest);
        }
        $shapes = Overlay::parts([$this->of($edge), $this->of($other)], static fn (array $w): bool => $w[0] > 0 && $w[1] > 0);

        return $this->middleOf($edge, $other, Overlay::area($shapes), $shapes[\count($shapes) - 1]['outer'] ?? []);
    }

    /**
     * @param float $area mm² that both cover
     * @param Ring $largest part of it
     *
     * @return array{float, float}|null the middle of the largest part; null where there is as good as none
     */
    private function middleOf(int $edge, int $other, float $area, array $largest): ?array
    {
        if ([] === $largest || $area < self::LEAST_MM2) {
            return null;
        }
        $round = 0.0;
        foreach ($largest as $i => [$x, $y]) {
            [$u, $v] = $largest[$i + 1] ?? $largest[0];
            $round += hypot($u - $x, $v - $y);
        }
        // Of what is much longer than deep, the depth is its area over half its way round.
        if ($area < self::SLIGHT_MM * $round / 2.0) {
            $this->slight[$edge][$other] = true;
        }

        return Polygon::labelPoint($largest);
    }

    /**
     * @param list<Ring> $ones convex, beside each other
     * @param list<Ring> $others the same
     *
     * @return array{float, Ring} what both cover, mm², and the largest part of it
     */
    private static function sharedByConvex(array $ones, array $others): array
    {
        [$area, $most, $largest] = [0.0, 0.0, []];
        foreach ($ones as $one) {
            foreach ($others as $other) {
                $part = Clip::convex($one, $other);
                $covers = Polygon::area($part);
                $area += $covers;
                [$most, $largest] = $covers > $most ? [$covers, $part] : [$most, $largest];
            }
        }

        return [$area, $largest];
    }

    /** Whether all of another body lies to one side of this one's strip, or before or behind it. */
    private function liesBeside(int $edge, int $other): bool
    {
        ['start' => $start, 'dx' => $dx, 'dy' => $dy] = $this->faces->network->halves[2 * $edge];
        [$x, $y] = $this->faces->network->nodes[$start];
        $spans = [];
        foreach ([$edge, $other] as $each) {
            $along = [];
            $across = [];
            foreach ($this->hull($each)['points'] as [$px, $py]) {
                $along[] = ($px - $x) * $dx + ($py - $y) * $dy;
                $across[] = ($py - $y) * $dx - ($px - $x) * $dy;
            }
            $spans[] = [] === $along ? [[\INF, -\INF], [\INF, -\INF]] : [[min($along), max($along)], [min($across), max($across)]];
        }
        foreach ([0, 1] as $axis) {
            [[$a1, $a2], [$b1, $b2]] = [$spans[0][$axis], $spans[1][$axis]];
            if (min($a2, $b2) - max($a1, $b1) < Tolerance::STILL_MM) {
                return true;
            }
        }

        return false;
    }

    /** Of walls that lie on each other the thicker one keeps its body whole. */
    private function comesBefore(int $edge, int $other): bool
    {
        [$a, $b] = [$this->faces->network->edges[$edge], $this->faces->network->edges[$other]];

        return [-$a['half'], strcmp($a['wall'], $b['wall']), $a['at']] < [-$b['half'], 0, $b['at']];
    }
}
