<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

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
            static fn (int $leg): self => self::nearest($boundary->pieces($leg), $edges),
            array_keys($boundary->corners),
        );
    }

    /**
     * @param non-empty-list<array{array{float, float}, array{float, float}}> $line
     * @param non-empty-list<array{array{float, float}, array{float, float}}> $edges
     */
    private static function nearest(array $line, array $edges): self
    {
        $best = [\INF, $edges[0][0], $line[0][0]];
        foreach ($edges as [$a, $b]) {
            foreach ($line as [$c, $d]) {
                $crossing = Segment::crossing($a, $b, $c, $d);
                if (null !== $crossing) {
                    $at = new Point($c[0] + $crossing[1] * ($d[0] - $c[0]), $c[1] + $crossing[1] * ($d[1] - $c[1]));

                    return new self(0.0, $at, $at);
                }
                // Where two pieces do not cross, one of their ends is nearest.
                foreach ([[$a, $c, $d, false], [$b, $c, $d, false], [$c, $a, $b, true], [$d, $a, $b, true]] as [$p, $q, $r, $ofLine]) {
                    [$x, $y] = Segment::nearest($p, $q, $r);
                    $mm = hypot($p[0] - $x, $p[1] - $y);
                    if ($mm < $best[0]) {
                        $best = $ofLine ? [$mm, [$x, $y], $p] : [$mm, $p, [$x, $y]];
                    }
                }
            }
        }

        return new self($best[0], new Point(...$best[1]), new Point(...$best[2]));
    }
}
