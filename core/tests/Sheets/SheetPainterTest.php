<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sheets;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Projection\Projection;
use Plinth\Core\Projection\View;
use Plinth\Core\Sheets\Exception\UnusableSheet;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkPicture;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\Model\PrintSheet;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\PaperFrame;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PlanningSet;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\SheetPainter;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Sheets\SubjectSide;
use Plinth\Core\Sheets\Written;
use Plinth\Core\Tests\Plan\Plans;
use Plinth\Core\Tests\Projection\Buildings;
use Plinth\Core\Units\DisplayUnit;

/** Whatever a project has is put on sheets to scale, and a set of them is proposed that fits its paper. */
final class SheetPainterTest extends TestCase
{
    private static function subject(int $seed = 3, DisplayUnit $unit = DisplayUnit::Millimetre): SheetSubject
    {
        $plan = Buildings::of($seed);
        $bodies = BuildingBodies::of($plan);
        $side = static fn (Point $from, Point $to): SubjectSide => new SubjectSide('South', Projection::of($bodies, View::side($from, $to), true));
        $cut = [new Point(-5000.0, 3000.0), new Point(15_000.0, 3000.0)];

        return new SheetSubject(
            'Weir cottage',
            $plan,
            new Written($unit),
            [],
            ['south' => $side(new Point(-5000.0, -9000.0), new Point(15_000.0, -9000.0)), 'cut' => new SubjectSide('Section A', Projection::of($bodies, View::section($cut)), $cut)],
            [new Contour([new Point(-9000.0, -9000.0), new Point(20_000.0, -9000.0), new Point(20_000.0, 15_000.0), new Point(-9000.0, 15_000.0)])],
            12.5,
            ['photo' => new InkPicture('bytes', 'image/jpeg', [0.0, 0.0], [400.0, 0.0], [0.0, 300.0])],
            ['photo' => 'From the lane'],
            ['the loft is dry'],
            honest: array_fill_keys(array_map(static fn ($s): string => $s->id, $plan->storeys), 'Traced from a scan.'),
        );
    }

    /** The key shows each build-up as it is cut, in the order of their names, and walls without one grey. */
    public function testTheKeyShowsTheHatchOfEachBuildUp(): void
    {
        $plan = Buildings::of(3);
        $walls = array_map(static fn ($w): string => $w->id, $plan->storeys[0]->walls);
        self::assertGreaterThan(2, \count($walls));
        $subject = new SheetSubject('Weir cottage', $plan, buildUps: [$walls[0] => 'Stud 100', $walls[1] => 'Brick 365', $walls[2] => 'Stud 100']);
        self::assertSame([$walls[0] => 1, $walls[1] => 0, $walls[2] => 1], $subject->hatches);
        $key = static fn (Shows ...$shows): SheetInk => (new SheetPainter($subject))->view(new SheetView('v', ViewKind::Key, '', 10.0, 10.0, shows: array_values($shows)))->all();
        self::assertGreaterThan(\count($key()->lines) + 8, \count($key(Shows::Hatch)->lines));
        self::assertCount(\count($key()->areas) - 2, $key(Shows::Hatch)->areas, 'Two of them are no longer grey.');
    }

    /** @return list<string> */
    private static function words(SheetInk $ink): array
    {
        return array_map(static fn (InkText $t): string => $t->words, $ink->texts);
    }

    private static function view(ViewKind $kind, string $of = '', float $scale = 100.0): SheetView
    {
        return new SheetView('v', $kind, $of, 0.0, 0.0, $scale, shows: Shows::usually($kind));
    }

    public function testASideTellsItsLevelsAndTheHeightsBetweenThemAddUp(): void
    {
        $subject = self::subject(5);
        $ink = (new SheetPainter($subject))->view(self::view(ViewKind::Side, 'south'))->all();
        $bounds = $subject->sides['south']->drawn?->bounds();
        self::assertNotNull($bounds);
        self::assertContains('±0.000 '.$subject->plan->storeys[0]->name, array_map(trim(...), self::words($ink)));
        $figures = array_values(array_filter($ink->texts, static fn (InkText $t): bool => '' !== $t->key));
        $parts = array_filter($figures, static fn (InkText $t): bool => str_starts_with($t->key, 'left.heights'));
        $whole = array_values(array_filter($figures, static fn (InkText $t): bool => str_starts_with($t->key, 'left.overall')));
        self::assertCount(1, $whole);
        self::assertGreaterThan(1, \count($parts));
        self::assertSame((int) $whole[0]->words, array_sum(array_map(static fn (InkText $t): int => (int) $t->words, $parts)));
        // What is hidden is left out unless the view shows it.
        $dashed = static fn (SheetInk $of): int => \count(array_filter($of->lines, static fn (InkLine $l): bool => [] !== $l->dashes));
        $hidden = new SheetView('v', ViewKind::Side, 'south', 0.0, 0.0, shows: [Shows::Hidden]);
        self::assertSame(0, $dashed($ink));
        self::assertGreaterThan(10, $dashed((new SheetPainter($subject))->view($hidden)->all()));
    }

    public function testLinesOfASideAreWhereTheProjectionHasThem(): void
    {
        $subject = self::subject();
        $drawn = $subject->sides['cut']->drawn;
        self::assertNotNull($drawn);
        $ink = (new SheetPainter($subject))->view(new SheetView('v', ViewKind::Side, 'cut', 200.0, 150.0, 50.0))->ink;
        foreach ($drawn->lines as $i => $line) {
            self::assertEqualsWithDelta([200.0 + $line->from[0] / 50.0, 150.0 - $line->from[1] / 50.0], $ink->lines[$i]->points[0], 1e-9);
        }
        self::assertCount(\count($drawn->faces), $ink->areas);
    }

    public function testTheSiteTellsItsLegsItsAreaAndHowNearTheBuildingComes(): void
    {
        $subject = self::subject();
        $group = (new SheetPainter($subject))->view(self::view(ViewKind::Site, scale: 200.0));
        $words = self::words($group->all());
        // Up is 12.5° from north, so what runs to the right runs 102.5° from it.
        foreach (['Site', '696.00 m²', '29000 · 102°30\'00"', '24000 · 12°30\'00"', '29000 · 282°30\'00"', '1:200', 'N', 'Site plan'] as $said) {
            self::assertContains($said, $words);
        }
        self::assertGreaterThan(4, \count(array_filter($words, ctype_digit(...))), 'Clearances and the bar.');
        $lengths = new SheetView('v', ViewKind::Site, '', 100.0, 100.0, 200.0, shows: [Shows::Dimensions]);
        self::assertContains('29000', self::words((new SheetPainter($subject))->view($lengths)->all()), 'Lengths alone, where nothing else is wanted.');
    }

    public function testAWindowShowsAPartAndIsFramedWithItsTitleBeside(): void
    {
        $subject = self::subject();
        $of = $subject->plan->storeys[0]->id;
        $group = (new SheetPainter($subject))->view(new SheetView('v', ViewKind::Plan, $of, 100.0, 100.0, 20.0, [0.0, 0.0, 2000.0, 1500.0], title: 'Corner'));
        self::assertEqualsWithDelta([100.0, 25.0, 200.0, 100.0], $group->clip, 1e-9);
        self::assertContains('Corner', self::words($group->beside));
        $svg = SvgWriter::write((new SheetPainter($subject))->sheet(new PrintSheet('s', 420.0, 297.0, [
            new SheetView('v', ViewKind::Plan, $of, 100.0, 100.0, 20.0, [0.0, 0.0, 2000.0, 1500.0]),
        ])));
        self::assertStringContainsString('<clipPath id="window0"><rect x="100" y="25" width="100" height="75"/></clipPath>', $svg);
        self::assertStringContainsString('clip-path="url(#window0)"', $svg);
    }

    public function testTablesKeyNotesAndPicturesSayWhatThereIs(): void
    {
        $subject = self::subject();
        $painter = new SheetPainter($subject);
        $rooms = self::words($painter->view(self::view(ViewKind::Rooms))->all());
        self::assertContains('net area', $rooms);
        self::assertContains('together', $rooms);
        $numbers = $subject->numbers;
        self::assertNotSame([], $numbers);
        self::assertSame($numbers, array_unique($numbers));
        $first = array_key_first($numbers);
        $told = SheetSubject::numbered($subject->plan, [$first => 'W02']);
        self::assertSame('W02', $told[$first], 'As somebody has numbered it.');
        self::assertSame($told, array_unique($told), 'And no other has that number.');
        self::assertSame([], array_diff(array_values($numbers), self::words($painter->view(self::view(ViewKind::Openings))->all())), 'Every door and window is in the table.');
        self::assertContains('boundary of the site', self::words($painter->view(self::view(ViewKind::Key))->all()));
        $notes = new SheetView('v', ViewKind::Notes, '', 20.0, 20.0, width: 70.0, words: "Doors are told clear of their linings, all of them.\nSecond.", shows: [Shows::Notes]);
        $ink = $painter->view($notes)->all();
        self::assertContains('Assumed: the loft is dry', array_map(static fn (InkText $t): string => $t->words, $ink->texts));
        foreach ($ink->texts as $text) {
            self::assertLessThan(90.5, $text->x + $text->width(), 'Lines are broken where the notes end.');
        }
        $picture = $painter->view(new SheetView('v', ViewKind::Picture, 'photo', 20.0, 30.0, width: 80.0))->all();
        self::assertEqualsWithDelta([80.0, 60.0], [$picture->pictures[0]->right[0], $picture->pictures[0]->down[1]], 1e-9);
        self::assertContains('From the lane', self::words($picture));
    }

    public function testASheetSaysItsScalesWhereItIsFromAndWhichItIs(): void
    {
        $subject = self::subject(unit: DisplayUnit::FeetAndSixteenths);
        $of = $subject->plan->storeys[0]->id;
        $sheet = new PrintSheet('s', 841.0, 594.0, [
            new SheetView('a', ViewKind::Plan, $of, 200.0, 200.0, 48.0), self::view(ViewKind::Side, 'south', 96.0),
        ], 'Plan and side', 'P-3', 'The parish', 'mw', 'jd', '2026-12-01');
        $printed = (new SheetPainter($subject))->sheet($sheet, 3, 7);
        $words = self::words($printed->ink());
        foreach (['1:48, 1:96', 'Plan and side', 'P-3', 'The parish', 'mw', 'jd', '2026-12-01', '3/7', 'feet and inches', 'Traced from a scan.'] as $said) {
            self::assertContains($said, $words);
        }
        self::assertSame('P-3 Plan and side', $printed->title);
        $this->expectException(UnusableSheet::class);
        (new SheetPainter($subject))->sheet(new PrintSheet('s', 841.0, 594.0, [self::view(ViewKind::Plan, 'gone')]));
    }

    /** ISO 5457: 20 mm for filing on the left, 10 mm otherwise. ISO 7200: a block 180 mm wide in the lower right corner, with these fields. */
    public function testTheFrameAndTheTitleBlockAreThoseOfTheStandards(): void
    {
        foreach ([[841.0, 594.0], [594.0, 420.0], [420.0, 297.0], [297.0, 420.0], [210.0, 297.0]] as [$width, $height]) {
            $ink = (new SheetPainter(self::subject()))->sheet(new PrintSheet('s', $width, $height, [], 'Plans', 'P-1', 'o', 'c', 'a', 'd'))->ink();
            $frame = array_values(array_filter($ink->lines, static fn (InkLine $l): bool => InkLine::BROAD === $l->width && $l->closed));
            self::assertCount(1, $frame);
            self::assertEqualsWithDelta([20.0, 10.0, $width - 10.0, $height - 10.0], [...$frame[0]->points[0], ...$frame[0]->points[2]], 1e-9);
            [$left, , $right, $bottom] = PaperFrame::block($width, $height);
            self::assertEqualsWithDelta([180.0, $width - 10.0], [$right - $left, $right], 1e-9);
            self::assertLessThanOrEqual($height - 10.0, $bottom);
            $fields = ['title', 'legal owner', 'supplementary title', 'identification number', 'creator', 'approved by', 'date of issue', 'sheet'];
            foreach ($fields as $field) {
                $said = array_values(array_filter($ink->texts, static fn (InkText $t): bool => $t->words === $field));
                self::assertCount(1, $said, $field);
                self::assertTrue($said[0]->x >= $left && $said[0]->x + $said[0]->width() <= $right, "$field stands in the block");
            }
        }
    }

    /** ISO 129-1: figures of chains stand over their line and read from below or from the right; strokes at 45° end each part. */
    public function testFiguresOfChainsReadAsTheStandardHasThem(): void
    {
        $subject = self::subject(5);
        $told = 0;
        foreach ([self::view(ViewKind::Plan, $subject->plan->storeys[0]->id), self::view(ViewKind::Side, 'south')] as $view) {
            $ink = (new SheetPainter($subject))->view($view)->all();
            foreach ($ink->texts as $text) {
                if (1 !== preg_match('/^(above|below|left|right)/', $text->key)) {
                    continue;
                }
                ++$told;
                $isUpright = 1 === preg_match('/^(left|right)/', $text->key);
                self::assertSame($isUpright ? 90.0 : 0.0, $text->degrees, $text->key);
                self::assertSame(2.5, $text->height, 'A nominal height of ISO 3098-1.');
            }
            $strokes = array_filter($ink->lines, static fn (InkLine $l): bool => InkLine::MEDIUM === $l->width && 2 === \count($l->points)
                && abs(hypot($l->points[1][0] - $l->points[0][0], $l->points[1][1] - $l->points[0][1]) - 1.5 * \M_SQRT2) < 1e-6);
            self::assertNotSame([], $strokes);
            foreach ($strokes as $stroke) {
                [[$x1, $y1], [$x2, $y2]] = [$stroke->points[0], $stroke->points[1]];
                self::assertEqualsWithDelta(-1.0, ($y2 - $y1) / ($x2 - $x1), 1e-9);
            }
        }
        self::assertGreaterThan(12, $told);
    }

    /** Of buildings of any kind, on paper of any size: nothing lies on anything else, over the frame or on the title block. */
    public function testAProposedSetFitsItsPaper(): void
    {
        $count = 0;
        foreach ([[11, PaperSize::A1], [12, PaperSize::A2], [13, PaperSize::A1], [14, PaperSize::A0]] as [$seed, $paper]) {
            $subject = self::subject($seed);
            $id = 0;
            $set = PlanningSet::of($subject, $paper, false, static function () use (&$id): string {
                return 'id'.++$id;
            });
            /** @var array<string, true> $kinds */
            $kinds = [];
            foreach ($set as $sheet) {
                [$left, $top, $right, $bottom] = PaperFrame::views($sheet->width, $sheet->height);
                $boxes = [PaperFrame::block($sheet->width, $sheet->height)];
                foreach ($sheet->views as $view) {
                    $kinds[$view->kind->value] = true;
                    $box = (new SheetPainter($subject))->view($view)->bounds();
                    self::assertNotNull($box);
                    self::assertTrue($box[0] >= $left && $box[1] >= $top && $box[2] <= $right && $box[3] <= $bottom, "seed $seed: {$view->kind->value} within the frame");
                    foreach ($boxes as [$x1, $y1, $x2, $y2]) {
                        self::assertFalse($box[0] < $x2 && $box[2] > $x1 && $box[1] < $y2 && $box[3] > $y1, "seed $seed: {$view->kind->value} on something else");
                    }
                    $boxes[] = $box;
                    ++$count;
                }
            }
            self::assertEqualsCanonicalizing(['site', 'key', 'notes', 'plan', 'side', 'standing', 'rooms', 'openings', 'picture'], array_keys($kinds));
        }
        self::assertGreaterThan(40, $count);
        self::assertSame([], PlanningSet::of(new SheetSubject('', new Plan([Plans::storey([])])), PaperSize::A3, false, static fn (): string => ''));
    }
}
