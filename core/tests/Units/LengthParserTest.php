<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Units;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Units\Exception\UnreadableLength;
use Plinth\Core\Units\LengthFormat;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;

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
            ["9'6 + 11' + 7'6", 8534.4, 25.4 * sqrt(3)], ['3 x 2400', 7200, 3], ['3 × 2.4 m', 7200, 300], ['3000 - 150', 2850, sqrt(2)], ["11'-7'", 1219.2, 304.8 * sqrt(2)], ['-3', -3, 1], ['0', 0, 1],
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
        yield 'module' => ['31c', 2, 'counts a module'];
        yield 'two lengths' => ['3m 20cm', 3, 'cannot be read'];
    }

    #[DataProvider('slips')]
    public function testSaysWhereItGaveUp(string $text, int $position, string $words): void
    {
        try {
            LengthParser::parse($text);
            self::fail('This was read as a length.');
        } catch (UnreadableLength $e) {
            self::assertSame($position, $e->position);
            self::assertStringContainsString($words, $e->getMessage());
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
