<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sheets;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PaperLetters;
use Plinth\Core\Sheets\RoundedChain;

/** Words take the room that the font says, and figures of a chain add up. */
final class PaperLettersTest extends TestCase
{
    /** Capitals are as high as the nominal height (ISO 3098-1); widths: FreeType's own, by pango-view, are held against in the sheet's test. */
    public function testWordsAreAsWideAsTheirLetters(): void
    {
        $letters = PaperLetters::regular();
        self::assertEqualsWithDelta(3.5 / 0.723, $letters->size(3.5), 1e-9, 'Capitals of the font are 0.723 of its size.');
        self::assertEqualsWithDelta($letters->width('12 500', 2.5), $letters->width('12', 2.5) + $letters->width(' 500', 2.5), 1e-9);
        self::assertEqualsWithDelta(2.0 * $letters->width('Hall', 2.5), $letters->width('Hall', 5.0), 1e-9);
        self::assertGreaterThan($letters->width('Hall', 3.5), PaperLetters::bold()->width('Hall', 3.5));
        self::assertSame('Ø 25 m²', $letters->written("Ø 25\u{2009}m²\u{1F3E0}"));
        // What cannot be printed is told, not passed over.
        self::assertSame("חדר\u{1F3E0}", $letters->leftOut("Hall חדר\u{00A0}דר \u{1F3E0}\u{200B}"));
    }

    public function testTurnedWordsTakeTheirRoomUpwards(): void
    {
        $room = (new InkText(10.0, 20.0, 'Stair', 2.5, 'middle', 90.0))->room();
        [$xs, $ys] = [array_map(static fn (array $p): float => $p[0], $room), array_map(static fn (array $p): float => $p[1], $room)];
        $width = PaperLetters::regular()->width('Stair', 2.5);
        self::assertEqualsWithDelta([20.0 - $width / 2.0, 20.0 + $width / 2.0], [min($ys), max($ys)], 1e-9);
        self::assertEqualsWithDelta([10.0 - 1.1 * 2.5, 10.0 + 0.3 * 2.5], [min($xs), max($xs)], 1e-9);
    }

    public function testPartsOfAChainAddUpToWhatItIsPartOf(): void
    {
        for ($seed = 1; $seed <= 300; ++$seed) {
            mt_srand($seed);
            $step = [1.0, 5.0, 10.0, 25.4 / 16.0][$seed % 4];
            $places = [mt_rand(-50_000, 50_000) / 7.0];
            for ($k = mt_rand(1, 14); $k > 0; --$k) {
                $places[] = end($places) + mt_rand(1, 60_000) / 11.0;
            }
            $parts = RoundedChain::of($places, $step);
            $total = RoundedChain::of([$places[0], end($places)], $step)[0];
            self::assertEqualsWithDelta($total, array_sum($parts), 1e-6);
            foreach ($parts as $i => $part) {
                self::assertLessThan($step + 1e-6, abs($part - ($places[$i + 1] - $places[$i])));
                self::assertEqualsWithDelta(0.0, abs($part / $step - round($part / $step)), 1e-6);
            }
        }
    }
}
