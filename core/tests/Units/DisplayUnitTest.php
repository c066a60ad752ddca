<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Units;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Units\AreaUnit;
use Plinth\Core\Units\DisplayUnit;
use Plinth\Core\Units\Length;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;

/** In what a project's sizes are shown and handed over; factors from NIST SP 811, appendix B (from memory). */
final class DisplayUnitTest extends TestCase
{
    #[TestWith(['mm', '4 375 mm', 'mm', 'mm'])]
    #[TestWith(['cm', '437.5 cm', 'cm', 'cm'])]
    #[TestWith(['m', '4.375 m', 'm', 'm'])]
    #[TestWith(['ft', '14.354 ft', 'ft', 'ft'])]
    #[TestWith(['in', '172.24 in', 'in', 'in'])]
    #[TestWith(['ft-in/2', '14\'-4"', 'ft', 'in'])]
    #[TestWith(['ft-in/64', '14\'-4 1/4"', 'ft', 'in'])]
    public function testItSaysHowALengthIsWrittenAndWhatABareNumberMeans(string $unit, string $length, string $bare, string $drawn): void
    {
        $shown = DisplayUnit::from($unit);
        self::assertSame($length, $shown->format()->print(4375.0));
        self::assertSame([$bare, $drawn], [$shown->bare()->value, $shown->drawn()->value]);
    }

    /** Whatever is shown is read back as what it stands for, to half its step. */
    public function testWhatIsShownIsReadBack(): void
    {
        foreach (DisplayUnit::cases() as $unit) {
            foreach ([25.4, 914.4, 4375.0, 13200.5, 98765.4] as $mm) {
                $read = LengthParser::parse($unit->format()->print($mm), $unit->bare())->mm;
                self::assertEqualsWithDelta($mm, $read, $unit->format()->stepMm() / 2 + 1e-6, $unit->value);
            }
        }
    }

    public function testAreasAreInSquareMetresOrSquareFeet(): void
    {
        self::assertSame('12.35 m2', AreaUnit::usualFor(DisplayUnit::Centimetre)->written(12.345678));
        self::assertSame('100.0 sq ft', AreaUnit::usualFor(DisplayUnit::FeetAndSixteenths)->written(9.290304));
        self::assertSame(DisplayUnit::FeetAndSixteenths, DisplayUnit::usualFor(LengthUnit::Foot));
        self::assertSame(DisplayUnit::Metre, DisplayUnit::usualFor(LengthUnit::Metre));
    }

    public function testALengthInAMessageIsKnownByTheSpaceBeforeItsUnit(): void
    {
        self::assertSame(["4375\u{202F}mm", "3.8\u{202F}mm", "12.25\u{202F}mm"], [Length::told(4375.2), Length::told(3.8), Length::told(12.25, 2)]);
    }
}
