<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Tolerance;

/**
 * What lies within what: the bounded face that holds a point or a group of walls, and the groups inside a face.
 */
final readonly class Enclosures
{
    /** How far a ray looks at once. */
    private const STRIDE_MM = 10_000.0;

    public function __construct(private PieceSource $pieces, private Faces $faces)
    {
    }

    /** @return Face|null the innermost bounded face that holds the point */
    public function at(float $x, float $y): ?Face
    {
        while (null !== ($half = $this->firstToTheRight($x, $y))) {
            $face = $this->faces->of($half);
            if ($face->isBounded()) {
                return $face;
            }
            // The outside of a group that stands free: what holds that, holds the point.
            [$x, $y] = self::rightmost($face->centre);
        }

        return null;
    }

    /** @return Face|null the innermost bounded face round the outside of a group */
    public function round(Face $outer): ?Face
    {
        return $this->at(...self::rightmost($outer->centre));
    }

    /**
     * @return list<Face> outer faces of the groups of walls that stand free inside a bounded face
     */
    public function inside(Face $face): array
    {
        $network = $this->faces->network;
        [$x1, $y1, $x2, $y2] = Polygon::bounds([...$face->centre, $face->centre[0]]);
        $boundary = [];
        foreach ($face->halves as $h) {
            $boundary[$network->halves[$h]['start']] = true;
        }
        $nodes = [];
        foreach ($this->pieces->near($x1, $y1, $x2, $y2) as $piece) {
            foreach ([$piece->a, $piece->b] as $side => [$x, $y]) {
                if ($x > $x1 && $x < $x2 && $y > $y1 && $y < $y2) {
                    $node = $network->end($piece, $side);
                    if (!isset($boundary[$node]) && !isset($nodes[$node]) && Polygon::contains($face->centre, ...$network->nodes[$node])) {
                        $nodes[$node] = $network->nodes[$node][0];
                    }
                }
            }
        }
        $islands = [];
        arsort($nodes);
        while (null !== ($node = array_key_first($nodes))) {
            // Nothing lies to the right of it, so the outside is what holds the direction along +x.
            $leaving = $network->around($node);
            $out = $leaving[\count($leaving) - 1];
            foreach ($leaving as $h) {
                if ($network->halves[$h]['dy'] < 0.0) {
                    $out = $h;
                }
            }
            $island = $this->faces->of($out);
            unset($nodes[$node]);
            foreach ($island->halves as $h) {
                unset($nodes[$network->halves[$h]['start']]);
            }
            foreach (array_keys($nodes) as $other) {
                if (Polygon::contains($island->centre, ...$network->nodes[$other])) {
                    unset($nodes[$other]);
                }
            }
            $islands[] = $island;
        }

        return $islands;
    }

    /** The half-edge that a ray along +x meets first, with the ray's start to its left. */
    private function firstToTheRight(float $x, float $y): ?int
    {
        $network = $this->faces->network;
        $end = $this->pieces->farRight();
        for ($from = $x; $from <= $end; $from += self::STRIDE_MM) {
            $best = \INF;
            $first = null;
            foreach ($this->pieces->near($from, $y, $from + self::STRIDE_MM, $y) as $piece) {
                foreach ($network->along($piece) as $e) {
                    ['start' => $a, 'end' => $b] = $network->halves[2 * $e];
                    [$ax, $ay] = $network->nodes[$a];
                    [$bx, $by] = $network->nodes[$b];
                    if (($ay > $y) === ($by > $y)) {
                        continue;
                    }
                    $at = $ax + ($y - $ay) * ($bx - $ax) / ($by - $ay);
                    if ($at > $x + Tolerance::ROUND_OFF_MM && $at < $best) {
                        $best = $at;
                        $first = $by > $ay ? 2 * $e : 2 * $e + 1;
                    }
                }
            }
            if (null !== $first && $best <= $from + self::STRIDE_MM) {
                return $first;
            }
        }

        return null;
    }

    /**
     * @param list<array{float, float}> $ring
     *
     * @return array{float, float}
     */
    private static function rightmost(array $ring): array
    {
        $best = $ring[0] ?? [0.0, 0.0];
        foreach ($ring as $point) {
            if ($point[0] > $best[0]) {
                $best = $point;
            }
        }

        return $best;
    }
}
