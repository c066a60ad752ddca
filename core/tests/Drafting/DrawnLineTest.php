<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Drafting;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Drafting\DrawnDimension;
use Plinth\Core\Drafting\DrawnLine;
use Plinth\Core\Drafting\Exception\UnusableLine;
use Plinth\Core\Drafting\Fill;
use Plinth\Core\Drafting\LineKind;
use Plinth\Core\Geometry\Point;

/** Lines, shapes and dimensions drawn by hand say how long they are and what they enclose. */
final class DrawnLineTest extends TestCase
{
    public function testALineIsAsLongAsItsStretchesAndArcs(): void
    {
        $open = DrawnLine::through([new Point(0, 0), new Point(300, 400), new Point(300, 1400)]);
        self::assertEqualsWithDelta(1500.0, $open->length(), 1e-9);
        self::assertNull($open->contour());
        // A half circle over a diameter of 200: π r.
        $bowed = DrawnLine::through([new Point(0, 0), new Point(200, 0)], [100.0]);
        self::assertEqualsWithDelta(\M_PI * 100.0, $bowed->length(), 1e-9);
    }

    public function testACircleIsTwoArcsThatClose(): void
    {
        $circle = DrawnLine::through([new Point(-50, 7), new Point(50, 7)], [50.0, 50.0], true, fill: Fill::Solid);
        self::assertEqualsWithDelta(2.0 * \M_PI * 50.0, $circle->length(), 1e-9);
        self::assertEqualsWithDelta(\M_PI * 2500.0, abs($circle->contour()?->area() ?? 0.0), 1e-6);
    }

    /** @return iterable<string, array{list<Point>, bool, string}> */
    public static function unusable(): iterable
    {
        yield 'one place' => [[new Point(0, 0)], false, 'two or more'];
        yield 'twice the same' => [[new Point(0, 0), new Point(1, 0), new Point(1, 0.001)], false, 'Corner 2'];
        yield 'there and back' => [[new Point(0, 0), new Point(100, 0)], true, 'encloses nothing'];
        yield 'a bow tie' => [[new Point(0, 0), new Point(100, 100), new Point(100, 0), new Point(-10, 90)], true, 'crosses stretch'];
    }

    /** @param list<Point> $corners */
    #[DataProvider('unusable')]
    public function testWhatCannotBeDrawnIsRefusedInWords(array $corners, bool $closed, string $words): void
    {
        $this->expectException(UnusableLine::class);
        $this->expectExceptionMessage($words);
        DrawnLine::through($corners, [], $closed);
    }

    public function testAnOpenLineMayCrossItself(): void
    {
        $line = DrawnLine::through([new Point(0, 0), new Point(100, 100), new Point(100, 0), new Point(0, 100)]);
        self::assertEqualsWithDelta(100.0 + 2.0 * hypot(100.0, 100.0), $line->length(), 1e-9);
    }

    /** Parts of line types 01 to 05 in line widths: ISO 128-2, table of line elements (from memory). */
    public function testLineKindsFollowIso128(): void
    {
        self::assertSame([], LineKind::Wide->dashes());
        self::assertSame([12.0, 3.0], LineKind::Dashed->dashes());
        self::assertSame([24.0, 3.0, 0.5, 3.0], LineKind::LongDashDot->dashes());
        self::assertSame([24.0, 3.0, 0.5, 3.0, 0.5, 3.0], LineKind::LongDashTwoDots->dashes());
        self::assertSame(
            ['continuous wide', 'long-dashed dotted wide'],
            array_values(array_map(
                static fn (LineKind $k): string => $k->value,
                array_filter(LineKind::cases(), static fn (LineKind $k): bool => $k->isWide()),
            )),
        );
    }

    public function testADimensionTellsTheLengthAlongItsDirection(): void
    {
        [$from, $to] = [new Point(100, 200), new Point(400, 600)];
        self::assertEqualsWithDelta(500.0, (new DrawnDimension($from, $to, null, 0.0))->measures(), 1e-9);
        self::assertEqualsWithDelta(300.0, (new DrawnDimension($from, $to, 0.0, 0.0))->measures(), 1e-9);
        $upright = new DrawnDimension($from, $to, 90.0, 150.0);
        self::assertEqualsWithDelta(400.0, $upright->measures(), 1e-9);
        // Left of upwards is towards smaller x.
        [$start, $end] = $upright->line();
        self::assertEqualsWithDelta([-50.0, 200.0, -50.0, 600.0], [$start->x, $start->y, $end->x, $end->y], 1e-9);
        $backwards = new DrawnDimension($to, $from, 0.0, 0.0);
        self::assertEqualsWithDelta(300.0, $backwards->measures(), 1e-9);
        self::assertEqualsWithDelta(0.0, (new DrawnDimension($from, $from, null, 9.0))->measures(), 1e-9);
    }
}
