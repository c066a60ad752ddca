<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Fitting;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\ControlPoint;
use Plinth\Core\Fitting\Exception\NothingToFit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\Offer;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Fitting\Rectangle;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Tests\Outside;

/** A photograph taken at a slant is straightened from what is known on the wall or sheet in it. */
final class PerspectiveTest extends TestCase
{
    private PageFrame $frame;

    protected function setUp(): void
    {
        $this->frame = new PageFrame(2200.0, 1500.0);
    }

    /** Outside check: OpenCV's findHomography of the same pairs. */
    public function testControlPointsGiveWhatOpenCvGives(): void
    {
        Noise::seed(51);
        $sets = [];
        $ours = [];
        for ($i = 0; $i < 15; ++$i) {
            $true = $this->slanted(
                Noise::uniform(3, 8),
                Noise::uniform(-0.06, 0.06),
                Noise::uniform(-0.08, 0.08),
                Noise::uniform(-0.08, 0.08),
            );
            [$picks, $points, $set] = [[], [], []];
            for ($k = 0; $k < 12; ++$k) {
                $at = new PixelPoint(Noise::uniform(100, 2100), Noise::uniform(100, 1400));
                $mm = $true->toMm($at);
                $seen = new PixelPoint($at->x + Noise::normal(0.05), $at->y + Noise::normal(0.05));
                $picks[] = new Pick("p$k", $seen, 0.05);
                $points[] = new ControlPoint("c$k", "p$k", $mm);
                $set[] = [[$seen->x, $seen->y], [$mm->x, $mm->y]];
            }
            $sets[] = $set;
            $ours[] = (new Fitter(Model::Perspective->shape()))->fit(
                new Observations($picks, [], [], $points),
                $this->frame,
                FitStart::unknown(),
            );
        }
        $answer = Outside::ask('homography.py', ['sets' => $sets])['maps'];
        self::assertIsArray($answer);
        foreach ($ours as $i => $fit) {
            self::assertIsArray($theirs = $answer[$i]);
            $m = array_map(static fn (mixed $v): float => is_numeric($v) ? (float) $v : \NAN, array_values($theirs));
            self::assertCount(9, $m);
            $map = PixelToMm::ofMatrix([$m[0], $m[1], $m[2], $m[3], $m[4], $m[5], $m[6], $m[7], $m[8]]);
            foreach ([[300, 300], [1900, 250], [1100, 750], [1000, 1300]] as [$x, $y]) {
                $at = new PixelPoint($x, $y);
                // They minimise in the target, we in the picks: alike to a part of the noise.
                self::assertLessThan(0.2 * $fit->mmPerPixel, $fit->pixelToMm->toMm($at)->distanceTo($map->toMm($at)));
            }
        }
    }

    public function testARectangleAndItsDirectionsStraightenTheWholeWall(): void
    {
        $true = $this->slanted(5.0, 0.02, 0.05, -0.07);
        $corners = [new Point(-3000, -1500), new Point(3000, -1500), new Point(3000, 1500), new Point(-3000, 1500)];
        $picks = array_map(static fn (int $k, Point $p): Pick => new Pick("p$k", $true->toPixel($p), 0.3), array_keys($corners), $corners);
        $fit = (new Fitter(Model::Perspective->shape()))->fit(
            new Observations(
                $picks,
                [],
                [new GridPick('x', 'p0', 'p1', 0.0), new GridPick('y', 'p1', 'p2', \M_PI_2), new GridPick('z', 'p3', 'p2', 0.0)],
                [],
                [new Rectangle('r', ['p0', 'p1', 'p2', 'p3'], 6000, 3000, 2)],
            ),
            $this->frame,
            FitStart::unknown(),
        );
        // Far off the rectangle as well, up to where the drawing lies.
        $a = $fit->pixelToMm->toMm($true->toPixel(new Point(-4500, -3000)));
        $b = $fit->pixelToMm->toMm($true->toPixel(new Point(4500, 3000)));
        self::assertEqualsWithDelta([9000.0, 6000.0], [$b->x - $a->x, $b->y - $a->y], 1e-3);
    }

    public function testLevelAndPlumbLinesWithLengthsShowThatAPhotographIsSlanted(): void
    {
        Noise::seed(52);
        for ($i = 0; $i < 10; ++$i) {
            $true = $this->slanted(5.0, Noise::uniform(-0.04, 0.04), 0.06, -0.05);
            $observations = $this->facade($true, 0.3);
            $fit = (new Fitter())->fit($observations, $this->frame, FitStart::unknown());
            $offer = Offer::beyond($fit, $observations, $this->frame, FitStart::unknown(), Model::Perspective);
            while (null !== $offer && Model::Perspective !== $offer->fit->model) {
                $offer = Offer::beyond($offer->fit, $observations, $this->frame, FitStart::unknown(), Model::Perspective);
            }
            self::assertNotNull($offer);
            self::assertStringContainsString('at a slant', $offer->sentence);
            $seen = $offer->fit->pixelToMm;
            $length = $seen->toMm($true->toPixel(new Point(-4000, -2500)))->distanceTo($seen->toMm($true->toPixel(new Point(4000, 2500))));
            self::assertEqualsWithDelta(hypot(8000, 5000), $length, 15.0);
        }
        // A flat page is not taken for a photograph.
        $observations = $this->facade(PixelToMm::similar(5.0, 0.01, $this->frame->centre, new Point(0, 0)), 0.3);
        self::assertNull(
            Offer::beyond(
                (new Fitter())->fit($observations, $this->frame, FitStart::unknown()),
                $observations,
                $this->frame,
                FitStart::unknown(),
                Model::Perspective,
            ),
        );
    }

    public function testTooLittleOrAFoldIsRefusedInWords(): void
    {
        $picks = array_map(
            static fn (int $k, array $p): Pick => new Pick("p$k", new PixelPoint((float) $p[0], (float) $p[1]), 0.3),
            range(0, 3),
            [[200, 200], [2000, 200], [2000, 1300], [200, 1300]],
        );
        try {
            (new Fitter(Model::Perspective->shape()))->fit(
                new Observations($picks, [new KnownLength('l', 'p0', 'p1', 9000, 1)]),
                $this->frame,
                FitStart::unknown(),
            );
            self::fail('One length says nothing of a slant.');
        } catch (NothingToFit $e) {
            self::assertStringContainsString('known rectangle', $e->getMessage());
        }
        // Corners that would need the horizon inside the page.
        $mm = [new Point(0, 0), new Point(9000, 0), new Point(100, 5500), new Point(9000, 5400)];
        $this->expectException(NothingToFit::class);
        (new Fitter(Model::Perspective->shape()))->fit(
            new Observations(
                $picks,
                [],
                [],
                array_map(static fn (int $k, Point $p): ControlPoint => new ControlPoint("c$k", "p$k", $p), array_keys($mm), $mm),
            ),
            $this->frame,
            FitStart::unknown(),
        );
    }

    /** Figures along both axes on all sides, and level and plumb lines at the edges, as on a facade. */
    private function facade(PixelToMm $true, float $sigmaPx): Observations
    {
        [$picks, $lengths, $grid] = [[], [], []];
        $pick = static function (string $id, float $x, float $y) use (&$picks, $true, $sigmaPx): string {
            $at = $true->toPixel(new Point($x, $y));
            $picks[] = new Pick($id, new PixelPoint($at->x + Noise::normal($sigmaPx), $at->y + Noise::normal($sigmaPx)), $sigmaPx);

            return $id;
        };
        foreach ([-2600, -900, 800, 2600] as $k => $y) {
            $lengths[] = new KnownLength("w$k", $pick("a$k", -4200, $y), $pick("b$k", 4200, $y), 8400, 3, Along::X);
            $grid[] = new GridPick("x$k", "a$k", "b$k", 0.0);
        }
        foreach ([-4100, -1000, 1500, 4100] as $k => $x) {
            $lengths[] = new KnownLength("h$k", $pick("c$k", $x, -2700), $pick("d$k", $x, 2700), 5400, 3, Along::Y);
            $grid[] = new GridPick("y$k", "c$k", "d$k", \M_PI_2);
        }

        return new Observations($picks, $lengths, $grid);
    }

    /** Pixels to mm of a picture that recedes along u and v (parts of half the page's diagonal). */
    private function slanted(float $mmPerPixel, float $turn, float $p, float $q): PixelToMm
    {
        return Model::Perspective->shape()->pixelToMm(
            [log($mmPerPixel * $this->frame->unitPx), $turn, 0.0, 0.0, $p, $q],
            $this->frame,
            0.0,
            0.0,
        );
    }
}
