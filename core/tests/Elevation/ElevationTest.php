<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Elevation;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Elevation\Exception\UnusableOutline;
use Plinth\Core\Elevation\Outline;
use Plinth\Core\Elevation\SideLine;
use Plinth\Core\Geometry\Point;

/** What stands on a side: sizes of what is traced round, and where corners of the plan come to lie. */
final class ElevationTest extends TestCase
{
    public function testAGable(): void
    {
        // 8 m wide, 5 m to the eaves, 8 m to the ridge: 40 + 12 m².
        $gable = Outline::round([new Point(0, 0), new Point(8000, 0), new Point(8000, 5000), new Point(4000, 8000), new Point(0, 5000)]);
        self::assertEqualsWithDelta([52.0, 8000.0, 8000.0], [$gable->areaM2(), $gable->width(), $gable->height()], 1e-9);
    }

    public function testOneThatCrossesItselfOrHasTooFewCornersIsRefused(): void
    {
        try {
            Outline::round([new Point(0, 0), new Point(8000, 0)]);
            self::fail('Two corners enclose nothing.');
        } catch (UnusableOutline $e) {
            self::assertStringContainsString('at least three', $e->getMessage());
        }
        $this->expectExceptionMessage('Edge 2 of the outline crosses edge 4');
        Outline::round([new Point(0, 0), new Point(8000, 0), new Point(0, 5000), new Point(8000, 5000)]);
    }

    public function testASideIsLookedAtFromItsRightHand(): void
    {
        // The south side of a building whose corner is the origin: looked at from the south, west is left.
        $south = SideLine::between(new Point(0, 0), new Point(12_000, 0));
        self::assertSame([12_000.0, 3000.0, 8000.0], [
            $south->length(),
            $south->along(new Point(3000, 8000)),
            $south->behind(new Point(3000, 8000)),
        ]);
        // Its north side is looked at from the north: what is east is left.
        $north = SideLine::between(new Point(12_000, 8000), new Point(0, 8000));
        self::assertSame([9000.0, 8000.0], [$north->along(new Point(3000, 0)), $north->behind(new Point(3000, 0))]);
        // A wall that joins a face from inside makes no corner of it.
        self::assertCount(
            4,
            SideLine::corners([new Point(0, 0), new Point(5200, 0), new Point(12_000, 0), new Point(12_000, 8000), new Point(0, 8000)]),
        );
        // At any angle.
        $cant = SideLine::between(new Point(1000, 1000), new Point(4000, 5000));
        self::assertEqualsWithDelta([2500.0, 0.0], [$cant->along(new Point(2500, 3000)), $cant->behind(new Point(2500, 3000))], 1e-9);
    }
}
