<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Fitting;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\Slip;
use Plinth\Core\Fitting\WrittenFigure;
use Plinth\Core\Fitting\WrittenSize;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Core\Units\SwappedDigits;

/** The usual slips are said before a figure is taken; what is right is left in peace. */
final class SlipTest extends TestCase
{
    #[TestWith([132_000.0, 'factor-10', 13_200.0])]
    #[TestWith([1_320.0, 'factor-10', 13_200.0])]
    #[TestWith([158_400.0, 'factor-12', 13_200.0])]
    #[TestWith([335_280.0, 'factor-25.4', 13_200.0])]
    #[TestWith([132.0, 'factor-100', 13_200.0])]
    #[TestWith([43.3, 'factor-304.8', 13_198.0])]
    #[TestWith([13.2, 'factor-1000', 13_200.0])]
    public function testAFactorIsRecognisedAgainstTheOthers(float $figure, string $code, float $wouldBe): void
    {
        $slip = Slip::against($figure, 13_205.0, 8.0);
        self::assertSame($code, $slip?->code);
        self::assertEqualsWithDelta($wouldBe, $slip->wouldBeMm, 2.0);
    }

    public function testInsideForOutsideCostsTwoWallsAxisForFaceOne(): void
    {
        $slip = Slip::against(12_600, 13_203, 6.0, [300]);
        self::assertSame(['wall', 13_203.0], [$slip?->code, $slip?->wouldBeMm], 'What the others read.');
        self::assertStringContainsString('two walls', (string) $slip?->message);
        self::assertStringContainsString('one wall', (string) Slip::against(13_500, 13_203, 6.0, [120, 300])?->message);
        // Of a copy that may be stretched: what one may be off by is no slip; more than that is told as finely as the statements tell it.
        self::assertNull(Slip::against(12_903, 13_203, 165.0, [300], null, 6.0));
        self::assertSame('wall', Slip::against(12_603, 13_203, 165.0, [300], null, 6.0)?->code);
        self::assertNull(Slip::against(13_400, 13_203, 6.0, [300]), 'Wrong, but by no wall: the ledger names it, no guess is made.');
    }

    #[TestWith(['4 350', 4_532.0, 4_530.0])]
    #[TestWith(['4,350', 3_452.0, 3_450.0])]
    #[TestWith(["12'-6\"", 6_553.0, 6_553.2])]
    public function testTwoDigitsThatHaveChangedPlacesAreSaid(string $typed, float $reads, float $wouldBe): void
    {
        $mm = LengthParser::parse($typed, LengthUnit::Millimetre)->mm;
        $slip = Slip::against($mm, $reads, 4.0, swappedMm: SwappedDigits::of($typed, LengthUnit::Millimetre));
        self::assertSame('digits', $slip?->code);
        self::assertEqualsWithDelta($wouldBe, $slip->wouldBeMm, 0.01);
        self::assertNull(Slip::against($mm, $mm + 5.0, 4.0, swappedMm: SwappedDigits::of($typed, LengthUnit::Millimetre)));
        // A copy that came out too low: 6 009 lies near what the others have, and by chance.
        self::assertNull(Slip::against(6_090.0, 6_000.0, 7.0, swappedMm: SwappedDigits::of('6 090', LengthUnit::Millimetre)));
    }

    public function testACountOffByOneIsSaid(): void
    {
        $slip = Slip::against(30 * 86, 31 * 86 + 3, 8.0, [], 86.0);
        self::assertSame(['count', 31.0 * 86], [$slip?->code, $slip?->wouldBeMm]);
        self::assertNull(Slip::against(31 * 86, 31 * 86 + 3, 8.0, [], 86.0));
    }

    #[TestWith([13_200.0, 13_210.0])]
    #[TestWith([13_200.0, 13_188.0])]
    public function testAFigureThatAgreesIsLeftInPeace(float $figure, float $reads): void
    {
        self::assertNull(Slip::against($figure, $reads, 6.0, [10.0], 5.0));
    }

    public function testALoneFigureIsHeldAgainstTheWallsItMakes(): void
    {
        foreach ([90.0, 115.0, 365.0, 600.0] as $wall) {
            self::assertNull(Slip::byWall(13_200, $wall));
        }
        self::assertEqualsWithDelta(13_200, (float) Slip::byWall(132_000, 3_020)?->wouldBeMm, 0.01);
        self::assertEqualsWithDelta(13_200, (float) Slip::byWall(13.2, 0.302)?->wouldBeMm, 0.01);
        self::assertSame('wall-size', Slip::byWall(1, 1e-9)?->code, 'No usual slip explains it.');
    }

    public function testALoneFigureIsHeldAgainstTheScaleItMakes(): void
    {
        self::assertNull(Slip::byScale(13_200, 50.0));
        self::assertEqualsWithDelta(13_200, (float) Slip::byScale(13.2, 0.05)?->wouldBeMm, 0.01);
        self::assertNotNull(Slip::byScale(1.0, 1e-9));
    }

    /** 4350 is written along the top, 20 px to the left of the two corners picked below; the drawing says 10 mm to the pixel. */
    #[TestWith([4_350.0, null, 0.0])]
    #[TestWith([4_352.0, null, 0.0], 'within what the picks leave open')]
    #[TestWith([4_530.0, 'written', 4_350.0])]
    #[TestWith([4_305.0, 'written', 4_350.0])]
    #[TestWith([43_500.0, 'written', 4_350.0])]
    public function testAFigureIsHeldAgainstWhatIsWrittenOverTheSameStretch(float $typed, ?string $code, float $wouldBe): void
    {
        $slip = Slip::byWriting($typed, 4.0, new PixelPoint(100.0, 300.0), new PixelPoint(535.0, 302.0), self::written(), [120.0]);
        self::assertSame([$code, $wouldBe], [$slip?->code, $slip->wouldBeMm ?? 0.0]);
        self::assertSame(null !== $code, str_contains($slip->message ?? '', '4350'));
    }

    #[TestWith([3_000.0, null])]
    #[TestWith([3_120.0, 'wall'])]
    #[TestWith([30_000.0, 'factor-10'])]
    #[TestWith([3_400.0, 'written'])]
    public function testWhereNothingIsWrittenTheOtherFiguresSayHowLongItIs(float $typed, ?string $code): void
    {
        $slip = Slip::byWriting($typed, 4.0, new PixelPoint(100.0, 300.0), new PixelPoint(100.0, 600.0), self::written(), [120.0]);
        self::assertSame($code, $slip?->code);
        self::assertEqualsWithDelta(null === $code ? 0.0 : 3_000.0, $slip->wouldBeMm ?? 0.0, 1e-6);
    }

    /** A misread figure does not question the right one: that one is nearer to what all of them say. */
    public function testAMisreadFigureQuestionsNoTrueOne(): void
    {
        self::assertNull(Slip::byWriting(4_350.0, 4.0, new PixelPoint(100.0, 300.0), new PixelPoint(535.0, 300.0), self::written(4_356.0)));
    }

    private static function written(float $mm = 4_350.0): WrittenSize
    {
        return new WrittenSize(
            PixelToMm::similar(10.0, 0.0, new PixelPoint(0.0, 0.0), new Point(0.0, 0.0)),
            0.3,
            0.0022,
            [new WrittenFigure('1200', 1_200.0, new PixelPoint(540.0, 20.0), new PixelPoint(660.0, 20.0)), new WrittenFigure('4350', $mm, new PixelPoint(535.2, 20.0), new PixelPoint(100.2, 20.0))],
        );
    }
}
