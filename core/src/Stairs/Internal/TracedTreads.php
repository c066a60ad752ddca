<?php

declare(strict_types=1);

namespace Plinth\Core\Stairs\Internal;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Stairs\Exception\UnbuildableStair;
use Plinth\Core\Stairs\Tread;

/**
 * Treads that were traced one by one, each of its own shape: where each meets the next is a riser, and what of its outline lies beside
 * those are the edges of the stair.
 *
 * @internal
 */
final class TracedTreads
{
    /** Treads that were traced apart by no more than this meet, mm. */
    private const MEETS_MM = 5.0;
    /** A riser is at least so wide, mm. */
    private const LEAST_MM = 50.0;
    /** less is no overlap, mm² */
    private const LEAST_MM2 = 1.0;

    /**
     * @param non-empty-list<Contour> $traced from below
     *
     * @return array{non-empty-list<Tread>, list<int>} and the numbers of those that do not meet the next one
     *
     * @throws UnbuildableStair
     */
    public static function of(array $traced): array
    {
        $rings = [];
        foreach ($traced as $i => $contour) {
            $ring = $contour->points();
            if (\count($ring) < 3 || abs($contour->area()) < 1.0 || null !== $contour->selfCrossing()) {
                throw UnbuildableStair::tread($i + 1);
            }
            $ring = Polygon::area($ring) < 0.0 ? array_reverse($ring) : $ring;
            $rings[] = [] === $rings ? $ring : self::beside($ring, $rings[$i - 1]);
        }
        [$risers, $apart] = [[], []];
        foreach (\array_slice($rings, 1) as $i => $next) {
            $riser = self::between($rings[$i], $next);
            if (null === $riser) {
                $apart[] = $i + 1;
                $riser = self::facing($rings[$i], Polygon::labelPoint($next));
            }
            $risers[] = $riser;
        }
        $treads = [];
        foreach ($rings as $i => $ring) {
            $above = $risers[$i] ?? null;
            $below = $risers[$i - 1] ?? (null !== $above ? self::opposite($ring, $above) : self::facing($ring, $ring[0]));
            $above ??= self::opposite($ring, $below);
            // Counter-clockwise all round: along the right edge up, and along the left one back.
            $right = self::walk($ring, $below[1], $above[1]);
            $left = array_reverse(self::walk($ring, $above[0], $below[0]));
            $going = hypot(
                ($above[0][0] + $above[1][0] - $below[0][0] - $below[1][0]) / 2.0,
                ($above[0][1] + $above[1][1] - $below[0][1] - $below[1][1]) / 2.0,
            );
            $treads[] = new Tread($i + 1, $ring, $left, $right, $going);
        }

        return [$treads, $apart];
    }

    /**
     * What a tread leaves to the one below it where a hand drew it a little over that.
     *
     * @param non-empty-list<array{float, float}> $ring
     * @param non-empty-list<array{float, float}> $below
     *
     * @return non-empty-list<array{float, float}>
     */
    private static function beside(array $ring, array $below): array
    {
        $left = Overlay::difference([$ring], [$below]);
        usort($left, static fn (array $a, array $b): int => Polygon::area($b['outer']) <=> Polygon::area($a['outer']));
        $lost = Polygon::area($ring) - Overlay::area($left);

        return [] === $left || $lost < self::LEAST_MM2 || $lost > Polygon::area($ring) / 2.0 ? $ring : $left[0]['outer'];
    }

    /**
     * @param non-empty-list<array{float, float}> $ring
     * @param non-empty-list<array{float, float}> $next
     *
     * @return array{array{float, float}, array{float, float}}|null the ends of what they share, the left one first as one goes up
     */
    private static function between(array $ring, array $next): ?array
    {
        $shared = [];
        foreach ($ring as $p) {
            if (self::on($next, $p)[2] <= self::MEETS_MM) {
                $shared[] = $p;
            }
        }
        foreach ($next as $p) {
            [$x, $y, $off] = self::on($ring, $p);
            if ($off <= self::MEETS_MM) {
                $shared[] = [$x, $y];
            }
        }
        [$best, $widest] = [null, self::LEAST_MM];
        foreach ($shared as $i => $p) {
            foreach (\array_slice($shared, $i + 1) as $q) {
                if (hypot($q[0] - $p[0], $q[1] - $p[1]) > $widest) {
                    [$best, $widest] = [[$p, $q], hypot($q[0] - $p[0], $q[1] - $p[1])];
                }
            }
        }

        return null === $best ? null : self::leftFirst($best, Polygon::labelPoint($ring), Polygon::labelPoint($next));
    }

    /**
     * @param non-empty-list<array{float, float}> $ring
     * @param array{float, float} $to
     *
     * @return array{array{float, float}, array{float, float}} the edge of a ring that is nearest to a place
     */
    private static function facing(array $ring, array $to): array
    {
        [$best, $least] = [[$ring[0], $ring[1] ?? $ring[0]], \INF];
        foreach ($ring as $i => $p) {
            $q = $ring[($i + 1) % \count($ring)];
            $off = hypot(($p[0] + $q[0]) / 2.0 - $to[0], ($p[1] + $q[1]) / 2.0 - $to[1]);
            if ($off < $least && hypot($q[0] - $p[0], $q[1] - $p[1]) > 1.0) {
                [$best, $least] = [[$p, $q], $off];
            }
        }

        return self::leftFirst($best, Polygon::labelPoint($ring), $to);
    }

    /**
     * The edge that faces a riser across a tread: of all others the one that runs farthest alongside it. There the first tread begins,
     * or the last one ends.
     *
     * @param non-empty-list<array{float, float}> $ring
     * @param array{array{float, float}, array{float, float}} $riser
     *
     * @return array{array{float, float}, array{float, float}} its left end first, in the riser's own direction
     */
    private static function opposite(array $ring, array $riser): array
    {
        [$rx, $ry] = [$riser[0][0] - $riser[1][0], $riser[0][1] - $riser[1][1]];
        [$best, $most] = [$riser, -1.0];
        foreach ($ring as $i => $p) {
            $q = $ring[($i + 1) % \count($ring)];
            [$x, $y] = Segment::nearest([($p[0] + $q[0]) / 2.0, ($p[1] + $q[1]) / 2.0], ...$riser);
            $off = hypot(($p[0] + $q[0]) / 2.0 - $x, ($p[1] + $q[1]) / 2.0 - $y);
            $alongside = abs(($p[0] - $q[0]) * $rx + ($p[1] - $q[1]) * $ry);
            if ($off > self::MEETS_MM && $alongside > $most) {
                [$best, $most] = [[$p, $q], $alongside];
            }
        }

        return ($best[0][0] - $best[1][0]) * $rx + ($best[0][1] - $best[1][1]) * $ry >= 0.0 ? $best : [$best[1], $best[0]];
    }

    /**
     * @param array{array{float, float}, array{float, float}} $riser
     * @param array{float, float} $from
     * @param array{float, float} $to
     *
     * @return array{array{float, float}, array{float, float}}
     */
    private static function leftFirst(array $riser, array $from, array $to): array
    {
        [$p, $q] = $riser;
        $cross = ($to[0] - $from[0]) * ($p[1] - $q[1]) - ($to[1] - $from[1]) * ($p[0] - $q[0]);

        return $cross >= 0.0 ? [$p, $q] : [$q, $p];
    }

    /**
     * @param non-empty-list<array{float, float}> $ring
     * @param array{float, float} $p
     *
     * @return array{float, float, float, int, float} nearest place on a ring, how far off, on which edge, and how far along that, 0 to 1
     */
    private static function on(array $ring, array $p): array
    {
        $best = [$ring[0][0], $ring[0][1], \INF, 0, 0.0];
        foreach ($ring as $i => $a) {
            [$x, $y, $t] = Segment::nearest($p, $a, $ring[($i + 1) % \count($ring)]);
            $off = hypot($x - $p[0], $y - $p[1]);
            if ($off < $best[2]) {
                $best = [$x, $y, $off, $i, $t];
            }
        }

        return $best;
    }

    /**
     * @param non-empty-list<array{float, float}> $ring
     * @param array{float, float} $from
     * @param array{float, float} $to
     *
     * @return non-empty-list<array{float, float}> counter-clockwise along a ring from one place on it to another
     */
    private static function walk(array $ring, array $from, array $to): array
    {
        [$fx, $fy, , $first, $at] = self::on($ring, $from);
        [$tx, $ty, , $last, $until] = self::on($ring, $to);
        $points = [[$fx, $fy]];
        $n = \count($ring);
        for ($i = $first, $isOn = $first === $last && $at <= $until; !$isOn;) {
            $i = ($i + 1) % $n;
            if (hypot($ring[$i][0] - $points[\count($points) - 1][0], $ring[$i][1] - $points[\count($points) - 1][1]) > 1e-6) {
                $points[] = $ring[$i];
            }
            $isOn = $i === $last;
        }
        if (hypot($tx - $points[\count($points) - 1][0], $ty - $points[\count($points) - 1][1]) > 1e-6 || 1 === \count($points)) {
            $points[] = [$tx, $ty];
        }

        return $points;
    }
}
