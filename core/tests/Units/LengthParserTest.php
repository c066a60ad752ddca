<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Units;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Units\Exception\UnreadableLength;
use Plinth\Core\Units\LengthFormat;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Core\Units\Module;

/** What people type is read, with its rounding; what cannot be read is shown where. */
final class LengthParserTest extends TestCase
{
    /** @return iterable<string, array{string, float, float, 3?: LengthUnit}> */
    public static function lengths(): iterable
    {
        // Factors: NIST SP 811, 1 in = 25.4 mm and 1 ft = 304.8 mm exactly.
        foreach ([
            ['3m', 3000, 1000], ['3.25 m', 3250, 10], ['3,25 m', 3250, 10], ['325cm', 3250, 10], ['3250', 3250, 1], ['3250mm', 3250, 1],
            ['3 250 mm', 3250, 1], ["3\u{2009}250 mm", 3250, 1], ['13 200', 13200, 1], ['1,250', 1250, 1], ['1,250,000', 1_250_000, 1], ['4.20 m', 4200, 10], ['0,250 m', 250, 1],
            ["11'7", 3530.6, 25.4], ["11' 7\"", 3530.6, 25.4], ["11'-7 1/2\"", 3543.3, 12.7], ["11' - 7\"", 3530.6, 25.4], ['11ft 7in', 3530.6, 25.4], ['7 1/2"', 190.5, 12.7],
            ['3 1/2"', 88.9, 12.7], ["0.5'", 152.4, 30.48], ['6"', 152.4, 25.4], ['11′7½″', 3543.3, 12.7], ['½"', 12.7, 12.7],
            ['12"', 304.8, 25.4], [
                "1' + 12\"",
                609.6,
                25.4 * sqrt(2),
            ], ['3.250 m', 3250, 1], ['3.250 mm', 3.25, 0.001], ['0.000', 0, 0.001], ['12.5', 12.5, 0.1],
            ['2400 x 3', 7200, 3], ['2.4 m x 3', 7200, 300], ["3 x 11'7", 10591.8, 76.2], ['2.5 x 3', 7.5, 0.3], ['1.5 x 2400 mm', 3600, 1.5], ['0 x 1000000000', 0, 0],
            ['2400 - 1/2"', 2387.3, sqrt(2)],
            [
                "9'6 + 11' + 7'6",
                8534.4,
                25.4 * sqrt(3),
            ], ['3 x 2400', 7200, 3], ['3 × 2.4 m', 7200, 300], ['3000 - 150', 2850, sqrt(2)], [
                "11'-7'",
                1219.2,
                304.8 * sqrt(2),
            ], ['-3', -3, 1], ['0', 0, 1],
        ] as [$text, $mm, $step]) {
            yield $text => [$text, (float) $mm, (float) $step];
        }
        yield 'bare in feet' => ['12', 3657.6, 304.8, LengthUnit::Foot];
        yield 'bare in metres' => ['4.2', 4200.0, 100.0, LengthUnit::Metre];
    }

    #[DataProvider('lengths')]
    public function testReadsWhatPeopleType(string $text, float $mm, float $step, LengthUnit $unit = LengthUnit::Millimetre): void
    {
        $length = LengthParser::parse($text, $unit);
        self::assertEqualsWithDelta($mm, $length->mm, 1e-9);
        self::assertEqualsWithDelta($step, $length->stepMm, 1e-9);
    }

    /** @return iterable<string, array{string, int, string}> */
    public static function slips(): iterable
    {
        yield 'nothing' => ['  ', 0, 'Nothing is typed'];
        yield 'words' => ['abc', 0, 'number is expected at character 1'];
        yield 'unknown unit' => ['3 q', 2, '“q” at character 3'];
        yield 'text ends' => ['3 m +', 5, 'the text ends'];
        yield 'two readings' => ['1,250 m', 1, '1.250 m or 1250 m'];
        yield 'a foot of inches' => ["11'13", 3, '13 inches'];
        yield 'divides by zero' => ['1/0"', 2, 'divides by zero'];
        yield 'module' => ['31c', 2, 'counts courses'];
        yield 'a dash before a fraction' => ['2400-1/2"', 4, 'can be read two ways'];
        yield 'a point before three digits' => ['3.250', 1, '3.25 mm or 3250 mm'];
        yield 'a count of such' => ['2 x 3.250', 5, '3.25 mm or 3250 mm'];
        yield 'an area' => ['3 m x 4 m', 6, 'an area'];
        yield 'a part too long' => [str_repeat('9', 40).' - '.str_repeat('9', 40), 0, 'longer than 1000 km'];
        yield 'a product too long' => ['1000 x 999999 m', 0, 'longer than 1000 km'];
        yield 'no end of digits' => [str_repeat('9', 201), 200, 'longer than 200 characters'];
        yield 'two lengths' => ['3m 20cm', 3, 'cannot be read'];
    }

    #[DataProvider('slips')]
    public function testSaysWhereItGaveUp(string $text, int $position, string $words): void
    {
        try {
            LengthParser::parse($text);
            self::fail('This was read as a length.');
        } catch (UnreadableLength $e) {
            self::assertSame((string) $position, $e->at());
            self::assertStringContainsString($words, $e->getMessage());
        }
    }

    public function testADashJoinsInchesWhereInchesAreMeant(): void
    {
        self::assertSame(927.1, LengthParser::parse('36-1/2"', LengthUnit::Foot)->mm);
        self::assertSame(927.1, LengthParser::parse('36-1/2', LengthUnit::Inch)->mm);
        $this->expectException(UnreadableLength::class);
        LengthParser::parse('36-1/2', LengthUnit::Foot);
    }

    /** Whole numbers of the smallest part come out as the nearest float of the exact value, however they were put together. */
    public function testIsExact(): void
    {
        mt_srand(31);
        for ($i = 0; $i < 3000; ++$i) {
            [$feet, $inches, $part] = [mt_rand(0, 400), mt_rand(0, 11), mt_rand(1, 15)];
            // 25.4 mm are 127/5: sixteenths of an inch are 127/80 mm.
            self::assertSame(127 * (($feet * 12 + $inches) * 16 + $part) / 80.0, LengthParser::parse("$feet'-$inches $part/16\"")->mm);
            $terms = array_map(static fn (): int => mt_rand(1, 99_999), range(1, mt_rand(1, 8)));
            self::assertSame(
                array_sum($terms) / 1000.0,
                LengthParser::parse(
                    implode(' + ', array_map(static fn (int $t): string => \sprintf('%d.%03d mm', intdiv($t, 1000), $t % 1000), $terms)),
                )->mm,
            );
        }
    }

    /** Whatever is typed is read as a finite length, or refused with a place in the text. */
    public function testNothingThatIsTypedComesOutAsNoNumber(): void
    {
        $seed = false === getenv('SEED') ? 77 : (int) getenv('SEED');
        mt_srand($seed);
        $pieces = [
            '0', '9', '250', '3', '.', ',', ' ', '-', '+', 'x', '/', "'", '"', 'm', 'mm', 'ft', 'c', '½', '−', '×', 'e9',
            '999999999', "\u{2009}", 'é',
        ];
        for ($i = 0; $i < 5000; ++$i) {
            $text = implode('', array_map(static fn (): string => $pieces[array_rand($pieces)], range(1, mt_rand(1, 14))));
            try {
                $length = LengthParser::parse($text, LengthUnit::cases()[$i % 5], new Module(75.0, 225.0, 10.0));
                self::assertTrue(
                    is_finite($length->mm) && is_finite($length->stepMm) && $length->stepMm >= 0.0,
                    "“{$text}” with seed $seed",
                );
            } catch (UnreadableLength $e) {
                self::assertTrue((int) $e->at() >= 0 && (int) $e->at() <= mb_strlen($text), "“{$text}” with seed $seed");
            }
        }
    }

    public function testFormatThenParseGivesTheValueBack(): void
    {
        mt_srand(20);
        $formats = [
            LengthFormat::decimal(LengthUnit::Millimetre, 0), LengthFormat::decimal(LengthUnit::Millimetre, 1), LengthFormat::decimal(LengthUnit::Centimetre, 1), LengthFormat::decimal(LengthUnit::Metre, 3),
            LengthFormat::decimal(LengthUnit::Foot, 2), LengthFormat::decimal(LengthUnit::Inch, 2), LengthFormat::feetAndInches(2), LengthFormat::feetAndInches(16), LengthFormat::feetAndInches(64),
        ];
        for ($i = 0; $i < 2000; ++$i) {
            $mm = 10 ** (mt_rand(0, 7000) / 1000) * (0 === $i % 7 ? -1 : 1);
            foreach ($formats as $format) {
                $text = $format->print($mm);
                self::assertEqualsWithDelta($mm, LengthParser::parse($text)->mm, $format->stepMm() / 2 + 1e-6, "$mm printed as $text");
            }
        }
    }
}
