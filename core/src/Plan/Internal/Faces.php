<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Internal;

use Plinth\Core\Geometry\Polygon;

/**
 * Walks round every face of a network and gives its boundary twice: along the centre lines and along the wall faces.
 *
 * Half-edge 2e runs from an edge's `from` to its `to`, 2e + 1 back; the face lies to its left. Where two walls meet,
 * the corner is where their faces cross (a mitre); beyond MITRE_LIMIT half thicknesses from the node on the outer side,
 * or where the faces are parallel, both faces end square and a straight bevel joins them. A free end is squared.
 *
 *       left face of `out`   ╲ φ ╱  right face of `in`      t along out = (h_in + h_out cos φ) / sin φ
 *
 * @internal
 *
 * @phpstan-type Ring list<array{float, float}>
 * @phpstan-type Face array{centre: Ring, faces: Ring, centreArea: float, component: int}
 */
final class Faces
{
    public const MITRE_LIMIT = 4.0;
    private const PARALLEL_SINE = 1e-9;
    /** Round-off of a crossing that lies at the node itself, as with dividers of no thickness. */
    private const TOUCHING_MM = 1e-9;

    /** @var list<Face> bounded faces, counter-clockwise */
    public array $bounded = [];
    /** @var list<Face> the outer boundary of each connected group, clockwise as walked */
    public array $outer = [];
    /** @var array<string, array{float, float}> walls so short that a corner lies beyond their end, and where */
    public array $tooShort = [];

    /** @var list<array{int, int, float, float, float, float}> half-edge → start, end, direction x, y, length, half thickness */
    private array $half = [];
    /** @var list<list<int>> node → outgoing half-edges, counter-clockwise */
    private array $out = [];
    /** @var list<int> half-edge → its place in of its start */
    private array $rank = [];

    private function __construct(private readonly Network $network)
    {
    }

    public static function of(Network $network): self
    {
        $faces = new self($network);
        $faces->sortHalfEdges();
        $faces->walk($faces->components());

        return $faces;
    }

    private function sortHalfEdges(): void
    {
        $out = array_fill(0, \count($this->network->nodes), []);
        $angles = [];
        foreach ($this->network->edges as $edge) {
            [$ax, $ay] = $this->network->nodes[$edge['from']];
            [$bx, $by] = $this->network->nodes[$edge['to']];
            $length = hypot($bx - $ax, $by - $ay);
            $dx = ($bx - $ax) / $length;
            $dy = ($by - $ay) / $length;
            $this->half[] = [$edge['from'], $edge['to'], $dx, $dy, $length, $edge['half']];
            $this->half[] = [$edge['to'], $edge['from'], -$dx, -$dy, $length, $edge['half']];
            $angles[] = atan2($dy, $dx);
            $angles[] = atan2(-$dy, -$dx);
            $out[$edge['from']][] = \count($this->half) - 2;
            $out[$edge['to']][] = \count($this->half) - 1;
        }
        $rank = array_fill(0, \count($this->half), 0);
        foreach ($out as $node => $list) {
            usort($list, static fn (int $a, int $b): int => $angles[$a] <=> $angles[$b]);
            foreach ($list as $i => $h) {
                $rank[$h] = $i;
            }
            $out[$node] = $list;
        }
        $this->out = $out;
        $this->rank = array_values($rank);
    }

    /** @return list<int> node → number of its connected group */
    private function components(): array
    {
        $component = array_fill(0, \count($this->network->nodes), -1);
        $count = 0;
        foreach ($this->out as $start => $_) {
            if (-1 !== $component[$start]) {
                continue;
            }
            $stack = [$start];
            $component[$start] = $count;
            while (null !== ($node = array_pop($stack))) {
                foreach ($this->out[$node] as $h) {
                    $next = $this->half[$h][1];
                    if (-1 === $component[$next]) {
                        $component[$next] = $count;
                        $stack[] = $next;
                    }
                }
            }
            ++$count;
        }

        return $component;
    }

    /** @param list<int> $component */
    private function walk(array $component): void
    {
        $seen = array_fill(0, \count($this->half), false);
        foreach ($this->half as $first => [$start]) {
            if ($seen[$first]) {
                continue;
            }
            $centre = [];
            $faces = [];
            $h = $first;
            do {
                $seen[$h] = true;
                $node = $this->half[$h][1];
                $twin = $h ^ 1;
                $around = $this->out[$node];
                $next = $around[($this->rank[$twin] + \count($around) - 1) % \count($around)];
                $centre[] = $this->network->nodes[$node];
                foreach ($this->corner($node, $next, $twin) as $point) {
                    $faces[] = $point;
                }
                $h = $next;
            } while ($h !== $first);
            $face = ['centre' => $centre, 'faces' => $faces, 'centreArea' => Polygon::area($centre), 'component' => $component[$start]];
            // Walls without a loop enclose nothing: their only face is the outer one, of area zero.
            if ($face['centreArea'] > 1e-6) {
                $this->bounded[] = $face;
            } else {
                $this->outer[] = $face;
            }
        }
    }

    /**
     * The corner between the left face of `out` and the right face of `in`, both leaving the node, `in` being the next
     * counter-clockwise. Points in walking order, that is from `in` to `out`.
     *
     * @return list<array{float, float}>
     */
    private function corner(int $node, int $out, int $in): array
    {
        [$x, $y] = $this->network->nodes[$node];
        [, , $ox, $oy, $outLength, $outHalf] = $this->half[$out];
        [, , $ix, $iy, $inLength, $inHalf] = $this->half[$in];
        $onIn = [$x + $iy * $inHalf, $y - $ix * $inHalf];
        $onOut = [$x - $oy * $outHalf, $y + $ox * $outHalf];
        if ($out === $in) {
            return [$onIn, $onOut];
        }
        $sin = $ox * $iy - $oy * $ix;
        $cos = $ox * $ix + $oy * $iy;
        if (abs($sin) <= self::PARALLEL_SINE) {
            return $cos < 0.0 && abs($inHalf - $outHalf) < 1e-9 ? [$onIn] : [$onIn, $onOut];
        }
        $alongOut = ($inHalf + $outHalf * $cos) / $sin;
        $alongIn = ($outHalf + $inHalf * $cos) / $sin;
        if ($alongOut > -self::TOUCHING_MM && $alongIn > -self::TOUCHING_MM) {
            // An inner corner is where the faces cross, however far off.
            if ($alongOut > $outLength || $alongIn > $inLength) {
                $short = $alongOut > $outLength ? $out : $in;
                $this->tooShort[$this->network->edges[$short >> 1]['wall']] = [$x, $y];
            }

            return [[$onOut[0] + $alongOut * $ox, $onOut[1] + $alongOut * $oy]];
        }
        $mitre = [$onOut[0] + $alongOut * $ox, $onOut[1] + $alongOut * $oy];
        $isNear = hypot($outHalf, $alongOut) <= self::MITRE_LIMIT * max($outHalf, $inHalf);
        if ($alongOut < self::TOUCHING_MM && $alongIn < self::TOUCHING_MM) {
            return $isNear ? [$mitre] : [$onIn, $onOut];
        }

        // Nearly straight on with unequal thickness: one face would run on past the node, the other be cut short.
        return $alongOut < 0.0
            ? array_reverse(self::step([$x, $y], [$ox, $oy, $onOut], [$ix, $iy, $onIn], $mitre, $isNear))
            : self::step([$x, $y], [$ix, $iy, $onIn], [$ox, $oy, $onOut], $mitre, $isNear);
    }

    /**
     * The corner between a face that would run on past the node and one that the crossing would cut short. The mitre
     * holds where it only adds to the walls; where it would cut into the thicker one, that keeps its square end.
     *
     * @param array{float, float} $node
     * @param array{float, float, array{float, float}} $long direction, and where its face ends square
     * @param array{float, float, array{float, float}} $cut
     * @param array{float, float} $mitre
     *
     * @return list<array{float, float}> from the long face to the cut one
     */
    private static function step(array $node, array $long, array $cut, array $mitre, bool $isNear): array
    {
        [$lx, $ly, $onLong] = $long;
        [$cx, $cy, $onCut] = $cut;
        // Outside the cut wall's face: further from its centre line than its own corner.
        $outward = [$onCut[0] - $node[0], $onCut[1] - $node[1]];
        $isOutside = ($onLong[0] - $onCut[0]) * $outward[0] + ($onLong[1] - $onCut[1]) * $outward[1] > 0.0;
        if ($isOutside) {
            if ($isNear) {
                return [$mitre];
            }

            return ($onCut[0] - $node[0]) * $lx + ($onCut[1] - $node[1]) * $ly > 0.0
                ? [$onLong, self::atEnd($node, [$lx, $ly], $onCut, [$cx, $cy])]
                : [$onLong, $onCut];
        }

        return $isNear || ($onLong[0] - $node[0]) * $cx + ($onLong[1] - $node[1]) * $cy > 0.0
            ? [self::atEnd($node, [$cx, $cy], $onLong, [$lx, $ly]), $onCut]
            : [$onLong, $onCut];
    }

    /**
     * Where a face line crosses the square end of a wall that starts at the node.
     *
     * @param array{float, float} $node
     * @param array{float, float} $wall its direction
     * @param array{float, float} $face a point of the face line
     * @param array{float, float} $direction of the face line
     *
     * @return array{float, float}
     */
    private static function atEnd(array $node, array $wall, array $face, array $direction): array
    {
        $t = (($node[0] - $face[0]) * $wall[0] + ($node[1] - $face[1]) * $wall[1]) / ($direction[0] * $wall[0] + $direction[1] * $wall[1]);

        return [$face[0] + $t * $direction[0], $face[1] + $t * $direction[1]];
    }
}
