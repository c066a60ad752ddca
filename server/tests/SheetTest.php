<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;

/** The plan of a storey is printed as it is traced, and says what it rests on. */
final class SheetTest extends TestCase
{
    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
    }

    private function path(string $format, string $query = ''): string
    {
        return "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/sheet.$format$query";
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
        $svg = $this->text($this->path('svg', '?scale=50&paper=A3'));
        self::assertStringContainsString('width="420mm" height="297mm"', $svg);
        foreach (['7 Tea room', '20.16 m²', '>6000<', '>4000<', '>5600<', '>1250<', 'assumed: stove', '1:50', 'Not traced from a drawing.'] as $words) {
            self::assertStringContainsString($words, $svg);
        }
        self::assertStringContainsString('stroke-dasharray', $svg);
        $this->desk->change([['do' => 'set', 'type' => 'project', 'id' => $this->desk->id, 'values' => ['shows' => 'm']]]);
        self::assertStringContainsString('>6.000<', $this->text($this->path('svg', '?scale=50')), 'In the unit that the project is shown in.');
    }

    public function testItSaysFromWhichDrawingItWasTracedAndWhetherThatIsTrue(): void
    {
        $this->desk->bringIn(__DIR__.'/../../demo/sallow-fen-ground.jpg');
        $this->desk->imported();
        $this->traced();
        $honest = $this->text($this->path('svg'));
        self::assertMatchesRegularExpression('/Traced from ground[^<]*, not trued up\./', $honest);
        $this->desk->change($this->desk->knownLength([[600, 400], [2600, 400]], '10 000'));
        $this->desk->change($this->desk->knownLength([[600, 400], [600, 1800]], '7 000'));
        $told = $this->text($this->path('svg'));
        self::assertSame(1, preg_match('/Traced from ground[^<]*, ±([\d.]+) mm over 10 m, not checked\./', $told, $found));
        $fits = JsonValue::of($this->desk->state())->get('fits')->items();
        self::assertEqualsWithDelta($fits[0]->get('plusMinusMmPer10m')->number(), (float) $found[1], 0.51, 'As the ledger tells it.');
    }

    public function testItIsPrintedAsPdfWithItsLettersAndAsPicture(): void
    {
        $this->traced();
        $pdf = $this->text($this->path('pdf', '?paper=A4&upright=1&scale=100'));
        self::assertStringStartsWith('%PDF', $pdf);
        $file = (string) tempnam(sys_get_temp_dir(), 'sheet');
        file_put_contents($file, $pdf);
        exec('pdffonts '.escapeshellarg($file), $fonts);
        exec('pdftotext '.escapeshellarg($file).' -', $words);
        exec('pdfinfo '.escapeshellarg($file), $info);
        unlink($file);
        self::assertStringContainsString('PublicSans', implode("\n", $fonts));
        self::assertStringContainsString('7 Tea room', implode("\n", $words));
        self::assertStringContainsString('595.276 x 841.89', implode("\n", $info));
        $png = $this->text($this->path('png', '?paper=A4&upright=1&scale=100'));
        $size = getimagesizefromstring($png);
        self::assertIsArray($size);
        self::assertEqualsWithDelta([210.0 / 25.4 * 300.0, 297.0 / 25.4 * 300.0], [(float) $size[0], (float) $size[1]], 1.0);
    }

    public function testWhatCannotBePrintedIsRefusedInWords(): void
    {
        $refused = function (string $query): string {
            [$status, $answer] = $this->desk->client->send('GET', $this->path('svg', $query));
            self::assertSame(422, $status);

            return json_encode($answer, \JSON_THROW_ON_ERROR);
        };
        self::assertStringContainsString('trace some first', $refused(''));
        $this->traced();
        self::assertStringContainsString('do not fit', $refused('?scale=5'));
        self::assertStringContainsString('A4, A3', $refused('?paper=B4'));
        self::assertStringContainsString('whole number', $refused('?scale=big'));
    }
}
