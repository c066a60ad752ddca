<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Page\Blob;
use Plinth\Core\Ink\Page\Blobs;
use Plinth\Core\Ink\Reading\Internal\Lettering;
use Plinth\Core\Ink\Reading\Internal\LetteringRows;
use Plinth\Core\Ink\Reading\Internal\LetteringSizes;
use Plinth\Core\Ink\Reading\Internal\LinesOut;

/** Figures stand free of the lines they touch, and those side by side are told apart. */
final class LinesOutTest extends TestCase
{
    private const SIDE = 260;
    /** px that letters are high */
    private const HIGH = 20;

    /** @return iterable<string, array{float}> degrees that the line runs in, y down */
    public static function directions(): iterable
    {
        yield 'level' => [0.0];
        yield 'plumb' => [90.0];
        yield 'scanned askew' => [2.4];
        yield 'of a wing' => [31.0];
        yield 'of a wing, across' => [121.0];
    }

    #[DataProvider('directions')]
    public function testALongLineGoesAndALetterOnItStays(float $degrees): void
    {
        [$c, $s] = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
        // A line through the middle, 2 px wide, and a letter's stem across it, another beside it.
        $isLine = static fn (float $x, float $y): bool => abs($y * $c - $x * $s) <= 1.0 && abs($x * $c + $y * $s) < 100.0;
        $isStem = static fn (float $x, float $y): bool => abs($y * $c - $x * $s) <= self::HIGH / 2 && abs($x * $c + $y * $s) <= 2.0;
        $isBeside = static fn (float $x, float $y): bool => abs($y * $c - $x * $s - 30.0) <= self::HIGH / 2 && abs($x * $c + $y * $s - 40.0) <= 2.0;
        $directions = 0.0 === $degrees || 90.0 === $degrees || 2.4 === $degrees ? [fmod($degrees, 90.0)] : [0.0, 31.0];
        $left = LinesOut::of(
            self::drawn(static fn (float $x, float $y): bool => $isLine($x, $y) || $isStem($x, $y) || $isBeside($x, $y)),
            $directions,
            self::HIGH,
            static function (): void {},
        );
        [$line, $stems, $all] = [0, 0, 0];
        foreach ($left as $j => $row) {
            for ($i = 0; $i < self::SIDE; ++$i) {
                [$x, $y] = [$i - self::SIDE / 2, $j - self::SIDE / 2];
                $isLetter = $isStem($x, $y) || $isBeside($x, $y);
                $all += $isLetter ? 1 : 0;
                $stems += $isLetter && '1' === $row[$i] ? 1 : 0;
                $line += !$isLetter && '1' === $row[$i] ? 1 : 0;
            }
        }
        self::assertGreaterThan(0.85 * $all, $stems, 'Letters stay, where the line crosses them too.');
        self::assertLessThan(40, $line, 'Of 400 px of line not one in ten is left.');
    }

    public function testFiguresSideBySideAreTakenTogetherAndApart(): void
    {
        // Three stems and three more: 6 px from one to the next, 16 px from the third to the fourth.
        $stems = [20, 30, 40, 60, 70, 80];
        $rows = self::drawn(static function (float $x, float $y) use ($stems): bool {
            foreach ($stems as $stem) {
                if ($y >= 0.0 && $y < self::HIGH && $x + self::SIDE / 2 >= $stem && $x + self::SIDE / 2 < $stem + 4) {
                    return true;
                }
            }

            return false;
        });
        $blobs = Blobs::joined($rows);
        self::assertSame([[20.0, 83.0], [20.0, 43.0], [60.0, 83.0]], array_map(
            static fn (Lettering $row): array => [$row->from, $row->to],
            LetteringRows::in($blobs, 0.0, self::HIGH),
        ));
        self::assertEqualsWithDelta([self::HIGH], LetteringSizes::of($blobs), 1.0);
        self::assertSame([], LetteringSizes::of([new Blob([[0, 0, 3]])]));
        self::assertEquals(new PixelBox(20.0, self::SIDE / 2, 4.0, self::HIGH), $blobs[0]->box);
    }

    /**
     * @param callable(float, float): bool $isInk of places from the middle
     *
     * @return list<string>
     */
    private static function drawn(callable $isInk): array
    {
        $rows = [];
        for ($j = 0; $j < self::SIDE; ++$j) {
            $row = '';
            for ($i = 0; $i < self::SIDE; ++$i) {
                $row .= $isInk($i - self::SIDE / 2, $j - self::SIDE / 2) ? '1' : '0';
            }
            $rows[] = $row;
        }

        return $rows;
    }
}
