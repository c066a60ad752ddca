<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Fitting;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\Advice;
use Plinth\Core\Fitting\Beforehand;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/** ± owns what nothing has tested. */
final class UntestedTest extends TestCase
{
    private const ACROSS = ['left', 'right', 12000.0];
    private const DOWN = ['top', 'bottom', 8000.0];

    public function testOneLengthTestsItsOwnDirectionOnly(): void
    {
        $fit = $this->fit(self::looked(), self::ACROSS);
        self::assertSame('y', $fit->untested);
        self::assertLessThan(20.0, $fit->plusMinusAlong['x'] ?? null);
        // A per cent and a quarter of stretch, twice: what copiers do.
        self::assertEqualsWithDelta(250.0, $fit->plusMinusAlong['y'] ?? null, 10.0);
        self::assertGreaterThanOrEqual($fit->plusMinusAlong['y'] ?? \INF, $fit->plusMinusMmPer10m);
        self::assertSame('x', $this->fit(self::looked(), self::DOWN)->untested);
    }

    public function testALengthTheOtherWayTestsThat(): void
    {
        $fit = $this->fit(self::looked(), self::ACROSS, self::DOWN);
        self::assertNull($fit->untested);
        self::assertLessThan(25.0, max($fit->plusMinusAlong ?? [\INF]));
    }

    public function testOwnFactorsLeaveNoStretchOpen(): void
    {
        $fit = $this->fit(self::looked(), self::ACROSS, self::DOWN, model: Model::Stretched);
        self::assertNull($fit->untested);
        self::assertLessThan(25.0, max($fit->plusMinusAlong ?? [\INF]));
    }

    public function testWhatAProgramDrewIsTakenAtItsWord(): void
    {
        $fit = $this->fit(Beforehand::exact(), self::ACROSS);
        self::assertNull($fit->untested);
        self::assertEqualsWithDelta($fit->plusMinusAlong['x'] ?? null, $fit->plusMinusAlong['y'] ?? null, 1e-6);
    }

    public function testALeaningPictureIsTestedByNoSingleLength(): void
    {
        $leaning = Beforehand::picture()->leaning(0.06, -0.02, 0.001, 0.004, 0.001, 0.02);
        $fit = $this->fit($leaning, self::ACROSS);
        // A quarter of the page's half diagonal from the middle its scale is off by twice 0.06 · 0.25 for lengths along x.
        self::assertGreaterThan(300.0, $fit->plusMinusAlong['x'] ?? null);
        $frame = new PageFrame(3000.0, 2200.0, $leaning);
        $observations = new Observations($this->picks(), [$this->length(self::ACROSS)]);
        self::assertContains('slanted', array_column(Advice::on($fit, $observations, $frame), 'code'));
        self::assertNotContains(
            'slanted',
            array_column(Advice::on($fit, $observations, new PageFrame(3000.0, 2200.0, Beforehand::picture())), 'code'),
        );
    }

    public function testWithoutASizeThereIsNoPlusMinus(): void
    {
        $fit = (new Fitter())->fit(
            new Observations($this->picks(), [], [new GridPick('g', 'left', 'right', 0.0)]),
            new PageFrame(3000.0, 2200.0, Beforehand::picture()),
            FitStart::from(PixelToMm::similar(5.0, 0.0, new PixelPoint(0, 0), new Point(0, 0)), new PageFrame(3000.0, 2200.0)),
        );
        self::assertNull($fit->plusMinusAlong);
        self::assertNull($fit->untested);
    }

    /** Property: of pictures stretched and pulled askew as is known beforehand, ± covers 19 of 20, whatever was stated. */
    public function testPlusMinusCoversWhatIsKnownBeforehand(): void
    {
        mt_srand(5);
        $covered = [];
        for ($case = 0; $case < 400; ++$case) {
            [$stretch, $shear] = [0.00625 * self::normal(), 0.003 * self::normal()];
            $true = static fn (float $x, float $y): array => [
                5.0 * (exp($stretch) * $x + $shear * $y), 5.0 * exp(-$stretch) * $y,
            ];
            $picks = array_map(static fn (Pick $p): Pick => new Pick(
                $p->id,
                new PixelPoint($p->at->x + 0.5 * self::normal(), $p->at->y + 0.5 * self::normal()),
                0.5,
            ), $this->picks());
            $lengths = [];
            foreach ([[self::ACROSS], [self::DOWN], [self::ACROSS, self::DOWN]][$case % 3] as [$a, $b]) {
                [$p, $q] = [$this->at($a), $this->at($b)];
                [$dx, $dy] = $true($q->x - $p->x, $q->y - $p->y);
                $lengths[] = new KnownLength($a, $a, $b, hypot($dx, $dy) + 3.0 * self::normal(), 3.0);
            }
            $fit = (new Fitter())->fit(
                new Observations($picks, $lengths, [new GridPick('g', 'left', 'right', 0.0)]),
                new PageFrame(3000.0, 2200.0, Beforehand::picture()),
                FitStart::unknown(),
            );
            foreach (['x' => [1000.0, 0.0], 'y' => [0.0, 1000.0]] as $axis => [$dx, $dy]) {
                $says = $fit->pixelToMm->toMm(new PixelPoint(1000.0, 1000.0))->distanceTo(
                    $fit->pixelToMm->toMm(new PixelPoint(1000.0 + $dx, 1000.0 + $dy)),
                );
                $covered[] = 10_000.0 * abs($says / hypot(...$true($dx, $dy)) - 1.0) <= ($fit->plusMinusAlong[$axis] ?? 0.0) ? 1 : 0;
            }
        }
        $part = array_sum($covered) / \count($covered);
        self::assertGreaterThan(0.92, $part);
        self::assertLessThan(0.995, $part);
    }

    /** A picture whose lines run alongside each other and at right angles, as far as can be told. */
    private static function looked(): Beforehand
    {
        return Beforehand::picture()->leaning(0.0, 0.0, 0.0005, 0.0, 0.0003, 0.0);
    }

    /**
     * @param array{string, string, float} $across ids of the picks and mm
     * @param array{string, string, float}|null $down
     */
    private function fit(Beforehand $beforehand, array $across, ?array $down = null, Model $model = Model::Similar): Fit
    {
        return (new Fitter($model->shape()))->fit(
            new Observations(
                $this->picks(),
                array_map($this->length(...), null === $down ? [$across] : [$across, $down]),
                [new GridPick('g', 'left', 'right', 0.0)],
            ),
            new PageFrame(3000.0, 2200.0, $beforehand),
            FitStart::unknown(),
        );
    }

    /** @param array{string, string, float} $of */
    private function length(array $of): KnownLength
    {
        return new KnownLength($of[0], $of[0], $of[1], $of[2], 3.0);
    }

    private function at(string $pick): PixelPoint
    {
        return match ($pick) {
            'left' => new PixelPoint(300.0, 1100.0),
            'right' => new PixelPoint(2700.0, 1100.0),
            'top' => new PixelPoint(1500.0, 300.0),
            default => new PixelPoint(1500.0, 1900.0),
        };
    }

    /** @return list<Pick> */
    private function picks(): array
    {
        return array_map(fn (string $id): Pick => new Pick($id, $this->at($id), 0.5), ['left', 'right', 'top', 'bottom']);
    }

    private static function normal(): float
    {
        return sqrt(-2.0 * log(mt_rand(1, 1_000_000) / 1_000_001)) * cos(2.0 * \M_PI * mt_rand() / mt_getrandmax());
    }
}
