<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Site;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Site\Exception\UnusableMapPoints;
use Plinth\Core\Site\Georeference;
use Plinth\Core\Site\MapPoint;

/** A plan lies on a map by places that are known in both. */
final class GeoreferenceTest extends TestCase
{
    /** Moved, turned and enlarged at random: two places give that back exactly, more as well, and each lies where it is. */
    public function testPlacesThatAgreeGiveWhatTheyWereMadeWith(): void
    {
        mt_srand(25832);
        for ($k = 0; $k < 200; ++$k) {
            $made = new Georeference('EPSG:25832', mt_rand() / 1e3, mt_rand() / 400.0, 112.5, mt_rand(-17_999, 17_999) / 100.0, mt_rand(9950, 10_050) / 1e4);
            $points = array_map(static function (int $i) use ($made): MapPoint {
                $at = new Point(mt_rand(-90_000, 90_000), mt_rand(-90_000, 90_000) + 200_000.0 * $i);

                return new MapPoint($at, ...[...$made->of($at), 1 === $i ? null : 112.5]);
            }, range(0, mt_rand(1, 5)));
            $found = Georeference::through('EPSG:25832', $points);
            self::assertEqualsWithDelta([$made->east, $made->north], [$found->east, $found->north], 1e-5);
            self::assertEqualsWithDelta([$made->degrees, $made->scale, $made->height], [$found->degrees, $found->scale, $found->height], 1e-8);
            self::assertLessThan(1e-3, max(array_map($found->off(...), $points)));
        }
    }

    /** Least squares: moving, turning or enlarging it a little makes the sum of squares no smaller. */
    public function testPlacesThatDisagreeAreOffAsLittleAsCanBe(): void
    {
        mt_srand(7);
        for ($k = 0; $k < 50; ++$k) {
            $points = [];
            foreach ([[0, 0], [40_000, 0], [40_000, 30_000], [0, 30_000]] as [$x, $y]) {
                $points[] = new MapPoint(new Point($x, $y), 5000.0 + $x / 1e3 + mt_rand(-50, 50) / 1e3, 8000.0 + $y / 1e3 + mt_rand(-50, 50) / 1e3);
            }
            $best = Georeference::through('EPSG:25832', $points);
            $sum = static fn (Georeference $of): float => array_sum(array_map(static fn (MapPoint $p): float => $of->off($p) ** 2, $points));
            foreach ([[0.001, 0.0, 0.0, 0.0], [0.0, 0.001, 0.0, 0.0], [0.0, 0.0, 0.001, 0.0], [0.0, 0.0, 0.0, 0.000_01]] as [$de, $dn, $dd, $ds]) {
                foreach ([1.0, -1.0] as $sign) {
                    $other = new Georeference(
                        'EPSG:25832',
                        $best->east + $sign * $de,
                        $best->north + $sign * $dn,
                        0.0,
                        $best->degrees + $sign * $dd,
                        $best->scale + $sign * $ds,
                    );
                    self::assertGreaterThanOrEqual($sum($best), $sum($other));
                }
            }
        }
    }

    public function testWithOnePlaceItLiesByWhatIsKnownOfNorth(): void
    {
        $lies = Georeference::through('EPSG:25832', [new MapPoint(new Point(1000.0, 2000.0), 500.0, 700.0, 3.5)], 90.0);
        // Up on the plan is east: x runs south.
        self::assertEqualsWithDelta([502.0, 700.0], $lies->of(new Point(1000.0, 4000.0)), 1e-9);
        self::assertEqualsWithDelta([500.0, 699.0], $lies->of(new Point(2000.0, 2000.0)), 1e-9);
        self::assertSame([1.0, 3.5], [$lies->scale, $lies->height]);
    }

    public function testPlacesThatNoPlanCanLieOnAreRefusedInWords(): void
    {
        $two = static fn (float $x, float $east): array => [new MapPoint(new Point(0.0, 0.0), 0.0, 0.0), new MapPoint(new Point($x, 0.0), $east, 0.0)];
        foreach ([[0.0, 40.0, 'one place'], [40_000.0, 131.2, '3.280 times'], [40_000.0, 0.0, '0.000 times']] as [$x, $east, $says]) {
            try {
                Georeference::through('EPSG:25832', $two($x, $east));
                self::fail($says);
            } catch (UnusableMapPoints $e) {
                self::assertStringContainsString($says, $e->getMessage());
            }
        }
    }
}
