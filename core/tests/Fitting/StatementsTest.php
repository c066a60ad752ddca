<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Fitting;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\Blamed;
use Plinth\Core\Fitting\ControlPoint;
use Plinth\Core\Fitting\DraftingError;
use Plinth\Core\Fitting\Ends;
use Plinth\Core\Fitting\Exception\UnusableObservation;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\NextLength;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\Offer;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Fitting\Rectangle;
use Plinth\Core\Fitting\StatedScale;
use Plinth\Core\Fitting\Stretched;
use Plinth\Core\Fitting\StretchedBy;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/** Every kind of statement says what it says, alone and together with others; what cannot be used is refused with the reason. */
final class StatementsTest extends TestCase
{
    private PageFrame $frame;

    protected function setUp(): void
    {
        $this->frame = new PageFrame(3000.0, 2200.0);
    }

    public function testARoomOfKnownSizeGivesTheScaleWhicheverWayItLies(): void
    {
        foreach ([0.0, 1.3, 33.0, -88.0] as $degrees) {
            $true = PixelToMm::similar(5.0, deg2rad($degrees), $this->frame->centre, new Point(0, 0));
            $corners = array_map(
                static fn (Point $p): PixelPoint => $true->toPixel($p),
                [new Point(-1800, -2100), new Point(1800, -2100), new Point(1800, 2100), new Point(-1800, 2100)],
            );
            $fit = $this->fit(
                new Observations($this->picks($corners), rectangles: [new Rectangle('r', ['p0', 'p1', 'p2', 'p3'], 3600, 4200, 5)]),
            );
            self::assertEqualsWithDelta(5.0, $fit->mmPerPixel, 1e-9);
            self::assertEqualsWithDelta(
                [3600.0, 4200.0, 0.0],
                [$fit->rectangles[0]->fittedWidthMm, $fit->rectangles[0]->fittedDepthMm, $fit->rectangles[0]->offSquareDegrees],
                1e-6,
            );
            self::assertFalse($fit->determined->turn, 'A room may lie at any angle.');
        }
    }

    public function testTheFigureOfARoomCountsOnceThoughTwoSidesShowIt(): void
    {
        // Perfect picks, a figure known to ±1 %: four sides cannot make it better than its two figures do.
        $at = [new PixelPoint(500, 1500), new PixelPoint(1220, 1500), new PixelPoint(1220, 780), new PixelPoint(500, 780)];
        $picks = array_map(static fn (int $k, PixelPoint $p): Pick => new Pick("p$k", $p, 0.001), array_keys($at), $at);
        $room = $this->fit(new Observations($picks, rectangles: [new Rectangle('r', ['p0', 'p1', 'p2', 'p3'], 3600, 3600, 36)]));
        $two = $this->fit(
            new Observations($picks, [new KnownLength('w', 'p0', 'p1', 3600, 36), new KnownLength('d', 'p1', 'p2', 3600, 36)]),
        );
        self::assertEqualsWithDelta((float) $two->plusMinusMmPer10m, (float) $room->plusMinusMmPer10m, 0.01);
    }

    public function testAWrongSideOfARoomIsNamedAsOneFigure(): void
    {
        $at = [
            new PixelPoint(400, 1800), new PixelPoint(1360, 1800), new PixelPoint(1360, 1092), new PixelPoint(400, 1092),
            new PixelPoint(400, 300), new PixelPoint(2800, 1800),
        ];
        $fit = $this->fit(
            new Observations(
                $this->picks($at),
                [new KnownLength('l', 'p0', 'p4', 7500, 3), new KnownLength('m', 'p0', 'p5', 12000, 3)],
                rectangles: [new Rectangle('r', ['p0', 'p1', 'p2', 'p3'], 4900, 3540, 3)],
            ),
        );
        self::assertTrue($fit->rectangles[0]->suspect, '4800 mm would agree.');
        self::assertSame([false, false], array_map(static fn ($l): bool => $l->suspect, $fit->lengths));
    }

    public function testALengthAcrossRunsAtARightAngleWhereverTheThirdPickStands(): void
    {
        foreach ([200.0, 1500.0, 2800.0] as $x) {
            $observations = new Observations(
                $this->picks([new PixelPoint(100, 1500), new PixelPoint($x, 700), new PixelPoint(2900, 1500)]),
                [new KnownLength('l', 'p0', 'p1', 4000, 1, Along::Across, c: 'p2')],
            );
            self::assertEqualsWithDelta(5.0, $this->fit($observations)->mmPerPixel, 1e-9);
        }
    }

    public function testAFigureBetweenOtherFacesThanWerePickedCostsTheWalls(): void
    {
        // 13 200 between outer faces, picked on the inner faces of walls of 300: 12 600 between the picks.
        self::assertSame(-600.0, Ends::OuterFace->allowanceMm(Ends::InnerFace, 300));
        self::assertSame(300.0, Ends::InnerFace->allowanceMm(Ends::Axis, 300));
        self::assertSame(0.0, Ends::Axis->allowanceMm(Ends::Centre, 300));
        $picks = $this->picks([new PixelPoint(100, 100), new PixelPoint(2620, 100)]);
        $fit = $this->fit(new Observations($picks, [new KnownLength('l', 'p0', 'p1', 13_200, 3, allowanceMm: -600)]));
        self::assertEqualsWithDelta(5.0, $fit->mmPerPixel, 1e-9);
        self::assertEqualsWithDelta(13_200, $fit->lengths[0]->fittedMm, 1e-6, 'It is read as it was figured.');
    }

    public function testAStatedScaleServesAloneAndGivesWayToALength(): void
    {
        $alone = $this->fit(new Observations([], scale: new StatedScale(6.35)));
        self::assertEqualsWithDelta(6.35, $alone->mmPerPixel, 1e-9);
        self::assertEqualsWithDelta(2 * 10_000 * StatedScale::SIGMA_PART, (float) $alone->plusMinusMmPer10m, 1e-3);
        $picks = $this->picks([new PixelPoint(100, 100), new PixelPoint(2500, 100)]);
        $both = $this->fit(new Observations($picks, [new KnownLength('l', 'p0', 'p1', 15_000, 5)], scale: new StatedScale(6.35)));
        self::assertEqualsWithDelta(6.25, $both->mmPerPixel, 0.005, 'A copy of 98.4 %: the length is far surer.');
        self::assertEqualsWithDelta(6.25 / 6.35, $both->scale?->ratio, 0.001);
    }

    public function testTurningBeforeOrAfterScalingEndsTheSame(): void
    {
        $picks = $this->picks([new PixelPoint(300, 1900), new PixelPoint(2700, 1837), new PixelPoint(2500, 200)]);
        $lengths = [new KnownLength('l', 'p0', 'p1', 12_000, 3), new KnownLength('m', 'p1', 'p2', 8_250, 3)];
        $grid = [new GridPick('g', 'p0', 'p1', 0.0)];
        $turned = $this->fit(
            new Observations($picks, [], $grid),
            FitStart::from(PixelToMm::similar(7.0, 0.0, $this->frame->centre, new Point(0, 0)), $this->frame),
        );
        $thenScaled = $this->fit(new Observations($picks, $lengths, $grid), FitStart::from($turned->pixelToMm, $this->frame));
        $scaled = $this->fit(new Observations($picks, $lengths));
        $thenTurned = $this->fit(new Observations($picks, $lengths, $grid), FitStart::from($scaled->pixelToMm, $this->frame));
        self::assertEqualsWithDelta($thenScaled->mmPerPixel, $thenTurned->mmPerPixel, 1e-9);
        self::assertEqualsWithDelta($thenScaled->rotationDegrees, $thenTurned->rotationDegrees, 1e-9);
    }

    public function testALineOnABearingTurnsThePictureToNorth(): void
    {
        $picks = $this->picks([new PixelPoint(500, 1500), new PixelPoint(1500, 1500), new PixelPoint(500, 500)]);
        $observations = new Observations(
            $picks,
            [new KnownLength('l', 'p0', 'p1', 20_000, 5)],
            [new GridPick('g', 'p0', 'p1', GridPick::directionOfBearing(63.25))],
        );
        $fit = $this->fit($observations);
        self::assertEqualsWithDelta(90.0 - 63.25, $fit->rotationDegrees, 1e-9);
    }

    public function testOfSixTheWrongFigureIsNamedAndItsValueGuessed(): void
    {
        Noise::seed(46);
        $spots = [[300, 300], [2700, 320], [310, 1950], [2690, 1960], [1500, 305], [305, 1200]];
        $pairs = [[0, 1], [2, 3], [0, 2], [1, 3], [0, 4], [5, 1]];
        $named = 0;
        $within = 0;
        for ($i = 0; $i < 60; ++$i) {
            $true = PixelToMm::similar(Noise::uniform(3, 8), Noise::uniform(-0.03, 0.03), $this->frame->centre, new Point(0, 0));
            $picks = array_map(
                static fn (int $k, array $s): Pick => new Pick(
                    "p$k",
                    new PixelPoint($s[0] + Noise::normal(0.3), $s[1] + Noise::normal(0.3)),
                    0.3,
                ),
                array_keys($spots),
                $spots,
            );
            $wrong = $i % 6;
            $lengths = [];
            $right = array_fill(0, 6, 0.0);
            foreach ($pairs as $n => [$a, $b]) {
                $right[$n] = $true->toMm(new PixelPoint(...$spots[$a]))->distanceTo($true->toMm(new PixelPoint(...$spots[$b])));
                $figure = round($right[$n] / 10) * 10 + ($n === $wrong ? 100.0 : 0.0);
                $lengths[] = new KnownLength("l$n", "p$a", "p$b", $figure, 10 / sqrt(12));
            }
            $observations = new Observations($picks, $lengths);
            $fit = $this->fit($observations);
            $blamed = Blamed::in($fit, $observations, $this->frame);
            $named += "l$wrong" === $blamed?->length->id ? 1 : 0;
            $within += null !== $blamed && abs($blamed->readsMm - $right[$wrong]) <= 2.0 * $blamed->plusMinusMm ? 1 : 0;
            self::assertNull(
                Offer::beyond($fit, $observations, $this->frame, FitStart::unknown()),
                'One wrong figure is no stretched copy.',
            );
        }
        self::assertSame(60, $named);
        self::assertGreaterThanOrEqual(59, $within, 'Within 2 ±, four standard deviations.');
    }

    public function testALineAloneIsNoEvidenceOfALean(): void
    {
        $at = [
            new PixelPoint(300, 1900), new PixelPoint(2700, 1900), new PixelPoint(300, 300), new PixelPoint(2700, 300),
            new PixelPoint(320, 320),
        ];
        // The upright line was picked 20 px off at its top; the lengths agree with each other.
        $observations = new Observations(
            $this->picks($at),
            [
                new KnownLength('l', 'p0', 'p1', 12_000, 3),
                new KnownLength('m', 'p2', 'p3', 12_000, 3),
                new KnownLength('n', 'p0', 'p2', 8_000, 3),
                new KnownLength('o', 'p1', 'p3', 8_000, 3),
            ],
            [new GridPick('x', 'p0', 'p1', 0.0), new GridPick('y', 'p0', 'p4', \M_PI_2)],
        );
        $fit = $this->fit($observations);
        self::assertFalse($fit->holds);
        self::assertNull(Offer::beyond($fit, $observations, $this->frame, FitStart::unknown()));
    }

    public function testADraughtsmansErrorIsEstimatedFromWhatAgrees(): void
    {
        $at = [new PixelPoint(300, 1900), new PixelPoint(2700, 1900), new PixelPoint(300, 300), new PixelPoint(2700, 300)];
        $with = fn (float $off): Fit => $this->fit(
            new Observations($this->picks($at), [
                new KnownLength('l', 'p0', 'p1', 12_000, 20),
                new KnownLength('m', 'p2', 'p3', 12_000 + $off, 20),
                new KnownLength('n', 'p0', 'p2', 8_000 - $off, 20),
                new KnownLength('o', 'p1', 'p3', 8_000, 20),
            ]),
        );
        // All agree: three checks against a prior of two leave √(2/5) of what is assumed.
        self::assertEqualsWithDelta(sqrt(2 / 5), DraftingError::factor($with(0.0)), 1e-3);
        self::assertGreaterThan(0.7, DraftingError::factor($with(25.0)));
        self::assertSame(1.0, DraftingError::factor($with(200.0)), 'Worse than assumed shows in the fit itself.');
        self::assertSame(
            1.0,
            DraftingError::factor($this->fit(new Observations($this->picks($at), [new KnownLength('l', 'p0', 'p1', 12_000, 20)]))),
            'One length shows nothing.',
        );
    }

    public function testTypedFactorsAreTakenAsTheyAre(): void
    {
        $picks = $this->picks([new PixelPoint(500, 1000), new PixelPoint(1500, 1000)]);
        $fit = (new Fitter(new StretchedBy(1.02)))->fit(
            new Observations($picks, [new KnownLength('l', 'p0', 'p1', 5100, 1)], [new GridPick('g', 'p0', 'p1', 0.0)]),
            $this->frame,
            FitStart::unknown(),
        );
        self::assertEqualsWithDelta(1.02, $fit->stretch()['x'] / $fit->stretch()['y'], 1e-12);
        $down = $fit->pixelToMm->toMm(new PixelPoint(500, 0))->distanceTo($fit->pixelToMm->toMm(new PixelPoint(500, 1000)));
        self::assertEqualsWithDelta(5000.0, $down, 1e-6, '5.1 mm per pixel along x, 5 along y.');
    }

    public function testLengthsOfOneDirectionAskForOneOfTheOther(): void
    {
        $picks = $this->picks([new PixelPoint(300, 1900), new PixelPoint(2700, 1900), new PixelPoint(300, 200)]);
        $grid = [new GridPick('g', 'p0', 'p1', 0.0)];
        $across = new Observations($picks, [new KnownLength('l', 'p0', 'p1', 12_000, 3)], $grid);
        $next = NextLength::inTheOtherDirection($this->fit($across), $across, $this->frame);
        self::assertSame('down', $next?->direction);
        self::assertLessThan(1.0, abs($next->from->x - $next->to->x));
        $both = new Observations($picks, [...$across->lengths, new KnownLength('m', 'p0', 'p2', 8_500, 3)], $grid);
        self::assertNull(NextLength::inTheOtherDirection($this->fit($both), $both, $this->frame));
    }

    public function testPlusMinusGrowsAwayFromWhatWasPicked(): void
    {
        $picks = $this->picks([new PixelPoint(500, 1000), new PixelPoint(1500, 1000)]);
        $fit = $this->fit(new Observations($picks, [new KnownLength('l', 'p0', 'p1', 5000, 10)], [new GridPick('g', 'p0', 'p1', 0.0)]));
        self::assertEqualsWithDelta(0.0, $fit->spread->at(new PixelPoint(1000, 1000)), 1e-6);
        // At 1000 px from the middle: 2 σ of the scale over 5 m, and 2 σ of the turn, whichever is larger.
        $scale = 2.0 * 5000 * hypot(10, 5 * 0.5 * sqrt(2)) / 5000;
        $turn = 2.0 * 5000 * 0.5 * sqrt(2) / 1000;
        self::assertEqualsWithDelta(max($scale, $turn), $fit->spread->at(new PixelPoint(2000, 1000)), 0.01 * $scale);
        self::assertCount(12, $fit->spread->over($this->frame, 4, 3));
    }

    /** @return iterable<string, array{callable(self): Observations, string, string}> */
    public static function unusable(): iterable
    {
        $at = static fn (self $t, PixelPoint ...$p): array => $t->picks(array_values($p));
        $p = static fn (float $x, float $y): PixelPoint => new PixelPoint($x, $y);
        $room = static fn (float $w = 3600, float $d = 4200): Rectangle => new Rectangle('r', ['p0', 'p1', 'p2', 'p3'], $w, $d, 1);
        yield 'ends on one spot' => [
            static fn (self $t): Observations => new Observations(
                $at($t, $p(10, 10), $p(10.4, 10)),
                [new KnownLength('l', 'p0', 'p1', 1000, 1)],
            ),
            'same spot',
            'lengths/0',
        ];
        yield 'a length of zero' => [
            static fn (self $t): Observations => new Observations(
                $at($t, $p(10, 10), $p(50, 10)),
                [new KnownLength('l', 'p0', 'p1', 0.0, 1)],
            ),
            'longer than zero',
            'lengths/0',
        ];
        yield 'thinner than its walls' => [
            static fn (self $t): Observations => new Observations($at($t, $p(10, 10), $p(50, 10)), [new KnownLength(
                'l',
                'p0',
                'p1',
                500,
                1,
                allowanceMm: -600,
            )]),
            'nothing is left',
            'lengths/0',
        ];
        yield 'across without a line' => [
            static fn (self $t): Observations => new Observations($at($t, $p(10, 10), $p(50, 10)), [new KnownLength(
                'l',
                'p0',
                'p1',
                500,
                1,
                Along::Across,
            )]),
            'second pick',
            'lengths/0',
        ];
        yield 'across on one line' => [
            static fn (self $t): Observations => new Observations($at($t, $p(10, 10), $p(50, 10.2), $p(90, 10)), [
                new KnownLength('l', 'p0', 'p1', 500, 1, Along::Across, c: 'p2'),
            ]),
            'line of the first two',
            'lengths/0',
        ];
        yield 'a room whose corners cross' => [
            static fn (self $t): Observations => new Observations(
                $at($t, $p(0, 0), $p(100, 100), $p(100, 0), $p(0, 100)),
                rectangles: [$room()],
            ),
            'in order',
            'rectangles/0',
        ];
        yield 'a room on one line' => [
            static fn (self $t): Observations => new Observations(
                $at($t, $p(0, 0), $p(100, 0), $p(200, 0), $p(300, 0)),
                rectangles: [$room()],
            ),
            'in order',
            'rectangles/0',
        ];
        yield 'a room without depth' => [
            static fn (self $t): Observations => new Observations(
                $at($t, $p(0, 0), $p(100, 0), $p(100, 90), $p(0, 90)),
                rectangles: [$room(3600, 0)],
            ),
            'longer than zero',
            'rectangles/0',
        ];
        yield 'two points at one place' => [
            static fn (self $t): Observations => new Observations(
                $at($t, $p(0, 0), $p(100, 0)),
                points: [new ControlPoint('a', 'p0', new Point(0, 0)), new ControlPoint('b', 'p1', new Point(0, 0))],
            ),
            'needs its own',
            'points/1',
        ];
        yield 'no scale at all' => [
            static fn (self $t): Observations => new Observations([], scale: new StatedScale(0.0)),
            'above zero',
            'scale',
        ];
    }

    /** @param callable(self): Observations $make */
    #[DataProvider('unusable')]
    public function testWhatCannotBeUsedIsRefusedWithThePlaceAndTheReason(callable $make, string $words, string $at): void
    {
        try {
            $make($this);
            self::fail('It was taken.');
        } catch (UnusableObservation $e) {
            self::assertStringContainsString($words, $e->getMessage());
            self::assertSame($at, $e->at());
        }
    }

    /**
     * Outside check: a similarity of three points worked in a textbook: Ghilani & Wolf, Adjustment Computations, two-dimensional
     * conformal coordinate transformation. Data and results from memory; the results agree with an independent least-squares
     * solution of the data to all digits printed.
     */
    public function testTheTextbookSimilarityOfThreePoints(): void
    {
        $points = [
            ['A', 121.622, -128.066, 1_049_422.40, 51_089.20],
            ['B', 141.228, 187.718, 1_049_413.95, 49_659.30],
            ['C', 175.802, 135.728, 1_049_244.95, 49_884.95],
        ];
        $picks = [];
        $control = [];
        foreach ($points as [$id, $x, $y, $easting, $northing]) {
            // Their y runs up, a page's runs down.
            $picks[] = new Pick($id, new PixelPoint($x, -$y), 0.01);
            $control[] = new ControlPoint($id, $id, new Point($easting, $northing));
        }
        $fit = (new Fitter())->fit(new Observations($picks, points: $control), new PageFrame(200, 200), FitStart::unknown());
        self::assertEqualsWithDelta(4.51962, $fit->mmPerPixel, 0.00001, 'scale');
        self::assertEqualsWithDelta(183 + 13 / 60 + 5 / 3600 - 360, $fit->rotationDegrees, 0.5 / 3600, 'rotation 183°13′05″');
        $origin = $fit->pixelToMm->toMm(new PixelPoint(0, 0));
        self::assertEqualsWithDelta([1_050_003.715, 50_542.131], $origin->toArray(), 0.001, 'translation');
    }

    public function testAStretchedFitFromRoomsFindsItsFactors(): void
    {
        // Rooms lying along both axes show a stretch as well as lengths do.
        $at = [new PixelPoint(300, 1800), new PixelPoint(1300, 1800), new PixelPoint(1300, 1000), new PixelPoint(300, 1000)];
        $fit = (new Fitter(new Stretched()))->fit(
            new Observations(
                $this->picks($at),
                [],
                [new GridPick('g', 'p0', 'p1', 0.0)],
                rectangles: [new Rectangle('r', ['p0', 'p1', 'p2', 'p3'], 5100, 4000, 1)],
            ),
            $this->frame,
            FitStart::unknown(),
        );
        self::assertEqualsWithDelta(1.02, $fit->stretch()['x'] / $fit->stretch()['y'], 1e-9);
    }

    private function fit(Observations $observations, ?FitStart $start = null): Fit
    {
        return (new Fitter())->fit($observations, $this->frame, $start ?? FitStart::unknown());
    }

    /**
     * @param list<PixelPoint> $at
     *
     * @return list<Pick>
     */
    private function picks(array $at): array
    {
        return array_map(static fn (int $k, PixelPoint $p): Pick => new Pick("p$k", $p, 0.5), array_keys($at), $at);
    }
}
