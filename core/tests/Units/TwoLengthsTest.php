<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Units;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Units\Exception\UnreadableLength;
use Plinth\Core\Units\LengthUnit;
use Plinth\Core\Units\TwoLengths;

/** Points and sizes as people type them. */
final class TwoLengthsTest extends TestCase
{
    #[DataProvider('pairs')]
    public function testTwoLengthsAreReadHoweverTheyAreParted(string $text, float $first, float $second): void
    {
        $both = TwoLengths::parse($text);
        self::assertEqualsWithDelta([$first, $second], [$both->first, $both->second], 1e-9, $text);
    }

    /** @return iterable<array{string, float, float}> */
    public static function pairs(): iterable
    {
        yield ['0 0', 0.0, 0.0];
        yield ['0,0', 0.0, 0.0];
        yield ['0;0', 0.0, 0.0];
        yield ['13700 x 9700', 13700.0, 9700.0];
        yield ['13700 9700', 13700.0, 9700.0];
        yield ['13700,9700', 13700.0, 9700.0];
        yield ['12 500; 9 700', 12500.0, 9700.0];
        yield ['12 500 9 700', 12500.0, 9700.0];
        yield ['12 m 3.5 m', 12000.0, 3500.0];
        yield ['12 m, -3.5 m', 12000.0, -3500.0];
        yield ['3,5 m 4,2 m', 3500.0, 4200.0];
        yield ['11\'-7 1/2" x 9\'6', 3543.3, 2895.6];
        yield ['350×450', 350.0, 450.0];
        yield ['350 450', 350.0, 450.0];
    }

    public function testOneLengthStandsForBothOnlyWhereItMay(): void
    {
        self::assertSame(350.0, TwoLengths::parse('350', mayBeOne: true)->second);
        self::assertSame(1000.0, TwoLengths::parse('1', LengthUnit::Metre, mayBeOne: true)->first);
        $this->expectException(UnreadableLength::class);
        $this->expectExceptionMessage('is not two lengths');
        TwoLengths::parse('350');
    }

    public function testWhatCanBePartedInTwoWaysIsRefused(): void
    {
        foreach (['12 500 700 100', '1 2 3', 'wide', ''] as $text) {
            try {
                TwoLengths::parse($text);
                self::fail($text);
            } catch (UnreadableLength $e) {
                self::assertMatchesRegularExpression('/semicolon|is not two lengths/', $e->getMessage());
            }
        }
    }
}
