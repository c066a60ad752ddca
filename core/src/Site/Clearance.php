<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Segment;

/** How near a building comes to one line of a boundary, and where. */
final readonly class Clearance
{
    /**
     * @param float $mm 0 where it crosses the line
     * @param Point $building the corner or face that comes nearest
     * @param Point $line the place on the line that it comes nearest to
     */
    private function __construct(public float $mm, public Point $building, public Point $line)
    {
    }

    /**
     * @param list<list<array{float, float}>> $outlines of the building, rings, mm
     *
     * @return list<self> one for each leg; none where there is no building
     */
    public static function of(Contour $boundary, array $outlines): array
    {
        $edges = [];
        foreach ($outlines as $ring) {
            foreach ($ring as $i => $corner) {
                $edges[] = [$corner, $ring[($i + 1) % \count($ring)]];
            }
        }

        return [] === $edges ? [] : array_map(
            static fn (int $leg): self => self::nearest($boundary, $leg, $edges),
            array_keys($boundary->corners),
        );
    }

    /** @param non-empty-list<array{array{float, float}, array{float, float}}> $edges */
    private static function nearest(Contour $boundary, int $leg, array $edges): self
    {
        $arc = $boundary->arc($leg);
        $from = $boundary->corners[$leg];
        $to = $boundary->corners[($leg + 1) % \count($boundary->corners)];
        $best = [\INF, $from, $from];
        foreach ($edges as [$a, $b]) {
            foreach (null === $arc ? self::ofLine($from, $to, $a, $b) : self::ofArc($arc, $a, $b) as [$building, $line]) {
                $mm = $building->distanceTo($line);
                if ($mm < $best[0]) {
                    $best = [$mm, $building, $line];
                }
            }
        }

        return new self(...$best);
    }

    /**
     * Where two straight lines come nearest to each other: where they cross, or at one of their ends.
     *
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return list<array{Point, Point}> on ab and on the line
     */
    private static function ofLine(Point $from, Point $to, array $a, array $b): array
    {
        [$c, $d] = [$from->toArray(), $to->toArray()];
        $crossing = Segment::crossing($a, $b, $c, $d);
        if (null !== $crossing) {
            $at = new Point($c[0] + $crossing[1] * ($d[0] - $c[0]), $c[1] + $crossing[1] * ($d[1] - $c[1]));

            return [[$at, $at]];
        }

        return [
            [new Point(...$a), self::on($a, $c, $d)], [new Point(...$b), self::on($b, $c, $d)],
            [self::on($c, $a, $b), $from], [self::on($d, $a, $b), $to],
        ];
    }

    /**
     * Where a straight line comes nearest to an arc: where it crosses it, at an end of either, or opposite the arc's centre.
     *
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return list<array{Point, Point}> on ab and on the arc
     */
    private static function ofArc(Arc $arc, array $a, array $b): array
    {
        [$dx, $dy] = [$b[0] - $a[0], $b[1] - $a[1]];
        [$x, $y] = [$a[0] - $arc->centre->x, $a[1] - $arc->centre->y];
        // |a + t d| = r about the centre.
        [$qa, $qb, $qc] = [$dx * $dx + $dy * $dy, $x * $dx + $y * $dy, $x * $x + $y * $y - $arc->radius ** 2];
        $root = $qb * $qb - $qa * $qc;
        foreach ($qa > 0.0 && $root >= 0.0 ? [-1.0, 1.0] : [] as $sign) {
            $t = (-$qb + $sign * sqrt($root)) / $qa;
            if ($t >= 0.0 && $t <= 1.0 && $arc->spans(atan2($y + $t * $dy, $x + $t * $dx))) {
                $at = new Point($a[0] + $t * $dx, $a[1] + $t * $dy);

                return [[$at, $at]];
            }
        }
        $opposite = self::on($arc->centre->toArray(), $a, $b);
        [$p, $q] = [new Point(...$a), new Point(...$b)];

        return [
            [$p, $arc->nearest($p)], [$q, $arc->nearest($q)], [$opposite, $arc->nearest($opposite)],
            [self::on($arc->from->toArray(), $a, $b), $arc->from], [self::on($arc->to->toArray(), $a, $b), $arc->to],
        ];
    }

    /**
     * @param array{float, float} $p
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private static function on(array $p, array $a, array $b): Point
    {
        [$x, $y] = Segment::nearest($p, $a, $b);

        return new Point($x, $y);
    }
}
