<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

use Plinth\Core\Bodies\Body;
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
final class Scene
{
    /** Faces that are turned to the line of sight by less are seen edge-on. */
    private const EDGE_ON = 1e-6;

    /** @var list<Facet> */
    public readonly array $facets;
    /** @var list<list<array{list<non-empty-list<array{float, float}>>, float}>> by body: rings where it is cut, for each step its depth */
    public readonly array $cuts;

    /** @param list<Body> $bodies */
    public function __construct(array $bodies, View $view)
    {
        $planes = new Planes();
        [$front, $back, $cuts] = [[], [], []];
        $steps = [] === $view->steps ? [[-\INF, \INF, -\INF]] : $view->steps;
        foreach ($bodies as $number => $body) {
            $mesh = $body->mesh();
            $places = [];
            foreach ($mesh->vertices as $vertex) {
                $places[] = $view->place($vertex);
            }
            $cuts[$number] = [];
            foreach ([] === $view->steps ? [] : $steps as [$from, $to, $depth]) {
                $rings = CutRings::of($places, $mesh->faces, $depth, $from, $to);
                if ([] !== $rings) {
                    $cuts[$number][] = [$rings, $depth];
                }
            }
            foreach ($mesh->faces as $face) {
                $rings = [];
                foreach ($face as $ring) {
                    $corners = [];
                    foreach ($ring as $vertex) {
                        $corners[] = $places[$vertex];
                    }
                    $rings[] = $corners;
                }
                // Seen along w, u and v change places with what turns to the left: the normal is the other way round.
                [$nu, $nv, $nw] = Newell::normal($rings[0]);
                $length = sqrt($nu ** 2 + $nv ** 2 + $nw ** 2);
                if ($length <= 0.0 || abs($nw) < self::EDGE_ON * $length) {
                    continue;
                }
                $isFront = $nw > 0.0;
                $length *= $isFront ? 1.0 : -1.0;
                $normal = [$nu / $length, $nv / $length, $nw / $length];
                foreach ($steps as $step) {
                    $clipped = self::clipped($rings, $step, $view->depth);
                    if (null === $clipped) {
                        continue;
                    }
                    if ($isFront) {
                        $front[] = [$clipped, $normal, $rings[0], $number];
                    } else {
                        $back[] = [$clipped, $normal, $rings[0], $number];
                    }
                }
            }
        }
        $facets = [];
        foreach ([[$front, true], [$back, false]] as [$of, $isFront]) {
            foreach ($of as [[$rings, $drawn], $normal, $whole, $number]) {
                $plane = $planes->number($normal, $whole, $bodies[$number]->kind->value, $isFront);
                if ($plane >= 0) {
                    [$nu, $nv, $nw] = $normal;
                    $offset = $nu * $whole[0][0] + $nv * $whole[0][1] + $nw * $whole[0][2];
                    $facets[] = new Facet($rings, $drawn, -$nu / $nw, -$nv / $nw, $offset / $nw, $plane, $isFront, $number);
                }
            }
        }
        $this->facets = $facets;
        $this->cuts = $cuts;
    }

    /**
     * @param non-empty-list<non-empty-list<Place>> $rings
     * @param array{float, float, float} $step
     *
     * @return array{non-empty-list<non-empty-list<Place>>, list<list<bool>>}|null null where nothing is left
     */
    private static function clipped(array $rings, array $step, float $depth): ?array
    {
        [$from, $to, $near] = $step;
        $drawn = array_map(static fn (array $ring): array => array_fill(0, \count($ring), true), $rings);
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
                $at[$axis] = $sign * $least;
                $kept[] = $at;
                $flags[] = $off[$i] < 0.0 && $drawn[$i];
            }
        }

        return [$kept, $flags];
    }
}
