<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Ink\Reading\Internal\FigureGrammar;
use Plinth\Core\Ink\Reading\Internal\LetterNet;
use Plinth\Core\Ink\Reading\Internal\Reading;

/** What a strip may say, from what its windows show. */
final class FigureGrammarTest extends TestCase
{
    /** @return iterable<array{string, float, float, string}> letters, mm, mm of the last place, as written */
    public static function figures(): iterable
    {
        yield ['910', 910.0, 1.0, '910'];
        yield ['13200', 13200.0, 1.0, '13 200'];
        yield ['3,420', 3420.0, 1.0, '3,420'];
        yield ['5.89', 5890.0, 10.0, '5.89'];
        yield ['0.30', 300.0, 10.0, '0.30'];
        yield ['12.345', 12345.0, 1.0, '12.345'];
        // NIST SP 811: 1 in = 25.4 mm exactly.
        yield ['11\'-21/2"', 134.5 * 25.4, 12.7, '11\'-2 1/2"'];
        yield ['0\'-11"', 11 * 25.4, 25.4, '0\'-11"'];
        yield ['7\'-1015/16"', (94 + 15 / 16) * 25.4, 25.4 / 16, '7\'-10 15/16"'];
    }

    #[DataProvider('figures')]
    public function testFiguresAreReadInEveryWayThatDrawingsWriteThem(string $letters, float $mm, float $stepMm, string $written): void
    {
        $best = FigureGrammar::shared()->readings(self::showing(array_map(static fn (string $c): array => [$c => 1.0], str_split($letters))))[0] ?? null;
        self::assertSame($letters, $best?->text);
        self::assertEqualsWithDelta($mm, $best->mm, 1e-9);
        self::assertEqualsWithDelta($stepMm, $best->stepMm, 1e-9);
        self::assertSame($written, $best->written());
        self::assertEqualsWithDelta(0.0, $best->likely, 0.01, 'Nothing is likelier.');
    }

    public function testWhatIsReadableInTwoWaysIsToldInBoth(): void
    {
        $read = FigureGrammar::shared()->readings(self::showing([['3' => 0.6, '8' => 0.4], ['4' => 1.0], ['2' => 1.0], ['0' => 1.0]]));
        self::assertSame(['3420', '8420'], array_map(static fn (Reading $r): string => $r->text, \array_slice($read, 0, 2)));
        self::assertEqualsWithDelta(2 * log(0.4 / 0.6), $read[1]->likely, 0.05, 'Two windows show it.');
    }

    public function testWordsAndLonelyLettersAreNoFigures(): void
    {
        $other = array_fill(0, 19, -9.0);
        $other[LetterNet::OTHER] = -0.01;
        self::assertSame([], FigureGrammar::shared()->readings(array_fill(0, 12, $other)));
        $lonely = FigureGrammar::shared()->readings(self::showing([['7' => 1.0]]));
        self::assertLessThan(-6.0, $lonely[0]->likely ?? -25.0);
        self::assertSame([], FigureGrammar::shared()->readings([]));
    }

    /**
     * @param list<array<array-key, float>> $letters how likely each is, one after another
     *
     * @return list<list<float>> two windows for each, and one without any between them
     */
    private static function showing(array $letters): array
    {
        $blank = array_fill(0, 19, -9.0);
        $blank[LetterNet::BLANK] = 0.0;
        $windows = [$blank];
        foreach ($letters as $likely) {
            $window = array_fill(0, 19, -9.0);
            foreach ($likely as $letter => $part) {
                $window[(int) strpos(LetterNet::CHARACTERS, (string) $letter)] = log($part);
            }
            array_push($windows, array_values($window), array_values($window), $blank);
        }

        return array_map(array_values(...), $windows);
    }
}
