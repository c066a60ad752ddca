<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Geometry;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Tests\Outside;

/** What rings cover together is right to the last digits that matter, however they lie on each other. */
final class OverlayTest extends TestCase
{
    public function testUnionsAndDifferencesAgreeWithGeos(): void
    {
        $seed = false === getenv('SEED') ? 1 : (int) getenv('SEED');
        mt_srand($seed);
        $cases = [];
        for ($i = 0; $i < 300; ++$i) {
            $far = 0 === $i % 3 ? 6.5e8 : 0.0;
            [$rings, $without] = [self::strips(mt_rand(1, 12), $far), self::strips(mt_rand(1, 8), $far)];
            $cases[] = [
                'rings' => $rings,
                'without' => $without,
                'union' => Overlay::union($rings),
                'difference' => Overlay::difference($rings, $without),
            ];
        }
        $theirs = Outside::ask('overlay.py', ['cases' => $cases])['cases'];
        self::assertIsArray($theirs);
        foreach ($cases as $i => $case) {
            self::assertIsArray($theirs[$i]);
            foreach (['union', 'difference'] as $what) {
                self::assertIsArray($theirs[$i][$what]);
                ['area' => $area, 'differs' => $differs, 'valid' => $isValid, 'apart' => $apart] = $theirs[$i][$what];
                self::assertIsFloat($area);
                $message = "$what $i, seed $seed";
                // A grid step along every edge at most.
                self::assertEqualsWithDelta(0.0, $differs, 1e-7 * $area + 3.0, $message);
                self::assertEqualsWithDelta($area, Overlay::area($case[$what]), 1e-7 * $area + 3.0, $message);
                self::assertTrue($isValid, "Its rings neither cross themselves nor each other: $message");
                self::assertEqualsWithDelta(0.0, $apart, 1e-9 * $area + 1e-3, "Its parts lie beside each other: $message");
            }
        }
    }

    public function testWhatIsGivenTwiceTouchesOrLiesInsideCountsOnce(): void
    {
        $square = static fn (float $x, float $y, float $side): array => [
            [$x, $y],
            [$x + $side, $y],
            [$x + $side, $y + $side],
            [$x, $y + $side],
        ];
        $shapes = Overlay::union([$square(0, 0, 100), $square(100, 0, 100), $square(20, 20, 5), $square(0, 0, 100)]);
        self::assertCount(1, $shapes);
        self::assertEqualsCanonicalizing(
            [[0.0, 0.0], [200.0, 0.0], [200.0, 100.0], [0.0, 100.0]],
            $shapes[0]['outer'],
            'Corners as they were given, and no others.',
        );
        self::assertSame([], $shapes[0]['holes']);
        self::assertCount(2, Overlay::union([$square(0, 0, 10), $square(10, 10, 10)]), 'Two that touch in a point are two.');
        self::assertSame([], Overlay::difference([$square(0, 0, 10)], [$square(-1, -1, 12)]));
        self::assertSame([[], []], [Overlay::union([]), Overlay::union([[], [[1.0, 1.0]], [[0.0, 0.0], [5.0, 5.0]]])]);
    }

    /** Ten thousandths of a degree apart, a thousand times longer than thick. */
    public function testLinesThatNearlyLieOnEachOtherLeaveNothingOpen(): void
    {
        mt_srand(8);
        for ($i = 0; $i < 200; ++$i) {
            $turn = static fn (float $degrees): array => array_map(
                static fn (array $p): array => [
                    cos(deg2rad($degrees)) * $p[0] - sin(deg2rad($degrees)) * $p[1],
                    sin(deg2rad($degrees)) * $p[0] + cos(deg2rad($degrees)) * $p[1],
                ],
                [[-10_000.0, -5.0], [10_000.0, -5.0], [10_000.0, 5.0], [-10_000.0, 5.0]],
            );
            $start = mt_rand(0, 3600) / 10.0;
            $rings = array_map(static fn (int $k): array => $turn($start + $k * mt_rand(0, 20) / 10_000.0), range(0, 5));
            $area = Overlay::area(Overlay::union($rings));
            self::assertGreaterThan(199_999.0, $area);
            // The widest angle between two of them bounds what stands out beside the first.
            self::assertLessThan(200_000.0 + 5 * 1e8 * deg2rad(0.0101), $area);
        }
    }

    /**
     * Strips like walls: some from the same point, some on each other, some a hair beside.
     *
     * @return list<list<array{float, float}>>
     */
    private static function strips(int $count, float $far): array
    {
        $rings = [];
        [$x, $y, $angle] = [0.0, 0.0, 0.0];
        for ($k = 0; $k < $count; ++$k) {
            if (0 !== mt_rand(0, 2)) {
                [$x, $y] = [mt_rand(0, 8) * 1000.0, mt_rand(0, 8) * 1000.0];
            }
            $angle = match (mt_rand(0, 3)) {
                0 => $angle + mt_rand(-3, 3) * 1e-4,
                1 => mt_rand(0, 628) / 100.0,
                default => mt_rand(0, 3) * \M_PI_2,
            };
            [$c, $s, $long, $half] = [cos($angle), sin($angle), mt_rand(1, 9) * 1000.0, mt_rand(1, 4) * 50.0];
            $rings[] = array_map(
                static fn (array $p): array => [$far + $x + $p[0] * $c - $p[1] * $s, $far / 3.0 + $y + $p[0] * $s + $p[1] * $c],
                [[0.0, -$half], [$long, -$half], [$long, $half], [0.0, $half]],
            );
        }

        return $rings;
    }
}
