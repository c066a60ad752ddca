<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

/**
 * Where facets pass through each other.
 *
 * @internal
 *
 * @phpstan-import-type Edge from HiddenLines
 */
final class Passing
{
    /** Facets that do not come nearer to each other's depths, and stretches that are shorter, are none, mm. */
    private const NOTHING_MM = 1e-3;
    /** Planes whose slopes differ by less run alongside. */
    private const ALONGSIDE = 1e-9;

    /**
     * @param list<Facet> $facets
     *
     * @return list<Edge>
     */
    public static function edges(array $facets, DepthGrid $grid): array
    {
        $edges = [];
        $met = [];
        foreach ($grid->cells as $cell) {
            foreach ($cell as $at => $i) {
                $f = $facets[$i];
                if (!$f->isFront) {
                    continue;
                }
                for ($k = $at + 1, $n = \count($cell); $k < $n; ++$k) {
                    $j = $cell[$k];
                    $g = $facets[$j];
                    // Nearest first: whatever follows begins behind all of this one.
                    if ($g->w0 > $f->w1 - self::NOTHING_MM) {
                        break;
                    }
                    if (!$g->isFront || $g->plane === $f->plane || self::isApart($f, $g) || isset($met[$i][$j]) || isset($met[$j][$i])) {
                        continue;
                    }
                    $met[$i][$j] = true;
                    array_push($edges, ...self::between($f, $g));
                }
            }
        }

        return $edges;
    }

    private static function isApart(Facet $f, Facet $g): bool
    {
        return $g->w1 < $f->w0 + self::NOTHING_MM || $g->u0 > $f->u1 - self::NOTHING_MM || $g->u1 < $f->u0 + self::NOTHING_MM
            || $g->v0 > $f->v1 - self::NOTHING_MM || $g->v1 < $f->v0 + self::NOTHING_MM;
    }

    /** @return list<Edge> */
    private static function between(Facet $f, Facet $g): array
    {
        [$a, $b, $c] = [$f->a - $g->a, $f->b - $g->b, $f->c - $g->c];
        $steep = hypot($a, $b);
        if ($steep < self::ALONGSIDE) {
            return [];
        }
        [$du, $dv] = [-$b / $steep, $a / $steep];
        [$u, $v] = [-$a * $c / $steep / $steep, -$b * $c / $steep / $steep];
        $spans = [];
        foreach ([$f, $g] as $facet) {
            [$left, $right] = $facet->along($u, $v, $du, $dv);
            $spans[] = Spans::common(Spans::between($left), Spans::between($right));
        }
        $edges = [];
        foreach (Spans::common(...$spans) as [$from, $to]) {
            if ($to - $from > self::NOTHING_MM) {
                [$pu, $pv, $qu, $qv] = [$u + $du * $from, $v + $dv * $from, $u + $du * $to, $v + $dv * $to];
                $edges[] = [[$pu, $pv, $f->depth($pu, $pv)], [$qu, $qv, $f->depth($qu, $qv)], -1, $f->body];
            }
        }

        return $edges;
    }
}
