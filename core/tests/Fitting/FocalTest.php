<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Fitting;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\Beforehand;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\Focal;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Geometry\PixelPoint;

/** A camera that says what its lens is lets one length size a slanted photograph along both axes. */
final class FocalTest extends TestCase
{
    /** px; half the diagonal is 1000 */
    private const SIDES = [1600.0, 1200.0];

    /** Pinhole pictures worked out here, with what a telephone and a longer lens say of themselves. */
    #[TestWith([26.0, 25.0, 70.0])]
    #[TestWith([26.0, 15.0, 200.0])]
    #[TestWith([50.0, 20.0, 110.0])]
    public function testOneLengthSizesBothAxesOfAPhotographWhoseLensIsKnown(float $frameMm, float $tilt, float $towards): void
    {
        $known = $this->fit(Focal::ofFrame($frameMm), $frameMm, $tilt, $towards);
        $guessed = $this->fit(null, $frameMm, $tilt, $towards);
        [$off, $offGuessed] = [$this->off($known, $frameMm, $tilt, $towards), $this->off($guessed, $frameMm, $tilt, $towards)];
        self::assertLessThan(10.0, $off, 'mm over 10 m, either way');
        self::assertGreaterThan(5.0 * $off, $offGuessed);
        self::assertLessThan($known->plusMinusMmPer10m, $off);
        self::assertLessThan($guessed->plusMinusMmPer10m, $offGuessed, 'What is not known is owned.');
        self::assertLessThan(0.3 * (float) $guessed->plusMinusMmPer10m, $known->plusMinusMmPer10m);
    }

    public function testALensThatIsToldWronglyIsOverruledByASecondLength(): void
    {
        // Cut out of a larger picture: what the camera says is half of what it was.
        $fit = $this->fit(Focal::measured(0.9, 0.3), 50.0, 20.0, 110.0, true);
        self::assertLessThan(10.0, $this->off($fit, 50.0, 20.0, 110.0));
    }

    private function fit(?Focal $focal, float $frameMm, float $tilt, float $towards, bool $withSecond = false): Fit
    {
        $places = ['sw' => [-3000.0, -2000.0], 'se' => [3000.0, -2000.0], 'ne' => [3000.0, 2000.0], 'nw' => [-3000.0, 2000.0]];
        $picks = array_map(static fn (string $id): Pick => new Pick($id, self::seen($places[$id], $frameMm, $tilt, $towards), 0.1), array_keys($places));

        return (new Fitter(Model::Perspective->shape()))->fit(
            new Observations($picks, [
                new KnownLength('across', 'sw', 'se', 6000.0, 1.0),
                ...($withSecond ? [new KnownLength('up', 'se', 'ne', 4000.0, 1.0)] : []),
            ], [
                new GridPick('s', 'sw', 'se', 0.0), new GridPick('n', 'nw', 'ne', 0.0),
                new GridPick('w', 'sw', 'nw', \M_PI_2), new GridPick('e', 'se', 'ne', \M_PI_2),
            ]),
            new PageFrame(...self::SIDES, beforehand: Beforehand::picture($focal)),
            FitStart::unknown(),
        );
    }

    /** @return float mm over 10 m by which the worse of both axes is off, in the middle of the picture */
    private function off(Fit $fit, float $frameMm, float $tilt, float $towards): float
    {
        $worst = 0.0;
        foreach ([[1000.0, 0.0], [0.0, 1000.0]] as [$x, $y]) {
            [$p, $q] = array_map(
                static fn (array $at) => $fit->pixelToMm->toMm(self::seen($at, $frameMm, $tilt, $towards)),
                [[-$x, -$y], [$x, $y]],
            );
            $worst = max($worst, 10_000.0 * abs($p->distanceTo($q) / 2000.0 - 1.0));
        }

        return $worst;
    }

    /**
     * Where a camera 8 m away sees a place of the plane, mm, that leans away by some degrees in a direction.
     *
     * @param array{float, float} $at
     */
    private static function seen(array $at, float $frameMm, float $tilt, float $towards): PixelPoint
    {
        $focal = 1000.0 * $frameMm / 21.633;
        [$c, $s] = [cos(deg2rad($towards)), sin(deg2rad($towards))];
        [$along, $across] = [$c * $at[0] + $s * $at[1], $c * $at[1] - $s * $at[0]];
        $depth = 8000.0 + $along * sin(deg2rad($tilt));
        $along *= cos(deg2rad($tilt));
        [$x, $y] = [$c * $along - $s * $across, $s * $along + $c * $across];

        return new PixelPoint(self::SIDES[0] / 2.0 + $focal * $x / $depth, self::SIDES[1] / 2.0 - $focal * $y / $depth);
    }
}
