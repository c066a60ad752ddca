<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Source\DropIn\DropInFolder;
use Symfony\Component\Clock\MockClock;

/** Sources are kept for the life of a project: cut, turned, hinted at, replaced, removed and brought back. */
final class SourcesTest extends TestCase
{
    private const SCAN = __DIR__.'/../../demo/sallow-fen-ground.jpg';
    private const ANEW = __DIR__.'/../../demo/scanner/ground floor anew.jpg';
    private const SHEET = __DIR__.'/../../demo/scanner/sheet 3 loft roof elevation section.jpg';

    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
    }

    public function testASheetOfFourIsProposedAsItWasDrawnAndCuttingKeepsTheFit(): void
    {
        $this->desk->bringIn(self::SHEET, 'sheet.jpg');
        $page = $this->desk->imported();
        self::assertIsArray($page['made']);
        self::assertIsArray($cuts = $page['made']['cuts']);
        self::assertCount(4, $cuts);
        $truth = self::truth(self::SHEET)['drawings'];
        self::assertIsArray($truth);
        foreach ($truth as $i => $drawing) {
            self::assertIsArray($drawing);
            self::assertGreaterThan(
                0.9,
                self::overlap($drawing['rectPx'], $cuts[$i]),
                \is_string($drawing['name']) ? $drawing['name'] : '',
            );
        }
        // The first drawing is trued: 13 200 mm along the loft's lower wall.
        $this->desk->change($this->desk->knownLength([[520, 1190], [2196.4, 1202.87]], '13 200'));
        $first = $this->desk->drawing;
        $operations = [['do' => 'add', 'type' => 'side', 'id' => $side = Desk::newId(), 'values' => ['name' => 'South']]];
        $ids = [];
        foreach ($cuts as $i => $cut) {
            self::assertIsArray($cut);
            $ids[] = $id = 0 === $i ? $first : Desk::newId();
            $place = $i < 2 ? ['storey' => $this->desk->storey, 'side' => null] : ['storey' => null, 'side' => $side];
            $values = $place + [
                'name' => "Drawing $i",
                'kind' => ['plan', 'roof', 'elevation', 'section'][$i] ?? 'plan',
                'left' => $cut[0],
                'top' => $cut[1],
                'width' => $cut[2],
                'height' => $cut[3],
            ];
            $operations[] = 0 === $i ? ['do' => 'set', 'type' => 'drawing', 'id' => $id, 'values' => $values] : [
                'do' => 'add',
                'type' => 'drawing',
                'id' => $id,
                'values' => $values + ['page' => $this->desk->page, 'fade' => 1],
            ];
        }
        $before = self::fitOf($this->desk->state(), $first);
        $this->desk->change($operations);
        $state = $this->desk->state();
        self::assertSame($before, self::fitOf($state, $first), 'A new outline does not touch the fit.');
        foreach (\array_slice($ids, 1) as $id) {
            $fit = self::fitOf($state, $id);
            self::assertSame('page', $fit['basis'], 'Drawings of one page share its scale as a hint.');
            self::assertEqualsWithDelta(
                hypot(Desk::float($before['m00']), Desk::float($before['m10'])),
                hypot(Desk::float($fit['m00']), Desk::float($fit['m10'])),
                1e-9,
            );
        }
        // Cut again: smaller, and one of them gone.
        $this->desk->change([
            ['do' => 'set', 'type' => 'drawing', 'id' => $first, 'values' => ['width' => 900.0]],
            ['do' => 'remove', 'type' => 'drawing', 'id' => $ids[1]],
        ]);
        $state = $this->desk->state();
        self::assertSame($before, self::fitOf($state, $first));
        self::assertCount(3, Desk::rows($state, 'drawing'));
        $refusal = $this->desk->refused(422, [['do' => 'set', 'type' => 'drawing', 'id' => $first, 'values' => ['storey' => null]]]);
        self::assertSame('no-place', $refusal['code']);
    }

    public function testQuarterTurnsTurnThePictureAndWhatIsTracedButNeverRenumberPicks(): void
    {
        $this->desk->bringIn(self::SCAN);
        $ends = [[640.3, 1845.8], [2718.47, 1796.1]];
        $this->desk->change($this->desk->knownLength($ends, '13 200'));
        $state = $this->desk->state();
        $fit = self::fitOf($state, $this->desk->drawing);
        $chain = $this->desk->chain([self::at($fit, ...$ends[0]), self::at($fit, ...$ends[1])]);
        $this->desk->change([$chain['operation']]);
        $picks = Desk::rows($state, 'pick');
        $this->desk->change([['do' => 'set', 'type' => 'drawing', 'id' => $this->desk->drawing, 'values' => ['turns' => 1]]]);
        $state = $this->desk->state();
        self::assertSame(array_column($picks, 'values', 'id'), array_column(Desk::rows($state, 'pick'), 'values', 'id'));
        $turned = self::fitOf($state, $this->desk->drawing);
        $angle = rad2deg(
            atan2(Desk::float($turned['m10']), Desk::float($turned['m00'])) - atan2(Desk::float($fit['m10']), Desk::float($fit['m00'])),
        );
        self::assertEqualsWithDelta(90.0, fmod($angle + 360.0, 360.0), 1e-6, 'A turn to the left.');
        $nodes = array_column(Desk::rows($state, 'node'), 'values', 'id');
        foreach ($chain['nodes'] as $i => $node) {
            [$x, $y] = self::at($turned, ...$ends[$i]);
            self::assertEqualsWithDelta([$x, $y], [$nodes[$node]['x'], $nodes[$node]['y']], 0.5, 'The tracing stays on its ink.');
        }
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        self::assertSame($fit, self::fitOf($this->desk->state(), $this->desk->drawing));
    }

    public function testANewerScanTakesThePlaceOfAnOlderOneAndEverythingStaysOnItsInk(): void
    {
        $this->desk->bringIn(self::SCAN);
        $this->desk->imported();
        $old = $this->desk->page;
        $ends = [[640.3, 1845.8], [2718.47, 1796.1]];
        $this->desk->change($this->desk->knownLength($ends, '13 200'));
        $before = $this->desk->state();
        $fit = self::fitOf($before, $this->desk->drawing);
        $this->desk->change([$this->desk->chain([self::at($fit, ...$ends[0]), self::at($fit, ...$ends[1])])['operation']]);
        $nodes = Desk::rows($this->desk->state(), 'node');
        // Locked, it is moved by nothing; taking a newer scan moves nothing.
        $this->desk->change([['do' => 'set', 'type' => 'drawing', 'id' => (string) $this->desk->drawing, 'values' => ['locked' => true]]]);

        $state = $this->desk->bringIn(self::ANEW, 'anew.jpg', more: ['replaces' => (string) $old]);
        self::assertCount(0, Desk::rows($state, 'drawing'), 'It waits beside the older one.');
        $this->desk->imported();
        $found = $this->registered();
        self::assertEqualsWithDelta(1.2, Desk::float($found['scaleX']), 1e-3, '240 per inch for 200');
        self::assertEqualsWithDelta(-0.62 - 1.37, Desk::float($found['turnDegrees']), 0.01);
        self::assertLessThan(0.5, Desk::float($found['greatestPx']));

        $this->desk->change([['do' => 'replace', 'replace' => ['page' => $this->desk->page]]]);
        $state = $this->desk->state();
        self::assertSame([$this->desk->page], array_column(Desk::rows($state, 'page'), 'id'), 'The older page is gone.');
        self::assertCount(1, Desk::rows($state, 'source'));
        self::assertSame($nodes, Desk::rows($state, 'node'), 'The tracing has not moved.');
        // The picks lie on the same corners of the new scan, by its own truth.
        $truth = self::truth(self::ANEW)['pixelToMm'];
        self::assertIsArray($truth);
        $picks = array_column(Desk::rows($state, 'pick'), 'values');
        foreach ([[0.0, 0.0], [13_200.0, 0.0]] as $i => [$x, $y]) {
            [$u, $v] = self::pixelOf($truth, $x, $y);
            self::assertEqualsWithDelta([$u, $v], [$picks[$i]['x'], $picks[$i]['y']], 0.35, 'px of the new scan');
        }
        self::assertEqualsWithDelta(
            hypot(Desk::float($fit['m00']), Desk::float($fit['m10'])) / 1.2,
            hypot(
                Desk::float(self::fitOf($state, $this->desk->drawing)['m00']),
                Desk::float(self::fitOf($state, $this->desk->drawing)['m10']),
            ),
            2e-3,
        );

        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        $state = $this->desk->state();
        self::assertSame($fit, self::fitOf($state, $this->desk->drawing), 'Undone, the older page carries the work again.');
        $this->desk->page = $old;
        self::assertSame('done', $this->desk->imported()['state']);
    }

    public function testANewerScanThatLiesUpsideDownIsTurnedForTheEyeAndTheModelStays(): void
    {
        $files = new Files();
        $files->vips('rot', self::SCAN, 'down.v', 'd180');
        $files->vips('jpegsave', 'down.v', 'down.jpg');
        $this->desk->bringIn(self::SCAN);
        $this->desk->imported();
        $fit = self::fitOf($this->desk->state(), $this->desk->drawing);
        $this->desk->bringIn("$files->folder/down.jpg", 'down.jpg', more: ['replaces' => (string) $this->desk->page]);
        $this->desk->imported();
        $this->registered();
        $this->desk->change([['do' => 'replace', 'replace' => ['page' => $this->desk->page]]]);
        $state = $this->desk->state();
        self::assertSame(2, Desk::rows($state, 'drawing')[0]['values']['turns']);
        $moved = self::fitOf($state, $this->desk->drawing);
        foreach ([[640.0, 1845.0], [2718.0, 1796.0]] as [$x, $y]) {
            self::assertEqualsWithDelta(
                self::at($fit, $x, $y),
                self::at($moved, 3307 - $x, 2339 - $y),
                5.0,
                'mm: the same ink, the same place.',
            );
        }
    }

    public function testTheSamePixelsAreKnownAndOtherSheetsAreNotTakenForNewerVersions(): void
    {
        $files = new Files();
        $files->vips('pngsave', self::SCAN, 'same.png');
        $this->desk->bringIn(self::SCAN);
        $this->desk->imported();
        $old = (string) $this->desk->page;
        $this->desk->bringIn("$files->folder/same.png", 'same.png', more: ['replaces' => $old]);
        $this->desk->imported();
        $found = $this->registered();
        self::assertTrue($found['samePixels']);
        $this->desk->bringIn(self::SHEET, 'other.jpg', more: ['replaces' => $old]);
        $this->desk->imported();
        $lost = $this->matched();
        self::assertSame('failed', $lost->get('state')->text());
        self::assertStringContainsString('do not seem to show the same sheet', $lost->get('words')->text());
        $refusal = $this->desk->refused(409, [['do' => 'replace', 'replace' => ['page' => $this->desk->page]]]);
        self::assertSame('not-registered', $refusal['code']);
        $refusal = $this->desk->client->refused(
            422,
            'POST',
            "/api/projects/{$this->desk->id}/pages/{$this->desk->page}/match",
            ['pairs' => [['old' => [1, 1], 'new' => [1, 1]]]],
        );
        self::assertSame('too-few-points', $refusal['code']);
        // Points picked by hand are believed where the ink does not agree with them.
        $this->desk->client->ok(
            'POST',
            "/api/projects/{$this->desk->id}/pages/{$this->desk->page}/match",
            ['pairs' => [['old' => [100, 100], 'new' => [200, 300]], ['old' => [1100, 100], 'new' => [1700, 300]]]],
        );
        $found = $this->registered();
        self::assertEqualsWithDelta(1.5, Desk::float($found['scaleX']), 1e-9);
    }

    public function testRemovingASourceTakesWhatStandsOnItLeavesTheTracingAndIsUndone(): void
    {
        $this->desk->bringIn(self::SCAN);
        $this->desk->imported();
        $this->desk->change($this->desk->knownLength([[640.3, 1845.8], [2718.47, 1796.1]], '13 200'));
        $this->desk->change([$this->desk->chain([[0, 0], [5000, 0]])['operation']]);
        $before = $this->desk->state();
        $source = Desk::rows($before, 'source')[0]['id'];
        $this->desk->change([['do' => 'remove', 'type' => 'source', 'id' => $source]]);
        $state = $this->desk->state();
        foreach (['source', 'page', 'drawing', 'fit', 'pick', 'knownLength'] as $type) {
            self::assertSame([], Desk::rows($state, $type), $type);
        }
        self::assertCount(1, Desk::rows($state, 'wall'));
        self::assertNull(Desk::rows($state, 'node')[0]['values']['drawing']);
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        $start = microtime(true);
        self::assertSame('done', $this->desk->imported()['state']);
        self::assertLessThan(3.0, microtime(true) - $start, 'Its pictures are still there.');
        $strip = static fn (array $rows): array => array_column($rows, 'values', 'id');
        foreach (['source', 'page', 'drawing', 'fit', 'pick', 'knownLength', 'node', 'wall'] as $type) {
            self::assertEquals($strip(Desk::rows($before, $type)), $strip(Desk::rows($this->desk->state(), $type)), $type);
        }
    }

    public function testPicturesOfRemovedPagesAreTidiedAwayAndMadeAgainByUndo(): void
    {
        $this->desk->bringIn(self::SCAN);
        $this->desk->imported();
        $source = Desk::rows($this->desk->state(), 'source')[0]['id'];
        $this->desk->change([['do' => 'remove', 'type' => 'source', 'id' => $source]]);
        self::assertNotSame('', $this->desk->folder());
        exec('php '.escapeshellarg(__DIR__.'/../bin/console').' plinth:files:tidy', $out, $code);
        self::assertSame(0, $code);
        self::assertMatchesRegularExpression('/^\d+ pictures of pages and 0 source files that nothing names are gone\.$/', $out[0]);
        clearstatcache();
        self::assertSame('', $this->desk->folder());
        $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/undo", ['id' => Desk::newId()]);
        self::assertSame('done', $this->desk->imported()['state']);
        clearstatcache();
        self::assertNotSame('', $this->desk->folder());
    }

    public function testOfASourceOnlyNameAndOriginMayBeSetRight(): void
    {
        $state = $this->desk->bringIn(self::SCAN, 'scan.jpg', more: ['origin' => 'county archive, drawer 4', 'address' => 'shelf 12']);
        $source = Desk::rows($state, 'source')[0];
        self::assertSame(
            ['county archive, drawer 4', 'shelf 12', 'Demo Desk'],
            [$source['values']['origin'], $source['values']['address'], $source['values']['broughtBy']],
        );
        $this->desk->change([['do' => 'set', 'type' => 'source', 'id' => $source['id'], 'values' => ['origin' => 'the owner']]]);
        $refusal = $this->desk->refused(422, [[
            'do' => 'set',
            'type' => 'source',
            'id' => $source['id'],
            'values' => ['sha256' => str_repeat('0', 64)],
        ]]);
        self::assertSame('read-only', $refusal['code']);
    }

    public function testHintsAndRemarksOfFilesAreTaken(): void
    {
        $files = new Files();
        $world = $files->write('card.pgw', "0.02\n0.0\n0.0\n-0.02\n5.01\n9.99\n");
        $state = $this->desk->bringIn(
            "$files->folder/card.png",
            'card.png',
            more: ['world' => new \CURLFile($world, 'text/plain', 'card.pgw')],
        );
        $fit = Desk::rows($state, 'fit')[0]['values'];
        self::assertSame('file', $fit['basis']);
        // World files count from the middle of the first pixel, in metres: its left edge lies at 5.00, its bottom 1200 pixels below 10.00.
        self::assertEqualsWithDelta([5000.0, 10_000.0 - 1200 * 20.0], self::at($fit, 0.0, 1200.0), 1e-6);
        self::assertEqualsWithDelta([5000.0 + 20.0, 10_000.0], self::at($fit, 1.0, 0.0), 1e-6);
        // Outside check: GDAL's corners of the same picture with the same world file.
        exec('gdalinfo -json '.escapeshellarg("$files->folder/card.png"), $out);
        $corners = json_decode(implode("\n", $out), true);
        self::assertIsArray($corners);
        self::assertIsArray($corners = $corners['cornerCoordinates']);
        foreach (['upperLeft' => [0.0, 0.0], 'upperRight' => [1600.0, 0.0], 'lowerRight' => [1600.0, 1200.0]] as $corner => [$x, $y]) {
            self::assertIsArray($theirs = $corners[$corner]);
            self::assertEqualsWithDelta(
                [1000 * Desk::float($theirs[0]), 1000 * Desk::float($theirs[1])],
                self::at($fit, $x, $y),
                1e-6,
                $corner,
            );
        }
        $files->vips('jpegsave', 'card.png', 'smeared.jpg', '--Q', '20');
        $files->vips('thumbnail', 'card.png', 'small.jpg', '500');
        foreach ([
            'smeared.jpg' => 'heavily compressed (JPEG quality about 20)',
            'small.jpg' => 'looks like a preview',
        ] as $name => $words) {
            $remark = Desk::rows($this->desk->bringIn("$files->folder/$name"), 'page')[0]['values']['remark'];
            self::assertIsString($remark);
            self::assertStringContainsString($words, $remark);
        }
        [$status, $answer] = $this->desk->send(
            "$files->folder/card.png",
            'card.png',
            more: ['world' => new \CURLFile($files->write('bad.pgw', "1\n2\nx"), 'text/plain', 'bad.pgw')],
        );
        self::assertSame(422, $status);
        self::assertIsArray($answer['error']);
        self::assertStringContainsString('world file', Desk::text($answer['error']['message']));
        $fits = $this->desk->state()['fits'];
        self::assertIsArray($fits);
        self::assertIsArray($fits[0]);
        self::assertIsArray($fits[0]['legibility']);
        self::assertIsString($fits[0]['legibility']['words']);
        self::assertStringContainsString("a thin partition is about 5 px wide; expect ±12\u{202f}mm", $fits[0]['legibility']['words']);
    }

    public function testTheSameBytesAreStoredOnce(): void
    {
        $this->desk->bringIn(self::SCAN, 'first.jpg');
        $count = \count(self::stored());
        $this->desk->bringIn(self::SCAN, 'second.jpg');
        self::assertCount($count, self::stored());
        $sources = array_column(Desk::rows($this->desk->state(), 'source'), 'values');
        self::assertSame($sources[0]['sha256'], $sources[1]['sha256']);
        self::assertCount(2, $sources, 'The same file may be wanted twice.');
    }

    public function testTheScannerDeliversToTheDropInFolderAndItsFilesAreTakenOnce(): void
    {
        $folder = (string) getenv('PLINTH_DROP_IN');
        Files::clear($folder);
        $this->desk->client->ok('POST', '/api/drop-in/scan');
        $waiting = Waiting::until(function (): ?array {
            $files = $this->desk->client->ok('GET', '/api/drop-in')['files'];
            self::assertIsArray($files);

            return [] === $files ? null : $files;
        }, 'Nothing was delivered');
        self::assertIsArray($waiting[0]);
        self::assertIsString($name = $waiting[0]['name']);
        // What is still being written, hidden, or a way out of the folder is not there.
        touch("$folder/half.jpg.part", time() - 60);
        touch("$folder/.hidden.jpg", time() - 60);
        symlink('/etc/passwd', "$folder/link.jpg");
        $names = array_column((array) $this->desk->client->ok('GET', '/api/drop-in')['files'], 'name');
        self::assertSame([$name], $names);
        $take = fn (string $name): array => ['name' => $name, 'change' => Desk::newId(), 'storey' => $this->desk->storey, 'side' => null];
        foreach (['half.jpg.part', '../files', 'link.jpg', '..'] as $wrong) {
            $this->desk->client->refused(409, 'POST', "/api/projects/{$this->desk->id}/drop-in", $take($wrong));
        }
        // Of several who want it at once one gets it.
        $taken = $this->desk->client->ok('POST', "/api/projects/{$this->desk->id}/drop-in", $take($name));
        $this->desk->client->refused(409, 'POST', "/api/projects/{$this->desk->id}/drop-in", $take($name));
        [$status, $state] = $this->desk->looked($taken);
        self::assertSame(200, $status);
        self::assertSame('drop-in folder', Desk::rows($state, 'source')[0]['values']['origin']);
        $this->desk->client->refused(409, 'POST', "/api/projects/{$this->desk->id}/drop-in", $take($name));
        $this->desk->page = Desk::rows($state, 'page')[0]['id'];
        $this->desk->revision = Desk::int($state['revision']);
        self::assertSame('done', $this->desk->imported()['state']);
        array_map(unlink(...), ["$folder/half.jpg.part", "$folder/.hidden.jpg", "$folder/link.jpg"]);
        self::assertSame(
            404,
            (new Client((string) getenv('PLINTH_ADDRESS')))->signIn('stranger@plinth.example')->send(
                'POST',
                "/api/projects/{$this->desk->id}/drop-in",
                $take('x'),
            )[0],
        );
    }

    public function testTwoPagesThatAreDeliveredAtOnceAreTwoFiles(): void
    {
        $place = sys_get_temp_dir().'/drop-in-'.bin2hex(random_bytes(4));
        $folder = new DropInFolder($place, '', new MockClock('2126-01-01'));
        $folder->deliver(self::SCAN, 'scan.jpg', 0);
        $folder->deliver(self::SCAN, 'scan.jpg', 0);
        $names = array_column($folder->waiting(), 'name');
        sort($names);
        self::assertSame(['scan (2).jpg', 'scan.jpg'], $names);
        foreach ($names as $name) {
            self::assertFileEquals(self::SCAN, "$place/".$name);
        }
        Files::clear($place);
        rmdir($place);
    }

    /** @return array<mixed> how the page at hand lies on the older one */
    private function registered(): array
    {
        $matched = $this->matched();
        self::assertSame('done', $matched->get('state')->text(), $matched->get('words')->text());
        self::assertIsArray($found = $this->desk->imported()['registration']);

        return $found;
    }

    /** How looking for it ended. */
    private function matched(): JsonValue
    {
        return Waiting::until(function (): ?JsonValue {
            foreach (JsonValue::of(
                $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/changes?since={$this->desk->revision}&heard=100"),
            )->get('work')->items() as $work) {
                if (
                    'match-pages' === $work->get('kind')->text()
                    && $work->get('about')->text() === $this->desk->page
                    && \in_array($work->get('state')->text(), ['done', 'failed'], true)
                ) {
                    return $work;
                }
            }

            return null;
        }, 'The pages were not compared');
    }

    /** @return list<string> */
    private static function stored(): array
    {
        $files = glob(getenv('PLINTH_FILES').'/sources/*/*');

        return false === $files ? [] : $files;
    }

    /** @return array<mixed> */
    private static function truth(string $picture): array
    {
        $truth = json_decode((string) file_get_contents((string) preg_replace('/\.\w+$/', '.truth.json', $picture)), true);
        self::assertIsArray($truth);

        return $truth;
    }

    /**
     * @param array<mixed> $state
     *
     * @return array<string, mixed>
     */
    private static function fitOf(array $state, ?string $drawing): array
    {
        foreach (Desk::rows($state, 'fit') as $row) {
            if ($row['id'] === $drawing) {
                return $row['values'];
            }
        }
        self::fail('There is no fit.');
    }

    /**
     * @param array<string, mixed> $fit
     *
     * @return array{float, float}
     */
    private static function at(array $fit, float $x, float $y): array
    {
        $m = static fn (string $key): float => Desk::float($fit[$key]);

        return [$m('m00') * $x + $m('m01') * $y + $m('m02'), $m('m10') * $x + $m('m11') * $y + $m('m12')];
    }

    /**
     * @param array<mixed> $m rows of a mapping from pixels to mm
     *
     * @return array{float, float}
     */
    private static function pixelOf(array $m, float $x, float $y): array
    {
        self::assertIsArray($m[0]);
        self::assertIsArray($m[1]);
        [$a, $b, $c] = array_map(Desk::float(...), $m[0]);
        [$d, $e, $f] = array_map(Desk::float(...), $m[1]);
        $det = $a * $e - $b * $d;

        return [($e * ($x - $c) - $b * ($y - $f)) / $det, ($a * ($y - $f) - $d * ($x - $c)) / $det];
    }

    private static function overlap(mixed $a, mixed $b): float
    {
        self::assertIsArray($a);
        self::assertIsArray($b);
        [$ax, $ay, $aw, $ah] = array_map(Desk::float(...), array_values($a));
        [$bx, $by, $bw, $bh] = array_map(Desk::float(...), array_values($b));
        $both = max(0.0, min($ax + $aw, $bx + $bw) - max($ax, $bx)) * max(0.0, min($ay + $ah, $by + $bh) - max($ay, $by));

        return $both / ($aw * $ah + $bw * $bh - $both);
    }
}
