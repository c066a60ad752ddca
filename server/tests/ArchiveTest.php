<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\Zip\ZipFile;
use Plinth\Core\Exchange\Zip\ZipReader;

/** A project leaves as one file, and is the same project where that is brought in: every row, every source, every file made of it. */
final class ArchiveTest extends TestCase
{
    private const FILES = ['plan.json', 'building.ifc', 'building.dxf', 'tables.zip', 'plan.geojson', 'building.glb'];
    private const MOST = 100_000_000;

    private Client $client;
    /** @var list<string> */
    private array $paths = [];

    protected function setUp(): void
    {
        $this->client = Client::ofStack()->signIn();
    }

    protected function tearDown(): void
    {
        array_map(unlink(...), array_filter($this->paths, is_file(...)));
    }

    private function file(string $content): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'archive');
        file_put_contents($path, $content);
        $this->paths[] = $path;

        return $path;
    }

    private function taken(string $project, string $name = 'archive.zip'): string
    {
        [$status, $body] = $this->client->send('GET', "/api/projects/$project/$name");
        self::assertSame(200, $status, $name);

        return isset($body['text']) ? Desk::text($body['text']) : json_encode($body, \JSON_THROW_ON_ERROR);
    }

    /** @return array{int, array<mixed>} */
    private function brought(string $archive): array
    {
        return $this->client->send('POST', '/api/archives', form: ['file' => new \CURLFile($this->file($archive), 'application/zip', 'archive.zip')]);
    }

    /** @return list<array<string, mixed>> the rows of a project, whatever it is called itself, but for the changes that made them */
    private function rows(string $project): array
    {
        return array_map(
            static fn (JsonValue $row): array => array_diff_key($row->map(), 'project' === $row->get('type')->text() ? ['revision' => 0, 'id' => 0] : ['revision' => 0]),
            JsonValue::of($this->client->ok('GET', "/api/projects/$project"))->get('rows')->items(),
        );
    }

    private function goes(string $project): void
    {
        $this->client->ok('PUT', "/api/projects/$project/bin");
        $this->client->ok('DELETE', "/api/projects/$project");
    }

    /** With a drawing, known lengths, walls, an opening, words that are awkward, a set of sheets; and a newer page that takes the place of another. */
    private function project(): Desk
    {
        $desk = new Desk($this->client);
        $desk->bringIn(__DIR__.'/../../demo/sallow-fen-ground.jpg', 'grün "1"; =1+1.jpg', more: ['origin' => "shelf\nמדף 🗄"]);
        $desk->bringIn(__DIR__.'/../../demo/sallow-fen-ground.jpg', 'newer.jpg', more: ['replaces' => (string) $desk->page]);
        $round = $desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $desk->change([$round['operation'], Desk::door($round['walls'][0], 1000.0, 900.0), ['do' => 'add', 'type' => 'room', 'id' => Desk::newId(), 'values' => [
            'storey' => $desk->storey, 'name' => '=1+1 "חדר" 🏠', 'number' => '', 'x' => 3000, 'y' => 2000,
        ]]]);
        $sheets = [];
        foreach (JsonValue::of($this->client->ok('GET', "/api/projects/$desk->id/sheets/proposal?paper=A3"))->get('sheets')->items() as $sheet) {
            $sheets[] = ['do' => 'add', 'type' => 'printSheet', 'id' => $sheet->get('id')->text(), 'values' => $sheet->get('values')->map()];
            foreach ($sheet->get('views')->items() as $view) {
                $sheets[] = ['do' => 'add', 'type' => 'sheetView', 'id' => $view->get('id')->text(), 'values' => $view->get('values')->map()];
            }
        }
        $desk->change($sheets);

        return $desk;
    }

    public function testItComesBackAsItWasWithAllThatIsMadeOfIt(): void
    {
        $desk = $this->project();
        [$rows, $archive] = [$this->rows($desk->id), $this->taken($desk->id)];
        self::assertSame($archive, $this->taken($desk->id), 'The same project is the same file.');
        $sheets = array_filter($rows, static fn (array $row): bool => 'printSheet' === $row['type']);
        $names = [...self::FILES, ...array_map(static fn (array $row): string => 'sheets/'.Desk::text($row['id']).'/sheet.svg', $sheets)];
        $files = array_map(fn (string $name): string => $this->taken($desk->id, $name), $names);
        $this->goes($desk->id);
        self::assertSame([200, ['id' => $desk->id]], $this->brought($archive));
        self::assertEquals($rows, $this->rows($desk->id));
        self::assertSame($archive, $this->taken($desk->id), 'Out again it is the same file.');
        foreach ($names as $i => $name) {
            self::assertSame($files[$i], $this->taken($desk->id, $name), $name);
        }
        // Its sources are there byte for byte, and its pictures are made again.
        $zip = ZipReader::open($this->file($archive), self::MOST);
        $sources = array_values(array_filter($zip->names(), static fn (string $n): bool => str_starts_with($n, 'sources/')));
        self::assertCount(1, $sources);
        self::assertSame((string) file_get_contents(__DIR__.'/../../demo/sallow-fen-ground.jpg'), $zip->text($sources[0], self::MOST));
        Waiting::until(function () use ($desk): ?bool {
            $pages = JsonValue::of($this->client->ok('GET', "/api/projects/$desk->id"))->get('pages')->items();

            return [] === array_filter($pages, static fn (JsonValue $p): bool => '' === $p->get('pictures')->text()) ? true : null;
        }, 'The pictures were not made');
        // Where the project is there already it becomes another one, and so for somebody else.
        $second = Desk::text($this->brought($archive)[1]['id']);
        self::assertNotSame($desk->id, $second);
        self::assertEquals($rows, $this->rows($second));
        self::assertSame(1, JsonValue::of($this->client->ok('GET', "/api/projects/$second"))->get('revision')->count());
    }

    /** Every kind of row that the demo has, with its fits, sides, sites and sheets. */
    public function testTheDemosProjectsComeAsOthersWithTheSameRows(): void
    {
        $kinds = [];
        foreach (JsonValue::of($this->client->ok('GET', '/api/projects'))->get('projects')->items() as $project) {
            $id = $project->get('id')->text();
            if (!\in_array($project->get('name')->text(), ['Sallow Fen ringing station', 'Reedmace Lodge, as it stands'], true)) {
                continue;
            }
            $copy = Desk::text($this->brought($this->taken($id))[1]['id']);
            $rows = $this->rows($copy);
            self::assertEquals($this->rows($id), $rows);
            $kinds += array_fill_keys(array_map(static fn (array $row): string => Desk::text($row['type']), $rows), true);
            $this->goes($copy);
        }
        self::assertGreaterThan(25, \count($kinds), implode(', ', array_keys($kinds)));
    }

    public function testADamagedOrForeignOneIsRefusedWithItsPlaceAndLeavesNothing(): void
    {
        $desk = $this->project();
        $zip = ZipReader::open($this->file($this->taken($desk->id)), self::MOST);
        $files = [];
        foreach ($zip->names() as $name) {
            $files[$name] = $zip->text($name, self::MOST);
        }
        $source = array_keys($files)[2];
        $before = \count(JsonValue::of($this->client->ok('GET', '/api/projects'))->get('projects')->items());
        $with = static fn (string $from, string $to): string => ZipFile::of(['project.json' => (string) preg_replace($from, $to, $files['project.json'], 1)] + $files);
        foreach ([
            'no zip' => ['walls', '', 'no whole ZIP'],
            'another zip' => [ZipFile::of(['readme' => 'walls']), 'file', 'no archive'],
            'of another kind' => [$with('#zesty-plinth/archive#', 'zesty-plinth/plan'), 'format', 'no archive'],
            'of the future' => [$with('#"version": 1#', '"version": 2'), 'format', 'version 1'],
            'cut off' => [substr(ZipFile::of($files), 0, -3000), '', 'end'],
            'no source' => [ZipFile::of(array_diff_key($files, [$source => 0])), $source, 'missing'],
            'another source' => [ZipFile::of([$source => 'GIF89a'] + $files), $source, 'not the file'],
            'a value that cannot be' => [$with('#"thickness": 200.0#', '"thickness": -3'), 'rows/wall/', 'thickness'],
            'a row of no kind' => [$with('#"rows": \{#', '"rows": {"spy": [],'), 'rows/spy', 'spy'],
            'a wall without its node' => [$with('#"fromNode": "[^"]+"#', '"fromNode": "'.Desk::newId().'"'), '', 'node'],
            'the same id twice' => [$with('#("wall": \[\s+)(\{[^}]+\})#', '$1$2,$2'), 'rows/wall/1', 'twice'],
            'a page without end' => [$with('#"width": \d+,\s+"height"#', '"width": 900000000, "height"'), 'rows/page/0', 'pixels'],
            'a page that replaces itself' => [$with('#("page": \[\s+\{\s+"id": ")([^"]+)("[^}]+"replaces": )null#', '$1$2$3"$2"'), 'rows/page/0', 'itself'],
        ] as $what => [$archive, $at, $says]) {
            [$status, $answer] = $this->brought($archive);
            self::assertContains($status, [409, 422], $what.': '.json_encode($answer));
            $error = JsonValue::of($answer)->get('error');
            self::assertStringContainsString($at, $error->get('at')->text(), $what);
            self::assertStringContainsString($says, $error->get('message')->text(), $what);
        }
        self::assertCount($before, JsonValue::of($this->client->ok('GET', '/api/projects'))->get('projects')->items());
        self::assertSame('no-file', $this->client->refused(422, 'POST', '/api/archives', [])['code']);
    }

    public function testItIsNotTakenWhereASourceIsMissing(): void
    {
        $desk = new Desk($this->client);
        $path = $this->file(str_replace('<svg', '<svg id="'.Desk::newId().'"', '<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><path d="M10 10H290V190H10Z" fill="none" stroke="black"/></svg>'));
        $desk->bringIn($path, 'house.svg');
        $hash = (string) hash_file('sha256', $path);
        $kept = getenv('PLINTH_FILES').'/sources/'.substr($hash, 0, 2).'/'.substr($hash, 2);
        rename($kept, "$kept.away");
        $refused = $this->client->refused(409, 'GET', "/api/projects/$desk->id/archive.zip");
        rename("$kept.away", $kept);
        self::assertSame('source-missing', $refused['code']);
        self::assertStringContainsString('house.svg', Desk::text($refused['message']));
    }
}
