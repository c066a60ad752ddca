<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Fitting;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\Advice;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\NextLength;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Fitting\Standing;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Units\LengthParser;

final class AdviceTest extends TestCase
{
    public function testWhatIsMissingComesFirstThingByThing(): void
    {
        $across = new KnownLength('l', 'a', 'b', 12000.0, 3.0);
        $line = new GridPick('g', 'a', 'b', 0.0);
        $check = new KnownLength('k', 'a', 'c', 9000.0, 3.0, heldOut: true);
        self::assertSame('no-known-length', $this->codes([], [])[0]);
        self::assertSame('no-grid-line', $this->codes([$across], [])[0]);
        self::assertNotContains('no-grid-line', $this->codes([$across], [$line]));
        self::assertContains('no-check', $this->codes([$across], [$line]));
        self::assertNotContains('no-check', $this->codes([$across, $check], [$line]));
    }

    /** ± may still be too large for the purpose: what would make it smaller is said then as well. */
    public function testWhereNothingIsMissingItIsSaidWhatWouldStillHelp(): void
    {
        $lengths = [new KnownLength('k', 'a', 'c', 9000.0, 3.0, heldOut: true)];
        foreach (range(1, 8) as $i) {
            $lengths[] = new KnownLength("x$i", 'a', 'b', 12000.0, 3.0);
            $lengths[] = new KnownLength("y$i", 'a', 'c', 9000.0, 3.0);
        }
        self::assertSame(['no-single'], $this->codes($lengths, [new GridPick('g', 'a', 'b', 0.0)]));
    }

    public function testTheNextLengthHoldsWhatItPromises(): void
    {
        $frame = new PageFrame(3000.0, 2200.0);
        $observations = new Observations($this->picks(), [new KnownLength('l', 'a', 'c', 9000.0, 8.0)]);
        $fit = (new Fitter())->fit($observations, $frame, FitStart::unknown());
        $next = NextLength::after($fit, $observations, $frame);
        self::assertNotNull($next);
        $given = $observations->withLength(
            new KnownLength('next', 'n1', 'n2', $fit->pixelToMm->toMm($next->from)->distanceTo($fit->pixelToMm->toMm($next->to)), 8.0),
            new Pick('n1', $next->from, 0.5),
            new Pick('n2', $next->to, 0.5),
        );
        $then = (new Fitter())->fit($given, $frame, FitStart::unknown());
        self::assertEqualsWithDelta($next->plusMinusMmPer10m, (float) $then->plusMinusMmPer10m, 1e-6);
        self::assertLessThan(0.8 * (float) $fit->plusMinusMmPer10m, $next->plusMinusMmPer10m);
    }

    public function testEnoughLengthsAskForNoMore(): void
    {
        $frame = new PageFrame(3000.0, 2200.0);
        $lengths = [];
        foreach (range(1, 8) as $i) {
            $lengths[] = new KnownLength("l$i", 'a', 'b', 12000.0 + $i % 2, 3.0);
        }
        $observations = new Observations($this->picks(), $lengths);
        self::assertNull(NextLength::after((new Fitter())->fit($observations, $frame, FitStart::unknown()), $observations, $frame));
    }

    /** @return iterable<string, array{Standing, string, float, float}> */
    public static function standings(): iterable
    {
        // √(step²/12 + (0.2 mm × scale)² + own²)
        yield 'figured to a millimetre at 1:50' => [Standing::Figured, '13 200', 50.0, sqrt(1 / 12 + 100)];
        yield 'figured to an inch at 1:48' => [Standing::Figured, "11'7", 48.0, sqrt(25.4 ** 2 / 12 + 9.6 ** 2)];
        yield 'taped' => [Standing::Taped, '3250', 0.0, sqrt(1 / 12 + 25)];
        yield 'estimated' => [Standing::Estimated, '2000', 0.0, sqrt(1 / 12 + 3600)];
    }

    #[DataProvider('standings')]
    public function testAStandingSaysHowFarAFigureIsTrusted(Standing $standing, string $text, float $scale, float $sigma): void
    {
        self::assertEqualsWithDelta($sigma, $standing->sigmaMm(LengthParser::parse($text), $scale), 1e-9);
    }

    /**
     * @param list<KnownLength> $lengths
     * @param list<GridPick> $grid
     *
     * @return list<string>
     */
    private function codes(array $lengths, array $grid): array
    {
        $frame = new PageFrame(3000.0, 2200.0);
        $observations = new Observations($this->picks(), $lengths, $grid);
        $start = FitStart::from(PixelToMm::similar(5.0, 0.0, $frame->centre, new Point(0.0, 0.0)), $frame);
        $fit = (new Fitter())->fit($observations, $frame, $start);

        return array_map(static fn (Advice $a): string => $a->code, Advice::on($fit, $observations, $frame));
    }

    /** @return list<Pick> corners of 12 × 9 m at 5 mm per pixel */
    private function picks(): array
    {
        return [
            new Pick('a', new PixelPoint(300, 2000), 0.5),
            new Pick('b', new PixelPoint(2700, 2000), 0.5),
            new Pick('c', new PixelPoint(300, 200), 0.5),
        ];
    }
}
