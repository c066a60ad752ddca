<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Picks\DrawnRisers;

/** A line along a drawn flight, from about its first riser to about its last, says how many there are and how far apart. */
final class DrawnRisersTest extends TestCase
{
    /** Drawn here, each another: turned anyhow, worn, with arrows, figures, cuts and walls beside them. */
    public function testRisersAndGoingsOfDrawnFlightsAreFound(): void
    {
        [$right, $wrong, $all] = [0, [], 40];
        for ($seed = 301; $seed < 301 + $all; ++$seed) {
            $sheet = new StairSheets($seed);
            mt_srand($seed);
            $near = static fn (Point $p): Point => $p->plus(mt_rand(-70, 70), mt_rand(-70, 70));
            $found = DrawnRisers::between($sheet->page->page(), $sheet->map, $near($sheet->from), $near($sheet->to), $sheet->width);
            if (null !== $found && $found->count === $sheet->risers && abs($found->going() - $sheet->going) < 0.04 * $sheet->going) {
                ++$right;
                self::assertLessThan(110.0, $found->from->distanceTo($sheet->from), 'As far aside as it was pointed.');
            } elseif (null !== $found) {
                $wrong[] = $seed;
            }
        }
        self::assertGreaterThanOrEqual(0.85 * $all, $right, implode(', ', $wrong));
        self::assertLessThanOrEqual(2, \count($wrong), 'What is not seen is not said: '.implode(', ', $wrong));
    }

    /** Both flights beside a landing, each from about its own first riser to its own last. */
    public function testFlightsOnBothSidesOfALandingAreFound(): void
    {
        [$right, $wrong, $all] = [0, [], 40];
        for ($seed = 501; $seed < 501 + $all; ++$seed) {
            $sheet = new StairSheets($seed, true);
            mt_srand($seed);
            $near = static fn (Point $p): Point => $p->plus(mt_rand(-50, 50), mt_rand(-50, 50));
            $counts = [];
            foreach ([[$sheet->risers, $sheet->from, $sheet->to], $sheet->second ?? [0, $sheet->from, $sheet->to]] as [$risers, $from, $to]) {
                $found = DrawnRisers::between($sheet->page->page(), $sheet->map, $near($from), $near($to), $sheet->width);
                $counts[] = null === $found ? null : $found->count === $risers;
            }
            $right += [true, true] === $counts ? 1 : 0;
            if (\in_array(false, $counts, true)) {
                $wrong[] = $seed;
            }
        }
        self::assertGreaterThanOrEqual(0.85 * $all, $right, implode(', ', $wrong));
        self::assertLessThanOrEqual(2, \count($wrong), implode(', ', $wrong));
    }

    public function testWhereNoneAreDrawnNoneAreFound(): void
    {
        $map = PixelToMm::similar(10.0, 0.0, new PixelPoint(0.0, 0.0), new Point(0.0, 0.0));
        $at = static fn (float $x): Point => new Point($x, -1000.0);
        $blank = new Sheets(400, 200, grain: 12);
        self::assertNull(DrawnRisers::between($blank->raster()->page(), $map, $at(400.0), $at(3600.0), 900.0));
        self::assertNull(DrawnRisers::between($blank->raster()->page(), $map, $at(400.0), $at(500.0), 900.0), 'shorter than two goings');
        $walls = (new Sheets(400, 200, grain: 4))->fill(20, 60, 360, 10)->fill(20, 140, 360, 10)->fill(150, 60, 8, 80)->fill(330, 60, 8, 80);
        self::assertNull(DrawnRisers::between($walls->raster()->page(), $map, $at(400.0), $at(3600.0), 600.0), 'Two walls are no stair.');
    }
}
