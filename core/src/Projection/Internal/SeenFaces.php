<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

use Plinth\Core\Geometry\Newell;
use Plinth\Core\Projection\View;

/**
 * Faces of bodies as a view has them: what lies before a cut or too far behind it is taken off, and what is seen edge-on is left out.
 *
 * Faces that are seen from inside their body count where they lie in one plane with others: what is buried between two bodies is no edge.
 *
 * @internal
 *
 * @phpstan-import-type Place from Facet
 */
final class SeenFaces
{
    /** Faces that are turned to the line of sight by less are seen edge-on. */
    private const EDGE_ON = 1e-6;
    /** Chords turn by less than 25° from one to the next, as a cosine; common practice, no source. */
    private const ROUND = 0.906;
    private const UPRIGHT_MM = 1e-6;
    /** What has upright faces in no more directions is not round. */
    private const PLAIN_BEARINGS = 5;
    /** Chords of one arc are as wide as each other, but for this part. */
    private const ALIKE = 0.01;

    private Planes $planes;
    /** @var list<Facet> */
    private array $front = [];
    /** @var list<array{PlacedBody, non-empty-list<non-empty-list<Place>>, list<list<bool>>, Place, non-empty-list<Place>}> */
    private array $back = [];

    private function __construct(private readonly View $view)
    {
        $this->planes = new Planes();
    }

    /**
     * @param list<PlacedBody> $bodies
     * @param list<Facet> $cuts that lie before all of them
     * @param bool $isAll whether what is hidden is wanted as well
     *
     * @return list<Facet>
     */
    public static function of(array $bodies, View $view, array $cuts, bool $isAll): array
    {
        if ([] === $bodies) {
            return [];
        }
        $seen = new self($view);
        $grid = new DepthGrid([
            min(array_map(static fn (PlacedBody $b): float => $b->u0, $bodies)),
            min(array_map(static fn (PlacedBody $b): float => $b->v0, $bodies)),
            max(array_map(static fn (PlacedBody $b): float => $b->u1, $bodies)),
            max(array_map(static fn (PlacedBody $b): float => $b->v1, $bodies)),
        ], 2 * \count($bodies));
        foreach ($cuts as $cut) {
            $grid->put($cut, 0);
        }
        // Nearest first: most of a building lies behind its walls, and is not looked at.
        usort($bodies, static fn (PlacedBody $a, PlacedBody $b): int => $a->w0 <=> $b->w0);
        foreach ($bodies as $body) {
            if ($isAll || !$grid->hides($body->u0, $body->v0, $body->u1, $body->v1, $body->w0)) {
                $known = \count($seen->front);
                $seen->take($body);
                for ($i = $known; $i < \count($seen->front); ++$i) {
                    $grid->put($seen->front[$i], $i);
                }
            }
        }

        return [...$seen->front, ...$seen->turnedAway($isAll)];
    }

    private function take(PlacedBody $body): void
    {
        $isWhole = [] === $this->view->steps && \INF === $this->view->depth;
        $steps = [] === $this->view->steps ? [[-\INF, \INF, -\INF]] : $this->view->steps;
        $places = $body->places;
        [$normals, $bearings] = [[], []];
        foreach ($body->faces as $f => $face) {
            [$nu, $nv, $nw] = $normals[$f] = self::normal($places, $face[0]);
            if (abs($nv) < self::EDGE_ON * (abs($nu) + abs($nw))) {
                $bearings[(int) (atan2($nu, $nw) * 100.0)] = true;
            }
        }
        $smooth = \count($bearings) > self::PLAIN_BEARINGS ? self::smooth($places, $body->faces, $normals) : [];
        $smooth += [] === $body->smooth ? [] : self::stated($body, $normals);
        foreach ($body->faces as $f => $face) {
            [$nu, $nv, $nw] = $normals[$f];
            $length = sqrt($nu * $nu + $nv * $nv + $nw * $nw);
            if ($length <= 0.0 || abs($nw) < self::EDGE_ON * $length) {
                continue;
            }
            [$rings, $drawn] = [[], []];
            foreach ($face as $ring) {
                $corners = [];
                foreach ($ring as $vertex) {
                    $corners[] = $places[$vertex];
                }
                if ([] !== $corners) {
                    $rings[] = $corners;
                    $drawn[] = [] === $smooth ? array_fill(0, \count($ring), true) : self::drawn($ring, $smooth);
                }
            }
            if ([] === $rings) {
                continue;
            }
            $length = $nw > 0.0 ? $length : -$length;
            $normal = [$nu / $length, $nv / $length, $nw / $length];
            foreach ($isWhole ? [null] : $steps as $step) {
                $clipped = null === $step ? [$rings, $drawn] : self::clipped($rings, $drawn, $step, $this->view->depth);
                if (null !== $clipped && $nw > 0.0) {
                    $plane = $this->planes->number($normal, $rings[0], $body->kind, true);
                    $this->front[] = self::facet($body, $clipped, $normal, $rings[0], $plane, true);
                } elseif (null !== $clipped) {
                    $this->back[] = [$body, ...$clipped, $normal, $rings[0]];
                }
            }
        }
    }

    /** @return list<Facet> those seen from inside their body: all, or that lie in one plane with one that is seen from outside */
    private function turnedAway(bool $isAll): array
    {
        $facets = [];
        foreach ($this->back as [$body, $rings, $drawn, $normal, $whole]) {
            $plane = $this->planes->number($normal, $whole, $body->kind, $isAll);
            if ($plane >= 0) {
                $facets[] = self::facet($body, [$rings, $drawn], $normal, $whole, $plane, false);
            }
        }

        return $facets;
    }

    /**
     * @param array{non-empty-list<non-empty-list<Place>>, list<list<bool>>} $clipped
     * @param Place $normal
     * @param non-empty-list<Place> $ring that lies in its plane
     */
    private static function facet(PlacedBody $body, array $clipped, array $normal, array $ring, int $plane, bool $isFront): Facet
    {
        [$nu, $nv, $nw] = $normal;
        $offset = $nu * $ring[0][0] + $nv * $ring[0][1] + $nw * $ring[0][2];

        return new Facet($clipped[0], $clipped[1], -$nu / $nw, -$nv / $nw, $offset / $nw, $plane, $isFront, $body->number);
    }

    /**
     * Which way a face looks. Seen along w, u and v change places with what turns to the left: w is positive where it looks at one.
     *
     * @param list<Place> $places
     * @param list<int> $ring
     *
     * @return Place
     */
    private static function normal(array $places, array $ring): array
    {
        if (4 === \count($ring)) {
            // Of four corners that is what their diagonals span.
            [[$au, $av, $aw], [$bu, $bv, $bw]] = [$places[$ring[0]], $places[$ring[1]]];
            [[$cu, $cv, $cw], [$du, $dv, $dw]] = [$places[$ring[2]], $places[$ring[3]]];
            [$pu, $pv, $pw, $qu, $qv, $qw] = [$cu - $au, $cv - $av, $cw - $aw, $du - $bu, $dv - $bv, $dw - $bw];

            return [$pv * $qw - $pw * $qv, $pw * $qu - $pu * $qw, $pu * $qv - $pv * $qu];
        }

        return Newell::normal(array_map(static fn (int $v): array => $places[$v], $ring));
    }

    /**
     * Upright edges between chords of what is round: it is drawn as round, with its outline alone.
     *
     * @param list<Place> $places
     * @param list<non-empty-list<list<int>>> $faces
     * @param array<int, Place> $normals of them
     *
     * @return array<string, true> by numbers of both vertices
     */
    private static function smooth(array $places, array $faces, array $normals): array
    {
        [$turns, $smooth] = [[], []];
        foreach ($faces as $f => $face) {
            [$nu, $nv, $nw] = $normals[$f];
            foreach ($face[0] as $i => $b) {
                $a = $face[0][$i > 0 ? $i - 1 : \count($face[0]) - 1];
                [[$au, , $aw], [$bu, , $bw]] = [$places[$a], $places[$b]];
                if (abs($au - $bu) + abs($aw - $bw) > self::UPRIGHT_MM) {
                    continue;
                }
                $key = $a < $b ? "$a,$b" : "$b,$a";
                $length = sqrt($nu ** 2 + $nv ** 2 + $nw ** 2);
                $width = self::width($places, $face[0]);
                if (!isset($turns[$key])) {
                    $turns[$key] = [$nu / $length, $nw / $length, $width];
                } elseif (
                    abs($turns[$key][2] - $width) < self::ALIKE * $width
                    && $turns[$key][0] * $nu + $turns[$key][1] * $nw > self::ROUND * $length
                    // Where one side of it is seen and the other is not, it is the outline.
                    && $turns[$key][1] > 0.0 === $nw > 0.0
                ) {
                    $smooth[$key] = true;
                }
            }
        }

        return $smooth;
    }

    /**
     * Edges that their body says are smooth, and that are no outline: of which both faces are seen, or neither.
     *
     * @param array<int, Place> $normals of its faces
     *
     * @return array<string, true> by numbers of both vertices
     */
    private static function stated(PlacedBody $body, array $normals): array
    {
        $stated = [];
        foreach ($body->smooth as [$a, $b]) {
            $stated[$a < $b ? "$a,$b" : "$b,$a"] = true;
        }
        $seen = [];
        foreach ($body->faces as $f => $face) {
            foreach ($face[0] as $i => $b) {
                $a = $face[0][$i > 0 ? $i - 1 : \count($face[0]) - 1];
                $key = $a < $b ? "$a,$b" : "$b,$a";
                if (isset($stated[$key])) {
                    $seen[$key] = ($seen[$key] ?? 0) + ($normals[$f][2] > 0.0 ? 1 : -1);
                }
            }
        }

        return array_map(static fn (): bool => true, array_filter($seen, static fn (int $sum): bool => 0 !== $sum));
    }

    /**
     * @param list<Place> $places
     * @param list<int> $ring
     *
     * @return float mm, how far an upright face reaches on the plan
     */
    private static function width(array $places, array $ring): float
    {
        $places = array_map(static fn (int $v): array => $places[$v], $ring);
        [$u, $w] = [array_column($places, 0), array_column($places, 2)];

        return [] === $u || [] === $w ? 0.0 : hypot(max($u) - min($u), max($w) - min($w));
    }

    /**
     * @param list<int> $ring
     * @param array<string, true> $smooth
     *
     * @return list<bool>
     */
    private static function drawn(array $ring, array $smooth): array
    {
        $drawn = [];
        foreach ($ring as $i => $a) {
            $b = $ring[$i + 1 < \count($ring) ? $i + 1 : 0];
            $drawn[] = !isset($smooth[$a < $b ? "$a,$b" : "$b,$a"]);
        }

        return $drawn;
    }

    /**
     * @param non-empty-list<non-empty-list<Place>> $rings
     * @param list<list<bool>> $drawn
     * @param array{float, float, float} $step
     *
     * @return array{non-empty-list<non-empty-list<Place>>, list<list<bool>>}|null null where nothing is left
     */
    private static function clipped(array $rings, array $drawn, array $step, float $depth): ?array
    {
        [$from, $to, $near] = $step;
        $bounds = array_filter(
            [[0, 1.0, $from], [0, -1.0, -$to], [2, 1.0, $near], [2, -1.0, -(max($near, 0.0) + $depth)]],
            static fn (array $b): bool => is_finite($b[2]),
        );
        foreach ($bounds as [$axis, $sign, $least]) {
            [$left, $flags] = [[], []];
            foreach ($rings as $i => $ring) {
                [$kept, $keptDrawn] = self::beyond($ring, $drawn[$i], $axis, $sign, $least);
                if (\count($kept) > 2) {
                    $left[] = $kept;
                    $flags[] = $keptDrawn;
                } elseif (0 === $i) {
                    return null;
                }
            }
            [$rings, $drawn] = [$left, $flags];
            if ([] === $rings) {
                return null;
            }
        }

        return [$rings, $drawn];
    }

    /**
     * What of a ring lies beyond a plane (Sutherland and Hodgman, 1974); where it runs along that, it is no edge.
     *
     * @param non-empty-list<Place> $ring
     * @param list<bool> $drawn
     *
     * @return array{list<Place>, list<bool>}
     */
    private static function beyond(array $ring, array $drawn, int $axis, float $sign, float $least): array
    {
        $off = [];
        foreach ($ring as $p) {
            $off[] = $sign * $p[$axis] - $least;
        }
        if (min($off) >= 0.0) {
            return [$ring, $drawn];
        }
        if (max($off) <= 0.0) {
            return [[], []];
        }
        [$kept, $flags] = [[], []];
        $n = \count($ring);
        foreach ($ring as $i => $p) {
            $k = $i + 1 < $n ? $i + 1 : 0;
            $q = $ring[$k];
            if ($off[$i] >= 0.0) {
                $kept[] = $p;
                $flags[] = $drawn[$i];
            }
            if ($off[$i] >= 0.0 !== $off[$k] >= 0.0) {
                $part = $off[$i] / ($off[$i] - $off[$k]);
                $at = [$p[0] + $part * ($q[0] - $p[0]), $p[1] + $part * ($q[1] - $p[1]), $p[2] + $part * ($q[2] - $p[2])];
                $kept[] = 0 === $axis ? [$sign * $least, $at[1], $at[2]] : [$at[0], $at[1], $sign * $least];
                $flags[] = $off[$i] < 0.0 && $drawn[$i];
            }
        }

        return [$kept, $flags];
    }
}
