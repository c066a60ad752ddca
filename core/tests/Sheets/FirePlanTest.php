<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Sheets;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Escape\EscapePlan;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\Enclosure;
use Plinth\Core\Plan\Model\FireClass;
use Plinth\Core\Plan\Model\FireSafety;
use Plinth\Core\Plan\Model\Hatch;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Sheets\Exception\UnusableSheet;
use Plinth\Core\Sheets\InkArea;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\Model\PrintSheet;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PlanningSet;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\SheetPainter;
use Plinth\Core\Sheets\SheetSubject;

/** A fire plan shows each class by its colour and its hatch, with a key and tables, exits and ways out, and its words are read. */
final class FirePlanTest extends TestCase
{
    private const ORANGE = [0xD5, 0x5E, 0x00];

    private static function lodge(): Plan
    {
        return PlanReader::read((string) file_get_contents(__DIR__.'/../../../demo/reedmace-lodge.json'));
    }

    /** @return list<PrintSheet> */
    private static function proposed(Plan $plan): array
    {
        $n = 0;

        return PlanningSet::fire(new SheetSubject('Lodge', $plan), PaperSize::A3, false, static function () use (&$n): string {
            return (string) ++$n;
        });
    }

    private static function ink(Plan $plan, PrintSheet $sheet, ViewKind $kind): SheetInk
    {
        $view = array_values(array_filter($sheet->views, static fn (SheetView $v): bool => $v->kind === $kind))[0];

        return (new SheetPainter(new SheetSubject('Lodge', $plan)))->view($view)->ink;
    }

    /** @return list<string> */
    private static function words(SheetInk $ink): array
    {
        return array_map(static fn (InkText $t): string => $t->words, $ink->texts);
    }

    public function testASheetIsProposedForEachStoreyOnWhichAnythingIsEnclosed(): void
    {
        $plan = self::lodge();
        $sheets = self::proposed($plan);
        self::assertSame([['F-01', 'Fire plan, Ground'], ['F-02', 'Fire plan, Upper']], array_map(static fn (PrintSheet $s): array => [$s->number, $s->part], $sheets));
        foreach ($sheets as $sheet) {
            self::assertSame(
                [ViewKind::Plan, ViewKind::Key, ViewKind::Enclosures, ViewKind::Ways],
                array_map(static fn (SheetView $v): ViewKind => $v->kind, $sheet->views),
            );
        }
        $this->expectException(UnusableSheet::class);
        self::proposed(new Plan($plan->storeys));
    }

    public function testItsKeyAndItsTablesSayWhatThePlanShows(): void
    {
        $plan = self::lodge();
        [$ground] = self::proposed($plan);
        self::assertSame(['Key', 'REI 60', 'EI 30', 'way out from the worst place of a room'], self::words(self::ink($plan, $ground, ViewKind::Key)));
        $table = self::words(self::ink($plan, $ground, ViewKind::Enclosures));
        foreach (['REI 60', 'Hall, Stair', '42.21 m²', 'D01 –, D02 –, D03 EI2 30-S', 'Boot room, Kitchen', '29.61 m²'] as $said) {
            self::assertContains($said, array_map(static fn (string $w): string => (string) preg_replace('/\p{Z}/u', ' ', $w), $table));
        }
        $ways = self::words(self::ink($plan, $ground, ViewKind::Ways));
        self::assertContains('Kitchen', $ways);
        self::assertContains('over its limit', $ways);
        self::assertNotContains('Bunks', $ways, 'That is another storey’s.');
    }

    public function testThePlanShowsClassesExitsAndWays(): void
    {
        $plan = self::lodge();
        [$ground] = self::proposed($plan);
        $ink = self::ink($plan, $ground, ViewKind::Plan);
        $words = self::words($ink);
        foreach (['REI 60', 'EI 30', 'FINAL EXIT', '3 Hall'] as $said) {
            self::assertContains($said, $words);
        }
        foreach ((new EscapePlan($plan))->rooms() as $room) {
            $told = \in_array((string) round($room->toFinal->mm ?? 0.0), array_map(static fn (string $w): string => (string) preg_replace('/\p{Z}/u', '', $w), $words), true);
            self::assertSame('ground' === $room->storey, $told, $room->region->room->name ?? '');
        }
        // No way runs through words.
        foreach (array_filter($ink->lines, static fn (InkLine $l): bool => [8.0, 4.0] === $l->dashes) as $line) {
            foreach ($ink->texts as $text) {
                $room = Polygon::bounds($text->room());
                foreach (range(0, 40) as $k) {
                    [$a, $b] = $line->points;
                    [$x, $y] = [$a[0] + $k / 40.0 * ($b[0] - $a[0]), $a[1] + $k / 40.0 * ($b[1] - $a[1])];
                    self::assertFalse($x > $room[0] && $x < $room[2] && $y > $room[1] && $y < $room[3], "A way runs through $text->words");
                }
            }
        }
        self::assertContains(FireClass::COLOURS[0], [$plan->fire->classes[0]->colour]);
        $tints = array_filter($ink->areas, static fn (InkArea $a): bool => $a->colour === $plan->fire->classes[0]->tint());
        self::assertCount(1, $tints);
        self::assertStringContainsString('stroke="#d55e00"', SvgWriter::write((new SheetPainter(new SheetSubject('Lodge', $plan)))->sheet($ground)));
    }

    /** Whatever hatch: its lines lie within what is enclosed, and none runs through words. */
    public function testWordsAreReadOnEveryHatch(): void
    {
        $plan = self::lodge();
        foreach (Hatch::cases() as $hatch) {
            $fire = new FireSafety([new FireClass('c', 'REI 60', '#d55e00', $hatch)], [new Enclosure('e', 'ground', 'c', ['hall', 'stair'])]);
            $hatched = new Plan($plan->storeys, fire: $fire);
            [$sheet] = self::proposed($hatched);
            $ink = self::ink($hatched, $sheet, ViewKind::Plan);
            $strokes = array_filter($ink->lines, static fn (InkLine $l): bool => self::ORANGE === $l->colour && InkLine::FINE === $l->width);
            self::assertGreaterThan(20, \count($strokes), $hatch->value);
            [$border] = array_values(array_filter($ink->lines, static fn (InkLine $l): bool => self::ORANGE === $l->colour && InkLine::BROAD === $l->width));
            $within = Polygon::bounds(self::some($border->points));
            foreach ($strokes as $stroke) {
                [$a, $b] = $stroke->points;
                self::assertTrue(min($a[0], $b[0]) > $within[0] - 0.01 && max($a[0], $b[0]) < $within[2] + 0.01);
                foreach ($ink->texts as $text) {
                    $room = Polygon::bounds($text->room());
                    foreach ([0.02, 0.25, 0.5, 0.75, 0.98] as $t) {
                        [$x, $y] = [$a[0] + $t * ($b[0] - $a[0]), $a[1] + $t * ($b[1] - $a[1])];
                        self::assertFalse($x > $room[0] && $x < $room[2] && $y > $room[1] && $y < $room[3], "$hatch->value runs through $text->words");
                    }
                }
            }
        }
    }

    /**
     * @param list<array{float, float}> $points
     *
     * @return non-empty-list<array{float, float}>
     */
    private static function some(array $points): array
    {
        return [] === $points ? self::fail('Nothing is drawn.') : $points;
    }
}
