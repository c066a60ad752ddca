<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Geometry\Tolerance;

/**
 * Walks round faces of a network and gives their boundary twice: along the centre lines and along the wall faces.
 *
 * The face of a half-edge lies to its left. Where two walls meet, the corner is where their faces cross (a mitre);
 * beyond MITRE_LIMIT half thicknesses from the node on the outer side, or where the faces are parallel, both faces end
 * square and a straight bevel joins them. A free end is squared. Faces that would cross only beyond the end of a wall end square
 * as well: what such walls cover is told by laying their bodies over each other.
 *
 *       left face of `out`   ╲ φ ╱  right face of `in`      t along out = (h_in + h_out cos φ) / sin φ
 */
final class Faces
{
    public const MITRE_LIMIT = 4.0;
    /** Half-edges that lean on each other by less than 8° may lie the other way round by their faces: the cosine. */
    private const NEARLY_ALONG = 0.99;

    /**
     * Half-edges whose left face crosses that of the next one counter-clockwise beyond the end of either: whether beyond its own, and
     * beyond the other's.
     *
     * @var array<int, array{bool, bool}>
     */
    private array $runningAway = [];
    /** @var array<int, true> half-edges whose left face and that of the next one counter-clockwise never meet: both end square */
    private array $square = [];
    /** @var array<int, Face> by half-edge */
    private array $known = [];
    /** @var array<int, non-empty-list<array{float, float}>> by the half-edge to whose left they lie */
    private array $corners = [];

    public function __construct(public readonly Network $network)
    {
    }

    /** The face to the left of a half-edge. */
    public function of(int $first): Face
    {
        if (isset($this->known[$first])) {
            return $this->known[$first];
        }
        $halves = $this->walk($first);
        $centre = [];
        $faces = [];
        $radii = [];
        $joints = [];
        foreach ($halves as $i => $h) {
            $next = $halves[($i + 1) % \count($halves)];
            $node = $this->network->halves[$h]['end'];
            $centre[] = $this->network->nodes[$node];
            // The first point of a corner ends the stretch along this half-edge's left face.
            $radius = $this->leftRadius($h);
            $corner = $this->corner($next);
            if (0.0 !== $radius) {
                $this->cutBack($faces, $radii, $joints, $corner[0], $h);
            }
            $isJoint = $this->isJoint($h, $next);
            // A corner may reach along an arc beyond its first chords: their joints lie behind it.
            if (!$isJoint || [] === $faces || $this->isAhead($h, $faces[\count($faces) - 1], $corner[0])) {
                foreach ($corner as $point) {
                    $faces[] = $point;
                    $radii[] = $radius;
                    $joints[] = $isJoint;
                    $radius = 0.0;
                }
            }
        }
        if (0.0 !== $this->leftRadius($halves[0])) {
            $this->cutBack($faces, $radii, $joints, $faces[0], $halves[0]);
        }
        $face = new Face($halves, $centre, $faces, $radii);
        foreach ($halves as $h) {
            $this->known[$h] = $face;
        }

        return $face;
    }

    /**
     * The half-edges round a face, in order, beginning with one that ends at a junction and not inside an arc.
     *
     * @return non-empty-list<int>
     */
    private function walk(int $first): array
    {
        $halves = [];
        $h = $first;
        $begin = null;
        do {
            $next = $this->network->before($h ^ 1);
            $begin ??= $this->isJoint($h, $next) ? null : \count($halves);
            $halves[] = $h;
            $h = $next;
        } while ($h !== $first);

        /** @var non-empty-list<int> $turned */
        $turned = [...\array_slice($halves, $begin ?? 0), ...\array_slice($halves, 0, $begin ?? 0)];

        return $turned;
    }

    /**
     * Takes back joints of an arc that its corner at the far end lies before.
     *
     * @param list<array{float, float}> $faces
     * @param list<float> $radii
     * @param list<bool> $joints
     * @param array{float, float} $corner
     */
    private function cutBack(array &$faces, array &$radii, array &$joints, array $corner, int $half): void
    {
        for ($i = \count($faces) - 1; $i > 0 && $joints[$i] && !$this->isAhead($half, $faces[$i], $corner); --$i) {
            array_pop($faces);
            array_pop($radii);
            array_pop($joints);
        }
    }

    /** Whether two half-edges in a row are chords of one arc. */
    private function isJoint(int $half, int $next): bool
    {
        $radius = $this->network->halves[$half]['radius'];

        return 0.0 !== $radius && $radius === $this->network->halves[$next]['radius']
            && $this->network->edges[$half >> 1]['wall'] === $this->network->edges[$next >> 1]['wall'];
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     */
    private function isAhead(int $half, array $from, array $to): bool
    {
        ['dx' => $dx, 'dy' => $dy] = $this->network->halves[$half];

        return ($to[0] - $from[0]) * $dx + ($to[1] - $from[1]) * $dy > 0.0;
    }

    /** Radius of a half-edge's left face, positive where its centre lies to the left; 0 where it is straight. */
    public function leftRadius(int $half): float
    {
        ['half' => $thickness, 'radius' => $radius] = $this->network->halves[$half];

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
        $twin = $half ^ 1;
        $sides = [];
        foreach ([[$half, $twin], [$twin, $half]] as [$from, $to]) {
            $before = $this->network->before($from);
            $last = array_reverse($this->corner($to));
            // Round a free end one comes back to where the other face begins: there that goes on by itself.
            $isFree = $this->network->before($to) === $to && \count($last) > 1;
            $sides[] = [$this->corner($before)[0], ...$isFree ? \array_slice($last, 0, -1) : $last];
        }

        return [$sides[0], $sides[1]];
    }

    /**
     * The corner between the left face of `out` and the right face of the half-edge that leaves the same node next
     * counter-clockwise. Points in walking order, that is from that one to `out`.
     *
     * @return non-empty-list<array{float, float}>
     */
    public function corner(int $out): array
    {
        return $this->corners[$out] ??= $this->meet($this->network->halves[$out]['start'], $out, $this->network->after($out));
    }

    /** Whether the left face of a half-edge and that of the next one counter-clockwise cross only beyond the end of either. */
    public function runsAwayAfter(int $out): bool
    {
        $this->corner($out);

        return isset($this->runningAway[$out]);
    }

    /** Whether the left face of a half-edge and that of the next one counter-clockwise both end square, for they never meet. */
    public function endSquareAfter(int $out): bool
    {
        $this->corner($out);

        return isset($this->square[$out]);
    }

    /**
     * Others that leave the same node, next to a half-edge, and whose faces cross its own only beyond the end of either; and whether
     * that is its own.
     *
     * @return array<int, bool>
     */
    public function runningAwayWith(int $half): array
    {
        $before = $this->network->before($half);
        $found = [];
        if ($this->runsAwayAfter($half)) {
            $found[$this->network->after($half)] = $this->runningAway[$half][0];
        }
        if ($this->runsAwayAfter($before)) {
            $found[$before] = ($found[$before] ?? false) || $this->runningAway[$before][1];
        }

        return $found;
    }

    /** @return non-empty-list<array{float, float}> */
    private function meet(int $node, int $out, int $in): array
    {
        [$x, $y] = $this->network->nodes[$node];
        ['dx' => $ox, 'dy' => $oy, 'length' => $outLength, 'half' => $outHalf] = $this->network->halves[$out];
        ['dx' => $ix, 'dy' => $iy, 'length' => $inLength, 'half' => $inHalf] = $this->network->halves[$in];
        $onIn = [$x + $iy * $inHalf, $y - $ix * $inHalf];
        $onOut = [$x - $oy * $outHalf, $y + $ox * $outHalf];
        if ($out === $in) {
            return [$onIn, $onOut];
        }
        $sin = $ox * $iy - $oy * $ix;
        $cos = $ox * $ix + $oy * $iy;
        if ($cos > self::NEARLY_ALONG && $sin <= 0.0 && $this->turns($out, $in) > 0.0) {
            // By their faces the next one lies before this one: as good as on each other.
            $this->runningAway[$out] = [true, true];
            $this->square[$out] = true;

            return [$onIn, $onOut];
        }
        if (abs($sin) <= Tolerance::PARALLEL_SINE) {
            if ($cos > 0.0) {
                $this->runningAway[$out] = [true, true];
                $this->square[$out] = true;
            }

            return $cos < 0.0 && abs($inHalf - $outHalf) < Tolerance::ROUND_OFF_MM ? [$onIn] : [$onIn, $onOut];
        }
        $alongOut = ($inHalf + $outHalf * $cos) / $sin;
        $alongIn = ($outHalf + $inHalf * $cos) / $sin;
        $isInner = $alongOut > -Tolerance::ROUND_OFF_MM && $alongIn > -Tolerance::ROUND_OFF_MM;
        $isNear = hypot($outHalf, $alongOut) <= self::MITRE_LIMIT * max($outHalf, $inHalf);
        if ($sin > 0.0 && $this->areStraight($out, $in)) {
            // At less than half a turn each covers the square end of the other, if it is long enough.
            $short = [
                max($isInner ? $alongOut : 0.0, $cos < 0.0 ? $inHalf * $sin : 0.0) > $outLength,
                max($isInner ? $alongIn : 0.0, $cos < 0.0 ? $outHalf * $sin : 0.0) > $inLength,
            ];
            if (\in_array(true, $short, true) || ($isNear && ($alongOut > $outLength || $alongIn > $inLength))) {
                $this->runningAway[$out] = $short;
            }
        }
        if ($isInner && isset($this->runningAway[$out])) {
            $this->square[$out] = true;

            return [$onIn, $onOut];
        }
        if ($isInner) {
            // An inner corner is where the faces cross, however far off; chords of an arc have others behind them.
            return [$this->onArcs([$onOut[0] + $alongOut * $ox, $onOut[1] + $alongOut * $oy], $out, $in)];
        }
        $mitre = $this->onArcs([$onOut[0] + $alongOut * $ox, $onOut[1] + $alongOut * $oy], $out, $in);
        if ($alongOut < Tolerance::ROUND_OFF_MM && $alongIn < Tolerance::ROUND_OFF_MM) {
            return $isNear ? [$mitre] : [$onIn, $onOut];
        }
        $passes = match (0.0) {
            $outHalf => $this->goesOnBehind($in, $this->network->before($out)),
            $inHalf => $this->goesOnBehind($out, $this->network->after($in)),
            default => false,
        };
        if ($passes) {
            // A divider that ends aslant at a wall meets its face behind the node, where the wall goes on.
            return [$mitre];
        }

        // Nearly straight on with unequal thickness: one face would run on past the node, the other be cut short.
        return $alongOut < 0.0
            ? array_reverse(self::step([$x, $y], [$ox, $oy, $onOut], [$ix, $iy, $onIn], $mitre, $isNear))
            : self::step([$x, $y], [$ix, $iy, $onIn], [$ox, $oy, $onOut], $mitre, $isNear);
    }

    /** Whether another half-edge of a node goes on straight, and as thick, behind where one begins. */
    private function goesOnBehind(int $half, int $other): bool
    {
        $one = $this->network->halves[$half];
        $two = $this->network->halves[$other];

        return $one['half'] > 0.0 && abs($one['half'] - $two['half']) < Tolerance::ROUND_OFF_MM
            && $one['dx'] * $two['dx'] + $one['dy'] * $two['dy'] < -self::NEARLY_ALONG;
    }

    private function areStraight(int $half, int $other): bool
    {
        return 0.0 === $this->network->halves[$half]['radius'] && 0.0 === $this->network->halves[$other]['radius'];
    }

    /** mm², positive where the second half-edge, from node to node, leaves to the left of the first */
    private function turns(int $first, int $second): float
    {
        $nodes = $this->network->nodes;
        [['start' => $from, 'end' => $a], ['end' => $b]] = [$this->network->halves[$first], $this->network->halves[$second]];
        [$x, $y] = $nodes[$from];

        return ($nodes[$a][0] - $x) * ($nodes[$b][1] - $y) - ($nodes[$a][1] - $y) * ($nodes[$b][0] - $x);
    }

    /**
     * Where the left face of `out` and the right face of `in` really cross, where one of them is curved: the crossing of
     * their chords is near it, but a corner may reach over many chords.
     *
     * @param array{float, float} $near
     *
     * @return array{float, float}
     */
    private function onArcs(array $near, int $out, int $in): array
    {
        if ($this->areStraight($out, $in) || $this->isJoint($in ^ 1, $out)) {
            return $near;
        }
        [$a, $b] = [$this->faceOf($out, 1.0), $this->faceOf($in, -1.0)];
        $crossings = match (true) {
            isset($a['r'], $b['r']) => self::circles($a, $b),
            isset($a['r']) => self::lineAndCircle($b, $a),
            default => self::lineAndCircle($a, $b),
        };
        $best = $near;
        $off = \INF;
        foreach ($crossings as $point) {
            $away = hypot($point[0] - $near[0], $point[1] - $near[1]);
            if ($away < $off) {
                [$best, $off] = [$point, $away];
            }
        }

        return $best;
    }

    /**
     * A face of a half-edge as a line (point and direction) or a circle.
     *
     * @param float $side 1 its left face, −1 its right one
     *
     * @return array{x: float, y: float, dx: float, dy: float, r?: float}
     */
    private function faceOf(int $half, float $side): array
    {
        ['dx' => $dx, 'dy' => $dy, 'length' => $length, 'half' => $h, 'radius' => $radius] = $this->network->halves[$half];
        [$x, $y] = $this->network->nodes[$this->network->halves[$half]['start']];
        if (0.0 === $radius) {
            return ['x' => $x - $side * $h * $dy, 'y' => $y + $side * $h * $dx, 'dx' => $dx, 'dy' => $dy];
        }
        $cosine = sqrt(max(0.0, 1.0 - ($length / (2.0 * $radius)) ** 2));
        $toCentre = $radius * $cosine;

        return [
            'x' => $x + $length / 2.0 * $dx - $toCentre * $dy,
            'y' => $y + $length / 2.0 * $dy + $toCentre * $dx,
            'dx' => $dx,
            'dy' => $dy,
            'r' => abs($radius - $side * $h / $cosine),
        ];
    }

    /**
     * @param array{x: float, y: float, dx: float, dy: float, r?: float} $line
     * @param array{x: float, y: float, dx: float, dy: float, r?: float} $circle
     *
     * @return list<array{float, float}>
     */
    private static function lineAndCircle(array $line, array $circle): array
    {
        $along = ($circle['x'] - $line['x']) * $line['dx'] + ($circle['y'] - $line['y']) * $line['dy'];
        $across = ($circle['y'] - $line['y']) * $line['dx'] - ($circle['x'] - $line['x']) * $line['dy'];
        $square = ($circle['r'] ?? 0.0) ** 2 - $across ** 2;

        return $square < 0.0 ? [] : array_map(
            static fn (float $t): array => [$line['x'] + $t * $line['dx'], $line['y'] + $t * $line['dy']],
            [$along - sqrt($square), $along + sqrt($square)],
        );
    }

    /**
     * @param array{x: float, y: float, dx: float, dy: float, r?: float} $a
     * @param array{x: float, y: float, dx: float, dy: float, r?: float} $b
     *
     * @return list<array{float, float}>
     */
    private static function circles(array $a, array $b): array
    {
        $apart = hypot($b['x'] - $a['x'], $b['y'] - $a['y']);
        if ($apart < Tolerance::ROUND_OFF_MM) {
            return [];
        }
        [$ux, $uy] = [($b['x'] - $a['x']) / $apart, ($b['y'] - $a['y']) / $apart];
        // The chord that both circles share lies square to the line between their centres, this far along it.
        $along = ($apart ** 2 + ($a['r'] ?? 0.0) ** 2 - ($b['r'] ?? 0.0) ** 2) / (2.0 * $apart);

        return self::lineAndCircle(['x' => $a['x'] + $along * $ux, 'y' => $a['y'] + $along * $uy, 'dx' => -$uy, 'dy' => $ux], $a);
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
     * @return non-empty-list<array{float, float}> from the long face to the cut one
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
