<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sweeping;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\Mesh;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Sweep;
use Plinth\Core\Plan\Model\SweepAlong;
use Plinth\Core\Sweeping\Exception\UnbuildableSweep;
use Plinth\Core\Sweeping\SweptForm;

/** A profile along a path is a closed body with mitres, as large as arithmetic says. */
final class SweptFormTest extends TestCase
{
    /** @param non-empty-list<array{float|int, float|int}> $corners */
    private static function contour(array $corners): Contour
    {
        return new Contour(array_map(static fn (array $p): Point => new Point((float) $p[0], (float) $p[1]), $corners));
    }

    /**
     * @param list<array{float|int, float|int}> $path
     * @param list<float> $rises
     */
    private static function swept(Contour $profile, array $path, bool $closed, array $rises = [], bool $inward = false): Mesh
    {
        $sweep = new Sweep('s', $profile, SweepAlong::Path, inward: $inward);
        $points = array_map(static fn (array $p): Point => new Point((float) $p[0], (float) $p[1]), $path);
        $form = SweptForm::of($sweep, $points, $rises, $closed, 100.0);

        return self::mesh($form);
    }

    /** @return array{float, float} least and most of a coordinate */
    private static function reach(Mesh $mesh, int $axis): array
    {
        $all = array_map(static fn (array $p): float => $p[$axis], $mesh->vertices);

        return [] === $all ? [\NAN, \NAN] : [min($all), max($all)];
    }

    private static function mesh(SweptForm $form): Mesh
    {
        return new Mesh($form->places, array_map(static fn (array $face): array => [$face], $form->faces));
    }

    /** Round a convex ring the swept volume is area × (length + turn of the centroid): Pappus, with corners as mitres. */
    public function testAFrameOfSquareSectionIsWhatItsOutsideLessItsInsideIs(): void
    {
        $square = self::contour([[0, 0], [50, 0], [50, 80], [0, 80]]);
        foreach ([[[0, 0], [3000, 0], [3000, 2000], [0, 2000]], [[0, 2000], [3000, 2000], [3000, 0], [0, 0]]] as $ring) {
            $outside = self::swept($square, $ring, true);
            self::assertSame([], $outside->openEdges());
            self::assertSame([100.0, 180.0], self::reach($outside, 2));
            self::assertEqualsWithDelta(80.0 * (3100.0 * 2100.0 - 3000.0 * 2000.0), $outside->volume(), 1.0);
            $inside = self::swept($square, $ring, true, inward: true);
            self::assertEqualsWithDelta(80.0 * (3000.0 * 2000.0 - 2900.0 * 1900.0), $inside->volume(), 1.0);
        }
    }

    public function testAnOpenPathEndsSquareAndItsProfilePointsToTheRight(): void
    {
        $triangle = self::contour([[0, 0], [60, 0], [0, 90]]);
        $mesh = self::swept($triangle, [[0, 0], [0, 1000], [700, 1000]], false);
        self::assertSame([], $mesh->openEdges());
        // To the right of it the corner is an inner one: less is there by the centroid's 20 mm twice.
        self::assertEqualsWithDelta(2700.0 * (1700.0 - 2.0 * 20.0), $mesh->volume(), 1e-3);
        self::assertSame(0.0, self::reach($mesh, 0)[0]);
        $left = self::swept($triangle, [[0, 0], [0, 1000], [700, 1000]], false, inward: true);
        self::assertEqualsWithDelta(2700.0 * (1700.0 + 2.0 * 20.0), $left->volume(), 1e-3);
    }

    /** A torus of square section: Pappus' theorem, to what chords leave out. */
    public function testRoundACircleItIsWhatPappusSays(): void
    {
        $square = self::contour([[0, 0], [40, 0], [40, 40], [0, 40]]);
        $ring = self::swept($square, [[-1000, 0], [1000, 0]], true, [1000.0, 1000.0]);
        self::assertSame([], $ring->openEdges());
        $exact = 1600.0 * 2.0 * \M_PI * 1020.0;
        self::assertEqualsWithDelta($exact, $ring->volume(), 5e-4 * $exact);
        // A profile of arcs has the area of its circle.
        $round = new Contour([new Point(0, 0), new Point(100, 0)], [50.0, 50.0]);
        $rail = self::swept($round, [[0, 0], [5000, 0]], false);
        self::assertEqualsWithDelta(\M_PI * 2500.0 * 5000.0, $rail->volume(), 3e-3 * \M_PI * 2500.0 * 5000.0);
    }

    public function testOnAFaceItStandsBeforeIt(): void
    {
        $sweep = new Sweep('s', self::contour([[0, 0], [50, 0], [50, 30], [0, 30]]), SweepAlong::Path);
        $arch = SweptForm::of($sweep, [new Point(1000, 2000), new Point(2000, 2000)], [500.0], false, 0.0);
        // Seen from the south: from west to east, what stands before it lies at smaller y.
        $mesh = self::mesh($arch->upright(new Point(0, -150), new Point(10_000, -150)));
        self::assertSame([], $mesh->openEdges());
        self::assertGreaterThan(0.0, $mesh->volume());
        self::assertEqualsWithDelta([-180.0, -150.0], self::reach($mesh, 1), 1e-9);
        self::assertEqualsWithDelta(2500.0, self::reach($mesh, 2)[1], 0.5);
    }

    /** @return iterable<string, array{list<array{float, float}>, bool, string}> */
    public static function unbuildable(): iterable
    {
        yield 'there and back' => [[[0.0, 0.0], [1000.0, 0.0], [10.0, 5.0]], false, 'turns back'];
        yield 'a notch narrower than the profile' => [
            [[0.0, 0.0], [3000.0, 0.0], [3000.0, 2000.0], [1600.0, 2000.0], [1600.0, 1500.0], [1400.0, 1500.0], [1400.0, 2000.0], [0.0, 2000.0]],
            true,
            'too wide for the corner',
        ];
        yield 'comes back beside itself' => [
            [[0.0, 0.0], [3000.0, 0.0], [3000.0, -900.0], [2000.0, -900.0], [2000.0, -150.0]],
            false,
            'runs into itself',
        ];
        yield 'nothing' => [[[0.0, 0.0], [0.0, 0.1]], false, 'nothing to take'];
    }

    /** @param list<array{float, float}> $path */
    #[DataProvider('unbuildable')]
    public function testWhatWouldRunIntoItselfIsRefusedInWords(array $path, bool $closed, string $words): void
    {
        $this->expectException(UnbuildableSweep::class);
        $this->expectExceptionMessage($words);
        self::swept(self::contour([[0, 0], [200, 0], [200, 100], [0, 100]]), $path, $closed);
    }

    /** The volume of a mitred sweep is the profile's area times the way of its centroid: any polygon's offset area says so. */
    public function testRandomPathsHaveTheVolumeOfTheirStrips(): void
    {
        $built = 0;
        for ($seed = 1; $seed <= 200; ++$seed) {
            mt_srand($seed);
            $path = [[0.0, 0.0]];
            $way = 0.0;
            for ($i = 0; $i < mt_rand(1, 7); ++$i) {
                $way += deg2rad(mt_rand(-1100, 1100) / 10.0);
                $long = (float) mt_rand(400, 3000);
                $last = end($path);
                $path[] = [$last[0] + $long * cos($way), $last[1] + $long * sin($way)];
            }
            [$w, $h] = [(float) mt_rand(20, 150), (float) mt_rand(20, 300)];
            $profile = self::contour([[-0.3 * $w, 0], [0.7 * $w, 0.1 * $h], [0.7 * $w, $h], [0, 0.8 * $h]]);
            try {
                $mesh = self::swept($profile, $path, false);
            } catch (UnbuildableSweep) {
                continue;
            }
            ++$built;
            self::assertSame([], $mesh->openEdges());
            // ∫ x dA of the profile times the turn at each corner lengthens it: way of each fibre is L + x Σ (2 tan(turn/2)).
            $length = 0.0;
            $turns = 0.0;
            for ($i = 1; $i < \count($path); ++$i) {
                $length += hypot($path[$i][0] - $path[$i - 1][0], $path[$i][1] - $path[$i - 1][1]);
                if ($i > 1) {
                    $turn = atan2($path[$i][1] - $path[$i - 1][1], $path[$i][0] - $path[$i - 1][0])
                        - atan2($path[$i - 1][1] - $path[$i - 2][1], $path[$i - 1][0] - $path[$i - 2][0]);
                    $turns += 2.0 * tan($turn / 2.0);
                }
            }
            [$area, $moment] = self::moments($profile);
            self::assertEqualsWithDelta($area * $length + $moment * $turns, $mesh->volume(), 1e-6 * $mesh->volume(), "seed $seed");
        }
        self::assertGreaterThan(120, $built);
    }

    /** @return array{float, float} area and ∫ x dA, by the surveyor's formula */
    private static function moments(Contour $of): array
    {
        [$area, $moment] = [0.0, 0.0];
        $n = \count($of->corners);
        foreach ($of->corners as $i => $p) {
            $q = $of->corners[($i + 1) % $n];
            $cross = $p->x * $q->y - $q->x * $p->y;
            $area += $cross / 2.0;
            $moment += $cross * ($p->x + $q->x) / 6.0;
        }

        return [$area, $moment];
    }
}
