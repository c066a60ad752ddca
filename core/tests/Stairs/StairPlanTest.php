<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Stairs;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Stairs\StairForm;
use Plinth\Core\Stairs\StairPlan;

/** A plan shows a stair up to where it is cut, dashed beyond, with its arrow upwards; the storey above what is seen of it from there. */
final class StairPlanTest extends TestCase
{
    public function testBelowItIsCutAndDashedBeyond(): void
    {
        $form = StairForm::of((new Stairs())->of('straight'), 2700.0);
        $plan = StairPlan::below($form);
        // Six treads of 180 lie under 1.2 m; the seventh is cut.
        self::assertCount(6 * 3, $plan->seen);
        self::assertCount(8 * 3 + 1, $plan->beyond, 'and the last riser');
        self::assertEqualsWithDelta([[1500.0, 450.0], [1750.0, -450.0]], $plan->cut, 1e-9);
        self::assertEqualsWithDelta([[0.0, 0.0], [3500.0, 0.0]], [$plan->way[0], $plan->way[14]], 1e-9);
        self::assertSame([range(1, 14), 'UP 15 R'], [array_column($plan->numbers, 'number'), $plan->words]);
    }

    public function testAboveOnlyWhatIsSeenThroughTheOpenFloorIsDrawn(): void
    {
        $form = StairForm::of((new Stairs())->of('straight'), 2700.0);
        $plan = StairPlan::above($form, 2450.0);
        self::assertCount(12 * 3 + 1, $plan->seen);
        self::assertSame([[], null, 'DN 15 R'], [$plan->beyond, $plan->cut, $plan->words]);
        self::assertEqualsWithDelta([500.0, 0.0], $plan->way[0], 1e-9);
    }

    public function testAFlightThatEndsUnderTheCutIsSeenWhole(): void
    {
        $plan = StairPlan::below(StairForm::of((new Stairs())->of('straight', 6), 900.0));
        self::assertSame([[], null], [$plan->beyond, $plan->cut]);
        self::assertCount(5 * 3 + 1, $plan->seen);
    }

    /** The arrow goes round a landing and stays on the stair. */
    public function testTheWayRunsOverTheTreadsOfAnyStair(): void
    {
        foreach (Stairs::SHAPES as $shape) {
            $form = StairForm::of((new Stairs(2000.0, 1000.0, 40.0))->of($shape), 2700.0);
            $plan = StairPlan::below($form);
            $length = 0.0;
            foreach (\array_slice($plan->way, 1) as $i => [$x, $y]) {
                $length += hypot($x - $plan->way[$i][0], $y - $plan->way[$i][1]);
            }
            self::assertEqualsWithDelta($form->run(), $length, 0.12 * $form->run(), $shape);
            self::assertCount(14, $plan->numbers);
        }
    }
}
