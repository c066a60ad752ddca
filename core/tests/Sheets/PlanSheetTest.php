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
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\SettingOut;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Sheets\InkArea;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkPicture;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\Model\ViewMark;
use Plinth\Core\Sheets\PaperLetters;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PlanOnPaper;
use Plinth\Core\Sheets\PlanSheet;
use Plinth\Core\Sheets\SectionMark;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Sheets\Written;
use Plinth\Core\Tests\Plan\Plans;
use Plinth\Core\Units\DisplayUnit;

/** A plan on a sheet: figures are the plan's own, add up, and nobody has to guess what is written. */
final class PlanSheetTest extends TestCase
{
    private const OUTSIDE = [Shows::Dimensions, Shows::Stamps];

    /**
     * @param list<Shows>|null $shows the usual without any
     * @param list<ViewMark> $marks
     */
    private static function drawn(
        Storey $storey,
        float $scale = 100.0,
        DisplayUnit $unit = DisplayUnit::Millimetre,
        ?array $shows = null,
        array $marks = [],
        PlanBeside $beside = new PlanBeside(),
    ): SheetInk {
        $view = new SheetView('v', ViewKind::Plan, $storey->id, 0.0, 0.0, shows: $shows ?? Shows::usually(ViewKind::Plan), marks: $marks);

        return PlanSheet::of($storey, Derivation::of($storey), new PlanOnPaper($scale, 150.0, 200.0), new Written($unit), $beside, $view);
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
        $words = self::words(self::drawn($storey, shows: self::OUTSIDE));
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
            $numbers = SheetSubject::numbered(new Plan([$storey]));
            $unit = 0 === $seed % 5 ? DisplayUnit::FeetAndSixteenths : DisplayUnit::Millimetre;
            $ink = self::drawn($storey, $scale, $unit, beside: new PlanBeside(numbers: $numbers));
            $count += \count($ink->texts);
            $rooms = array_map(static fn (InkText $t): array => $t->room(), $ink->texts);
            foreach ($rooms as $i => $room) {
                for ($k = $i + 1; $k < \count($rooms); ++$k) {
                    $common = abs(Clip::area(self::round($rooms[$k]), self::round($room)));
                    self::assertLessThan(1e-6, $common, "seed $seed: {$ink->texts[$i]->words} on {$ink->texts[$k]->words}");
                }
            }
            foreach ($ink->lines as $line) {
                // Lines that lead to chains, and chains themselves.
                $isTold = InkLine::FINE === $line->width || '' !== $line->key;
                foreach ($isTold && 2 === \count($line->points) ? $rooms : [] as $i => $room) {
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
            $ink = self::drawn(Plans::storey($walls, $openings), shows: self::OUTSIDE);
            $below = array_values(array_filter($ink->texts, static fn (InkText $t): bool => 0.0 === $t->degrees && $t->y > 200.0 + 2.0));
            usort($below, static fn (InkText $a, InkText $b): int => $a->x <=> $b->x);
            $figures = array_map(static fn (InkText $t): int => (int) $t->words, $below);
            $overall = (int) round($w + 200.0);
            self::assertContains($overall, $figures, "seed $seed");
            self::assertSame(3 * $overall, array_sum($figures), "seed $seed: openings, walls and rooms, and the whole");
            self::assertCount(2 * \count($openings) + 5, $figures);
        }
    }

    /** Two rooms with a wall between them: what runs through them adds up to what lies inside the outer walls. */
    public function testChainsThroughRoomsTellEachOnceEachWayAndTheWallsBetween(): void
    {
        $storey = Plans::storey([...Plans::rectangle(), Plans::wall('mid', 2500, 0, 2500, 4000)], [], [
            new Room('a', 'Store', '1', new Point(1000.0, 2000.0)), new Room('b', 'Hall', '2', new Point(4500.0, 2000.0)),
        ]);
        $figures = array_count_values(array_filter(self::words(self::drawn($storey, 50.0, shows: [Shows::Inside])), ctype_digit(...)));
        ksort($figures);
        // Level: 2300 + the wall + 3300; upright each room by itself.
        self::assertSame([200 => 1, 2300 => 1, 3300 => 1, 3800 => 2], $figures);
    }

    public function testEveryRoomOfRandomPlansIsToldBothWaysOrHasNoRoomForIt(): void
    {
        [$told, $all] = [0, 0];
        for ($seed = 0; $seed < 60; ++$seed) {
            // A grid of any widths; doors are not needed to measure rooms.
            mt_srand(70_000 + $seed);
            [$across, $up] = [self::cuts(2 + $seed % 3), self::cuts(1 + $seed % 3)];
            $walls = [];
            foreach ($across as $i => $x) {
                $walls[] = Plans::wall("x$i", $x, 0, $x, max($up));
            }
            foreach ($up as $i => $y) {
                $walls[] = Plans::wall("y$i", 0, $y, max($across), $y);
            }
            $storey = Plans::storey($walls);
            $words = array_count_values(self::words(self::drawn($storey, 50.0, shows: [Shows::Inside])));
            foreach (Derivation::of($storey)->regions as $region) {
                foreach ([0, 1] as $axis) {
                    $at = array_column($region->polygon, $axis);
                    ++$all;
                    $told += isset($words[(string) round(max($at) - min($at))]) ? 1 : 0;
                }
            }
        }
        self::assertGreaterThan(150, $all);
        self::assertGreaterThan(0.95, $told / $all, "$told of $all sizes of rooms");
    }

    /** @return non-empty-list<float> from 0, each so far from the one before as a room is wide */
    private static function cuts(int $count): array
    {
        $cuts = [0.0];
        for ($k = 0; $k < $count; ++$k) {
            $cuts[] = $cuts[$k] + mt_rand(1800, 6000);
        }

        return $cuts;
    }

    /** @return array<string, InkText> figures by what they tell */
    private static function figures(SheetInk $ink): array
    {
        $keyed = array_filter($ink->texts, static fn (InkText $t): bool => '' !== $t->key);

        return array_combine(array_map(static fn (InkText $t): string => $t->key, $keyed), $keyed);
    }

    public function testAFigureIsMovedOrLeftOutAndStaysSoWhenThePlanIsEdited(): void
    {
        $openings = [new Opening('w', 'south', OpeningKind::Window, 3000.0, 1500.0)];
        $before = self::figures(self::drawn(Plans::storey(Plans::rectangle(), $openings), shows: self::OUTSIDE));
        $window = array_keys(array_filter($before, static fn (InkText $t): bool => '1500' === $t->words))[0] ?? '';
        $wall = array_keys(array_filter($before, static fn (InkText $t): bool => '3100' === $t->words))[0] ?? '';
        self::assertNotSame('', $window.$wall);
        $marks = [new ViewMark($window, 4.0, 9.0), new ViewMark($wall, hidden: true)];
        // The east wall moves out by a metre, and the window becomes narrower.
        $wider = Plans::storey([
            Plans::wall('south', 0, 0, 7000, 0), Plans::wall('east', 7000, 0, 7000, 4000), Plans::wall('north', 7000, 4000, 0, 4000), Plans::wall('west', 0, 4000, 0, 0),
        ], [new Opening('w', 'south', OpeningKind::Window, 3000.0, 1200.0)]);
        $natural = self::figures(self::drawn($wider, shows: self::OUTSIDE));
        $after = self::figures(self::drawn($wider, shows: self::OUTSIDE, marks: $marks));
        self::assertSame('1200', $after[$window]->words);
        self::assertEqualsWithDelta([$natural[$window]->x + 4.0, $natural[$window]->y + 9.0], [$after[$window]->x, $after[$window]->y], 1e-9);
        self::assertArrayHasKey($wall, $natural);
        self::assertArrayNotHasKey($wall, $after);
        // A whole chain as well: nothing of it is drawn.
        $less = self::figures(self::drawn($wider, shows: self::OUTSIDE, marks: [new ViewMark('below.openings', hidden: true)]));
        self::assertSame([], array_filter(array_keys($less), static fn (string $k): bool => str_starts_with($k, 'below.openings')));
        self::assertCount(3, array_diff_key($natural, $less));
    }

    /** What a room, an opening and the floor say of themselves is moved and left out in the same way, and stays so. */
    public function testStampsNumbersAndLevelsAreMovedAndLeftOutAsDimensionsAre(): void
    {
        $rooms = [new Room('hall', 'Hall', '1', new Point(3000.0, 2000.0))];
        $openings = [new Opening('w', 'south', OpeningKind::Window, 3000.0, 1500.0)];
        $plan = static fn (float $east): Storey => new Storey('s', 'Ground', 0.0, 2700.0, [
            Plans::wall('south', 0, 0, $east, 0), Plans::wall('east', $east, 0, $east, 4000), Plans::wall('north', $east, 4000, 0, 4000), Plans::wall('west', 0, 4000, 0, 0),
        ], $openings, $rooms);
        $shows = [Shows::Stamps, Shows::Numbers, Shows::Levels];
        $said = static function (Storey $storey, array $marks) use ($shows): array {
            /** @var list<ViewMark> $marks */
            $texts = self::drawn($storey, 100.0, shows: $shows, marks: $marks, beside: new PlanBeside(numbers: ['w' => 'W01']))->texts;

            return array_combine(array_map(static fn (InkText $t): string => $t->words, $texts), $texts);
        };
        $natural = $said($plan(7000.0), []);
        self::assertSame(['stamp.hall', 'number.w', 'level.s'], [$natural['1 Hall']->key, $natural['W01']->key, $natural['±0.000']->key]);
        $marks = [new ViewMark('stamp.hall', 6.0, -4.0), new ViewMark('number.w', 0.0, 3.0), new ViewMark('level.s', hidden: true)];
        $after = $said($plan(7000.0), $marks);
        self::assertEqualsWithDelta([$natural['1 Hall']->x + 6.0, $natural['1 Hall']->y - 4.0], [$after['1 Hall']->x, $after['1 Hall']->y], 1e-9);
        self::assertEqualsWithDelta($natural['W01']->y + 3.0, $after['W01']->y, 1e-9);
        self::assertArrayNotHasKey('±0.000', $after);
        // The area goes with the name; and all of it holds for the plan as it was before the wall was moved.
        $before = $said($plan(6000.0), []);
        $moved = $said($plan(6000.0), $marks);
        self::assertEqualsWithDelta($before['1 Hall']->x + 6.0, $moved['1 Hall']->x, 1e-9);
        self::assertArrayNotHasKey('±0.000', $moved);
    }

    public function testAChainThatIsMovedOutTakesItsFiguresAlong(): void
    {
        $storey = Plans::storey(Plans::rectangle());
        $natural = self::figures(self::drawn($storey, shows: self::OUTSIDE));
        $moved = self::figures(self::drawn($storey, shows: self::OUTSIDE, marks: [new ViewMark('below.overall', 3.0, 12.0)]));
        foreach ($natural as $key => $text) {
            self::assertEqualsWithDelta($text->y + (str_starts_with($key, 'below.overall') ? 12.0 : 0.0), $moved[$key]->y, 1e-9, $key);
            self::assertEqualsWithDelta($text->x, $moved[$key]->x, 1e-9, 'Along itself it does not move.');
        }
    }

    public function testOpeningsAreNumberedLevelsAxesAndSectionsMarked(): void
    {
        $openings = [new Opening('d', 'south', OpeningKind::Door, 1000.0, 900.0), new Opening('w', 'south', OpeningKind::Window, 3000.0, 1500.0)];
        $storey = new Storey('s', 'Upper', 2800.0, 2700.0, Plans::rectangle(), $openings);
        $beside = new PlanBeside(
            settingOut: new SettingOut([['label' => 'A', 'along' => 'x', 'at' => 0.0], ['label' => '1', 'along' => 'y', 'at' => 4000.0]]),
            numbers: SheetSubject::numbered(new Plan([$storey])),
            sections: [new SectionMark('C', [new Point(-1000.0, 2000.0), new Point(8000.0, 2000.0)])],
        );
        $ink = self::drawn($storey, beside: $beside);
        $words = array_count_values(self::words($ink));
        self::assertSame([1, 1, 1, 1, 2], array_map(static fn (string $w): int => $words[$w] ?? 0, ['D01', 'W01', '+2.800', 'A', 'C']));
        self::assertContains('1', self::words($ink), 'The axis along y as well.');
        // As one looks along it from left to right the section runs east: it looks north, and its arrows point up.
        $arrows = array_values(array_filter($ink->areas, static fn (InkArea $a): bool => 0.0 === $a->grey && 3 === \count($a->rings[0]) && $a->rings[0][0][1] < $a->rings[0][1][1] - 2.0));
        self::assertCount(2, $arrows);
        $box = self::drawn($storey)->bounds();
        self::assertNotNull($box);
        self::assertTrue($arrows[0]->rings[0][0][0] < $box[0] && $arrows[1]->rings[0][0][0] > $box[2], 'Outside all that is drawn.');
    }

    /** A bubble is moved along its axis and a section's mark along its line alone: elsewhere they would say something else. */
    public function testAxesAndSectionMarksAreMovedAlongThemselvesAndLeftOutSingly(): void
    {
        $beside = new PlanBeside(
            settingOut: new SettingOut([['label' => 'A', 'along' => 'x', 'at' => 1000.0], ['label' => '1', 'along' => 'y', 'at' => 3000.0]]),
            sections: [new SectionMark('C', [new Point(-1000.0, 2000.0), new Point(8000.0, 2000.0)])],
        );
        $shows = [Shows::Axes, Shows::Sections];
        $said = static function (array $marks) use ($beside, $shows): array {
            /** @var list<ViewMark> $marks */
            $texts = self::drawn(Plans::storey(Plans::rectangle()), shows: $shows, marks: $marks, beside: $beside)->texts;

            return array_combine(array_map(static fn (InkText $t): string => $t->key, $texts), $texts);
        };
        $natural = $said([]);
        self::assertSame(['axis.A', 'axis.1', 'section.C.from', 'section.C.to'], array_keys($natural));
        foreach ([['axis.A', 5.0, -8.0, 0.0, -8.0], ['axis.1', -6.0, 3.0, -6.0, 0.0], ['section.C.from', -4.0, 9.0, -4.0, 0.0]] as [$key, $right, $down, $dx, $dy]) {
            $moved = $said([new ViewMark($key, $right, $down), new ViewMark('section.C.to', hidden: true)]);
            self::assertEqualsWithDelta([$natural[$key]->x + $dx, $natural[$key]->y + $dy], [$moved[$key]->x, $moved[$key]->y], 1e-9, $key);
            self::assertArrayNotHasKey('section.C.to', $moved);
        }
        self::assertArrayNotHasKey('axis.A', $said([new ViewMark('axis.A', hidden: true)]));
    }

    /** Each build-up has its own hatch, within its walls and in no opening of theirs; other walls stay grey. */
    public function testWallsAreHatchedByTheirBuildUpWhereThatIsShown(): void
    {
        $storey = Plans::storey(Plans::rectangle(), [new Opening('d', 'south', OpeningKind::Door, 2000.0, 1000.0)]);
        $paper = new PlanOnPaper(50.0, 0.0, 0.0);
        $drawn = static fn (Shows ...$shows): SheetInk => PlanSheet::of(
            $storey,
            Derivation::of($storey),
            $paper,
            view: new SheetView('v', ViewKind::Plan, $storey->id, 0.0, 0.0, shows: array_values($shows)),
            hatches: ['south' => 0, 'north' => 2],
        );
        $strokes = static fn (SheetInk $ink): array => array_filter($ink->lines, static fn (InkLine $l): bool => InkLine::FINE === $l->width && 2 === \count($l->points) && [] === $l->dashes);
        $leaf = \count($strokes($drawn()));
        $hatched = $strokes($drawn(Shows::Hatch));
        self::assertGreaterThan($leaf + 100, \count($hatched));
        [$south, $north] = [[], []];
        foreach ($hatched as $line) {
            [[$x1, $y1], [$x2, $y2]] = [$line->points[0], $line->points[1] ?? [0.0, 0.0]];
            [$x, $y] = [25.0 * ($x1 + $x2), -25.0 * ($y1 + $y2)];
            self::assertFalse($y < 150.0 && $x > 2001.0 && $x < 2999.0 && $y > -99.0, 'None in the door.');
            self::assertFalse($y > 150.0 && $y < 3850.0, 'None in walls of no build-up.');
            $slope = round(rad2deg(atan2($y1 - $y2, $x2 - $x1)));
            $y < 2000.0 ? $south[(int) $slope] = true : $north[(int) $slope] = true;
        }
        self::assertCount(1, $south);
        self::assertCount(2, $north, 'A cross hatch.');
    }

    /** Curved walls are reckoned by chords; no chain tells how long those are, whether an inner wall ends on the curve or not. */
    public function testNoChainRunsAlongTheChordsOfACurvedWall(): void
    {
        mt_srand(1133);
        for ($k = 0; $k < 40; ++$k) {
            [$wide, $rise, $at] = [mt_rand(40, 90) * 100.0, mt_rand(3, 20) * 100.0, mt_rand(20, 80) / 100.0];
            $walls = [
                new Wall('s', new Point(0.0, 0.0), new Point($wide, 0.0), 300.0), new Wall('e', new Point($wide, 0.0), new Point($wide, 4000.0), 300.0),
                new Wall('n', new Point($wide, 4000.0), new Point(0.0, 4000.0), 300.0, rise: -$rise), new Wall('w', new Point(0.0, 4000.0), new Point(0.0, 0.0), 300.0),
            ];
            // The curve over a place: a circle through both ends and the crown.
            $radius = ($wide * $wide / 4.0 + $rise * $rise) / (2.0 * $rise);
            $height = static fn (float $x): float => 4000.0 + $rise - $radius + sqrt($radius ** 2 - ($x - $wide / 2.0) ** 2);
            $x = $at * $wide;
            $across = new Wall('c', new Point($x, 0.0), new Point($x, $height($x)), 100.0);
            $storey = Plans::storey($rise < $wide / 2.0 && 0 === $k % 2 ? [...$walls, $across] : $walls);
            $over = (new PlanOnPaper(100.0, 150.0, 200.0))->of([0.0, 4150.0 + $rise])[1];
            $figures = array_filter(
                self::drawn($storey, shows: [Shows::Dimensions])->texts,
                static fn (InkText $t): bool => ctype_digit($t->words) && $t->y < $over,
            );
            self::assertSame([], array_map(static fn (InkText $t): string => $t->words, $figures), "plan $k");
        }
    }

    public function testAWindowInACurvedWallHasItsPanesAndWornWallsAreDashedWhereThatIsShown(): void
    {
        $walls = Plans::rectangle();
        $walls[0] = new Wall('south', new Point(0.0, 0.0), new Point(6000.0, 0.0), 200.0, rise: -900.0);
        $storey = Plans::storey($walls, [new Opening('w', 'south', OpeningKind::Window, 2500.0, 1200.0)]);
        $narrow = static fn (SheetInk $ink): int => \count(array_filter($ink->lines, static fn (InkLine $l): bool => InkLine::NARROW === $l->width && \count($l->points) > 2));
        self::assertSame(3, $narrow(self::drawn($storey, shows: [])));
        $beside = new PlanBeside(freeHand: ['north' => true]);
        $dashed = static fn (SheetInk $ink): int => \count(array_filter($ink->lines, static fn (InkLine $l): bool => [] !== $l->dashes));
        self::assertSame([0, 1], [$dashed(self::drawn($storey, shows: [], beside: $beside)), $dashed(self::drawn($storey, shows: [Shows::Wear], beside: $beside))]);
    }

    public function testRoomsOfOneNameAreOfOneColourAndTheDrawingLiesUnderAll(): void
    {
        $storey = Plans::storey([...Plans::rectangle(), Plans::wall('mid', 2500, 0, 2500, 4000)], [], [
            new Room('a', 'Cell', '1', new Point(1000.0, 2000.0)), new Room('b', 'Cell', '2', new Point(4500.0, 2000.0)),
        ]);
        $picture = new InkPicture('bytes', 'image/jpeg', [-500.0, 4500.0], [7000.0, 0.0], [0.0, -5000.0]);
        $ink = self::drawn($storey, shows: [Shows::Colour, Shows::Ink], beside: new PlanBeside(picture: $picture));
        $colours = array_values(array_filter(array_map(static fn (InkArea $a): ?array => $a->colour, $ink->areas), is_array(...)));
        self::assertCount(2, $colours);
        self::assertSame($colours[0], $colours[1]);
        self::assertEqualsWithDelta([145.0, 155.0, 70.0, 50.0], [...$ink->pictures[0]->origin, $ink->pictures[0]->right[0], $ink->pictures[0]->down[1]], 1e-9);
        self::assertSame([], self::drawn($storey, shows: [], beside: new PlanBeside(picture: $picture))->pictures);
    }
}
