<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sheets;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Drafting\DrawnDimension;
use Plinth\Core\Drafting\DrawnLine;
use Plinth\Core\Drafting\Fill;
use Plinth\Core\Drafting\LineKind;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Objects\ObjectKind;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\FloorVoid;
use Plinth\Core\Plan\Model\PlacedObject;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Shaft;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Sheets\InkArea;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PlanOnPaper;
use Plinth\Core\Sheets\PlanSheet;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\SheetPainter;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Stairs\StairForm;
use Plinth\Core\Stairs\StairPlan;
use Plinth\Core\Tests\Plan\Plans;
use Plinth\Core\Tests\Stairs\Stairs;

/** What stands and lies beside walls is on the sheet as well: as it was drawn, by its line kind, with its figures. */
final class PlanBesideTest extends TestCase
{
    /** @param list<PlacedObject> $objects */
    private static function drawn(PlanBeside $beside, array $objects = []): SheetInk
    {
        $storey = new Storey('s', 'Ground', 0.0, 2700.0, Plans::rectangle(), objects: $objects);

        return PlanSheet::of($storey, Derivation::of($storey), new PlanOnPaper(50.0, 0.0, 0.0), beside: $beside);
    }

    /** @return list<InkText> */
    private static function named(SheetInk $ink, string $words): array
    {
        return array_values(array_filter($ink->texts, static fn (InkText $t): bool => $t->words === $words));
    }

    public function testALineIsAsWideAndDashedAsItsKindAndAShapeIsFilled(): void
    {
        $corners = [new Point(1000, 1000), new Point(2000, 1000), new Point(2000, 1500), new Point(1000, 1500)];
        $axis = DrawnLine::through([new Point(0, 2000), new Point(6000, 2000)], [], false, LineKind::LongDashDotWide);
        $solid = DrawnLine::through($corners, [], true, LineKind::Narrow, Fill::Solid);
        $ink = self::drawn(new PlanBeside(lines: [$axis, $solid]));
        $dashed = array_values(array_filter($ink->lines, static fn (InkLine $l): bool => [] !== $l->dashes));
        self::assertCount(1, $dashed);
        self::assertSame([InkLine::WIDE, [24.0, 3.0, 0.5, 3.0]], [$dashed[0]->width, $dashed[0]->dashes]);
        self::assertEquals([[0.0, -40.0], [120.0, -40.0]], $dashed[0]->points);
        $filled = array_filter($ink->areas, static fn ($a): bool => 0.55 === $a->grey);
        self::assertCount(1, $filled);
    }

    public function testAHatchFillsItsShapeAndNothingElse(): void
    {
        for ($seed = 1; $seed <= 40; ++$seed) {
            mt_srand($seed);
            // A star of any number of points: as far from convex as shapes are.
            $corners = [];
            $n = mt_rand(3, 9);
            for ($k = 0; $k < 2 * $n; ++$k) {
                $r = 0 === $k % 2 ? mt_rand(900, 1800) : mt_rand(200, 700);
                $corners[] = new Point(3000.0 + $r * cos($k * \M_PI / $n), 2000.0 + $r * sin($k * \M_PI / $n));
            }
            $ink = self::drawn(new PlanBeside(lines: [DrawnLine::through($corners, [], true, LineKind::Narrow, Fill::Crossed)]));
            $ring = array_map(static fn (Point $p): array => [$p->x / 50.0, -$p->y / 50.0], $corners);
            $strokes = array_filter($ink->lines, static fn (InkLine $l): bool => InkLine::FINE === $l->width && 2 === \count($l->points) && self::isInside($l, $ring));
            $long = 0.0;
            foreach ($strokes as $stroke) {
                [[$x1, $y1], [$x2, $y2]] = [$stroke->points[0], $stroke->points[1]];
                self::assertEqualsWithDelta(1.0, abs(($x2 - $x1) / ($y2 - $y1)), 1e-6, 'At 45° (ISO 128).');
                $long += hypot($x2 - $x1, $y2 - $y1);
            }
            // Lines 2 mm apart, twice: together as long as the area says.
            self::assertEqualsWithDelta(abs(Polygon::area($ring)), $long, 0.12 * abs(Polygon::area($ring)) + 10.0, "seed $seed");
        }
    }

    /** @param list<array{float, float}> $ring */
    private static function isInside(InkLine $line, array $ring): bool
    {
        [[$x1, $y1], [$x2, $y2]] = [$line->points[0], $line->points[1]];

        return Polygon::contains($ring, ($x1 + $x2) / 2.0, ($y1 + $y2) / 2.0);
    }

    public function testADimensionByHandReadsFromBelowOrFromTheRight(): void
    {
        $upright = new DrawnDimension(new Point(500, 3500), new Point(500, 1000), null, 300.0);
        $level = new DrawnDimension(new Point(4000, 500), new Point(1000, 800), 0.0, -200.0);
        $ink = self::drawn(new PlanBeside(dimensions: [$upright, $level]));
        self::assertEqualsWithDelta(90.0, self::named($ink, '2500')[0]->degrees, 1e-9);
        self::assertEqualsWithDelta(0.0, self::named($ink, '3000')[0]->degrees, 1e-9);
    }

    public function testStairsObjectsAndNotesAreThereAndStampsKeepOffTheirWords(): void
    {
        $stair = new Stair('st', [new Point(800, 3000), new Point(4000, 3000)], [], 900.0, 16);
        $bath = new PlacedObject('b', ObjectKind::Bath->value, new Point(5000, 700), 90.0, 1700.0, 750.0, 550.0);
        $beside = new PlanBeside(
            [StairPlan::below(StairForm::of($stair, 2700.0))],
            notes: [[[3000.0, 2000.0], 'assumed: sound floor', [5000.0, 2500.0]]],
        );
        $ink = self::drawn($beside, [$bath]);
        self::assertCount(1, self::named($ink, 'UP 16 R'));
        $note = self::named($ink, 'assumed: sound floor')[0];
        self::assertEqualsWithDelta([60.0, -40.0], [$note->x, $note->y - 1.25], 1e-9);
        $area = self::named($ink, '22.04 m²');
        self::assertCount(1, $area, 'Its place was taken, and it has found another one.');
        self::assertGreaterThan(3.0, hypot($area[0]->x - $note->x, $area[0]->y - $note->y));
        $white = array_filter($ink->areas, static fn ($a): bool => 1.0 === $a->grey);
        self::assertNotSame([], $white, 'A bath, under which nothing shows through.');
        self::assertGreaterThan(20, \count(array_filter($ink->lines, static fn (InkLine $l): bool => InkLine::NARROW === $l->width)));
    }

    /** A flight says its treads and how far they reach together, beside it and in one figure that comes out: 15 goings of 230 are 3450. */
    public function testAStairTellsItsTreadsItsWidthAndItsRise(): void
    {
        $stair = new Stair('st', [new Point(1800, 2000), new Point(5250, 2000)], [], 900.0, 16);
        $ink = self::drawn(new PlanBeside([StairPlan::below(StairForm::of($stair, 2700.0))]));
        $run = self::named($ink, '15 × 230 = 3450');
        self::assertCount(1, $run);
        // Beside the stair, whose edges lie at 1550 and 2450, and along it.
        self::assertTrue(abs(-50.0 * $run[0]->y - 2000.0) > 450.0 && 0.0 === $run[0]->degrees);
        self::assertCount(1, self::named($ink, '900'), 'How wide it is.');
        self::assertCount(1, self::named($ink, 'R 168.8, T 230'));
        self::assertSame(['stair.st.run1', 'stair.st.words'], [$run[0]->key, self::named($ink, 'UP 16 R')[0]->key]);
        // Without dimensions inside it says which way it goes, and no more.
        $view = new SheetView('v', ViewKind::Plan, 's', 0.0, 0.0, shows: [Shows::Stamps]);
        $storey = new Storey('s', 'Ground', 0.0, 2700.0, Plans::rectangle());
        $less = PlanSheet::of($storey, Derivation::of($storey), new PlanOnPaper(50.0, 0.0, 0.0), beside: new PlanBeside([StairPlan::below(StairForm::of($stair, 2700.0))]), view: $view);
        self::assertSame([1, []], [\count(self::named($less, 'UP 16 R')), self::named($less, '900')]);
    }

    /** A going that is no whole number is told as finely as it takes to come to what they reach together. */
    public function testGoingsTimesTreadsAreWhatIsToldOfAFlightOnAnyStair(): void
    {
        $told = 0;
        for ($seed = 1; $seed <= 40; ++$seed) {
            mt_srand($seed);
            $long = mt_rand(1500, 4200) + mt_rand(0, 9) / 10.0;
            $degrees = mt_rand(0, 3) * 90.0 + (0 === $seed % 3 ? mt_rand(0, 89) : 0);
            [$cos, $sin] = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
            $at = static fn (float $u): Point => new Point(10_000.0 + $cos * $u, 8000.0 + $sin * $u);
            $stair = new Stair('st', [$at(-$long / 2.0), $at($long / 2.0)], [], 850.0, mt_rand(8, 18));
            $walls = array_map(static fn (Wall $w): Wall => $w->between(
                new Point(4.0 * $w->from->x, 4.0 * $w->from->y),
                new Point(4.0 * $w->to->x, 4.0 * $w->to->y),
            ), Plans::rectangle());
            $storey = new Storey('s', 'Ground', 0.0, 2700.0, $walls);
            $plan = StairPlan::below(StairForm::of($stair, 2700.0));
            $ink = PlanSheet::of($storey, Derivation::of($storey), new PlanOnPaper(50.0, 0.0, 0.0), beside: new PlanBeside([$plan]));
            foreach ($ink->texts as $text) {
                $told += str_starts_with($text->key, 'stair.st.run') ? 1 : 0;
                if (1 === preg_match('/^(\d+) × ([\d.]+) = (\d+)$/u', $text->words, $m)) {
                    self::assertSame((int) $m[3], (int) round((int) $m[1] * (float) $m[2]), "seed $seed");
                    self::assertEqualsWithDelta($long, (float) $m[3], 0.5 + 1e-9, "seed $seed");
                    self::assertEqualsWithDelta(0.0, fmod(abs($text->degrees - $degrees) + 1e-7, 180.0), 1e-3, "seed $seed: along its flight");
                    foreach ($plan->seen as $line) {
                        foreach ($line as [$x, $y]) {
                            self::assertFalse(Polygon::contains($text->room(), $x / 50.0, -$y / 50.0), "seed $seed: not on the stair");
                        }
                    }
                }
            }
        }
        self::assertGreaterThan(36, $told, 'Where there is room, it is told.');
    }

    public function testFlightsEndAtLandingsAndWindersAreNone(): void
    {
        $flights = static fn (string $shape): array => StairPlan::below(StairForm::of((new Stairs(2000.0, 1000.0, 40.0))->of($shape), 2700.0))->flights;
        self::assertCount(1, $flights('straight'));
        self::assertCount(2, $flights('quarter'));
        self::assertCount(2, $flights('half landing'));
        self::assertSame([], $flights('half circle'));
        self::assertSame([], $flights('free'));
        foreach ([...$flights('quarter'), ...$flights('half landing')] as $flight) {
            foreach ([$flight->left, $flight->right] as [[$ax, $ay], [$bx, $by]]) {
                self::assertEqualsWithDelta($flight->treads * $flight->going, hypot($bx - $ax, $by - $ay), 1e-6);
            }
        }
    }

    /** Of two flights side by side each is told on its own side, or not at all: beyond the other one it would be that one's. */
    public function testADimensionOfAFlightIsNotBeyondAnotherOneOrAWall(): void
    {
        $stair = new Stair('st', [new Point(2000, 3400), new Point(4500, 3400), new Point(4500, 2420), new Point(2000, 2420)], [], 950.0, 16);
        $plan = StairPlan::below(StairForm::of($stair, 2800.0));
        self::assertCount(2, $plan->flights);
        $ink = self::drawn(new PlanBeside([$plan]));
        $runs = array_values(array_filter($ink->texts, static fn (InkText $t): bool => str_starts_with($t->key, 'stair.st.run')));
        // The first one has a wall 25 mm beside it, and the second one on its other side.
        self::assertSame(['stair.st.run2'], array_column($runs, 'key'));
        self::assertTrue($runs[0]->y > -1945.0 / 50.0, 'Below the lower flight.');
    }

    /** What stands through the floor is cut, a railing is seen, and a hole in the floor is crossed out. */
    public function testChimneysAreCutRailingsSeenAndVoidsCrossed(): void
    {
        $rail = new Wall('rail', new Point(2000, 100), new Point(2000, 2000), 60.0, height: 950.0, enclosing: false, railing: true);
        $nib = new Wall('nib', new Point(5000, 3900), new Point(5000, 3000), 100.0, enclosing: false);
        $void = new FloorVoid('hole', new Contour([new Point(1000, 500), new Point(1800, 500), new Point(1800, 1500), new Point(1000, 1500)]));
        $storey = new Storey('s', 'Upper', 2800.0, 2700.0, [...Plans::rectangle(), $rail, $nib], voids: [$void]);
        $lower = new Storey('l', 'Ground', 0.0, 2800.0, Plans::rectangle(), shafts: [
            new Shaft('chimney', new Contour([new Point(3000, 3000), new Point(3600, 3000), new Point(3600, 3600), new Point(3000, 3600)]), 0.0, 9000.0),
            new Shaft('short', new Contour([new Point(400, 3000), new Point(900, 3000), new Point(900, 3600), new Point(400, 3600)]), 0.0, 2000.0),
        ]);
        $painter = new SheetPainter(new SheetSubject('Weir cottage', new Plan([$lower, $storey])));
        $ink = $painter->view(new SheetView('v', ViewKind::Plan, 's', 0.0, 0.0, 50.0))->ink;
        $ring = static fn (float $x1, float $y1, float $x2, float $y2): \Closure => static function (InkArea|InkLine $of) use ($x1, $y1, $x2, $y2): bool {
            $points = $of instanceof InkArea ? $of->rings[0] : $of->points;
            [$a, $b, $c, $d] = [] === $points ? [0.0, 0.0, 0.0, 0.0] : Polygon::bounds($points);

            return abs($a - $x1 / 50.0) + abs($b + $y2 / 50.0) + abs($c - $x2 / 50.0) + abs($d + $y1 / 50.0) < 1e-6;
        };
        $lines = static fn (\Closure $in): array => array_values(array_map(static fn (InkLine $l): float => $l->width, array_filter($ink->lines, $in)));
        self::assertCount(1, array_filter($ink->areas, $ring(3000, 3000, 3600, 3600)), 'A chimney of the storey below goes through.');
        self::assertSame([], array_filter($ink->areas, $ring(400, 3000, 900, 3600)), 'One that ends below does not.');
        self::assertSame([InkLine::NARROW], $lines($ring(1970, 100, 2030, 2000)), 'A railing is seen.');
        self::assertSame([InkLine::WIDE], $lines($ring(4950, 3000, 5050, 3900)), 'A wall that bounds no room is cut all the same.');
        self::assertSame([InkLine::NARROW, InkLine::FINE, InkLine::FINE], $lines($ring(1000, 500, 1800, 1500)));
    }
}
