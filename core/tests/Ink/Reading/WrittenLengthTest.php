<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Core\Ink\Reading\WrittenLength;

final class WrittenLengthTest extends TestCase
{
    /** @return iterable<string, array{string, float}> */
    public static function figures(): iterable
    {
        yield 'millimetres' => ['4375', 4375.0];
        yield 'grouped by a space' => ['13 200', 13200.0];
        yield 'grouped by a comma' => ['4,375', 4375.0];
        yield 'metres' => ['5.28', 5280.0];
        yield 'feet and inches' => ['7\'-10"', 2387.6];
        yield 'with a fraction, 4 ft 1½ in' => ['4\'-1 1/2"', 1257.3];
        yield 'curly marks' => ['7’-10”', 2387.6];
        yield 'a nought taken for a letter' => ['43O0', 4300.0];
    }

    #[DataProvider('figures')]
    public function testWhatIsWrittenIsRead(string $text, float $mm): void
    {
        self::assertEqualsWithDelta($mm, WrittenLength::of($text)[1]->mm ?? 0.0, 1e-6);
    }

    /** @return iterable<string, array{string}> */
    public static function others(): iterable
    {
        yield 'a name' => ['KITCHEN'];
        yield 'a numbered name' => ['BED 2'];
        yield 'an area' => ['12.8 m²'];
        yield 'a scale' => ['1:50'];
        yield 'dirt' => ["'.,"];
        yield 'one figure' => ['7'];
    }

    #[DataProvider('others')]
    public function testOtherWordsAreNoFigures(string $text): void
    {
        self::assertNull(WrittenLength::of($text));
    }

    public function testWordsOfARecognisersTable(): void
    {
        $words = ReadWord::ofTable(
            "level\tpage_num\tblock_num\tpar_num\tline_num\tword_num\tleft\ttop\twidth\theight\tconf\ttext\n1\t1\t0\t0\t0\t0\t0\t0\t900\t500\t-1\t\n5\t1\t1\t1\t1\t1\t10\t20\t60\t18\t96.5\tHALL\n",
        );

        self::assertCount(1, $words);
        self::assertSame(['HALL', 0.965, 10.0, 60.0], [$words[0]->text, $words[0]->confidence, $words[0]->left, $words[0]->width]);
    }
}
