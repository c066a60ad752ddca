<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Tests\Projection\Buildings;

/** What is cut out of walls where they are drawn parts them cleanly: straight or curved, nothing of a hair's breadth is left over an opening. */
final class CutOutsTest extends TestCase
{
    public function testACutOutHoldsItsOpeningAndLittleMore(): void
    {
        $seen = 0;
        for ($seed = 1; $seed <= 40; ++$seed) {
            foreach (Buildings::of($seed)->storeys as $storey) {
                $derived = Derivation::of($storey);
                $cutOuts = $derived->cutOuts();
                self::assertCount(\count($derived->openings), $cutOuts);
                foreach (array_values($derived->openings) as $i => $opening) {
                    ++$seen;
                    self::assertGreaterThan(0.0, Polygon::area($cutOuts[$i]), 'Counter-clockwise, whichever way its opening runs.');
                    $wide = hypot($opening[0][0] - $opening[\count($opening) - 1][0], $opening[0][1] - $opening[\count($opening) - 1][1]);
                    $own = abs(Polygon::area($opening));
                    // Half a millimetre more on either face, along all of it.
                    self::assertEqualsWithDelta($own * ($wide + 1.0) / $wide, Polygon::area($cutOuts[$i]), 2e-3 * $own, "seed $seed");
                    foreach ($opening as [$x, $y]) {
                        $least = min(array_map(static fn (array $p): float => hypot($p[0] - $x, $p[1] - $y), $cutOuts[$i]));
                        self::assertEqualsWithDelta(0.5, $least, 1e-6, "seed $seed");
                    }
                }
            }
        }
        self::assertGreaterThan(200, $seen);
    }

    /** Openings in arcs of every bow: the wall falls into as many pieces as it is parted into, and their areas add up. */
    public function testACurvedWallIsPartedWhereItsOpeningsAre(): void
    {
        for ($seed = 1; $seed <= 60; ++$seed) {
            mt_srand($seed);
            $walls = Plans::rectangle();
            $rise = (0 === $seed % 2 ? 1.0 : -1.0) * mt_rand(30, 1500);
            $walls[0] = new Wall('south', new Point(0.0, 0.0), new Point(6000.0, 0.0), (float) mt_rand(80, 400), rise: $rise);
            $openings = [
                new Opening('a', 'south', OpeningKind::Door, 900.0, 800.0 + mt_rand(0, 300)),
                new Opening('b', 'south', OpeningKind::Window, 3000.0, 700.0 + mt_rand(0, 900)),
            ];
            $derived = Derivation::of(Plans::storey($walls, $openings));
            $rings = [];
            foreach ($derived->walls['south']->stretches as ['from' => $from, 'right' => $right, 'to' => $to, 'left' => $left]) {
                $rings[] = [$from, ...$right, $to, ...$left];
            }
            self::assertNotSame([], $rings);
            $areas = [];
            foreach (Overlay::difference($rings, $derived->cutOuts('south')) as ['outer' => $outer]) {
                $areas[] = abs(Polygon::area($outer));
                // Where it meets another wall a curved one ends in a point; over its openings nothing is left.
                foreach ($outer as [$x]) {
                    self::assertTrue($areas[\count($areas) - 1] > 1000.0 || $x < 400.0 || $x > 5600.0, "seed $seed");
                }
            }
            self::assertCount(3, array_filter($areas, static fn (float $mm2): bool => $mm2 > 1000.0), "seed $seed");
            $cut = array_sum(array_map(static fn (array $o): float => abs(Polygon::area($o)), $derived->openings));
            $whole = array_sum(array_map(static fn (array $r): float => abs(Polygon::area($r)), $rings));
            self::assertEqualsWithDelta($whole - $cut, array_sum($areas), 2e-3 * $whole, "seed $seed");
        }
    }
}
