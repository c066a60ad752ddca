<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Geometry;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Site\Clearance;
use Plinth\Core\Tests\Fitting\Noise;
use Plinth\Core\Tests\Outside;

/** Closed lines of straight edges and arcs: what they enclose, and how near something comes to them. */
final class ContourTest extends TestCase
{
    public function testACircleOfTwoHalvesIsACircle(): void
    {
        $circle = new Contour([new Point(-500, 0), new Point(500, 0)], [-500.0, -500.0]);
        self::assertEqualsWithDelta(\M_PI * 500 ** 2, $circle->area(), 1e-6);
        self::assertEqualsWithDelta(\M_PI * 1000, $circle->length(), 1e-9);
        self::assertEqualsWithDelta([-500, -500, 500, 500], $circle->bounds(), 1e-9);
        self::assertNull($circle->selfCrossing());
        // Walked the other way round, with the arcs on the same sides, it is the same with its sign turned.
        $back = new Contour([new Point(500, 0), new Point(-500, 0)], [500.0, 500.0]);
        self::assertEqualsWithDelta(-$circle->area(), $back->area(), 1e-6);
    }

    public function testAnArchedWindowIsARectangleAndHalfACircle(): void
    {
        $window = new Contour([new Point(0, 0), new Point(1200, 0), new Point(1200, 1500), new Point(0, 1500)], [0.0, 0.0, -600.0, 0.0]);
        self::assertEqualsWithDelta(1200 * 1500 + \M_PI * 600 ** 2 / 2, $window->area(), 1e-6);
        self::assertEqualsWithDelta([0, 0, 1200, 2100], $window->bounds(), 1e-9);
        // An arc that dips into the other side crosses it.
        $dipped = new Contour($window->corners, [0.0, 0.0, 1600.0, 0.0]);
        self::assertSame([0, 2], $dipped->selfCrossing());
    }

    /** Area, length, extent, crossing and nearness of 100 random rings, held against GEOS. */
    public function testAgainstGeos(): void
    {
        Noise::seed(1907);
        [$ours, $cases] = [[], []];
        for ($i = 0; $i < 100; ++$i) {
            $n = (int) Noise::uniform(3, 8);
            $corners = array_map(static function (int $k) use ($n): Point {
                $angle = 2.0 * \M_PI * ($k + Noise::uniform(-0.3, 0.3)) / $n;
                $r = Noise::uniform(8000, 20_000);

                return new Point($r * cos($angle), $r * sin($angle));
            }, range(0, $n - 1));
            $rises = array_map(
                static fn (): float => Noise::uniform(0, 1) < 0.5 ? 0.0 : Noise::uniform(-6000, 4000),
                $corners,
            );
            $contour = new Contour($corners, $rises);
            [$x, $y] = [Noise::uniform(-3000, 3000), Noise::uniform(-3000, 3000)];
            $building = [[$x, $y], [$x + 2500, $y + 300], [$x + 2400, $y + 1800], [$x - 200, $y + 1500]];
            $ours[] = [$contour, Clearance::of($contour, [$building])];
            $edges = [];
            foreach (array_keys($corners) as $edge) {
                $arc = $contour->arc($edge);
                $edges[] = null === $arc
                    ? ['from' => $corners[$edge]->toArray(), 'to' => $corners[($edge + 1) % $n]->toArray()]
                    : ['centre' => $arc->centre->toArray(), 'radius' => $arc->radius, 'start' => $arc->start, 'sweep' => $arc->sweep];
            }
            $cases[] = ['edges' => $edges, 'building' => [$building]];
        }
        $simple = 0;
        foreach (JsonValue::of(Outside::ask('contours.py', ['cases' => $cases]))->list('cases') as $i => $theirs) {
            [$contour, $clearances] = $ours[$i];
            self::assertSame($theirs->get('simple')->boolean(), null === $contour->selfCrossing(), "ring $i");
            self::assertEqualsWithDelta(1.0, $contour->length() / $theirs->get('length')->number(), 1e-7, "ring $i");
            foreach ($theirs->list('bounds') as $k => $bound) {
                self::assertEqualsWithDelta($bound->number(), $contour->bounds()[$k], 0.01, "ring $i");
            }
            foreach ($theirs->list('near') as $k => $near) {
                self::assertEqualsWithDelta($near->number(), $clearances[$k]->mm, 0.01, "ring $i, edge $k");
                self::assertEqualsWithDelta($clearances[$k]->mm, $clearances[$k]->building->distanceTo($clearances[$k]->line), 1e-9);
            }
            if ($theirs->get('simple')->boolean()) {
                ++$simple;
                self::assertEqualsWithDelta(1.0, $contour->area() / $theirs->get('area')->number(), 1e-6, "ring $i");
            }
        }
        self::assertGreaterThan(50, $simple);
    }
}
