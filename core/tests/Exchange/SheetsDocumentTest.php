<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Exchange\SheetsDocument\SheetsReader;
use Plinth\Core\Exchange\SheetsDocument\SheetsWriter;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Sheets\Model\PrintSheet;
use Plinth\Core\Sheets\Model\SheetSide;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\Model\ViewMark;
use Plinth\Core\Tests\Plan\Plans;

/** Sheets go into a plan document and come out of it as they were; what breaks the format is refused where it stands. */
final class SheetsDocumentTest extends TestCase
{
    /** @param array<string, mixed> $more */
    private static function json(array $more): string
    {
        return json_encode([...PlanWriter::document(new Plan([Plans::storey(Plans::rectangle())])), ...$more], \JSON_THROW_ON_ERROR);
    }

    private static function isValid(string $json): bool
    {
        $schema = json_decode((string) file_get_contents(__DIR__.'/../../../docs/plan-format.schema.json'), false, 64, \JSON_THROW_ON_ERROR);
        self::assertIsObject($schema);

        return (new Validator())->validate(json_decode($json, false, 64, \JSON_THROW_ON_ERROR), $schema)->isValid();
    }

    public function testAllOfThemComeBackAsTheyWere(): void
    {
        $sides = [
            new SheetSide('s', 'South', [new Point(0.0, -5000.0), new Point(9000.0, -5000.0)], depth: 12_000.0),
            new SheetSide('c', 'Section A', [new Point(0.0, 1000.0), new Point(3000.0, 1000.0), new Point(3000.0, 2000.0), new Point(9000.0, 2000.0)], true),
        ];
        $views = [];
        foreach (ViewKind::cases() as $i => $kind) {
            $scale = $kind->isToScale() ? 50.0 * ($i + 1) : 100.0;
            $marks = ViewKind::Plan === $kind ? [new ViewMark('below.rooms.1a', 3.0, -2.5), new ViewMark('below.overall', hidden: true)] : [];
            $window = 0 === $i % 2 ? [0.0, 0.0, 1500.5, 900.0] : null;
            $views[] = new SheetView("v$i", $kind, 0 === $i ? 's1' : '', 10.0 * $i, 20.5, $scale, $window, 1 === $i % 3 ? 80.0 : null, "T$i", "a\nb", Shows::usually($kind), 2.0 * $i, 3.0 * $i, $marks);
        }
        $sheets = [new PrintSheet('p', 841.0, 594.0, $views, 'Plans', 'A-01', 'owner', 'drawn', 'approved', '2026-12-01'), new PrintSheet('q', 210.0, 297.0, [])];
        $json = self::json(SheetsWriter::parts($sheets, $sides));
        self::assertTrue(self::isValid($json));
        $read = SheetsReader::read($json);
        self::assertEquals($sheets, $read->sheets);
        self::assertEquals($sides, $read->sides);
        self::assertCount(1, PlanReader::read($json)->storeys, 'Whoever wants the plan alone reads past them.');
        self::assertSame([], SheetsWriter::parts([], []), 'Of what there is none nothing is said.');
    }

    /** @return iterable<string, array{string, array<string, mixed>, bool}> where it is refused, and whether the schema refuses it too */
    public static function wrong(): iterable
    {
        $view = ['id' => 'v', 'kind' => 'plan', 'at' => [1, 2]];
        $sheet = static fn (array $more): array => ['sheets' => [['id' => 'p', 'width' => 420, 'height' => 297, ...$more]]];
        yield 'paper as small as a stamp' => ['sheets/0/width', $sheet(['width' => 20]), true];
        yield 'a kind that is none' => ['sheets/0/views/0/kind', $sheet(['views' => [['kind' => 'wall'] + $view]]), true];
        yield 'no place' => ['sheets/0/views/0/at', $sheet(['views' => [['id' => 'v', 'kind' => 'plan']]]), true];
        yield 'a scale of nothing' => ['sheets/0/views/0/scale', $sheet(['views' => [$view + ['scale' => 0]]]), true];
        yield 'a window inside out' => ['sheets/0/views/0/window', $sheet(['views' => [$view + ['window' => [5, 5, 1, 1]]]]), false];
        yield 'what is not shown anywhere' => ['sheets/0/views/0/shows/0', $sheet(['views' => [$view + ['shows' => ['shadows']]]]), true];
        yield 'an id twice' => ['sheets/0/views/1/id', $sheet(['views' => [$view, $view]]), false];
        yield 'a key that is not known' => ['sheets/0/colour', $sheet(['colour' => 'red']), true];
        yield 'a side without a line' => ['sides/0/line', ['sides' => [['id' => 's', 'line' => [[0, 0]]]]], true];
    }

    /** @param array<string, mixed> $parts */
    #[DataProvider('wrong')]
    public function testWhatBreaksTheFormatIsRefusedWhereItStands(string $at, array $parts, bool $bySchema): void
    {
        self::assertSame(!$bySchema, self::isValid(self::json($parts)));
        try {
            SheetsReader::read(self::json($parts));
            self::fail("$at was accepted.");
        } catch (UnreadableDocument $e) {
            self::assertSame($at, $e->at());
        }
    }
}
