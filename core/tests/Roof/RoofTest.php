<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Roof;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Roof\Exception\UnbuildableRoof;
use Plinth\Core\Roof\Roof;
use Plinth\Core\Roof\RoofEdge;
use Plinth\Core\Roof\RoofFacet;
use Plinth\Core\Roof\RoofLine;
use Plinth\Core\Roof\RoofLineKind;
use Plinth\Core\Tests\Outside;

/** A roof covers its outline once, and is as high everywhere as the planes over its edges meet. */
final class RoofTest extends TestCase
{
    private const RECTANGLE = [[0.0, 0.0], [10_000.0, 0.0], [10_000.0, 6000.0], [0.0, 6000.0]];

    /** 10 × 6 m at 45° all round: ridge 4 m at 3 m, slopes 84.85 m², 72 m³ below them (arithmetic). */
    public function testAHippedRoof(): void
    {
        $roof = Roof::over([self::points(self::RECTANGLE)], [array_fill(0, 4, RoofEdge::pitched(45.0))]);
        self::assertEqualsWithDelta([4000.0], self::lengths($roof, RoofLineKind::Ridge), 1e-6);
        self::assertEqualsWithDelta(array_fill(0, 4, 3000.0 * sqrt(3.0)), self::lengths($roof, RoofLineKind::Hip), 1e-6);
        self::assertEqualsWithDelta(60.0 * \M_SQRT2, self::slopes($roof) / 1e6, 1e-9);
        self::assertEqualsWithDelta(72.0, self::volume($roof) / 1e9, 1e-9);
        self::assertEqualsWithDelta(3000.0, self::highest($roof), 1e-9);
    }

    /** 10 × 6 m at 45° with two gables: ridge 10 m, the same slopes, two gables of 9 m² (arithmetic). */
    public function testARoofBetweenGables(): void
    {
        [$slope, $gable] = [RoofEdge::pitched(45.0), RoofEdge::gable()];
        $roof = Roof::over([self::points(self::RECTANGLE)], [[$slope, $gable, $slope, $gable]]);
        self::assertEqualsWithDelta([10_000.0], self::lengths($roof, RoofLineKind::Ridge), 1e-6);
        self::assertCount(4, self::lengths($roof, RoofLineKind::Verge));
        self::assertEqualsWithDelta(60.0 * \M_SQRT2, self::slopes($roof) / 1e6, 1e-9);
        $walls = array_values(array_filter($roof->facets, static fn (RoofFacet $f): bool => !$f->isSlope));
        self::assertSame([1, 3], array_map(static fn (RoofFacet $f): int => $f->edge, $walls));
        self::assertEqualsWithDelta([9.0, 9.0], array_map(static fn (RoofFacet $f): float => $f->area() / 1e6, $walls), 1e-9);
    }

    public function testAMonoPitchRisesOverTheWholeWidth(): void
    {
        $gable = RoofEdge::gable();
        $roof = Roof::over([self::points(self::RECTANGLE)], [[RoofEdge::pitched(10.0, 2400.0), $gable, $gable, $gable]]);
        self::assertEqualsWithDelta(60.0 / cos(deg2rad(10.0)), self::slopes($roof) / 1e6, 1e-9);
        self::assertEqualsWithDelta(2400.0 + 6000.0 * tan(deg2rad(10.0)), self::highest($roof), 1e-6);
    }

    public function testAnInnerCornerMakesAValley(): void
    {
        $ring = [[0.0, 0.0], [10_000.0, 0.0], [10_000.0, 4000.0], [5000.0, 4000.0], [5000.0, 9000.0], [0.0, 9000.0]];
        $roof = Roof::over([self::points($ring)], [array_fill(0, 6, RoofEdge::pitched(45.0))]);
        self::assertEqualsWithDelta([2000.0 * sqrt(3.0)], self::lengths($roof, RoofLineKind::Valley), 1e-6);
        $ridges = self::lengths($roof, RoofLineKind::Ridge);
        sort($ridges);
        self::assertEqualsWithDelta([4000.0, 5000.0], $ridges, 1e-6);
    }

    /** Over a convex outline the roof is the lowest of all planes, also where pitches and eaves differ. */
    public function testOverAConvexOutlineItIsTheLowestOfItsPlanes(): void
    {
        for ($seed = 1; $seed <= 40; ++$seed) {
            mt_srand($seed);
            $n = mt_rand(3, 9);
            $angles = array_map(static fn (int $k): float => 2.0 * \M_PI * ($k + 0.3 * mt_rand() / mt_getrandmax()) / $n, range(0, $n - 1));
            $ring = array_map(static fn (float $a): Point => new Point(8000.0 * cos($a), 6000.0 * sin($a)), $angles);
            $edges = array_map(static fn (): RoofEdge => RoofEdge::pitched(mt_rand(15, 70)), $ring);
            $planes = self::planes($ring, $edges);
            foreach (Roof::over([$ring], [$edges])->facets as $facet) {
                foreach ($facet->corners as [$x, $y, $z]) {
                    $heights = array_map(static fn (callable $plane): float => $plane($x, $y), $planes);
                    self::assertEqualsWithDelta(min([\INF, ...$heights]), $z, 0.01, "seed $seed");
                }
            }
        }
    }

    /** At every height what lies within is the outline shrunk with mitred corners: GEOS, in small steps. */
    public function testAtEveryHeightItIsAsWideAsGeosSays(): void
    {
        [$asked, $ours, $areas] = [[], [], []];
        for ($seed = 1; $seed <= 60; ++$seed) {
            $outline = Outlines::random($seed);
            $roof = Roof::over($outline, self::edges($outline, 30.0));
            $highest = self::highest($roof);
            $heights = [0.2 * $highest, 0.5 * $highest, 0.8 * $highest];
            $asked[] = [
                array_map(static fn (array $ring): array => array_map(static fn (Point $p): array => $p->toArray(), $ring), $outline),
                array_map(static fn (float $h): float => $h / tan(deg2rad(30.0)), $heights),
            ];
            $areas[] = $area = self::above($roof, 0.0);
            $ours[] = array_map(static fn (float $h): float => self::above($roof, $h) / $area, $heights);
        }
        $theirs = Outside::ask('roofs.py', ['outlines' => $asked, 'steps' => 120])['areas'];
        self::assertIsArray($theirs);
        foreach ($ours as $k => $parts) {
            self::assertIsArray($theirs[$k]);
            foreach ($parts as $i => $part) {
                self::assertIsNumeric($theirs[$k][$i]);
                self::assertEqualsWithDelta((float) $theirs[$k][$i] / $areas[$k], $part, 1e-6, 'seed '.($k + 1));
            }
        }
    }

    public function testEachWayRoundAndFarAwayItIsTheSameRoof(): void
    {
        foreach ([7, 12, 20] as $seed) {
            $outline = Outlines::random($seed);
            $edges = array_map(static fn (array $ring): array => array_map(
                static fn (int $i): RoofEdge => RoofEdge::pitched(25.0 + 5.0 * ($i % 4)),
                array_keys($ring),
            ), $outline);
            $told = self::byEdge(Roof::over($outline, $edges));
            $far = array_map(static fn (array $ring): array => array_map(static fn (Point $p): Point => $p->plus(6.5e8, -3.2e8), $ring), $outline);
            self::assertEqualsWithDelta($told, self::byEdge(Roof::over($far, $edges)), 1.0, "seed $seed");
            $turned = array_map(array_reverse(...), $outline);
            $n = array_map(\count(...), $outline);
            $turnedEdges = array_map(static fn (array $of, int $n): array => array_map(
                static fn (int $i): RoofEdge => $of[(2 * $n - 2 - $i) % $n],
                range(0, $n - 1),
            ), $edges, $n);
            $back = [];
            foreach (self::byEdge(Roof::over($turned, $turnedEdges)) as $key => $area) {
                [$r, $i] = array_map(intval(...), explode('/', $key));
                $back[$r.'/'.((2 * $n[$r] - 2 - $i) % $n[$r])] = $area;
            }
            ksort($back);
            self::assertEqualsWithDelta($told, $back, 1.0, "seed $seed");
        }
    }

    public function testWhatCannotStandIsRefusedInWords(): void
    {
        $ring = self::points(self::RECTANGLE);
        $refused = static function (callable $roof): string {
            try {
                $roof();
            } catch (UnbuildableRoof $e) {
                return $e->why();
            }

            return 'built';
        };
        self::assertSame('roof-open', $refused(static fn () => Roof::over([$ring], [array_fill(0, 4, RoofEdge::gable())])));
        self::assertSame('unusable-outline', $refused(static fn () => Roof::over([\array_slice($ring, 0, 2)], [array_fill(0, 2, RoofEdge::gable())])));
        self::assertSame('unusable-outline', $refused(static fn () => Roof::over([$ring], [array_fill(0, 3, RoofEdge::pitched(30.0))])));
        $bow = self::points([[0.0, 0.0], [8000.0, 6000.0], [8000.0, 0.0], [0.0, 6000.0]]);
        self::assertSame('outline-crosses', $refused(static fn () => Roof::over([$bow], self::edges([$bow], 30.0))));
        $court = self::points([[9000.0, 2000.0], [12_000.0, 2000.0], [12_000.0, 4000.0], [9000.0, 4000.0]]);
        self::assertSame('outline-crosses', $refused(static fn () => Roof::over([$ring, $court], self::edges([$ring, $court], 30.0))));
        self::assertSame('pitch-out-of-range', $refused(static fn () => RoofEdge::pitched(0.1)));
        self::assertSame('pitch-out-of-range', $refused(static fn () => RoofEdge::pitched(\NAN)));
    }

    /**
     * @param list<array{float, float}> $ring
     *
     * @return list<Point>
     */
    private static function points(array $ring): array
    {
        return array_map(static fn (array $p): Point => new Point(...$p), $ring);
    }

    /**
     * @param list<list<Point>> $outline
     *
     * @return list<list<RoofEdge>>
     */
    private static function edges(array $outline, float $pitch): array
    {
        return array_map(static fn (array $ring): array => array_map(static fn (): RoofEdge => RoofEdge::pitched($pitch), $ring), $outline);
    }

    /** @return list<float> */
    private static function lengths(Roof $roof, RoofLineKind $kind): array
    {
        $of = array_filter($roof->lines, static fn (RoofLine $l): bool => $kind === $l->kind);

        return array_values(array_map(static fn (RoofLine $l): float => $l->length(), $of));
    }

    private static function slopes(Roof $roof): float
    {
        return array_sum(array_map(static fn (RoofFacet $f): float => $f->isSlope ? $f->area() : 0.0, $roof->facets));
    }

    private static function highest(Roof $roof): float
    {
        return max([-\INF, ...array_merge(...array_map(static fn (RoofFacet $f): array => array_column($f->corners, 2), $roof->facets))]);
    }

    /** @return float mm³ between the roof and the level 0, by prisms over triangles */
    private static function volume(Roof $roof): float
    {
        $volume = 0.0;
        foreach ($roof->facets as $facet) {
            $corners = $facet->isSlope ? $facet->corners : [];
            for ($i = 1; $i + 1 < \count($corners); ++$i) {
                [$a, $b, $c] = [$corners[0], $corners[$i], $corners[$i + 1]];
                $base = Polygon::area([[$a[0], $a[1]], [$b[0], $b[1]], [$c[0], $c[1]]]);
                $volume += $base * ($a[2] + $b[2] + $c[2]) / 3.0;
            }
        }

        return $volume;
    }

    /** @return float mm² seen from above of what lies higher */
    private static function above(Roof $roof, float $height): float
    {
        $area = 0.0;
        foreach ($roof->facets as $facet) {
            $kept = [];
            $n = $facet->isSlope ? \count($facet->corners) : 0;
            for ($i = 0; $i < $n; ++$i) {
                [$p, $q] = [$facet->corners[$i], $facet->corners[($i + 1) % $n]];
                if ($p[2] >= $height) {
                    $kept[] = [$p[0], $p[1]];
                }
                if (($p[2] >= $height) !== ($q[2] >= $height)) {
                    $t = ($height - $p[2]) / ($q[2] - $p[2]);
                    $kept[] = [$p[0] + $t * ($q[0] - $p[0]), $p[1] + $t * ($q[1] - $p[1])];
                }
            }
            $area += Polygon::area($kept);
        }

        return $area;
    }

    /** @return array<string, float> area of all that rises over each edge, mm² */
    private static function byEdge(Roof $roof): array
    {
        $areas = [];
        foreach ($roof->facets as $facet) {
            $key = "$facet->ring/$facet->edge";
            $areas[$key] = ($areas[$key] ?? 0.0) + $facet->area();
        }
        ksort($areas);

        return $areas;
    }

    /**
     * @param list<Point> $ring counter-clockwise
     * @param list<RoofEdge> $edges
     *
     * @return list<callable(float, float): float> height of each edge's plane
     */
    private static function planes(array $ring, array $edges): array
    {
        $planes = [];
        foreach ($ring as $i => $a) {
            $b = $ring[($i + 1) % \count($ring)];
            $length = $a->distanceTo($b);
            [$nx, $ny] = [-($b->y - $a->y) / $length, ($b->x - $a->x) / $length];
            $planes[] = static fn (float $x, float $y): float => $edges[$i]->steepness * ($nx * ($x - $a->x) + $ny * ($y - $a->y));
        }

        return $planes;
    }
}
