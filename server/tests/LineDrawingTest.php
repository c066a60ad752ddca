<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PlanningSet;
use Plinth\Core\Sheets\SheetPainter;
use Plinth\Core\Sheets\SheetSubject;

/** A drawing that a program has made is brought in, and its walls are offered with the ends of its own lines. */
final class LineDrawingTest extends TestCase
{
    private Desk $desk;
    private Storey $storey;
    private string $path;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
        $this->storey = PlanReader::read((string) file_get_contents(__DIR__.'/../../demo/reedmace-lodge.json'))->storeys[0];
        $this->path = (string) tempnam(sys_get_temp_dir(), 'lines');
    }

    protected function tearDown(): void
    {
        unlink($this->path);
    }

    /** @return array{list<JsonValue>, list<JsonValue>} walls and openings that are offered */
    private function offered(): array
    {
        $this->desk->imported();
        $this->desk->ask('find-walls', $this->desk->drawing);
        self::assertSame('done', $this->desk->ended('find-walls', $this->desk->drawing)->get('state')->text());
        $answer = JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/proposals"));

        // What the ink alone shows beside them is offered for a look.
        $sure = array_values(array_filter($answer->get('walls')->items(), static fn (JsonValue $w): bool => $w->get('sure')->boolean()));
        $ids = array_map(static fn (JsonValue $w): string => $w->get('id')->text(), $sure);
        $in = array_values(array_filter($answer->get('openings')->items(), static fn (JsonValue $o): bool => \in_array($o->get('wall')->text(), $ids, true)));

        return [$sure, $in];
    }

    /** It says its unit, so that nothing is to be calibrated: walls lie where they are in the file. */
    public function testADxfGivesItsWallsToAHundredthOfAMillimetre(): void
    {
        file_put_contents($this->path, DxfWriter::building([[$this->storey, Derivation::of($this->storey), new PlanBeside()]]));
        $this->desk->bringIn($this->path, 'lodge.dxf');
        [$walls, $openings] = $this->offered();
        self::assertCount(\count($this->storey->walls), $walls);
        self::assertCount(\count($this->storey->openings), $openings);
        $ends = static fn (float $x1, float $y1, float $x2, float $y2): array => $x1 + 1e-3 * $y1 <= $x2 + 1e-3 * $y2 ? [$x1, $y1, $x2, $y2] : [$x2, $y2, $x1, $y1];
        $theirs = array_map(static fn (JsonValue $w): array => [...$ends(...$w->get('from')->pair(), ...$w->get('to')->pair()), $w->get('thickness')->number()], $walls);
        $ours = array_map(static fn (Wall $w): array => [...$ends($w->from->x, $w->from->y, $w->to->x, $w->to->y), $w->thickness], $this->storey->walls);
        $near = static fn (array $a): string => implode(' ', array_map(static fn (mixed $v): string => \sprintf('%.0f', Desk::float($v)), $a));
        usort($theirs, static fn (array $a, array $b): int => $near($a) <=> $near($b));
        usort($ours, static fn (array $a, array $b): int => $near($a) <=> $near($b));
        self::assertEqualsWithDelta($ours, $theirs, 0.01);
    }

    /** A sheet of ours at 1 : 50 as PDF, or as the SVG that it is made of. */
    private function printed(Storey $storey, bool $isSvg = false): void
    {
        $subject = new SheetSubject('Lodge', new Plan([$storey]));
        $sheet = PlanningSet::plan($subject, $storey->id, PaperSize::A2, false);
        file_put_contents($this->path, SvgWriter::write((new SheetPainter($subject))->sheet($sheet)));
        if ($isSvg) {
            $this->desk->bringIn($this->path, 'lodge.svg');

            return;
        }
        exec('rsvg-convert --unlimited -f pdf -o '.escapeshellarg("$this->path.pdf").' '.escapeshellarg($this->path), $out, $code);
        self::assertSame(0, $code);
        $this->desk->bringIn("$this->path.pdf", 'lodge.pdf');
        unlink("$this->path.pdf");
    }

    /**
     * Letters that a recogniser of English would not read: they are in the file, whichever it is. A DXF has the letters of its rooms and is
     * brought in with them drawn.
     */
    #[TestWith(['pdf'])]
    #[TestWith(['svg'])]
    #[TestWith(['dxf'])]
    public function testNamesAreThoseThatThePageSaysItself(string $format): void
    {
        $names = ['Wäsche', 'Spülküche', 'Flur', 'Łazienka'];
        $storey = $this->storey;
        $rooms = array_map(static fn (Room $r, string $name): Room => new Room($r->id, $name, '', $r->anchor), $storey->rooms, $names);
        $named = new Storey($storey->id, $storey->name, $storey->elevation, $storey->height, $storey->walls, $storey->openings, $rooms);
        if ('dxf' === $format) {
            file_put_contents($this->path, DxfWriter::building([[$named, Derivation::of($named), new PlanBeside()]]));
            $this->desk->bringIn($this->path, 'lodge.dxf');
        } else {
            $this->printed($named, 'svg' === $format);
        }
        $this->desk->imported();
        $this->desk->ask('read-figures', $this->desk->drawing);
        self::assertSame('done', $this->desk->ended('read-figures', $this->desk->drawing)->get('state')->text());
        $read = JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/drawings/{$this->desk->drawing}/readings"));
        $found = array_map(static fn (JsonValue $r): string => mb_strtoupper($r->get('name')->text()), $read->get('rooms')->items());
        self::assertSame([], array_diff(array_map(mb_strtoupper(...), $names), $found), implode(', ', $found));
    }

    public function testACurvedWallIsOfferedAndLaidAsTheArcThatItIs(): void
    {
        $round = array_map(static fn (Wall $w): Wall => new Wall($w->id, $w->from, $w->to, $w->thickness, rise: 'gE' === $w->id ? -1500.0 : 0.0), $this->storey->walls);
        $storey = new Storey($this->storey->id, 'Ground', 0.0, 2700.0, $round, $this->storey->openings);
        file_put_contents($this->path, DxfWriter::building([[$storey, Derivation::of($storey), new PlanBeside()]]));
        $this->desk->bringIn($this->path, 'lodge.dxf');
        [$walls, $openings] = $this->offered();
        self::assertCount(\count($round), $walls);
        self::assertCount(\count($storey->openings), $openings);
        $places = array_flip(array_map(static fn (JsonValue $w): string => $w->get('id')->text(), $walls));
        $laid = $this->desk->change([['do' => 'lay', 'lay' => [
            'storey' => $this->desk->storey,
            'walls' => array_map(static fn (JsonValue $w): array => [
                'from' => $w->get('from')->pair(), 'to' => $w->get('to')->pair(), 'thickness' => $w->get('thickness')->number(), 'rise' => $w->get('rise')->number(),
            ], $walls),
            'openings' => array_map(static fn (JsonValue $o): array => [
                'wall' => $places[$o->get('wall')->text()], 'kind' => $o->get('kind')->text(), 'offset' => $o->get('offset')->number(),
                'width' => $o->get('width')->number(), 'sill' => 0.0, 'height' => 2000.0,
            ], $openings),
        ]]]);
        self::assertCount(\count($storey->openings), Desk::rows($laid, 'opening'));
        $rises = array_map(static fn (array $w): float => abs(Desk::float($w['values']['rise'])), Desk::rows($laid, 'wall'));
        self::assertNotEmpty($rises);
        self::assertEqualsWithDelta([1500.0, 0.0], [max($rises), array_sum($rises) - max($rises)], 0.1);
    }

    /** Before it is calibrated sizes are a guess, but all of them the same. */
    public function testAPrintedSheetGivesItsWallsInProportion(): void
    {
        $this->printed($this->storey);
        [$walls, $openings] = $this->offered();
        self::assertCount(\count($this->storey->walls), $walls);
        self::assertCount(\count($this->storey->openings), $openings);
        $lengths = array_map(static fn (JsonValue $w): float => hypot($w->get('from')->pair()[0] - $w->get('to')->pair()[0], $w->get('from')->pair()[1] - $w->get('to')->pair()[1]), $walls);
        $real = array_map(static fn (Wall $w): float => $w->length(), $this->storey->walls);
        sort($lengths);
        sort($real);
        $scale = array_sum($real) / array_sum($lengths);
        self::assertEqualsWithDelta($real, array_map(static fn (float $l): float => $scale * $l, $lengths), 0.5);
    }
}
