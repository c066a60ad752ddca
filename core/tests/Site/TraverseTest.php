<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Site;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Site\Clearance;
use Plinth\Core\Site\Curve;
use Plinth\Core\Site\CurveFigure;
use Plinth\Core\Site\Exception\UnusableBoundary;
use Plinth\Core\Site\Exception\UnusableCurve;
use Plinth\Core\Site\Leg;
use Plinth\Core\Site\Mistyped;
use Plinth\Core\Site\Traverse;
use Plinth\Core\Site\Turns;
use Plinth\Core\Tests\Fitting\Noise;
use Plinth\Core\Units\Bearing;
use Plinth\Core\Units\Exception\UnreadableBearing;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;

/** A boundary closes, its misfit is shared out, and its area is what a textbook has it. */
final class TraverseTest extends TestCase
{
    private const FOOT = 304.8;

    /**
     * Wolf & Ghilani, Elementary Surveying, the traverse that runs through the chapter on traverse computations (from memory, recomputed).
     */
    public function testTheTextbookTraverse(): void
    {
        $traverse = Traverse::closed(self::textbook());
        self::assertEqualsWithDelta(2466.00, $traverse->lengthMm / self::FOOT, 0.001);
        self::assertEqualsWithDelta(0.080, $traverse->misclosureMm() / self::FOOT, 0.002);
        self::assertEqualsWithDelta(30_800, (float) $traverse->precision(), 500);
        [$departure, $latitude] = $traverse->adjusted(0);
        self::assertEqualsWithDelta([517.444, -388.835], [$departure / self::FOOT, $latitude / self::FOOT], 0.002);
        $squareFeet = $traverse->areaM2() / 0.3048 ** 2;
        self::assertEqualsWithDelta(272_585, $squareFeet, 20);
        self::assertEqualsWithDelta(6.258, $squareFeet / 43_560, 0.001, 'acres');
    }

    public function testAnAdjustedBoundaryClosesWhereverItBegins(): void
    {
        $traverse = Traverse::closed(self::textbook(), new Point(10_000_000, 5_000_000));
        $sum = [0.0, 0.0];
        foreach (array_keys($traverse->legs) as $i) {
            [$dx, $dy] = $traverse->adjusted($i);
            $sum = [$sum[0] + $dx, $sum[1] + $dy];
        }
        self::assertEqualsWithDelta([0.0, 0.0], $sum, 1e-6);
        self::assertEqualsWithDelta(
            Traverse::closed(self::textbook())->areaM2(),
            $traverse->areaM2(),
            1e-6,
            'Far from the origin no digits are lost.',
        );
        self::assertSame([10_000_000.0, 5_000_000.0], $traverse->contour->corners[0]->toArray());
    }

    public function testAMissingLegIsSolved(): void
    {
        $legs = self::textbook();
        [$mm, $degrees] = Traverse::missing([$legs[0], $legs[1], $legs[3], $legs[4]]);
        self::assertEqualsWithDelta(720.35, $mm / self::FOOT, 0.1);
        self::assertEqualsWithDelta(15 + 31 / 60 + 54 / 3600, $degrees, 0.01);
    }

    public function testAnExactRectangleClosesExactly(): void
    {
        $traverse = Traverse::closed([self::leg('0', '30 m'), self::leg('90', '40 m'), self::leg('180', '30 m'), self::leg('270', '40 m')]);
        self::assertLessThan(1e-6, $traverse->misclosureMm());
        self::assertEqualsWithDelta(1200.0, $traverse->areaM2(), 1e-9);
    }

    /** @param list<array{string, string}> $legs */
    #[TestWith([[['0', '10 m'], ['90', '10 m']], 'three legs', 'legs'])]
    #[TestWith([[['0', '10 m'], ['90', '0 m'], ['225', '14 m']], 'longer than zero', 'legs/1'])]
    #[TestWith([[['0', '10 m'], ['90', '10 m'], ['180', '10 m']], "misses its beginning by 10000\u{202F}mm", 'legs'])]
    #[TestWith([[['45', '14.142 m'], ['180', '10 m'], ['315', '14.142 m'], ['180', '10 m']], 'crosses', 'legs/2'])]
    public function testWhatIsNoBoundaryIsRefusedInWords(array $legs, string $words, string $at): void
    {
        try {
            Traverse::closed(array_map(static fn (array $l): Leg => self::leg($l[0], $l[1]), $legs));
            self::fail('It was taken.');
        } catch (UnusableBoundary $e) {
            self::assertStringContainsString($words, $e->getMessage());
            self::assertSame($at, $e->at());
        }
    }

    #[TestWith(['63.25', 63.25, 0.01])]
    #[TestWith(["126°55'17\"", 126.921389, 1 / 3600])]
    #[TestWith(['N 36°15\'20" E', 36.255556, 1 / 3600])]
    #[TestWith(['S 82 41 50 E', 97.302778, 1 / 3600])]
    #[TestWith(['126-55-17', 126.921389, 1 / 3600])]
    #[TestWith(["S64°57'40''W", 244.961111, 1 / 3600])]
    #[TestWith(['s 10° 30′ e', 169.5, 1 / 60])]
    #[TestWith(['N 5 W', 355.0, 1.0])]
    #[TestWith(["12 34' 30\"", 12.575, 1 / 3600])]
    #[TestWith(['360', 0.0, 1.0])]
    public function testBearingsReadAsTheyAreWritten(string $text, float $degrees, float $step): void
    {
        $bearing = Bearing::parse($text);
        self::assertEqualsWithDelta($degrees, $bearing->degrees, 1e-6);
        self::assertEqualsWithDelta($step, $bearing->stepDegrees, 1e-9);
    }

    #[TestWith([''])]
    #[TestWith(['north'])]
    #[TestWith(['N 91 E'])]
    #[TestWith(['361'])]
    #[TestWith(["12°75'"])]
    #[TestWith(["12345'"])]
    #[TestWith(["N 1230' E"])]
    #[TestWith(['-5'])]
    public function testWhatIsNoBearingIsRefused(string $text): void
    {
        $this->expectException(UnreadableBearing::class);
        Bearing::parse($text);
    }

    /** @return list<Leg> */
    private static function textbook(): array
    {
        return [
            self::leg("126°55'17\"", '647.25 ft'),
            self::leg("178°18'58\"", '203.03 ft'),
            self::leg("15°31'54\"", '720.35 ft'),
            self::leg("284°35'20\"", '610.24 ft'),
            self::leg("206°09'41\"", '285.13 ft'),
        ];
    }

    private static function leg(string $bearing, string $length): Leg
    {
        return new Leg(Bearing::parse($bearing), LengthParser::parse($length, LengthUnit::Metre)->mm);
    }

    /**
     * A curve of 300 ft radius that turns by 36°52'12" (a central angle whose half has the sine 1/√10): its long chord is 189.74 ft,
     * its middle ordinate 15.39 ft, its length 193.05 ft; formulas of horizontal curves as in Wolf & Ghilani, Elementary Surveying,
     * from memory, recomputed.
     */
    public function testACurveIsTheSameByItsChordItsLengthOrItsAngle(): void
    {
        $degrees = 2.0 * rad2deg(asin(1.0 / sqrt(10.0)));
        foreach ([
            Curve::byAngle(300.0, $degrees, Turns::Right),
            Curve::byChord(300.0, 600.0 / sqrt(10.0), Turns::Right),
            Curve::byLength(300.0, 300.0 * deg2rad($degrees), Turns::Right),
        ] as $curve) {
            self::assertEqualsWithDelta(
                [189.7367, 15.3950, 193.0503],
                [$curve->chord(), $curve->rise(), $curve->length()],
                5e-4,
                'Who turns to the right walks round to the left of the chord.',
            );
        }
        self::assertEqualsWithDelta(-15.3950, Curve::byAngle(300.0, $degrees, Turns::Left)->rise(), 5e-4);
    }

    /** A lot at the end of a street: 30 m deep and wide, its front a quarter of a circle that cuts the corner off. */
    public function testALotWithACurvedFrontHasTheAreaOfMensuration(): void
    {
        $legs = [
            self::leg('0', '30 m'), self::leg('90', '30 m'), self::leg('180', '20 m'),
            Leg::written('225', '90', LengthUnit::Metre, '10 m', Turns::Left, CurveFigure::Angle), self::leg('270', '20 m'),
        ];
        $traverse = Traverse::closed($legs);
        self::assertLessThan(1e-6, $traverse->misclosureMm());
        self::assertEqualsWithDelta(900.0 - \M_PI * 100.0 / 4.0, $traverse->areaM2(), 1e-6);
        self::assertEqualsWithDelta(100_000.0 + \M_PI * 5000.0, $traverse->lengthMm, 1e-6);
        // Taken the other way the front swells into the street, and the lot gains what lies between arc and chord.
        $legs[3] = Leg::written('225', '14.14213562 m', LengthUnit::Metre, '10 m', Turns::Right);
        self::assertEqualsWithDelta(900.0 - 50.0 + (\M_PI * 25.0 - 50.0), Traverse::closed($legs)->areaM2(), 1e-5);
    }

    /** @param array{string, string, CurveFigure} $curve length, radius, and what the length gives */
    #[TestWith([['21 m', '10 m', CurveFigure::Chord], 'at most 20.000 m. Is it the length along the curve?', 'length'])]
    #[TestWith([['70 m', '10 m', CurveFigure::Arc], 'not by 401.07°', 'length'])]
    #[TestWith([['0', '10 m', CurveFigure::Angle], 'more than 0°', 'length'])]
    #[TestWith([['90', '0 m', CurveFigure::Angle], 'radius', 'radius'])]
    public function testFiguresOfACurveThatDoNotGoTogetherAreRefusedInWords(array $curve, string $words, string $at): void
    {
        try {
            Leg::written('45', $curve[0], LengthUnit::Metre, $curve[1], Turns::Left, $curve[2]);
            self::fail('It was taken.');
        } catch (UnusableCurve $e) {
            self::assertStringContainsString($words, $e->getMessage());
            self::assertSame($at, $e->at());
        }
    }

    public function testABuildingIsAsNearToEachLineAsATapeSays(): void
    {
        $lot = Traverse::closed([self::leg('0', '30 m'), self::leg('90', '40 m'), self::leg('180', '30 m'), self::leg('270', '40 m')]);
        $house = [[5000.0, 6000.0], [17_000.0, 6000.0], [17_000.0, 14_000.0], [5000.0, 14_000.0]];
        self::assertEqualsWithDelta([5000.0, 16_000.0, 23_000.0, 6000.0], array_column(Clearance::of($lot->contour, [$house]), 'mm'), 1e-6);
        $over = array_map(static fn (array $p): array => [$p[0] - 8000.0, $p[1]], $house);
        self::assertSame(0.0, Clearance::of($lot->contour, [$house, $over])[0]->mm, 'It crosses the line.');
        self::assertSame([], Clearance::of($lot->contour, []));
    }

    public function testTheLegThatWasMistypedIsNamedWithWhatWouldClose(): void
    {
        $legs = self::textbook();
        self::assertSame([], Mistyped::of($legs), 'As measured it closes well.');
        $legs[2] = new Leg($legs[2]->bearing, 702.35 * self::FOOT);
        // The fourth leg stands square to the third: swung a little, it would close as well.
        [$length, $swung] = Mistyped::of(array_values($legs));
        self::assertSame([2, null, 3, null], [$length->leg, $length->bearing, $swung->leg, $swung->mm]);
        self::assertEqualsWithDelta(720.35, (float) $length->mm / self::FOOT, 0.1);
        $legs = self::textbook();
        $legs[3] = new Leg(Bearing::parse("264°35'20\""), $legs[3]->mm);
        [$mistyped] = Mistyped::of(array_values($legs));
        self::assertSame([3, null], [$mistyped->leg, $mistyped->mm]);
        self::assertEqualsWithDelta(284.589, (float) $mistyped->bearing?->degrees, 0.03);
    }

    /** Of 400 random sites with one slip the leg is named, alone or as one of two, or none is. */
    public function testNoLegIsBlamedForAnothersSlip(): void
    {
        Noise::seed(77);
        [$named, $slips] = [0, 0];
        for ($i = 0; $i < 400; ++$i) {
            $n = (int) Noise::uniform(4, 9);
            $corners = array_map(static function (int $k) use ($n): Point {
                $angle = 2.0 * \M_PI * ($k + Noise::uniform(-0.3, 0.3)) / $n;
                $r = Noise::uniform(15_000, 40_000);

                return new Point($r * sin($angle), $r * cos($angle));
            }, range(0, $n - 1));
            $legs = array_map(static function (int $k) use ($corners, $n): Leg {
                [$dx, $dy] = [$corners[($k + 1) % $n]->x - $corners[$k]->x, $corners[($k + 1) % $n]->y - $corners[$k]->y];

                // As plans write them: to the second, and to the centimetre.
                return new Leg(Bearing::along($dx, $dy), round(hypot($dx, $dy), -1));
            }, range(0, $n - 1));
            self::assertSame([], Mistyped::of($legs));
            $at = (int) Noise::uniform(0, $n);
            $legs[$at] = 0 === $i % 2
                ? new Leg($legs[$at]->bearing, $legs[$at]->mm + [900.0, -900.0, 2700.0, -2700.0, 10_000.0][$i % 5])
                : new Leg($legs[$at]->bearing->turned([9.0, -9.0, 18.0, -30.0, 90.0][$i % 5]), $legs[$at]->mm);
            $mistyped = Mistyped::of(array_values($legs));
            ++$slips;
            if ([] !== $mistyped) {
                ++$named;
                $isLength = 0 === $i % 2;
                self::assertNotEmpty(
                    array_filter($mistyped, static fn (Mistyped $m): bool => $m->leg === $at && $isLength === (null === $m->bearing)),
                    "site $i",
                );
            }
        }
        self::assertGreaterThan(0.8 * $slips, $named);
    }

    public function testABearingIsReadOffAWayAndWrittenBack(): void
    {
        foreach ([
            [1.0, 1.0, "45°00'00\""],
            [-1.0, 0.0, "270°00'00\""],
            [0.0, 5.0, "0°00'00\""],
            [sin(deg2rad(97.302778)), cos(deg2rad(97.302778)), "97°18'10\""],
        ] as [$east, $north, $text]) {
            $bearing = Bearing::along($east, $north);
            self::assertSame($text, $bearing->written());
            self::assertEqualsWithDelta($bearing->degrees, Bearing::parse($bearing->written())->degrees, 0.5 / 3600.0);
        }
        self::assertEqualsWithDelta(10.0, Bearing::parse('350')->turned(20.0)->degrees, 1e-9);
        self::assertEqualsWithDelta(330.0, Bearing::parse('10')->turned(-40.0)->degrees, 1e-9);
    }

    public function testSquaredToABuildingTheSiteIsTheSameOnlyTurned(): void
    {
        $legs = array_map(
            static fn (array $l): Leg => new Leg(Bearing::parse($l[0]), $l[1]),
            [
                ["97°18'10\"", 24_550.0], ["16°51'30\"", 25_620.0], ["304°54'50\"", 21_440.0], ["244°57'40\"", 20_650.0],
                ["169°44'40\"", 25_330.0],
            ],
        );
        $north = Traverse::closed($legs);
        $turned = Traverse::closed(array_map(static fn (Leg $l): Leg => $l->turned(-30.0), $legs));
        self::assertEqualsWithDelta([$north->areaM2(), $north->misclosureMm()], [$turned->areaM2(), $turned->misclosureMm()], 1e-6);
        [$x, $y] = [$north->contour->corners[2]->x, $north->contour->corners[2]->y];
        // Bearings run clockwise, so less of them turns the site to the left.
        [$c, $s] = [cos(deg2rad(30.0)), sin(deg2rad(30.0))];
        self::assertEqualsWithDelta([$c * $x - $s * $y, $s * $x + $c * $y], [$turned->contour->corners[2]->x, $turned->contour->corners[2]->y], 1e-6);
    }
}
