<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sheets;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Clip;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\WallShape;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PaperLetters;
use Plinth\Core\Sheets\PlanOnPaper;
use Plinth\Core\Sheets\PlanSheet;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Tests\Plan\Plans;
use Plinth\Core\Units\AreaUnit;
use Plinth\Core\Units\DisplayUnit;

/** A plan on a sheet: figures are the plan's own, add up, and nobody has to guess what is written. */
final class PlanSheetTest extends TestCase
{
    private static function drawn(Storey $storey, float $scale = 100.0, DisplayUnit $unit = DisplayUnit::Millimetre): SheetInk
    {
        return PlanSheet::of($storey, Derivation::of($storey), new PlanOnPaper($scale, 150.0, 200.0), $unit, AreaUnit::usualFor($unit));
    }

    /** @return list<string> */
    private static function words(SheetInk $ink): array
    {
        return array_map(static fn (InkText $t): string => $t->words, $ink->texts);
    }

    public function testChainsTellOpeningsThenTheWholeOnEverySide(): void
    {
        $storey = Plans::storey(Plans::rectangle(), [
            new Opening('d', 'south', OpeningKind::Door, 1000.0, 900.0),
            new Opening('w', 'south', OpeningKind::Window, 3000.0, 1500.0),
            new Opening('v', 'east', OpeningKind::Window, 1200.0, 1000.0),
        ], [new Room('r', 'Hall', '1', new Point(3000.0, 2000.0))]);
        $words = self::words(self::drawn($storey));
        $figures = array_map(intval(...), array_values(array_filter($words, ctype_digit(...))));
        sort($figures);
        // Below: 1100, 900, 1100, 1500, 1600; right: 1300, 1000, 1900; on all sides walls and the room behind them, and overall.
        self::assertSame(
            [
                ...array_fill(0, 8, 200), 900, 1000, 1100, 1100, 1300, 1500, 1600, 1900, 3800, 3800, 4200, 4200, 5800, 5800, 6200, 6200,
            ],
            $figures,
        );
        self::assertContains('1 Hall', $words);
        self::assertContains('22.04 m²', array_map(PaperLetters::regular()->written(...), $words));
    }

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        for ($k = 0; $k < 10; ++$k) {
            yield \sprintf('%d to %d', 30 * $k, 30 * $k + 29) => [30 * $k];
        }
    }

    /** Three hundred random plans: no two texts overlap, and none crosses a wall. */
    #[DataProvider('seeds')]
    public function testNoWordsLieOnOthersOrOnWalls(int $first): void
    {
        $count = 0;
        for ($seed = $first; $seed < $first + 30; ++$seed) {
            $storey = Plans::standing(40_000 + $seed, 1 + $seed % 4, 1 + $seed % 3);
            $scale = [50.0, 100.0, 200.0][$seed % 3];
            $ink = self::drawn($storey, $scale, 0 === $seed % 5 ? DisplayUnit::FeetAndSixteenths : DisplayUnit::Millimetre);
            $count += \count($ink->texts);
            $rooms = array_map(static fn (InkText $t): array => $t->room(), $ink->texts);
            foreach ($rooms as $i => $room) {
                for ($k = $i + 1; $k < \count($rooms); ++$k) {
                    $common = abs(Clip::area(self::round($rooms[$k]), self::round($room)));
                    self::assertLessThan(1e-6, $common, "seed $seed: {$ink->texts[$i]->words} on {$ink->texts[$k]->words}");
                }
            }
            foreach ($ink->lines as $line) {
                foreach (InkLine::FINE === $line->width && 2 === \count($line->points) ? $rooms : [] as $i => $room) {
                    [[$x1, $y1], [$x2, $y2]] = [$line->points[0], $line->points[1]];
                    [$left, $top, $right, $bottom] = Polygon::bounds($room);
                    $isUpright = abs($x1 - $x2) < 1e-6 && $x1 > $left && $x1 < $right && max($y1, $y2) > $top && min($y1, $y2) < $bottom;
                    $isLevel = abs($y1 - $y2) < 1e-6 && $y1 > $top && $y1 < $bottom && max($x1, $x2) > $left && min($x1, $x2) < $right;
                    self::assertFalse($isUpright || $isLevel, "seed $seed: a line through {$ink->texts[$i]->words}");
                }
            }
            foreach (Derivation::of($storey)->walls as $wall) {
                foreach (self::bodies($wall, new PlanOnPaper($scale, 150.0, 200.0)) as $body) {
                    foreach ($rooms as $i => $room) {
                        self::assertLessThan(1e-3, abs(Clip::area($body, self::round($room))), "seed $seed: {$ink->texts[$i]->words} on wall $wall->id");
                    }
                }
            }
        }
        self::assertGreaterThan(300, $count);
    }

    /**
     * @param non-empty-list<array{float, float}> $ring
     *
     * @return non-empty-list<array{float, float}> counter-clockwise
     */
    private static function round(array $ring): array
    {
        return Polygon::area($ring) < 0.0 ? array_reverse($ring) : $ring;
    }

    /** @return list<non-empty-list<array{float, float}>> mm of paper */
    private static function bodies(WallShape $shape, PlanOnPaper $paper): array
    {
        return array_map(
            static fn (array $s): array => array_map($paper->of(...), [$s['from'], ...$s['right'], $s['to'], ...$s['left']]),
            $shape->stretches,
        );
    }

    public function testEveryFigureOfAChainIsThePlansOwnRoundedAndAddsUp(): void
    {
        for ($seed = 1; $seed <= 60; ++$seed) {
            mt_srand($seed);
            [$w, $d] = [mt_rand(30_000, 120_000) / 7.0, mt_rand(30_000, 90_000) / 11.0];
            $walls = [
                Plans::wall('s', 0, 0, $w, 0), Plans::wall('e', $w, 0, $w, $d), Plans::wall('n', $w, $d, 0, $d), Plans::wall('t', 0, $d, 0, 0),
            ];
            $openings = [];
            for ($at = 400.0; $at < $w - 1500.0; $at += mt_rand(900, 3000) / 1.3) {
                $wide = mt_rand(300, 800) / 1.1;
                $openings[] = new Opening("o$at", 's', OpeningKind::Window, $at, $wide);
                $at += $wide;
            }
            $ink = self::drawn(Plans::storey($walls, $openings));
            $below = array_values(array_filter($ink->texts, static fn (InkText $t): bool => 0.0 === $t->degrees && $t->y > 200.0 + 2.0));
            usort($below, static fn (InkText $a, InkText $b): int => $a->x <=> $b->x);
            $figures = array_map(static fn (InkText $t): int => (int) $t->words, $below);
            $overall = (int) round($w + 200.0);
            self::assertContains($overall, $figures, "seed $seed");
            self::assertSame(3 * $overall, array_sum($figures), "seed $seed: openings, walls and rooms, and the whole");
            self::assertCount(2 * \count($openings) + 5, $figures);
        }
    }
}
