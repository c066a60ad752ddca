<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Fitting;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\ControlPoint;
use Plinth\Core\Fitting\Exception\NothingToFit;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\Offer;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Tests\Outside;

/** A copy that came out wider, or that leans, is offered as such with its evidence, and a true one is left alone. */
final class ModelTest extends TestCase
{
    private PageFrame $frame;

    protected function setUp(): void
    {
        $this->frame = new PageFrame(3300, 2300);
    }

    public function testAStretchedCopyWithFiguresAlongBothAxesIsOfferedAndItsFactorsAreRight(): void
    {
        Noise::seed(31);
        for ($i = 0; $i < 40; ++$i) {
            $ratio = 1.0 + Noise::uniform(0.008, 0.03) * (Noise::uniform(-1, 1) > 0 ? 1 : -1);
            $observations = $this->observed(self::map(5.0, Noise::uniform(-0.05, 0.05), $ratio, 0.0), 0.25);
            $fit = (new Fitter())->fit($observations, $this->frame, FitStart::unknown());
            $offer = Offer::beyond($fit, $observations, $this->frame, FitStart::unknown());
            self::assertSame(Model::Stretched, $offer?->fit->model, "ratio $ratio");
            $stretch = $offer->fit->stretch();
            self::assertEqualsWithDelta(1.0, $stretch['x'] / $stretch['y'] / $ratio, 1e-3, 'within 0.1 %');
            self::assertEqualsWithDelta(0.0, $offer->fit->slantDegrees(), 1e-9);
            self::assertGreaterThan(1.0, $offer->effectPx);
            self::assertStringContainsString($ratio < 1.0 ? 'stretched sideways' : 'stretched upright', $offer->sentence);
            self::assertNull(Offer::beyond($offer->fit, $observations, $this->frame, FitStart::unknown()), 'Nothing larger is wanted.');
        }
    }

    public function testALeaningCopyIsOfferedAsSheared(): void
    {
        Noise::seed(32);
        $observations = $this->observed(self::map(5.0, 0.02, 1.0, 0.02), 0.25);
        $fit = (new Fitter())->fit($observations, $this->frame, FitStart::unknown());
        $offer = Offer::beyond($fit, $observations, $this->frame, FitStart::unknown());
        self::assertSame(Model::Sheared, $offer?->fit->model);
        self::assertEqualsWithDelta(rad2deg(0.02), abs($offer->fit->slantDegrees()), 0.05);
        self::assertStringContainsString('not square by 1.1', $offer->sentence);
    }

    public function testATrueCopyIsLeftAlone(): void
    {
        Noise::seed(33);
        $offered = 0;
        for ($i = 0; $i < 300; ++$i) {
            $observations = $this->observed(self::map(5.0, Noise::uniform(-0.05, 0.05), 1.0, 0.0), 0.5);
            $fit = (new Fitter())->fit($observations, $this->frame, FitStart::unknown());
            $offered += null === Offer::beyond($fit, $observations, $this->frame, FitStart::unknown()) ? 0 : 1;
        }
        self::assertLessThanOrEqual(3, $offered, 'Odds of 1 : 1000 for each of two models.');
    }

    public function testOneFigureThatDisagreesIsNoStretch(): void
    {
        $picks = array_map(
            static fn (int $k, array $s): Pick => new Pick("p$k", new PixelPoint($s[0], $s[1]), 0.5),
            [0, 1, 2, 3],
            [[300, 300], [2900, 300], [300, 1900], [2500, 1900]],
        );
        $lengths = [
            new KnownLength('a', 'p0', 'p1', 13_000, 3),
            new KnownLength('b', 'p2', 'p3', 11_000, 3),
            new KnownLength('c', 'p0', 'p2', 7900, 3),
        ];
        $observations = new Observations($picks, $lengths, [new GridPick('g', 'p0', 'p1', 0.0)]);
        $fit = (new Fitter())->fit($observations, $this->frame, FitStart::unknown());
        self::assertTrue($fit->lengths[2]->suspect, '8000 mm would agree.');
        self::assertNull(
            Offer::beyond($fit, $observations, $this->frame, FitStart::unknown()),
            'It may just be wrong: a second one along y will tell.',
        );
    }

    public function testTooLittleIsSaidAndNeverOffered(): void
    {
        $picks = [
            new Pick('a', new PixelPoint(100, 100), 0.5),
            new Pick('b', new PixelPoint(2100, 100), 0.5),
            new Pick('c', new PixelPoint(1100, 100), 0.5),
        ];
        $observations = new Observations(
            $picks,
            [new KnownLength('l', 'a', 'b', 10_000, 5), new KnownLength('m', 'a', 'c', 5200, 5)],
            [new GridPick('g', 'a', 'b', 0.0)],
        );
        $fit = (new Fitter())->fit($observations, $this->frame, FitStart::unknown());
        self::assertNull(
            Offer::beyond($fit, $observations, $this->frame, FitStart::unknown()),
            'Two lengths along x disagree: y says nothing.',
        );
        $this->expectException(NothingToFit::class);
        $this->expectExceptionMessage('along both axes');
        (new Fitter(Model::Stretched->shape()))->fit($observations, $this->frame, FitStart::unknown());
    }

    /** Outside check: OpenCV's least-squares affine of the same point pairs. */
    public function testControlPointsShearedGiveWhatOpenCvGives(): void
    {
        Noise::seed(34);
        $sets = [];
        $ours = [];
        for ($i = 0; $i < 15; ++$i) {
            $true = self::map(Noise::uniform(2, 12), Noise::uniform(-0.3, 0.3), Noise::uniform(0.97, 1.03), Noise::uniform(-0.02, 0.02));
            $picks = [];
            $points = [];
            $set = [];
            for ($k = 0; $k < 8; ++$k) {
                $at = new PixelPoint(Noise::uniform(100, 3200), Noise::uniform(100, 2200));
                $mm = $true->toMm($at);
                $seen = new PixelPoint($at->x + Noise::normal(0.5), $at->y + Noise::normal(0.5));
                $picks[] = new Pick("p$k", $seen, 0.5);
                $points[] = new ControlPoint("c$k", "p$k", $mm);
                $set[] = [[$seen->x, $seen->y], [$mm->x, $mm->y]];
            }
            $sets[] = $set;
            $ours[] = (new Fitter(Model::Sheared->shape()))->fit(
                new Observations($picks, [], [], $points),
                $this->frame,
                FitStart::unknown(),
            );
        }
        $answer = Outside::ask('affine.py', ['sets' => $sets])['maps'];
        self::assertIsArray($answer);
        foreach ($ours as $i => $fit) {
            self::assertIsArray($theirs = $answer[$i]);
            foreach ([[200, 200], [3000, 300], [1600, 2100]] as [$x, $y]) {
                [$a, $b, $c, $d, $e, $f] = array_map(
                    static fn (mixed $v): float => is_numeric($v) ? (float) $v : \NAN,
                    array_values($theirs),
                );
                $mm = $fit->pixelToMm->toMm(new PixelPoint($x, $y));
                // They minimise in the target, we in the picks: equal up to the second order of the noise.
                self::assertEqualsWithDelta([$a * $x + $b * $y + $c, $d * $x + $e * $y + $f], $mm->toArray(), 0.01 * $fit->mmPerPixel);
            }
        }
    }

    public function testTheMatrixIsWhatTheModelDoes(): void
    {
        $fit = static fn (PixelToMm $map): Fit => (new Fitter(Model::Sheared->shape()))->fit(new Observations(
            array_map(
                static fn (int $k, array $p): Pick => new Pick("p$k", new PixelPoint($p[0], $p[1]), 0.5),
                range(0, 3),
                [[0, 0], [3000, 0], [3000, 2000], [100, 2000]],
            ), [], [],
            array_map(
                static fn (int $k, array $p): ControlPoint => new ControlPoint("c$k", "p$k", $map->toMm(new PixelPoint($p[0], $p[1]))),
                range(0, 3),
                [[0, 0], [3000, 0], [3000, 2000], [100, 2000]],
            ),
        ), new PageFrame(3300, 2300), FitStart::unknown());
        $map = self::map(4.2, 0.11, 1.02, -0.03);
        self::assertEqualsWithDelta($map->matrix(), $fit($map)->pixelToMm->matrix(), 1e-5);
    }

    /** Pixels to mm: turned, x's factor over y's, and by how much x grows with y. */
    private static function map(float $mmPerPixel, float $turn, float $ratio, float $shear): PixelToMm
    {
        [$sx, $sy] = [$mmPerPixel * sqrt($ratio), $mmPerPixel / sqrt($ratio)];
        [$c, $s] = [cos($turn), sin($turn)];
        $k = $shear * $mmPerPixel;

        return PixelToMm::ofMatrix([$sx * $c + $k * $s, $sx * $s - $k * $c, -1000.0, $sy * $s, -$sy * $c, 9000.0, 0.0, 0.0, 1.0]);
    }

    /** Seven figures along, down and across, and two grid lines, with picks of this many pixels. */
    private function observed(PixelToMm $true, float $sigmaPx): Observations
    {
        $spots = [[300, 300], [2900, 320], [310, 1900], [2880, 1920], [1600, 310], [300, 1100]];
        $picks = array_map(
            static fn (int $k, array $s): Pick => new Pick(
                "p$k",
                new PixelPoint($s[0] + Noise::normal($sigmaPx), $s[1] + Noise::normal($sigmaPx)),
                $sigmaPx,
            ),
            array_keys($spots),
            $spots,
        );
        $grid = [];
        // Grid lines run with the model's axes, so their ends are set out there.
        foreach ([['x', 0.0, 12_000.0, 0.0], ['y', \M_PI / 2, 0.0, 8000.0]] as $n => [$axis, $direction, $dx, $dy]) {
            $from = $true->toMm(new PixelPoint(350, 1850));
            foreach (['a' => $from, 'b' => new Point($from->x + $dx, $from->y + $dy)] as $end => $at) {
                $px = $true->toPixel($at);
                $picks[] = new Pick(
                    "$axis$end",
                    new PixelPoint($px->x + Noise::normal($sigmaPx), $px->y + Noise::normal($sigmaPx)),
                    $sigmaPx,
                );
            }
            $grid[] = new GridPick("g$n", $axis.'a', $axis.'b', $direction);
        }
        $lengths = [];
        foreach ([[0, 1], [2, 3], [0, 2], [1, 3], [0, 4], [0, 5], [0, 3]] as [$a, $b]) {
            $mm = $true->toMm(new PixelPoint(...$spots[$a]))->distanceTo($true->toMm(new PixelPoint(...$spots[$b])));
            $lengths[] = new KnownLength("l$a$b", "p$a", "p$b", round($mm / 5) * 5, 5 / sqrt(12));
        }

        return new Observations($picks, $lengths, $grid);
    }
}
