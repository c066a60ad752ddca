<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Internal;

/**
 * Walks round faces of a network and gives their boundary twice: along the centre lines and along the wall faces.
 *
 * The face of a half-edge lies to its left. Where two walls meet, the corner is where their faces cross (a mitre);
 * beyond MITRE_LIMIT half thicknesses from the node on the outer side, or where the faces are parallel, both faces end
 * square and a straight bevel joins them. A free end is squared.
 *
 *       left face of `out`   ╲ φ ╱  right face of `in`      t along out = (h_in + h_out cos φ) / sin φ
 *
 * @internal
 */
final class Faces
{
    public const MITRE_LIMIT = 4.0;
    private const PARALLEL_SINE = 1e-9;
    /** Round-off of a crossing that lies at the node itself, as with dividers of no thickness. */
    private const TOUCHING_MM = 1e-9;

    /** @var array<string, array{float, float}> walls so short that a corner lies beyond their end, and where */
    public array $tooShort = [];

    /** @var array<int, Face> by half-edge */
    private array $known = [];

    public function __construct(public readonly Network $network)
    {
    }

    /** The face to the left of a half-edge. */
    public function of(int $first): Face
    {
        if (isset($this->known[$first])) {
            return $this->known[$first];
        }
        $halves = [];
        $centre = [];
        $faces = [];
        $radii = [];
        $h = $first;
        do {
            $halves[] = $h;
            $node = $this->network->halves[$h][1];
            $next = $this->nextAt($node, $h ^ 1);
            $centre[] = $this->network->nodes[$node];
            // The first point of a corner ends the stretch along this half-edge's left face.
            $radius = $this->leftRadius($h);
            foreach ($this->corner($node, $next, $h ^ 1) as $point) {
                $faces[] = $point;
                $radii[] = $radius;
                $radius = 0.0;
            }
            $h = $next;
        } while ($h !== $first);
        $face = new Face($halves, $centre, $faces, $radii);
        foreach ($halves as $h) {
            $this->known[$h] = $face;
        }

        return $face;
    }

    /** The half-edge that leaves a node next clockwise from another one. */
    private function nextAt(int $node, int $leaving): int
    {
        $around = $this->network->around($node);
        $n = \count($around);
        if (2 === $n) {
            return $around[0] === $leaving ? $around[1] : $around[0];
        }
        $i = array_search($leaving, $around, true);

        return $around[((int) $i + $n - 1) % $n];
    }

    /** Radius of a half-edge's left face, positive where its centre lies to the left; 0 where it is straight. */
    public function leftRadius(int $half): float
    {
        [, , , , , $thickness, $radius] = $this->network->halves[$half];

        return 0.0 === $radius ? 0.0 : $radius - $thickness;
    }

    /**
     * The body of a half-edge's edge between its two nodes: the right face from its start to its end, and the left face back.
     * A bevel or a free end's square belongs to the wall before it, going counter-clockwise.
     *
     * @return array{list<array{float, float}>, list<array{float, float}>}
     */
    public function sides(int $half): array
    {
        [$start, $end] = $this->network->halves[$half];
        $twin = $half ^ 1;
        $atStart = [...$this->corner($start, $this->nextAt($start, $half), $half)];
        $atEnd = [...$this->corner($end, $twin, $this->afterAt($end, $twin))];
        $right = [$atStart[0], ...array_reverse($atEnd)];
        $atEnd = [...$this->corner($end, $this->nextAt($end, $twin), $twin)];
        $atStart = [...$this->corner($start, $half, $this->afterAt($start, $half))];

        return [$right, [$atEnd[0], ...array_reverse($atStart)]];
    }

    /** The half-edge that leaves a node next counter-clockwise from another one. */
    private function afterAt(int $node, int $leaving): int
    {
        $around = $this->network->around($node);
        $i = array_search($leaving, $around, true);

        return $around[((int) $i + 1) % \count($around)];
    }

    /**
     * The corner between the left face of `out` and the right face of `in`, both leaving the node, `in` being the next
     * counter-clockwise. Points in walking order, that is from `in` to `out`.
     *
     * @return list<array{float, float}>
     */
    public function corner(int $node, int $out, int $in): array
    {
        [$x, $y] = $this->network->nodes[$node];
        [, , $ox, $oy, $outLength, $outHalf] = $this->network->halves[$out];
        [, , $ix, $iy, $inLength, $inHalf] = $this->network->halves[$in];
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
