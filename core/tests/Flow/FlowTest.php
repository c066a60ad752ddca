<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Flow;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Flow\Flow;
use Plinth\Core\Flow\SizedByFigures;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Tests\Ink\Reading\DrawnFigures;
use Plinth\Core\Tests\Ink\Walls\DrawnWalls;

/** A drawing with figures becomes rooms of their true size with nobody at hand; one whose size nothing tells says so instead. */
final class FlowTest extends TestCase
{
    /** mm² of the two rooms that DrawnWalls draws: clear between faces */
    private const ROOMS = [2_430.0 * 3_960.0, 3_430.0 * 3_960.0];

    public function testADrawingBecomesRoomsByItsOwnFigures(): void
    {
        $flow = self::flow(self::sheet(DrawnFigures::millimetres()));
        self::assertSame(0, $flow->read->turns);
        self::assertSame([], $flow->size?->heldOut);
        self::assertGreaterThanOrEqual(6, \count($flow->size->used));
        self::assertEqualsWithDelta(10.0, $flow->map?->mmPerPixelAt(new PixelPoint(480.0, 450.0)) ?? 0.0, 0.01);
        self::assertCount(5, $flow->plan->walls ?? []);
        self::assertCount(1, $flow->plan->openings ?? []);
        self::assertRooms($flow);
    }

    public function testWhicheverWayUpItLies(): void
    {
        $sheet = self::sheet(DrawnFigures::millimetres());
        $flow = self::flow(new GreyRaster($sheet->width, $sheet->height, strrev($sheet->bytes)));
        self::assertSame(2, $flow->read->turns);
        self::assertRooms($flow);
        $corner = $flow->map?->toMm(new PixelPoint(0.0, 0.0));
        $other = $flow->map?->toMm(new PixelPoint(960.0, 900.0));
        self::assertGreaterThan($other->x ?? \INF, $corner->x ?? -\INF, 'What lies at its upper left is read at its lower right.');
        self::assertLessThan($other->y ?? -\INF, $corner->y ?? \INF);
    }

    /** Few figures up and down are enough where its lines say that it lies flat; how far it may be stretched, ± owns. */
    public function testMostlyAlongOneAxisItsFiguresSizeWhatLiesFlat(): void
    {
        $all = self::flow(self::sheet(DrawnFigures::millimetres()));
        $few = self::flow(self::sheet(DrawnFigures::millimetres()->fewerUpright()));
        self::assertFalse($few->read->isSure);
        self::assertRooms($few);
        self::assertGreaterThanOrEqual($all->size?->fit->plusMinusMmPer10m, $few->size?->fit->plusMinusMmPer10m);
        self::assertNull(SizedByFigures::of($few->read, null, new PixelBox(0.0, 0.0, 960.0, 900.0), 960.0, 900.0, 0.2), 'Nothing says that it lies flat.');
    }

    public function testWithoutFiguresItSaysThatTheSizeIsNotKnown(): void
    {
        $flow = self::flow(DrawnWalls::raster('solid'));
        self::assertNull($flow->map);
        self::assertNull($flow->plan);
        self::assertStringContainsString('to tell how large it is', implode(' ', $flow->says));
    }

    private static function assertRooms(Flow $flow): void
    {
        $areas = array_map(static fn (Region $r): float => $r->netAreaMm2, $flow->derived->regions ?? []);
        sort($areas);
        self::assertCount(2, $areas);
        foreach (self::ROOMS as $i => $area) {
            self::assertEqualsWithDelta(1.0, $areas[$i] / $area, 0.005);
        }
    }

    private static function flow(GreyRaster $sheet): Flow
    {
        return Flow::of($sheet->page(), new PixelBox(0.0, 0.0, $sheet->width, $sheet->height), null, static fn (): array => []);
    }

    /** Two rooms between their dimension lines, all at one scale. */
    private static function sheet(DrawnFigures $figures): GreyRaster
    {
        $walls = DrawnWalls::raster('solid');
        $sheet = $figures->raster;
        $bytes = $sheet->bytes;
        for ($y = 0; $y < $walls->height; ++$y) {
            for ($x = 0; $x < $walls->width; ++$x) {
                $at = ($y + 150) * $sheet->width + $x + 150;
                $bytes[$at] = min($bytes[$at], $walls->bytes[$y * $walls->width + $x]);
            }
        }

        return new GreyRaster($sheet->width, $sheet->height, $bytes);
    }
}
