<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Ink\Reading\Internal\ChainSums;
use Plinth\Core\Ink\Reading\Internal\FigureCandidate;
use Plinth\Core\Ink\Reading\Internal\FigureKind;
use Plinth\Core\Ink\Reading\Internal\FigureMapping;
use Plinth\Core\Ink\Reading\Internal\Lettering;
use Plinth\Core\Ink\Reading\Internal\Reading;
use Plinth\Core\Ink\Reading\Internal\Span;
use Plinth\Core\Ink\Reading\Internal\Way;

/** Figures in a row are held against the figure over all of them. */
final class ChainSumsTest extends TestCase
{
    /** px of the drawing, 10 mm each */
    private const SIDE = 2000.0;

    public function testAMisreadPartIsReadTheWayThatAddsUp(): void
    {
        $checked = self::checked([['3000'], ['1580', '1530'], ['1470', '1410', '1476']], [[0, 300], [0, 153], [153, 300]]);
        self::assertSame([[3000.0, true], [1530.0, true], [1470.0, true]], $checked);
    }

    public function testTheFigureOverAllMayBeTheMisreadOne(): void
    {
        self::assertSame([[3000.0, true], [1530.0, true], [1470.0, true]], self::checked([['3006', '3000'], ['1530'], ['1470']], [[0, 300], [0, 153], [153, 300]]));
    }

    public function testWhereNoReadingAddsUpAllAreDoubtedAndNoneIsChanged(): void
    {
        self::assertSame([[3000.0, false], [1580.0, false], [1470.0, false], [900.0, null]], self::checked([['3000'], ['1580'], ['1470'], ['900']], [[0, 300], [0, 153], [153, 300], [400, 490]]));
    }

    public function testAReadingFarFromWhatItStandsBesideIsNotTaken(): void
    {
        // 2050 would add up with 950, but not with what its line measures.
        self::assertSame([[3000.0, false], [1530.0, false], [950.0, false]], self::checked([['3000'], ['1530', '2050'], ['950']], [[0, 300], [0, 153], [153, 300]]));
    }

    public function testRoundedFiguresAddUp(): void
    {
        self::assertSame([[3000.0, true], [1010.0, true], [980.0, true], [1000.0, true]], self::checked([['3.00'], ['1.01'], ['0.98'], ['1.00']], [[0, 300], [0, 101], [101, 199], [199, 300]]));
    }

    /**
     * @param list<non-empty-list<string>> $texts readings of each, the likeliest first
     * @param list<array{int, int}> $spans px along the line; the first one lies on another line
     *
     * @return list<array{float, bool|null}> mm, and whether it adds up
     */
    private static function checked(array $texts, array $spans): array
    {
        $mapping = new FigureMapping([log(10.0), 0.0, 0.0, 0.0, 0.0], self::SIDE);
        $agreed = [];
        foreach ($texts as $i => $ways) {
            $y = 0 === $i ? 40.0 : 0.0;
            [$from, $to] = [(float) $spans[$i][0], (float) $spans[$i][1]];
            $readings = array_map(static fn (string $text, int $k): Reading => new Reading($text, str_contains($text, '.') ? FigureKind::Metres : FigureKind::Millimetres, -0.3 * $k), $ways, array_keys($ways));
            $span = new Span([$from, $y], [$to, $y], 0.0);
            $figure = new FigureCandidate(new Lettering(0.0, $from, $to, $y - 16.0, $y - 2.0, 0.0, 4), false, false, $readings, [$span], 5.0);
            $agreed[] = [new Way($i, $figure, $readings[0], $span, [$from / self::SIDE, $y / self::SIDE, $to / self::SIDE, $y / self::SIDE], 0.0), 0.0];
        }
        $off = static fn (Way $way): float => $mapping->off($way) / hypot(0.0022, 2.5 / $way->long);

        return array_map(static fn (array $one): array => [$one[0]->reading->mm, $one[2]], ChainSums::checked($agreed, $mapping, $off));
    }
}
