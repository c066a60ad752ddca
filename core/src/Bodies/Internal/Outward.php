<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Roof\Exception\UnbuildableRoof;

/**
 * Outlines drawn larger or smaller by moving their edges.
 *
 * @internal
 */
final class Outward
{
    /**
     * Every edge moved outward by so much of its own; corners lie where neighbouring edges meet then.
     *
     * @param non-empty-list<Point> $corners counter-clockwise
     * @param list<float> $by of the edge from each corner, mm
     *
     * @return non-empty-list<Point>
     *
     * @throws UnbuildableRoof where edges that run straight on reach beyond by unequal distances
     */
    public static function moved(array $corners, array $by): array
    {
        $n = \count($corners);
        $moved = [];
        foreach ($corners as $i => $from) {
            $to = $corners[($i + 1) % $n];
            $length = max(1e-9, $from->distanceTo($to));
            [$dx, $dy] = [$by[$i] * ($to->y - $from->y) / $length, -$by[$i] * ($to->x - $from->x) / $length];
            $moved[] = [$from->plus($dx, $dy)->toArray(), $to->plus($dx, $dy)->toArray()];
        }
        $reached = [];
        foreach ($moved as $i => [$a, $b]) {
            [$c, $d] = $moved[($i + $n - 1) % $n];
            $meeting = Segment::meeting($a, $b, $c, $d, 1e-6);
            if (null === $meeting) {
                if (hypot($d[0] - $a[0], $d[1] - $a[1]) > 0.01) {
                    throw UnbuildableRoof::overhang($i);
                }
                $reached[] = new Point(...$a);
                continue;
            }
            $reached[] = (new Point(...$a))->towards(new Point(...$b), $meeting[0]);
        }

        return $reached;
    }

    /**
     * @param non-empty-list<array{float, float}> $ring counter-clockwise
     * @param float $by mm inward, all round
     *
     * @return list<non-empty-list<array{float, float}>> none where nothing is left
     */
    public static function inset(array $ring, float $by): array
    {
        $corners = array_map(static fn (array $p): Point => new Point(...$p), $ring);
        $inner = array_map(static fn (Point $p): array => $p->toArray(), self::moved($corners, array_fill(0, \count($ring), -$by)));
        foreach ($inner as $i => $p) {
            $k = ($i + 1) % \count($inner);
            // An edge that has turned round was shorter than what was taken off at its ends.
            $ahead = ($inner[$k][0] - $p[0]) * ($ring[$k][0] - $ring[$i][0]) + ($inner[$k][1] - $p[1]) * ($ring[$k][1] - $ring[$i][1]);
            if ($ahead <= 0.0) {
                return [];
            }
        }

        return Polygon::area($inner) > 0.0 ? [$inner] : [];
    }
}
