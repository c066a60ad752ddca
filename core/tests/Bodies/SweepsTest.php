<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Bodies;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Bodies\StoreyBodies;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Sweep;
use Plinth\Core\Plan\Model\SweepAlong;
use Plinth\Core\Plan\Model\Wall;

/** Mouldings follow walls and eaves, stand where they are told to, and say why where they cannot. */
final class SweepsTest extends TestCase
{
    /** A house of 8 × 6 m over its walls' outer faces, and a shed of 2 × 2 m beside it. */
    private static function standing(Sweep $sweep, float $level = 0.0, ?float $gable = null): StoreyBodies
    {
        $walls = [];
        foreach (['h' => [0.0, 0.0, 8000.0, 6000.0], 's' => [12_000.0, 0.0, 14_000.0, 2000.0]] as $of => [$x1, $y1, $x2, $y2]) {
            $corners = [
                new Point($x1 + 100, $y1 + 100), new Point($x2 - 100, $y1 + 100), new Point($x2 - 100, $y2 - 100), new Point($x1 + 100, $y2 - 100),
            ];
            foreach ($corners as $i => $corner) {
                $walls[] = new Wall("$of$i", $corner, $corners[($i + 1) % 4], 200.0);
            }
        }
        $round = [new Point(0, 0), new Point(8000, 0), new Point(8000, 6000), new Point(0, 6000)];
        $roof = new PitchedRoof('r', $round, [40.0, $gable, 40.0, $gable], [500.0, 300.0, 500.0, 300.0], 2500.0, 200.0);
        $storey = new Storey('g', 'Ground', $level, 2500.0, $walls, roofs: [$roof], sweeps: [$sweep]);

        return (new BuildingBodies(new Plan([$storey])))->storey('g');
    }

    private static function profile(): Contour
    {
        return new Contour([new Point(0, 0), new Point(60, 0), new Point(60, 40), new Point(0, 40)]);
    }

    /** @return list<Body> */
    private static function swept(StoreyBodies $of): array
    {
        return array_values(array_filter($of->all(), static fn (Body $b): bool => BodyKind::Swept === $b->kind));
    }

    /** @return array{float, float} lowest and highest */
    private static function heights(Body $body): array
    {
        $z = array_map(static fn (array $p): float => $p[2], $body->mesh()->vertices);

        return [] === $z ? [\NAN, \NAN] : [min($z), max($z)];
    }

    public function testRoundWallsThereIsOneForEachGroupThatBelongsTogether(): void
    {
        $bodies = self::swept(self::standing(new Sweep('m', self::profile(), SweepAlong::Walls, level: 2000.0), 300.0));
        self::assertCount(2, $bodies);
        $volumes = array_map(static fn (Body $b): float => $b->mesh()->volume(), $bodies);
        rsort($volumes);
        self::assertEqualsWithDelta(40.0 * (8120.0 * 6120.0 - 8000.0 * 6000.0), $volumes[0], 50.0);
        self::assertEqualsWithDelta(40.0 * (2120.0 * 2120.0 - 2000.0 * 2000.0), $volumes[1], 50.0);
        self::assertEqualsWithDelta([2300.0, 2340.0], self::heights($bodies[0]), 1e-9);
    }

    public function testAlongEavesItHangsFromTheirLowerEdgeAndLeavesGablesOut(): void
    {
        $gutter = new Sweep('m', self::profile(), SweepAlong::Eaves, of: 'r', level: -10.0);
        $lower = 2500.0 - 500.0 * tan(deg2rad(40.0));
        $bodies = self::swept(self::standing($gutter));
        self::assertCount(2, $bodies, 'One along each of the two eaves.');
        foreach ($bodies as $body) {
            self::assertEqualsWithDelta(60.0 * 40.0 * 8600.0, $body->mesh()->volume(), 50.0);
            self::assertEqualsWithDelta([$lower - 10.0, $lower + 30.0], self::heights($body), 1e-6);
        }
        $hipped = self::swept(self::standing($gutter, gable: 55.0));
        self::assertCount(1, $hipped);
        self::assertEqualsWithDelta(40.0 * (8720.0 * 7120.0 - 8600.0 * 7000.0), $hipped[0]->mesh()->volume(), 50.0);
    }

    public function testWhatCannotStandSaysWhyAndTheRestStands(): void
    {
        $lost = self::standing(new Sweep('m', self::profile(), SweepAlong::Eaves, of: 'none'));
        self::assertSame([], self::swept($lost));
        self::assertSame(['m'], array_column($lost->refused(), 'id'));
        self::assertStringContainsString('choose another path', $lost->refused()[0]->message);
        $wide = new Contour([new Point(-3500, 0), new Point(60, 0), new Point(60, 40), new Point(-3500, 40)]);
        $within = self::standing(new Sweep('m', $wide, SweepAlong::Walls));
        self::assertSame([], self::swept($within));
        self::assertStringContainsString('too wide', $within->refused()[0]->message);
        self::assertNotSame([], $within->shell());
    }

    public function testThePlanShowsWhatItCovers(): void
    {
        $shown = self::standing(new Sweep('m', self::profile(), SweepAlong::Walls, level: 1500.0), 300.0)->sweepsShown();
        self::assertCount(2, $shown);
        self::assertEqualsWithDelta(1500.0, $shown[0]->bottom, 1e-9);
        self::assertCount(2, $shown[0]->rings, 'A ring, and the hole in it.');
        $arch = new Sweep(
            'm',
            self::profile(),
            SweepAlong::Path,
            [new Point(1000, 2000), new Point(2000, 2000)],
            [400.0],
            face: [new Point(0, 0), new Point(8000, 0)],
        );
        [$over] = self::standing($arch)->sweepsShown();
        [$ys] = [array_map(static fn (array $p): float => $p[1], $over->rings[0])];
        self::assertEqualsWithDelta([-40.0, 0.0], [min($ys), max($ys)], 1e-9, 'It stands before the face.');
        // Its ends are square to the arc, which leans there.
        self::assertEqualsWithDelta(2000.0, $over->bottom, 20.0);
    }
}
