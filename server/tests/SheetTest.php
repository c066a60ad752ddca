<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\SheetsDocument\SheetsReader;

/** The plan of a storey is printed as it is traced, and says what it rests on. */
final class SheetTest extends TestCase
{
    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
    }

    private function path(string $sheet, string $file): string
    {
        return "/api/projects/{$this->desk->id}/sheets/$sheet/$file";
    }

    /**
     * @param array<string, mixed> $view of the storey's plan
     *
     * @return array{string, string} ids of a sheet and of the view on it
     */
    private function sheet(array $view = [], float $width = 420.0, float $height = 297.0): array
    {
        [$sheet, $of] = [Desk::newId(), Desk::newId()];
        $this->desk->change([
            ['do' => 'add', 'type' => 'printSheet', 'id' => $sheet, 'values' => ['order' => 0, 'width' => $width, 'height' => $height, 'part' => 'Ground floor', 'number' => 'A-01', 'owner' => '', 'creator' => '', 'approved' => '', 'date' => '2026-12-01']],
            ['do' => 'add', 'type' => 'sheetView', 'id' => $of, 'values' => $view + [
                'sheet' => $sheet, 'kind' => 'plan', 'storey' => $this->desk->storey, 'side' => null, 'drawing' => null, 'x' => 120, 'y' => 160, 'scale' => 50, 'fromX' => null, 'fromY' => null, 'toX' => null, 'toY' => null, 'width' => null, 'title' => '', 'words' => '', 'shows' => 'dimensions,stamps,numbers,objects,drawn,notes', 'turn' => 0, 'tilt' => 0,
            ]],
        ]);

        return [$sheet, $of];
    }

    /** @return array<string, string> what poppler and qpdf (Debian) say of a PDF */
    private static function told(string $pdf): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'sheet');
        file_put_contents($file, $pdf);
        $told = [];
        foreach (['info' => 'pdfinfo -box %s', 'fonts' => 'pdffonts %s', 'words' => 'pdftotext %s -', 'check' => 'qpdf --check %s 2>&1', 'outlines' => 'qpdf --json=2 --json-key=outlines --json-key=qpdf %s'] as $what => $command) {
            $lines = [];
            exec(\sprintf($command, escapeshellarg($file)), $lines);
            $told[$what] = implode("\n", $lines);
        }
        unlink($file);

        return $told;
    }

    private function traced(): void
    {
        $ring = $this->desk->chain([[100, 100], [5900, 100], [5900, 3900], [100, 3900]], true);
        $here = ['storey' => $this->desk->storey, 'side' => null];
        $this->desk->change([
            $ring['operation'],
            ['do' => 'add', 'type' => 'room', 'id' => Desk::newId(), 'values' => ['storey' => $this->desk->storey, 'name' => 'Tea room', 'number' => '7', 'x' => 3000, 'y' => 2000]],
            ['do' => 'add', 'type' => 'note', 'id' => Desk::newId(), 'values' => $here + ['x' => 1500, 'y' => 800, 'words' => 'stove', 'assumption' => true]],
            ['do' => 'add', 'type' => 'dimension', 'id' => Desk::newId(), 'values' => $here + ['x1' => 200, 'y1' => 3000, 'x2' => 1450, 'y2' => 3000, 'off' => 100]],
            ['do' => 'add', 'type' => 'drawnLine', 'id' => Desk::newId(), 'values' => $here + ['line' => '4000 500; 5000 500; 5000 1200', 'closed' => true, 'fill' => 'hatched', 'kind' => 'dashed']],
        ]);
    }

    private function text(string $path): string
    {
        [$status, $answer] = $this->desk->client->send('GET', $path);
        self::assertSame(200, $status);

        return Desk::text($answer['text'] ?? null);
    }

    public function testASheetShowsWhatIsTracedAtItsScaleAndSaysWhatItRestsOn(): void
    {
        $this->traced();
        [$sheet] = $this->sheet();
        $svg = $this->text($this->path($sheet, 'sheet.svg'));
        self::assertStringContainsString('width="420mm" height="297mm"', $svg);
        foreach (['7 Tea room', '20.16 m²', '>6000<', '>4000<', '>5600<', '>1250<', 'assumed: stove', '1:50', 'Not traced from a drawing.', 'A-01', '1/1'] as $words) {
            self::assertStringContainsString($words, $svg);
        }
        self::assertStringContainsString('stroke-dasharray', $svg);
        $this->desk->change([['do' => 'set', 'type' => 'project', 'id' => $this->desk->id, 'values' => ['shows' => 'm']]]);
        self::assertStringContainsString('>6.000<', $this->text($this->path($sheet, 'sheet.svg')), 'In the unit that the project is shown in.');
    }

    public function testItSaysFromWhichDrawingItWasTracedAndWhetherThatIsTrue(): void
    {
        $this->desk->bringIn(__DIR__.'/../../demo/sallow-fen-ground.jpg');
        $this->desk->imported();
        $this->desk->skew();
        $this->traced();
        [$sheet] = $this->sheet(['shows' => 'ink']);
        $honest = $this->text($this->path($sheet, 'sheet.svg'));
        self::assertMatchesRegularExpression('/Traced from ground[^<]*, not trued up\./', $honest);
        $this->desk->change($this->desk->knownLength([[600, 400], [2600, 400]], '10 000'));
        $this->desk->change($this->desk->knownLength([[600, 400], [600, 1800]], '7 000'));
        $told = $this->text($this->path($sheet, 'sheet.svg'));
        self::assertSame(1, preg_match('/Traced from ground[^<]*, ±([\d.]+) mm over 10 m, not checked\./', $told, $found));
        // A length that is held out tests it: whether it holds is said.
        $held = Desk::newId();
        $this->desk->change($this->desk->knownLength([[600, 1800], [2600, 1800]], '10 000', $held));
        $hold = fn (string $text): array => $this->desk->change([['do' => 'set', 'type' => 'knownLength', 'id' => $held, 'values' => ['heldOut' => true, 'text' => $text]]]);
        $hold('10 000');
        self::assertStringContainsString('its check length holds.', $this->text($this->path($sheet, 'sheet.svg')));
        $hold('11 200');
        self::assertStringContainsString('its check length does not hold.', $this->text($this->path($sheet, 'sheet.svg')));
        $this->desk->change([['do' => 'remove', 'type' => 'knownLength', 'id' => $held]]);
        $fits = JsonValue::of($this->desk->state())->get('fits')->items();
        self::assertEqualsWithDelta($fits[0]->get('plusMinusMmPer10m')->number(), (float) $found[1], 0.51, 'As the ledger tells it.');
        // The drawing's own picture lies under the lines, where it lies on the storey: 10 m of it are 200 mm of paper at 1:50.
        self::assertSame(1, preg_match('~transform="matrix\(([-\d. ]+)\)" xlink:href="data:image/jpeg;base64,([^"]+)"~', $told, $image));
        $matrix = array_map(floatval(...), explode(' ', $image[1]));
        $size = getimagesizefromstring((string) base64_decode($image[2], true));
        self::assertIsArray($size);
        $drawing = Desk::rows($this->desk->state(), 'drawing')[0]['values'];
        $wide = Desk::float($drawing['width']);
        self::assertEqualsWithDelta(200.0 / 2000.0, hypot($matrix[0], $matrix[1]) / $wide, 0.01, 'mm of paper for each pixel of the page');
        self::assertEqualsWithDelta(200.0, $size[0] / hypot($matrix[0], $matrix[1]) * 25.4, 60.0, 'dots an inch, unless the page has fewer');
    }

    public function testItIsPrintedAsPdfWithItsLettersAndAsPicture(): void
    {
        $this->traced();
        [$sheet] = $this->sheet(['x' => 70, 'y' => 120, 'scale' => 100], 210.0, 297.0);
        $pdf = $this->text($this->path($sheet, 'sheet.pdf'));
        self::assertStringStartsWith('%PDF', $pdf);
        $told = self::told($pdf);
        self::assertStringContainsString('PublicSans', $told['fonts']);
        self::assertStringContainsString('7 Tea room', $told['words']);
        self::assertStringContainsString('595.276 x 841.89', $told['info']);
        $png = $this->text($this->path($sheet, 'sheet.png'));
        $size = getimagesizefromstring($png);
        self::assertIsArray($size);
        self::assertEqualsWithDelta([210.0 / 25.4 * 300.0, 297.0 / 25.4 * 300.0], [(float) $size[0], (float) $size[1]], 1.0);
        // In pieces for a small printer, which leaves its edge white: an A4 sheet is more than one of them.
        $tiles = self::told($this->text($this->path($sheet, 'tiles.pdf?paper=A4')));
        self::assertMatchesRegularExpression('/Pages: +2\b/', $tiles['info']);
        self::assertStringContainsString('Ground floor, A2', $tiles['words']);
    }

    public function testADimensionIsMovedAndLeftOutAndStaysSoWhenAWallIsMoved(): void
    {
        $this->traced();
        [$sheet, $view] = $this->sheet(['shows' => 'dimensions']);
        $figures = function () use ($sheet): array {
            preg_match_all('~<text x="([\d.]+)" y="([\d.]+)"[^>]* data-key="([^"]+)"[^>]*>([^<]+)</text>~', $this->text($this->path($sheet, 'sheet.svg')), $found, \PREG_SET_ORDER);

            return array_combine(array_column($found, 3), array_map(static fn (array $f): array => [(float) $f[1], (float) $f[2], $f[4]], $found));
        };
        $before = $figures();
        $overall = array_keys(array_filter($before, static fn (array $f, string $key): bool => '6000' === $f[2] && str_starts_with($key, 'below.'), \ARRAY_FILTER_USE_BOTH))[0] ?? '';
        $rooms = array_keys(array_filter($before, static fn (array $f, string $key): bool => '3600' === $f[2] && str_starts_with($key, 'left.'), \ARRAY_FILTER_USE_BOTH))[0] ?? '';
        $this->desk->change([
            ['do' => 'add', 'type' => 'viewMark', 'id' => Desk::newId(), 'values' => ['view' => $view, 'of' => $overall, 'dx' => 20, 'dy' => 5, 'hidden' => false]],
            ['do' => 'add', 'type' => 'viewMark', 'id' => Desk::newId(), 'values' => ['view' => $view, 'of' => $rooms, 'dx' => 0, 'dy' => 0, 'hidden' => true]],
        ]);
        $node = Desk::rows($this->desk->state(), 'node');
        $east = array_values(array_filter($node, static fn (array $n): bool => $n['values']['x'] > 3000));
        $this->desk->change(array_map(static fn (array $n): array => ['do' => 'set', 'type' => 'node', 'id' => $n['id'], 'values' => ['x' => 6400]], $east));
        $after = $figures();
        self::assertSame('6500', $after[$overall][2]);
        self::assertEqualsWithDelta($before[$overall][1] + 5.0, $after[$overall][1], 1e-3);
        self::assertEqualsWithDelta($before[$overall][0] + 20.0 + 5.0, $after[$overall][0], 1e-3, 'Its middle has moved by a quarter of a metre, 5 mm at 1:50.');
        self::assertArrayNotHasKey($rooms, $after);
        self::assertArrayHasKey($rooms, $before);
    }

    /** From a project to its set: proposed, taken in one change, printed as one PDF with bookmarks, title, language and boxes. */
    public function testASetIsProposedTakenAndPrintedIntoOneDocument(): void
    {
        $this->traced();
        $side = Desk::newId();
        $this->desk->change([['do' => 'add', 'type' => 'side', 'id' => $side, 'values' => ['name' => 'South', 'fromX' => -1000, 'fromY' => -5000, 'toX' => 7000, 'toY' => -5000, 'cut' => false]]]);
        $this->desk->client->refused(409, 'POST', "/api/projects/{$this->desk->id}/jobs/print-sheets/{$this->desk->id}");
        $proposal = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/sheets/proposal?paper=A3")['sheets'];
        self::assertIsArray($proposal);
        $add = [];
        foreach ($proposal as $sheet) {
            self::assertIsArray($sheet);
            self::assertIsArray($sheet['views']);
            $add[] = ['do' => 'add', 'type' => 'printSheet', 'id' => $sheet['id'], 'values' => $sheet['values']];
            foreach ($sheet['views'] as $view) {
                self::assertIsArray($view);
                $add[] = ['do' => 'add', 'type' => 'sheetView', 'id' => $view['id'], 'values' => $view['values']];
            }
        }
        $this->desk->change($add);
        self::assertCount(\count($proposal), Desk::rows($this->desk->state(), 'printSheet'));
        $this->desk->client->refused(409, 'GET', "/api/projects/{$this->desk->id}/sheets/set.pdf");
        $this->desk->ask('print-sheets', $this->desk->id);
        self::assertSame('done', $this->desk->ended('print-sheets', $this->desk->id)->get('state')->text());
        $told = self::told($this->text("/api/projects/{$this->desk->id}/sheets/set.pdf"));
        self::assertStringContainsString('No syntax or stream encoding errors found', $told['check']);
        self::assertMatchesRegularExpression('/Pages: +'.\count($proposal).'\b/', $told['info']);
        self::assertMatchesRegularExpression('/Title: +Test/', $told['info'], 'The project’s name.');
        self::assertMatchesRegularExpression('/TrimBox: +0\.00 +0\.00 +1190\.55 +841\.89/', $told['info']);
        foreach (['A-01 Site, notes and key', 'A-02 Plans', 'A-03 Elevations', '"/Lang": "u:en"'] as $said) {
            self::assertStringContainsString($said, $told['outlines']);
        }
        self::assertStringContainsString('7 Tea room', $told['words']);
        self::assertStringContainsString('South', $told['words']);
        // The plan document has them too, and whoever reads it finds them there.
        $document = json_encode($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/plan.json"), \JSON_THROW_ON_ERROR);
        self::assertCount(\count($proposal), SheetsReader::read($document)->sheets);
        self::assertSame('South', SheetsReader::read($document)->sides[0]->name);
        // Whatever is changed makes it one of yesterday.
        $this->desk->change([['do' => 'set', 'type' => 'side', 'id' => $side, 'values' => ['name' => 'Lane side']]]);
        $this->desk->client->refused(409, 'GET', "/api/projects/{$this->desk->id}/sheets/set.pdf");
        // A view goes with what it shows, and a sheet takes its views along.
        $this->desk->change([['do' => 'remove', 'type' => 'side', 'id' => $side]]);
        self::assertSame([], array_filter(Desk::rows($this->desk->state(), 'sheetView'), static fn (array $v): bool => 'side' === $v['values']['kind']));
    }

    public function testWhatCannotBePrintedIsRefusedInWords(): void
    {
        [$sheet, $view] = $this->sheet();
        $set = fn (array $values): array => $this->desk->refused(422, [['do' => 'set', 'type' => 'sheetView', 'id' => $view, 'values' => $values]]);
        self::assertStringContainsString('say which', Desk::text($set(['storey' => null])['message']));
        self::assertStringContainsString('100 is 1:100', Desk::text($set(['scale' => 1e6])['message']));
        self::assertStringContainsString('give both, or neither', Desk::text($set(['fromX' => 1])['message']));
        self::assertStringContainsString('dimensions, inside', Desk::text($set(['shows' => 'dimensions,nonsense'])['message']));
        self::assertStringContainsString('0° and 90°', Desk::text($set(['tilt' => 91])['message']));
        $paper = $this->desk->refused(422, [['do' => 'set', 'type' => 'printSheet', 'id' => $sheet, 'values' => ['width' => 20]]]);
        self::assertStringContainsString('between 100 and 5 000 mm', Desk::text($paper['message']));
        $refused = $this->desk->client->refused(422, 'GET', "/api/projects/{$this->desk->id}/sheets/proposal?paper=B4");
        self::assertStringContainsString('A4, A3', Desk::text($refused['message']));
    }
}
