<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sheets;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Clip;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\Internal\WordsInk;

/** Tables and notes are read without guessing: no words lie on others, whatever they say. */
final class WordsInkTest extends TestCase
{
    private static function word(int $longest): string
    {
        return implode('', array_map(static fn (): string => ['a', 'W', 'ill', ' m²', '0.5', 'é', ','][mt_rand(0, 6)], range(1, mt_rand(1, $longest))));
    }

    public function testColumnsAreAsWideAsTheirWordsAndRowsStandOverEachOther(): void
    {
        for ($seed = 1; $seed <= 30; ++$seed) {
            mt_srand($seed);
            $columns = mt_rand(1, 7);
            $rows = array_map(static fn (): array => array_map(static fn (): string => self::word(18), range(1, $columns)), range(1, mt_rand(1, 12)));
            $head = array_map(static fn (): string => self::word(8), range(1, $columns));
            $texts = WordsInk::table('Table', $head, $rows, 20.0, 30.0, [0, $columns - 1])->texts;
            self::assertNotSame([], $texts);
            foreach ($texts as $i => $text) {
                foreach (\array_slice($texts, $i + 1) as $other) {
                    $common = Clip::area(array_reverse($other->room()), array_reverse($text->room()));
                    self::assertLessThan(1e-6, abs($common), "seed $seed: $text->words on $other->words");
                }
            }
        }
    }

    public function testNotesKeepTheirWidthAndEveryWordOfThem(): void
    {
        for ($seed = 1; $seed <= 30; ++$seed) {
            mt_srand($seed);
            $said = array_map(static fn (): string => implode(' ', array_map(static fn (): string => self::word(9), range(1, mt_rand(1, 40)))), range(1, 5));
            $texts = WordsInk::notes('Notes', $said, 10.0, 10.0, 80.0)->texts;
            $words = array_map(static fn (InkText $t): string => $t->words, \array_slice($texts, 1));
            $plain = static fn (string $w): string => (string) preg_replace('/\s+/u', '', $w);
            $numbered = implode('', array_map(static fn (string $s, int $k): string => ($k + 1).'.'.$s, $said, array_keys($said)));
            self::assertSame($plain($numbered), $plain(implode('', $words)), "seed $seed: nothing is lost");
            foreach ($texts as $text) {
                self::assertLessThan(90.5, $text->x + $text->width(), "seed $seed: $text->words");
            }
        }
    }
}
