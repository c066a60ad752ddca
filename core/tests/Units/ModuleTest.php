<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Units;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Units\Exception\UnreadableLength;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Core\Units\Module;
use Plinth\Core\Units\Spacings;

/** Counts of a module and spacings of a grid read as they are typed. */
final class ModuleTest extends TestCase
{
    /** Brick of 76 mm with a joint of 10, 31 courses: 2666 mm (common practice, no source). */
    #[TestWith(['31c', 2666.0])]
    #[TestWith(['31c - 1j', 2656.0])]
    #[TestWith(['31c-1j', 2656.0])]
    #[TestWith(['7u', 1575.0])]
    #[TestWith(['4c + 300', 644.0])]
    public function testCountsTakeTheModuleOfTheBuilding(string $text, float $mm): void
    {
        self::assertEqualsWithDelta($mm, LengthParser::parse($text, LengthUnit::Millimetre, new Module(86.0, 225.0, 10.0))->mm, 1e-9);
    }

    /**
     * DIN 4172 (from memory): twelve courses of 71 mm with joints of 12.33 mm are one metre. UK practice: four courses are 300 mm. US:
     * three are 8 in (BIA Technical Note 10, from memory).
     */
    #[TestWith(['12c', 83.3333333333, 1000.0])]
    #[TestWith(['4c', 75.0, 300.0])]
    #[TestWith(['3c', 67.7333333333, 203.2])]
    public function testStandardGaugesAddUp(string $text, float $course, float $mm): void
    {
        self::assertEqualsWithDelta($mm, LengthParser::parse($text, LengthUnit::Millimetre, new Module($course, null, 10.0))->mm, 1e-6);
    }

    public function testACountWithoutItsModuleIsRefused(): void
    {
        $this->expectException(UnreadableLength::class);
        LengthParser::parse('7u', LengthUnit::Millimetre, new Module(75.0, null, 10.0));
    }

    /** @param list<float> $places */
    #[TestWith(['5 x 6000', [0.0, 6000.0, 12000.0, 18000.0, 24000.0, 30000.0]])]
    #[TestWith(['3600 + 2 x 7200 + 3.6 m', [0.0, 3600.0, 10800.0, 18000.0, 21600.0]])]
    #[TestWith(["2x20'", [0.0, 6096.0, 12192.0]])]
    public function testSpacingsGiveThePlacesOfTheAxes(string $text, array $places): void
    {
        self::assertEqualsWithDelta($places, Spacings::parse($text)->mm, 1e-9);
    }

    #[TestWith([''])]
    #[TestWith(['5 x 0'])]
    #[TestWith(['300 x 10'])]
    #[TestWith(['0 x 6000'])]
    #[TestWith(['6000 + bay'])]
    public function testWhatIsNoSpacingIsRefused(string $text): void
    {
        $this->expectException(UnreadableLength::class);
        Spacings::parse($text);
    }

    public function testLabelsCountOnWithoutIAndO(): void
    {
        self::assertSame(['1', '2', '3'], Spacings::labels('1', 3));
        self::assertSame(['P9', 'P10'], Spacings::labels('P9', 2));
        self::assertSame(['G', 'H', 'J', 'K'], Spacings::labels('G', 4));
        self::assertSame(['N', 'P'], Spacings::labels('n', 2));
        self::assertSame(['Z', 'AA', 'AB'], Spacings::labels('Z', 3), 'Z is the twenty-fourth.');
        self::assertSame(['AB', 'AC'], Spacings::labels('AB', 2));
        self::assertSame(['ZZ', 'AAA'], Spacings::labels('ZZ', 2));
        self::assertSame(['A1-H', 'A1-J'], Spacings::labels('A1-H', 2));
        self::assertCount(700, array_unique(Spacings::labels('A', 700)), 'No two axes are called the same.');
    }

    #[TestWith(['O'])]
    #[TestWith(['A-'])]
    #[TestWith(['Ä'])]
    public function testWhatCannotBeCountedOnFromIsRefused(string $first): void
    {
        $this->expectException(UnreadableLength::class);
        Spacings::labels($first, 3);
    }
}
