<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Fitting;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\ControlPoint;
use Plinth\Core\Fitting\Exception\UnusableStandOff;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\PerspectiveWithLens;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Fitting\StandOff;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/** What a lens does is taken back where the statements speak for it and owned in ± where they do not; points may keep a drawing's size. */
final class PhotographTest extends TestCase
{
    private PageFrame $frame;

    protected function setUp(): void
    {
        $this->frame = new PageFrame(2200, 1500);
    }

    public function testALensIsTakenBackWhereTheStatementsSpeakForIt(): void
    {
        Noise::seed(71);
        $off = [];
        for ($i = 0; $i < 12; ++$i) {
            $true = $this->camera(-0.05);
            $fit = $this->fitted($true, 4, 0.3);
            self::assertNotNull($fit->pixelToMm->lens);
            self::assertEqualsWithDelta(-0.05, $fit->pixelToMm->lens->k * $this->frame->unitPx ** 2, 0.02);
            $off[] = $this->off($fit, $true);
        }
        // Without the lens the corners would be out by some 5 %, 80 mm in 8.4 m.
        self::assertLessThan(8.0, array_sum($off) / \count($off));
    }

    public function testWithoutALensNoneIsFoundAndAWrongFigureIsNotTakenForOne(): void
    {
        Noise::seed(72);
        $found = 0;
        for ($i = 0; $i < 40; ++$i) {
            $found += null === $this->fitted($this->camera(0.0), 4, 0.3)->pixelToMm->lens ? 0 : 1;
        }
        // Odds of 1 : 1000 each.
        self::assertLessThanOrEqual(1, $found);
        for ($i = 0; $i < 10; ++$i) {
            self::assertNull($this->fitted($this->camera(0.0), 4, 0.3, wrong: 120.0)->pixelToMm->lens);
        }
    }

    public function testPlusMinusOwnsThatThereMayBeALens(): void
    {
        Noise::seed(73);
        // With two lengths each way nothing tells of a lens: over the page ± is at least what a usual one would do.
        $scarce = $this->fitted($this->camera(0.0), 2, 0.05);
        self::assertGreaterThan(5.0, $scarce->spread->at(new PixelPoint(40.0, 40.0)));
        $plenty = $this->fitted($this->camera(0.0), 5, 0.05);
        self::assertLessThan($scarce->spread->at(new PixelPoint(40.0, 40.0)), $plenty->spread->at(new PixelPoint(40.0, 40.0)));
    }

    public function testTwoPointsMoveAndTurnADrawingThatKeepsItsSize(): void
    {
        $picks = [
            new Pick('a', new PixelPoint(200, 1200), 0.3),
            new Pick('b', new PixelPoint(1200, 1200), 0.3),
            new Pick('c', new PixelPoint(200, 200), 0.3),
        ];
        $length = new KnownLength('l', 'a', 'b', 5000.0, 1.0);
        // The other drawing has these corners 5010 mm apart, turned by 2°.
        $turn = deg2rad(2.0);
        $points = [
            new ControlPoint('p', 'a', new Point(1000.0, 2000.0)),
            new ControlPoint('q', 'b', new Point(1000.0 + 5010.0 * cos($turn), 2000.0 + 5010.0 * sin($turn))),
        ];
        $kept = (new Fitter())->fit(
            new Observations($picks, [$length], [], $points, pointsKeepSize: true),
            $this->frame,
            FitStart::unknown(),
        );
        self::assertEqualsWithDelta(5.0, $kept->mmPerPixel, 1e-9);
        self::assertEqualsWithDelta(2.0, $kept->rotationDegrees, 1e-9);
        self::assertEqualsWithDelta(
            [5.0, 5.0],
            [$kept->points[0]->residualMm, $kept->points[1]->residualMm],
            1e-6,
            'Half of what they disagree by at either end.',
        );
        $a = $kept->pixelToMm->toMm($picks[0]->at);
        self::assertEqualsWithDelta([1000.0 + 5.0 * cos($turn), 2000.0 + 5.0 * sin($turn)], [$a->x, $a->y], 1e-6);
        // Otherwise they say the size as well, by their better figure.
        $sized = (new Fitter())->fit(
            new Observations($picks, [new KnownLength('l', 'a', 'b', 5000.0, 50.0)], [], $points),
            $this->frame,
            FitStart::unknown(),
        );
        self::assertGreaterThan(5.009, $sized->mmPerPixel);
        // One point only shifts.
        $one = (new Fitter())->fit(
            new Observations($picks, [$length], [new GridPick('g', 'a', 'c', \M_PI_2)], [$points[0]], pointsKeepSize: true),
            $this->frame,
            FitStart::unknown(),
        );
        self::assertEqualsWithDelta([0.0, 0.0], [$one->rotationDegrees, $one->points[0]->residualMm], 1e-6);
    }

    public function testWhatStandsBeforeTheWallReadsTooLargeByItsNearness(): void
    {
        // Similar triangles: half a metre before a wall seen from ten, 10 / 9.5.
        self::assertEqualsWithDelta(10.0 / 9.5, (new StandOff(500.0, 10_000.0))->factor(), 1e-12);
        self::assertLessThan(1.0, (new StandOff(-200.0, 10_000.0))->factor(), 'Behind it, smaller.');
        $this->expectException(UnusableStandOff::class);
        new StandOff(10_500.0, 10_000.0);
    }

    private function camera(float $k): PixelToMm
    {
        return (new PerspectiveWithLens())->pixelToMm(
            [log(5.0 * $this->frame->unitPx), 0.02, 0.0, 0.0, 0.06, -0.05, $k],
            $this->frame,
            0.0,
            0.0,
        );
    }

    /** Figures along both axes and lines on all sides. */
    private function fitted(PixelToMm $true, int $each, float $sigmaPx, float $wrong = 0.0): Fit
    {
        [$picks, $lengths, $grid] = [[], [], []];
        $pick = static function (string $id, float $x, float $y) use (&$picks, $true, $sigmaPx): string {
            $at = $true->toPixel(new Point($x, $y));
            $picks[] = new Pick($id, new PixelPoint($at->x + Noise::normal($sigmaPx), $at->y + Noise::normal($sigmaPx)), $sigmaPx);

            return $id;
        };
        for ($k = 0; $k < $each; ++$k) {
            $t = -1.0 + 2.0 * $k / ($each - 1);
            $lengths[] = new KnownLength(
                "w$k",
                $pick("a$k", -4200, 2700 * $t),
                $pick("b$k", 4200, 2700 * $t),
                8400 + (0 === $k ? $wrong : 0.0),
                2,
                Along::X,
            );
            $grid[] = new GridPick("x$k", "a$k", "b$k", 0.0);
            $lengths[] = new KnownLength("h$k", $pick("c$k", 4200 * $t, -2700), $pick("d$k", 4200 * $t, 2700), 5400, 2, Along::Y);
            $grid[] = new GridPick("y$k", "c$k", "d$k", \M_PI_2);
        }
        // Lines whose middles were picked too: they bow where there is a lens.
        for ($k = 0; $k < 2 * ($each - 2); ++$k) {
            $half = $k % 2;
            $y = 0 === intdiv($k, 2) % 2 ? 2700 : -2700;
            $grid[] = new GridPick("m$k", $pick("m$k", 0 === $half ? -4100 : 0, $y), $pick("n$k", 0 === $half ? 0 : 4100, $y), 0.0);
        }

        return (new Fitter(Model::Perspective->shape()))->fit(new Observations($picks, $lengths, $grid), $this->frame, FitStart::unknown());
    }

    /** mm by which a diagonal over the whole wall is out. */
    private function off(Fit $fit, PixelToMm $true): float
    {
        $at = static fn (float $x, float $y): Point => $fit->pixelToMm->toMm($true->toPixel(new Point($x, $y)));

        return abs($at(-4200, -2700)->distanceTo($at(4200, 2700)) - hypot(8400, 5400));
    }
}
