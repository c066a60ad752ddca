<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\Beforehand;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Perspective;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Pages\Leaning;

/** A photograph straightened by its own lines. */
final class LeaningTest extends TestCase
{
    private const WIDTH = 2000.0;
    private const HEIGHT = 1400.0;

    public function testItsLinesRunAlongTheAxesOfWhatItShows(): void
    {
        $unit = hypot(self::WIDTH, self::HEIGHT) / 2.0;
        [$g, $h, $askew, $turn] = [0.06, -0.03, 0.004, 0.05];
        $flat = static function (PixelPoint $p) use ($unit, $g, $h, $askew, $turn): array {
            [$u, $v] = [($p->x - self::WIDTH / 2.0) / $unit, (self::HEIGHT / 2.0 - $p->y) / $unit];
            $w = 1.0 + $g * $u + $h * $v;
            [$a, $b] = [(cos($turn) * $u + sin($turn) * $v) / $w, (cos($turn) * $v - sin($turn) * $u) / $w];

            return [$a + $askew * $b, $b];
        };
        $leaning = self::leaning($g, $h, $askew, $turn);
        self::assertTrue($leaning?->isSlanted());
        $lines = $leaning->lines(new PixelBox(150, 100, 1500, 1100), self::WIDTH, self::HEIGHT);
        self::assertCount(6, $lines);
        foreach ($lines as $line) {
            [$p, $q] = [$flat($line->a), $flat($line->b)];
            self::assertEqualsWithDelta(0.0, $line->runsDown ? $q[0] - $p[0] : $q[1] - $p[1], 1e-9);
            self::assertGreaterThan($line->runsDown ? 750.0 : 1000.0, $line->a->distanceTo($line->b));
            self::assertGreaterThan(0.1, $line->sigmaPx);
        }
        self::assertNull(Leaning::from(['u' => 0.1, 'v' => 0.2]), 'What was kept in another form says nothing.');
        self::assertFalse(self::leaning(0.0, 0.0, 0.0, 0.0)?->isSlanted());
    }

    /**
     * Property: whatever the lens and the slant, with its lines and one length across, what runs the other way is off by no more than ±; a
     * second length brings that down.
     */
    public function testOneLengthSizesAStraightenedPhotographAsFarAsLensesAreKnown(): void
    {
        mt_srand(9);
        $covered = [];
        for ($case = 0; $case < 120; ++$case) {
            // Telephones to pictures cut out of others, up to 20° off.
            $focal = 1.2 * 5.0 ** (mt_rand() / mt_getrandmax());
            $slant = tan(deg2rad(20.0 * mt_rand() / mt_getrandmax()));
            $way = 2.0 * \M_PI * mt_rand() / mt_getrandmax();
            $true = self::seen($focal, $slant, $way);
            [$askew, $turn] = self::axes($true);
            $leaning = self::leaning(...self::leans($true), askew: $askew, turn: $turn);
            if (true !== $leaning?->isSlanted()) {
                continue;
            }
            $one = self::along($true, $leaning, [[0.0, 0.0, 10_000.0, 0.0]]);
            $both = self::along($true, $leaning, [[0.0, 0.0, 10_000.0, 0.0], [10_000.0, 0.0, 10_000.0, 6000.0]]);
            $covered[] = $one[0] <= $one[1] ? 1 : 0;
            self::assertLessThan(30.0, $both[0]);
            self::assertLessThan($one[1] + 1e-6, $both[1]);
        }
        self::assertGreaterThan(100, \count($covered));
        self::assertGreaterThan(0.92, array_sum($covered) / \count($covered));
    }

    /**
     * A sheet of 10 by 6 m of building as a camera sees it that looks at its middle.
     *
     * @param float $focal over half the picture's diagonal
     * @param float $slant tangent of the angle by which it looks askew, and $way which way
     */
    private static function seen(float $focal, float $slant, float $way): PixelToMm
    {
        $unit = hypot(self::WIDTH, self::HEIGHT) / 2.0;
        [$g, $h] = [$slant / $focal * cos($way), $slant / $focal * sin($way)];
        $longer = sqrt(1.0 + $slant ** 2);
        $lean = max(1e-12, $g * $g + $h * $h);
        $more = ($longer - 1.0) / $lean;
        // Drawn out along the slant by 1 / cos t, then divided by 1 + g·u + h·v.
        [$a, $b, $d, $e] = [1.0 + $more * $g * $g, $more * $g * $h, $more * $g * $h, 1.0 + $more * $h * $h];
        $mm = 6.0;
        $m = [
            $mm * $a, -$mm * $b, $mm * (-$a * self::WIDTH / 2.0 + $b * self::HEIGHT / 2.0),
            $mm * $d, -$mm * $e, $mm * (-$d * self::WIDTH / 2.0 + $e * self::HEIGHT / 2.0),
            $g / $unit, -$h / $unit, 1.0 - $g / $unit * self::WIDTH / 2.0 + $h / $unit * self::HEIGHT / 2.0,
        ];
        // The sheet's middle at 5, 3 m.
        for ($i = 0; $i < 3; ++$i) {
            $m[$i] += 5000.0 * $m[6 + $i];
            $m[3 + $i] += 3000.0 * $m[6 + $i];
        }

        return PixelToMm::ofMatrix($m);
    }

    private static function leaning(float $u, float $v, float $askew, float $turn): ?Leaning
    {
        return Leaning::from(['u' => $u, 'v' => $v, 'sigma' => 0.0005, 'askew' => $askew, 'sigmaAskew' => 0.0003, 'turn' => $turn]);
    }

    /** @return array{float, float} */
    private static function leans(PixelToMm $true): array
    {
        $m = $true->matrix();
        $unit = hypot(self::WIDTH, self::HEIGHT) / 2.0;
        $w = $m[6] * self::WIDTH / 2.0 + $m[7] * self::HEIGHT / 2.0 + $m[8];

        return [$m[6] / $w * $unit, -$m[7] / $w * $unit];
    }

    /** @return array{float, float} by how much its axes miss the right angle, seen without its receding, and the turn of the first */
    private static function axes(PixelToMm $true): array
    {
        // Page pixels run down.
        [$a, $b, $d, $e] = $true->linearAt(new PixelPoint(self::WIDTH / 2.0, self::HEIGHT / 2.0));
        $turn = atan2(-$d, -$e);

        return [atan2($a, $b) - \M_PI_2 - $turn, $turn];
    }

    /**
     * @param list<array{float, float, float, float}> $lengths
     *
     * @return array{float, float} mm by which 10 m along y are off in the middle, and ± of that
     */
    private static function along(PixelToMm $true, Leaning $leaning, array $lengths): array
    {
        $picks = $grid = $known = [];
        $pick = static function (PixelPoint $at, float $sigma) use (&$picks): string {
            $picks[] = new Pick('p'.\count($picks), $at, $sigma);

            return 'p'.(\count($picks) - 1);
        };
        foreach ($leaning->lines(new PixelBox(100, 100, 1800, 1200), self::WIDTH, self::HEIGHT) as $k => $line) {
            $grid[] = new GridPick(
                'g'.$k,
                $pick($line->a, $line->sigmaPx),
                $pick($line->b, $line->sigmaPx),
                $line->runsDown ? \M_PI_2 : 0.0,
            );
        }
        foreach ($lengths as $k => [$x1, $y1, $x2, $y2]) {
            [$a, $b] = [new Point($x1, $y1), new Point($x2, $y2)];
            $known[] = new KnownLength(
                'l'.$k,
                $pick($true->toPixel($a), 0.5),
                $pick($true->toPixel($b), 0.5),
                $a->distanceTo($b),
                3.0,
            );
        }
        $frame = new PageFrame(self::WIDTH, self::HEIGHT, Beforehand::picture()->leaning(...$leaning->told()));
        $fit = (new Fitter(new Perspective()))->fit(new Observations($picks, $known, $grid), $frame, FitStart::unknown());
        $says = $fit->pixelToMm->toMm($true->toPixel(new Point(5000, 2000)))->distanceTo(
            $fit->pixelToMm->toMm($true->toPixel(new Point(5000, 4000))),
        );

        return [10_000.0 * abs($says / 2000.0 - 1.0), $fit->plusMinusAlong['y'] ?? 0.0];
    }
}
