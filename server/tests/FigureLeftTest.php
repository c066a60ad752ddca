<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Fitting\Standing;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Ink\FigureLeft;

/** A reading is taken in its own words only where those say the same in the unit of the project. */
final class FigureLeftTest extends TestCase
{
    #[TestWith(['4 500', 4_500.0, LengthUnit::Millimetre, '4 500'])]
    #[TestWith(['4 500', 4_500.0, LengthUnit::Foot, '4500 mm'])]
    #[TestWith(['4.50', 4_500.0, LengthUnit::Millimetre, '4.50 m'])]
    #[TestWith(["14'-9\"", 4_495.8, LengthUnit::Millimetre, "14'-9\""], 'feet say so themselves')]
    #[TestWith(['5 m', 5_000.0, LengthUnit::Millimetre, '5 m'])]
    public function testItIsTypedSoThatItSaysTheSame(string $text, float $mm, LengthUnit $unit, string $typed): void
    {
        self::assertSame($typed, self::read($text, $mm)->typed($unit));
    }

    public function testAScaleBarIsTakenAsOne(): void
    {
        self::assertSame([Standing::Figured, Standing::ScaleBar], [self::read('4 500', 4_500.0)->standing(), self::read('5 m', 5_000.0, true)->standing()]);
    }

    private static function read(string $text, float $mm, bool $isBar = false): FigureLeft
    {
        return new FigureLeft($text, $mm, new PixelPoint(0.0, 0.0), new PixelPoint(450.0, 0.0), 0.3, 'x', false, $mm, $isBar, []);
    }
}
