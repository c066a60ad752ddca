<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Tests\Outside;
use Symfony\Component\Uid\Uuid;

/** Projects, their history, and what is handed over. */
final class ProjectTest extends TestCase
{
    private const SCAN = __DIR__.'/../../demo/sallow-fen-ground.jpg';

    private Client $client;

    protected function setUp(): void
    {
        $this->client = Client::ofStack()->signIn();
    }

    public function testAProjectSentTwiceIsThereOnce(): void
    {
        $id = Desk::newId();
        $body = ['id' => $id, 'name' => 'Twice', 'purpose' => 'construction', 'unit' => 'ft', 'storey' => 'Cellar'];
        $first = $this->client->ok('POST', '/api/projects', $body);
        $again = $this->client->ok('POST', '/api/projects', $body);
        self::assertSame($first['rows'], $again['rows']);
        self::assertSame('Cellar', Desk::rows($first, 'storey')[0]['values']['name']);
        self::assertSame(5, $first['tolerance'], 'Construction asks for ±5 mm over 10 m.');
        $list = $this->client->ok('GET', '/api/projects')['projects'];
        self::assertIsArray($list);
        self::assertCount(1, array_filter($list, static fn (mixed $p): bool => \is_array($p) && $p['id'] === $id));
    }

    public function testACopyHasAllThatIsInItAndGoesItsOwnWay(): void
    {
        $desk = new Desk($this->client);
        $desk->bringIn(self::SCAN);
        $ring = $desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true);
        $desk->change([$ring['operation'], Desk::door($ring['walls'][0], 1000, 900)]);
        $copy = Desk::newId();
        $path = "/api/projects/$desk->id/copies";
        self::assertSame($copy, $this->client->ok('POST', $path, ['id' => $copy, 'name' => 'Second thoughts'])['id']);
        $this->client->ok('POST', $path, ['id' => $copy, 'name' => 'Sent twice']);
        $there = $this->client->ok('GET', "/api/projects/$copy");
        $here = $desk->state();
        self::assertSame('Second thoughts', Desk::rows($there, 'project')[0]['values']['name']);
        foreach (['storey', 'source', 'page', 'drawing', 'fit', 'node', 'wall', 'opening'] as $type) {
            self::assertEquals(Desk::rows($here, $type), Desk::rows($there, $type), $type);
        }
        self::assertEquals($here['derived'], $there['derived']);
        self::assertSame(['undo' => null, 'redo' => null], $there['steps'], 'Its history begins with it.');
        $this->client->ok('POST', "/api/projects/$copy/changes", Desk::body(
            [['do' => 'remove', 'type' => 'wall', 'id' => $ring['walls'][0]]],
            Desk::int($there['revision']),
        ));
        self::assertCount(3, Desk::rows($this->client->ok('GET', "/api/projects/$copy"), 'wall'));
        self::assertCount(4, Desk::rows($desk->state(), 'wall'));
        // Its pictures are made again when somebody asks for them.
        $preview = "/api/projects/$copy/pages/$desk->page/preview";
        Waiting::until(fn (): ?true => 200 === $this->client->send('GET', $preview)[0] ? true : null, 'Its pictures do not come');
        $this->client->refused(422, 'POST', $path, ['id' => Desk::newId(), 'name' => ' ']);
    }

    public function testAProjectInTheBinIsShutCanBePutBackAndGoesForGoodOnlyFromThere(): void
    {
        $desk = new Desk($this->client);
        $path = "/api/projects/$desk->id";
        $listed = function () use ($desk): mixed {
            $list = $this->client->ok('GET', '/api/projects')['projects'];
            $found = array_column(\is_array($list) ? $list : [], 'binned', 'id');

            return \array_key_exists($desk->id, $found) ? $found[$desk->id] : 'gone';
        };
        self::assertSame('not-in-bin', $this->client->refused(409, 'DELETE', $path)['code']);
        self::assertIsString($this->client->ok('PUT', "$path/bin")['binned']);
        self::assertIsString($listed());
        self::assertSame('in-bin', $this->client->refused(410, 'GET', $path)['code']);
        self::assertSame('in-bin', $desk->refused(410, [$desk->chain([[0, 0], [1000, 0]])['operation']])['code']);
        self::assertNull($this->client->ok('DELETE', "$path/bin")['binned']);
        self::assertCount(1, Desk::rows($this->client->ok('GET', $path), 'storey'));
        self::assertIsString($this->client->ok('PUT', "$path/bin")['binned']);
        self::assertSame($desk->id, $this->client->ok('DELETE', $path)['id']);
        self::assertSame('gone', $listed());
        $this->client->refused(404, 'GET', $path);
    }

    /** What has lain there for thirty days is gone when its owner looks next. */
    public function testTheBinEmptiesItself(): void
    {
        $old = new Desk($this->client);
        $new = new Desk($this->client);
        foreach ([[$old, 31], [$new, 29]] as [$desk, $days]) {
            $this->client->send('PUT', "/api/projects/$desk->id/bin");
            Database::open()->prepare('UPDATE project SET binned = UTC_TIMESTAMP() - INTERVAL ? DAY WHERE id = ?')
                ->execute([$days, Uuid::fromString($desk->id)->toBinary()]);
        }
        $list = $this->client->ok('GET', '/api/projects')['projects'];
        $ids = array_column(\is_array($list) ? $list : [], 'id');
        self::assertSame([false, true], [\in_array($old->id, $ids, true), \in_array($new->id, $ids, true)]);
    }

    public function testSizesAreShownInTheProjectsOwnUnitAndHandedOverInIt(): void
    {
        $id = Desk::newId();
        $first = $this->client->ok('POST', '/api/projects', ['id' => $id, 'name' => 'Feet', 'unit' => 'ft']);
        self::assertSame(['ft', 'ft-in/16'], self::unitsOf($first), 'What is usual where bare numbers are feet.');
        $desk = new Desk($this->client);
        self::assertSame(['mm', 'mm'], self::unitsOf($this->client->ok('GET', "/api/projects/$desk->id")));
        $desk->change([$desk->chain([[0, 0], [6096, 0]], line: 'centre')['operation']]);
        $dxf = function () use ($desk): string {
            $text = $this->client->send('GET', "/api/projects/$desk->id/storeys/$desk->storey/plan.dxf")[1]['text'] ?? null;
            self::assertIsString($text);

            return $text;
        };
        self::assertMatchesRegularExpression('/INSUNITS\R70\R4\R/', $dxf());
        $desk->change([['do' => 'set', 'type' => 'project', 'id' => $desk->id, 'values' => ['unit' => 'ft', 'shows' => 'ft-in/8']]]);
        self::assertMatchesRegularExpression('/INSUNITS\R70\R1\R/', $dxf());
        self::assertStringContainsString("\r\n240.0\r\n", $dxf(), '20 feet are 240 inches.');
        $desk->refused(422, [['do' => 'set', 'type' => 'project', 'id' => $desk->id, 'values' => ['shows' => 'ft-in/7']]]);
        // Areas have a unit of their own.
        $desk->change([
            ['do' => 'set', 'type' => 'project', 'id' => $desk->id, 'values' => ['areas' => 'ft2']],
            $desk->chain([[0, 0], [3048, 0], [3048, 3048], [0, 3048]], true, thickness: 304.8)['operation'],
            ['do' => 'add', 'type' => 'room', 'id' => Desk::newId(), 'values' => [
                'storey' => $desk->storey, 'drawing' => null, 'name' => 'Cell', 'number' => '1', 'x' => 1500, 'y' => 1500, 'height' => null,
            ]],
        ]);
        self::assertStringContainsString('81.0 sq ft', $dxf(), 'Nine feet by nine between the walls.');
        $this->client->ok('POST', "/api/projects/$desk->id/undo", ['id' => Desk::newId()]);
        $this->client->ok('POST', "/api/projects/$desk->id/undo", ['id' => Desk::newId()]);
        self::assertSame(['mm', 'mm'], self::unitsOf($this->client->ok('GET', "/api/projects/$desk->id")));
    }

    /**
     * @param array<mixed> $state
     *
     * @return array{mixed, mixed}
     */
    private static function unitsOf(array $state): array
    {
        $values = Desk::rows($state, 'project')[0]['values'];

        return [$values['unit'], $values['shows']];
    }

    public function testANameMayNotBeEmptyAndAPurposeMustBeOne(): void
    {
        self::assertSame('name', $this->client->refused(422, 'POST', '/api/projects', ['id' => Desk::newId(), 'name' => '   '])['at']);
        self::assertSame(
            'purpose',
            $this->client->refused(422, 'POST', '/api/projects', ['id' => Desk::newId(), 'name' => 'A', 'purpose' => 'fun'])['at'],
        );
        self::assertSame('id', $this->client->refused(422, 'POST', '/api/projects', ['id' => 'mine', 'name' => 'A'])['at']);
    }

    public function testTheHistoryTellsWhatWasDoneAndTakenBack(): void
    {
        $desk = new Desk($this->client);
        $desk->change([['do' => 'set', 'type' => 'project', 'id' => $desk->id, 'values' => ['purpose' => 'quick model']]]);
        $this->client->ok('POST', "/api/projects/$desk->id/undo", ['id' => Desk::newId()]);
        $changes = $this->client->ok('GET', "/api/projects/$desk->id/history")['changes'];
        self::assertIsArray($changes);
        self::assertSame(
            [['Undo: Test', 'step'], ['Test', 'undone'], ['Begin', 'left']],
            array_map(static fn (mixed $c): array => \is_array($c) ? [$c['title'], $c['state']] : [], $changes),
        );
    }

    public function testTheBeginningOfAProjectIsNotUndone(): void
    {
        $desk = new Desk($this->client);
        self::assertSame(
            'nothing-left',
            $this->client->refused(409, 'POST', "/api/projects/$desk->id/undo", ['id' => Desk::newId()])['code'],
        );
    }

    public function testAProjectKeepsAStorey(): void
    {
        $desk = new Desk($this->client);
        $remove = ['do' => 'remove', 'type' => 'storey', 'id' => $desk->storey];
        self::assertSame('last-storey', $desk->refused(409, [$remove])['code']);
        $values = ['name' => 'Loft', 'elevation' => 2700.0, 'height' => 2400.0];
        $desk->change([['do' => 'add', 'type' => 'storey', 'id' => Desk::newId(), 'values' => $values], $remove]);
        self::assertCount(1, Desk::rows($desk->state(), 'storey'));
    }

    public function testTheDxfHandedOverHoldsWhatWasTraced(): void
    {
        $desk = new Desk($this->client);
        $chain = $desk->chain([[0, 0], [13200, 0], [13200, 8600], [0, 8600]], true, 300, 'right');
        $desk->change([$chain['operation'], Desk::door($chain['walls'][0], 2000, 910)]);
        $desk->change([[
            'do' => 'add',
            'type' => 'room',
            'id' => Desk::newId(),
            'values' => ['storey' => $desk->storey, 'drawing' => null, 'name' => 'Hall', 'number' => '', 'x' => 5000, 'y' => 5000],
        ]]);
        [$status, $answer] = $this->client->send('GET', "/api/projects/$desk->id/storeys/$desk->storey/plan.dxf");
        self::assertSame(200, $status);
        self::assertIsString($answer['text']);
        $file = (string) tempnam(sys_get_temp_dir(), 'dxf');
        file_put_contents($file, $answer['text']);
        $read = Outside::ask('dxf.py', ['file' => $file]);
        unlink($file);
        self::assertSame([0, 4], [$read['errors'], $read['units']]);
        self::assertIsArray($read['lines']);
        $centre = array_values(array_filter($read['lines'], static fn (mixed $l): bool => \is_array($l) && 'centre-lines' === $l[0]));
        self::assertEqualsWithDelta(
            [['centre-lines', 8300.0], ['centre-lines', 8300.0], ['centre-lines', 12900.0], ['centre-lines', 12900.0]],
            $centre,
            1e-9,
        );
        self::assertIsArray($read['texts']);
        self::assertContains('Hall', $read['texts']);
        self::assertContains('100.80 m2', $read['texts'], '12.6 × 8 m inside.');
    }

    public function testNothingUntruedIsHandedOverWithoutTheFileSayingSo(): void
    {
        $desk = new Desk($this->client);
        $desk->bringIn(__DIR__.'/../../demo/sallow-fen-ground.jpg');
        $desk->change([$desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true)['operation']]);
        $of = fn (string $file): string => json_encode($this->client->send('GET', "/api/projects/$desk->id/storeys/$desk->storey/$file")[1], \JSON_THROW_ON_ERROR);
        $glb = fn (): string => Desk::text($this->client->send('GET', "/api/projects/$desk->id/building.glb")[1]['text']);
        foreach (['plan.dxf', 'plan.json'] as $file) {
            self::assertStringContainsString('Sizes are a guess', $of($file), $file);
        }
        self::assertStringContainsString('Sizes are a guess', $glb());
        $desk->change($desk->knownLength([[640, 1846], [2719, 1797]], '13200'));
        foreach (['plan.dxf', 'plan.json'] as $file) {
            self::assertStringNotContainsString('Sizes are a guess', $of($file), $file);
        }
        self::assertStringNotContainsString('Sizes are a guess', $glb());
    }

    public function testThePlanDocumentHandedOverIsReadByTheCommandLine(): void
    {
        $desk = new Desk($this->client);
        $desk->change([$desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true)['operation']]);
        $document = $this->client->send('GET', "/api/projects/$desk->id/storeys/$desk->storey/plan.json");
        self::assertSame(200, $document[0]);
        $file = (string) tempnam(sys_get_temp_dir(), 'plan');
        file_put_contents($file, json_encode($document[1], \JSON_THROW_ON_ERROR));
        exec(\PHP_BINARY.' -d pcov.enabled=0 '.__DIR__.'/../../bin/plinth derive --in '.escapeshellarg($file), $lines, $code);
        unlink($file);
        self::assertSame(0, $code);
        $derived = json_decode(implode('', $lines), true, 64, \JSON_THROW_ON_ERROR);
        self::assertIsArray($derived);
        self::assertIsArray($derived['storeys']);
        self::assertIsArray($derived['storeys'][0]);
        self::assertIsArray($derived['storeys'][0]['areas']);
        self::assertEqualsWithDelta(5.8 * 3.8, $derived['storeys'][0]['areas']['netFloorM2'], 1e-9);
    }

    public function testALengthIsReadWhileItIsTyped(): void
    {
        self::assertEqualsWithDelta(
            ['mm' => 3543.3, 'stepMm' => 12.7],
            $this->client->ok('GET', '/api/length?unit=ft&text='.rawurlencode("11'-7 1/2\"")),
            1e-9,
        );
        self::assertSame('2', $this->client->refused(422, 'GET', '/api/length?unit=mm&text=3%20q')['at']);
        self::assertEquals(['mm' => [3600.0, 4200.0]], $this->client->ok('GET', '/api/lengths?unit=m&text=3.6%20x%204.2'));
        self::assertEquals(['mm' => [350.0, 350.0]], $this->client->ok('GET', '/api/lengths?unit=mm&text=350&mayBeOne=yes'));
        self::assertSame('unreadable-length', $this->client->refused(422, 'GET', '/api/lengths?unit=mm&text=350')['code']);
        self::assertEqualsWithDelta(
            ['degrees' => 360.0 - 8.0 - 48.0 / 60.0 - 57.0 / 3600.0],
            $this->client->ok('GET', '/api/bearing?text='.rawurlencode('N 8°48\'57" W')),
            1e-9,
        );
        self::assertSame('unreadable-bearing', $this->client->refused(422, 'GET', '/api/bearing?text=up')['code']);
        self::assertSame('unit', $this->client->refused(422, 'GET', '/api/length?unit=yard&text=3')['at']);
    }

    public function testAnUnusualWidthIsDoubtedBeforeAnOpeningIsMade(): void
    {
        $doubt = fn (string $of): mixed => $this->client->ok('GET', '/api/opening-width?'.$of)['doubt'];
        self::assertStringContainsString('2240', Desk::text($doubt('kind=door&leaf=single&width=2240')));
        self::assertNull($doubt('kind=door&leaf=single&width=910'));
        self::assertNull($doubt('kind=window&leaf=single&width=2240'));
        self::assertSame('leaf', $this->client->refused(422, 'GET', '/api/opening-width?kind=door&leaf=triple&width=900')['at']);
    }
}
