<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Fitting;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\Internal\Adjustment;
use Plinth\Core\Fitting\Internal\Condition\Place;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\ShapeModel;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/**
 * The least squares with conditions, held against a worked example of the literature in which both coordinates carry errors:
 * Pearson, On Lines and Planes of Closest Fit (1901): the line of closest fit to his ten points is y = 5.784 − 0.546 x (from memory;
 * an orthogonal regression of the data gives 5.7840 and −0.54556).
 */
final class AdjustmentTest extends TestCase
{
    public function testPearsonsLineOfClosestFit(): void
    {
        $x = [0.0, 0.9, 1.8, 2.6, 3.3, 4.4, 5.2, 6.1, 6.5, 7.4];
        $y = [5.9, 5.4, 4.4, 4.6, 3.5, 3.7, 2.8, 2.8, 2.4, 1.5];
        $frame = new PageFrame(16.0, 12.0);
        $picks = [];
        $conditions = [];
        foreach ($x as $i => $xi) {
            $picks["p$i"] = [$frame->centre->x + $xi, $frame->centre->y - $y[$i]];
            $conditions["c$i"] = new Place("p$i", false, 0.0);
        }
        $adjustment = new Adjustment(
            self::line($frame->unitPx),
            $frame,
            $picks,
            array_fill_keys(array_keys($picks), 0.3),
            $conditions,
            [],
            [-0.3, 4.0],
            0.0,
            0.0,
            ['place'],
        );
        $adjustment->settle();
        [$slope, $intercept] = $adjustment->shape();
        self::assertEqualsWithDelta(-0.5456, $slope, 0.0001);
        self::assertEqualsWithDelta(5.7840, $intercept, 0.0001);
        self::assertSame(8, $adjustment->degreesOfFreedom());
        // What each point adds to the fit: eight redundancies in all, the outermost points least checked.
        $redundancy = array_map(static fn (int $i): float => $adjustment->redundancy("c$i"), range(0, 9));
        self::assertEqualsWithDelta(8.0, array_sum($redundancy), 1e-9);
        self::assertLessThan($redundancy[4], $redundancy[0]);
    }

    /** A model whose y vanishes on a line: parameters are slope and intercept. */
    private static function line(float $unit): ShapeModel
    {
        return new class($unit) implements ShapeModel {
            public function __construct(private readonly float $unit)
            {
            }

            public function model(): Model
            {
                return Model::Similar;
            }

            public function parameters(): array
            {
                return ['slope', 'intercept'];
            }

            public function apply(array $parameters, float $u, float $v): array
            {
                return [$u * $this->unit, $v * $this->unit - $parameters[1] - $parameters[0] * $u * $this->unit];
            }

            public function priors(array $parameters): array
            {
                return [];
            }

            public function start(float $mmPerUnit, float $turnRad): array
            {
                return [0.0, 0.0];
            }

            public function pixelToMm(array $parameters, PageFrame $frame, float $centreX, float $centreY): PixelToMm
            {
                return PixelToMm::similar(1.0, 0.0, $frame->centre, new Point($centreX, $centreY));
            }
        };
    }
}
