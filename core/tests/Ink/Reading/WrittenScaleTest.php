<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Core\Ink\Reading\WrittenScale;

/** What a drawing says of its own scale is understood, and nothing else is taken for it. Scales by ISO 5455 (from memory). */
final class WrittenScaleTest extends TestCase
{
    #[DataProvider('texts')]
    public function testAScaleIsToldFromOtherWords(string $text, ?float $scale): void
    {
        $words = array_map(static fn (string $w): ReadWord => new ReadWord($w, 0.9, 0.0, 0.0, 40.0, 12.0), explode(' ', $text));
        self::assertSame($scale, WrittenScale::in($words));
    }

    /** @return iterable<string, array{string, float|null}> */
    public static function texts(): iterable
    {
        foreach (['GROUND FLOOR SCALE 1:50 KITCHEN' => 50.0, 'M 1 : 100' => 100.0, 'Scale: 1:1250' => 1250.0, '1/4" = 1\'-0"' => 48.0,
            '1/8"=1\'-0"' => 96.0, 'SCALE 1 1/2” = 1’-0”' => 8.0, '3" = 1\'' => 4.0] as $text => $scale) {
            yield $text => [$text, $scale];
        }
        foreach (['KITCHEN 11:50 STORE', '1:37', '12.1:50', 'PLAN 1:50 DETAIL 1:5', '3/7" = 1\'-0"', '21:100', 'R 1:', ''] as $text) {
            yield 'none: '.$text => [$text, null];
        }
        yield 'twice the same' => ['1:50 and again 1:50', 50.0];
    }

    public function testWordsHardlyRecognisedSayNothing(): void
    {
        self::assertNull(WrittenScale::in([new ReadWord('1:50', 0.3, 0.0, 0.0, 40.0, 12.0)]));
    }
}
