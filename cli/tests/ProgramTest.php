<?php

declare(strict_types=1);

namespace Plinth\Cli\Tests;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Cli\Picture\Picture;
use Plinth\Cli\Picture\Pictures;
use Plinth\Cli\Picture\Sandboxed;
use Plinth\Cli\Picture\SandboxedLineFiles;
use Plinth\Cli\Picture\SandboxedPrinter;
use Plinth\Cli\Picture\Words;
use Plinth\Cli\Program;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Exchange\SheetsDocument\SheetsWriter;
use Plinth\Core\Exchange\Zip\ZipFile;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Core\Sheets\Model\PrintSheet;
use Plinth\Core\Sheets\Model\SheetSide;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Tests\Bodies\House;
use Plinth\Core\Tests\Ink\Reading\DrawnFigures;
use Plinth\Core\Tests\Ink\Walls\DrawnWalls;
use Symfony\Component\Console\Tester\ApplicationTester;

/** The program as scripts use it: exit codes, one JSON document, errors with code, words and place. */
final class ProgramTest extends TestCase
{
    public function testALengthIsRead(): void
    {
        self::assertEqualsWithDelta([0, ['mm' => 3543.3, 'stepMm' => 12.7]], self::plinth(['length', 'text' => ["11'-7 1/2\""]]), 1e-9);
        self::assertEqualsWithDelta(
            [0, ['mm' => 3657.6, 'stepMm' => 304.8]],
            self::plinth(['length', 'text' => ['12'], '--unit' => 'ft']),
            1e-9,
        );
    }

    public function testAFitSaysWhatItIsWorth(): void
    {
        [$code, $fit] = self::plinth(['fit'], ['size' => [3000, 2000], 'model' => 'auto', 'lengths' => [
            [
                'a' => [100, 100],
                'b' => [2100, 100],
                'mm' => 10000,
                'sigmaMm' => 1.5,
            ], ['a' => [100, 100], 'b' => [100, 1600], 'text' => '7.5 m'], [
                'a' => [2100, 100],
                'b' => [100, 1600],
                'mm' => 12500,
                'check' => true,
            ],
        ], 'grid' => [['a' => [100, 100], 'b' => [2100, 100], 'axis' => 'x']]]);
        self::assertSame(0, $code);
        self::assertEqualsWithDelta(5.0, $fit['mmPerPixel'], 1e-9);
        self::assertSame('similar', $fit['model']);
        self::assertSame(1, $fit['degreesOfFreedom']);
        self::assertIsArray($fit['lengths']);
        self::assertIsArray($fit['lengths'][2]);
        self::assertEqualsWithDelta(0.0, $fit['lengths'][2]['residualMm'], 1e-6);
        self::assertGreaterThan(0.0, $fit['lengths'][2]['plusMinusMm']);
    }

    public function testBareFiguresAreTakenAsRoundedToTheStepTheyShare(): void
    {
        $fit = static function (float ...$figures): mixed {
            $lengths = [];
            foreach (array_values($figures) as $i => $mm) {
                $lengths[] = ['a' => [100, 100 + $i], 'b' => [100 + $mm / 5, 100 + $i], 'mm' => $mm, 'sigmaPx' => 0.01];
            }

            return self::plinth(['fit'], ['size' => [3000, 2000], 'lengths' => $lengths])[1]['plusMinusMmPer10m'];
        };
        // Three figures rounded to q: ± over 10 m is 2 · q/√12 / √3, the picks being all but exact.
        self::assertEqualsWithDelta(2 * 50 / sqrt(36), $fit(10000.0, 10050.0, 9950.0), 0.3);
        self::assertEqualsWithDelta(2 * 10 / sqrt(36), $fit(10000.0, 10010.0, 9990.0), 0.3);
        self::assertLessThan(0.3, $fit(10000.123, 10000.456, 10000.789), 'Figures without a step are exact.');
    }

    /** Five points of a page seen at a slant, by the plane projective map of x′ = 4x / (1 + 0.0001x). */
    public function testAutoGoesAsFarAsThePictureAsks(): void
    {
        $points = array_map(
            static fn (array $p): array => ['px' => $p, 'mm' => [4.0 * $p[0] / (1.0 + 1e-4 * $p[0]), -4.0 * $p[1] / (1.0 + 1e-4 * $p[0])]],
            [[200, 200], [2000, 250], [1900, 1300], [300, 1250], [1100, 700], [700, 1000]],
        );
        self::assertSame(
            'perspective',
            self::plinth(['fit'], ['size' => [2200, 1500], 'model' => 'auto', 'points' => $points])[1]['model'],
        );
    }

    /** Textbook traverse, Wolf and Ghilani, Elementary Surveying (from memory): 272 585 square feet. */
    public function testATraverseComesBackWithItsArea(): void
    {
        $legs = [
            ["126°55'17\"", '647.25'], ["178°18'58\"", '203.03'], ["15°31'54\"", '720.35'], ["284°35'20\"", '610.24'],
            ["206°09'41\"", '285.13'],
        ];
        [$code, $answer] = self::plinth(['traverse', '--unit' => 'ft'], [
            'legs' => array_map(static fn (array $l): array => ['bearing' => $l[0], 'length' => $l[1]], $legs),
        ]);
        self::assertSame(0, $code);
        self::assertEqualsWithDelta(272_585 * 0.3048 ** 2, $answer['areaM2'], 2);
        self::assertIsArray($answer['corners']);
        self::assertCount(5, $answer['corners']);
    }

    /** 10 × 6 m between two gables (arithmetic). */
    public function testARoofComesBackWithItsFacetsAndLines(): void
    {
        [$code, $roof] = self::plinth(['roof'], ['rings' => [[
            ['x' => 0, 'y' => 0, 'pitch' => 45, 'eaves' => 2500], ['x' => 10_000, 'y' => 0],
            ['x' => 10_000, 'y' => 6000, 'pitch' => 45, 'eaves' => 2500], ['x' => 0, 'y' => 6000],
        ]]]);
        self::assertSame(0, $code);
        self::assertEqualsWithDelta(60.0 * \M_SQRT2, $roof['slopesM2'], 1e-9);
        self::assertIsArray($roof['lines']);
        self::assertContains('ridge', array_column($roof['lines'], 'kind'));
        self::assertIsArray($roof['facets']);
        self::assertCount(4, $roof['facets']);
    }

    /** @return array<string, mixed> two rooms, the wall between them 12 mm out of plumb, its figure 30 mm off */
    private static function plan(): array
    {
        $wall = static fn (string $id, array $from, array $to): array => ['id' => $id, 'from' => $from, 'to' => $to, 'thickness' => 100];

        return ['format' => 'zesty-plinth/plan', 'version' => 1, 'units' => 'mm', 'storeys' => [['id' => 'g', 'walls' => [
            $wall('south', [0, 0], [7200, 0]), $wall('east', [7200, 0], [7200, 5000]), $wall(
                'north',
                [7200, 5000],
                [0, 5000],
            ), $wall('west', [0, 5000], [0, 0]),
            $wall('middle', [3100, 0], [3112, 5000]),
        ], 'openings' => [['id' => 'd', 'wall' => 'middle', 'kind' => 'door', 'offset' => 1000, 'width' => 910]], 'figures' => [
            ['id' => 'clear', 'a' => 'west', 'aSide' => 'left', 'b' => 'middle', 'bSide' => 'left', 'mm' => 3030],
            ['id' => 'overall', 'a' => 'west', 'b' => 'east', 'mm' => 7200],
            ['id' => 'against', 'a' => 'middle', 'aSide' => 'right', 'b' => 'east', 'bSide' => 'left', 'mm' => 3900],
            ['id' => 'crossing', 'a' => 'south', 'b' => 'east', 'mm' => 100],
        ]]]];
    }

    public function testAPlanIsDerived(): void
    {
        [$code, $answer] = self::plinth(['derive'], self::plan());
        self::assertSame(0, $code);
        self::assertIsArray($answer['storeys']);
        self::assertIsArray($answer['storeys'][0]);
        $areas = $answer['storeys'][0]['areas'];
        self::assertIsArray($areas);
        self::assertEqualsWithDelta(7.3 * 5.1, $areas['grossFloorM2'], 1e-9);
    }

    public function testAPlanIsSettledAndReadsAsAPlanAgain(): void
    {
        [$code, $answer] = self::plinth(['settle'], self::plan());
        self::assertSame(0, $code);
        self::assertSame(['overall', 'clear'], $answer['held']);
        self::assertIsArray($answer['contradictions']);
        self::assertIsArray($answer['contradictions'][0]);
        self::assertSame('against', $answer['contradictions'][0]['figure']);
        self::assertEqualsWithDelta(-70.0, $answer['contradictions'][0]['byMm'], 1e-6);
        self::assertEquals([['figure' => 'crossing', 'why' => 'not parallel', 'degrees' => 90.0]], $answer['unheld']);
        self::assertIsArray($answer['moves']);
        self::assertCount(6, $answer['moves'], 'What the figures lie between gives way on either side.');
        self::assertIsArray($answer['plan']);
        $validator = new Validator();
        $schema = json_decode((string) file_get_contents(\dirname(__DIR__, 2).'/docs/plan-format.schema.json'));
        self::assertIsObject($schema);
        self::assertTrue($validator->validate(json_decode(json_encode($answer['plan'], \JSON_THROW_ON_ERROR)), $schema)->isValid());
        [$code, $again] = self::plinth(['settle'], $answer['plan']);
        self::assertSame([0, []], [$code, $again['moves']], 'Settled is settled.');
    }

    public function testAPlanIsExported(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'plan');
        [$code, $answer] = self::plinth(['export', 'format' => 'dxf', '--out' => $file], self::plan());
        self::assertSame([0, 5, filesize($file)], [$code, $answer['walls'], $answer['bytes']]);
        self::assertStringContainsString('LWPOLYLINE', (string) file_get_contents($file));
        unlink($file);
        self::assertSame(
            'storey',
            self::errorOf(self::plinth(['export', 'format' => 'dxf', '--out' => $file, '--storey' => 'attic'], self::plan()))['at'],
        );
        self::assertSame('format', self::errorOf(self::plinth(['export', 'format' => 'doc', '--out' => $file], self::plan()))['at']);
        self::assertSame('out', self::errorOf(self::plinth(['export', 'format' => 'dxf'], self::plan()))['at']);
    }

    public function testAPlanIsPutOnASheetAtAScaleThatFits(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'sheet');
        [$code, $answer] = self::plinth(['export', 'format' => 'svg', '--out' => $file, '--title' => 'Boat house'], self::plan());
        self::assertSame(0, $code);
        self::assertEquals([['title' => 'g', 'widthMm' => 420.0, 'heightMm' => 297.0]], $answer['sheets']);
        $svg = (string) file_get_contents($file);
        self::assertStringContainsString('width="420mm" height="297mm" viewBox="0 0 420 297"', $svg);
        self::assertStringContainsString('Boat house', $svg);
        $upright = ['export', 'format' => 'svg', '--out' => $file, '--paper' => 'a4', '--upright' => true, '--scale' => '100'];
        [, $answer] = self::plinth($upright, self::plan());
        self::assertEquals([['title' => 'g', 'widthMm' => 210.0, 'heightMm' => 297.0]], $answer['sheets']);
        self::assertStringContainsString('>1:100<', (string) file_get_contents($file));
        unlink($file);
        $wrong = static fn (string $option, string $value): mixed => self::errorOf(self::plinth(
            ['export', 'format' => 'svg', '--out' => $file, "--$option" => $value],
            self::plan(),
        ))['at'];
        self::assertSame(['paper', 'scale', 'scale'], [$wrong('paper', 'B5'), $wrong('scale', 'much'), $wrong('scale', '5')]);
    }

    /** Sheets that stand in a document are printed from it alone: one as SVG, PDF or picture, all of them bound. */
    public function testSheetsOfADocumentArePrinted(): void
    {
        $plan = (new House())->plan();
        $view = static fn (string $id, ViewKind $kind, string $of): SheetView => new SheetView(
            $id,
            $kind,
            $of,
            150.0,
            150.0,
            shows: Shows::usually($kind),
        );
        $sheets = [
            new PrintSheet('a', 420.0, 297.0, [$view('v', ViewKind::Plan, $plan->storeys[0]->id)], 'Ground floor', 'A-01'),
            new PrintSheet('b', 594.0, 420.0, [$view('w', ViewKind::Side, 'south'), $view('x', ViewKind::Rooms, '')], 'South side', 'A-02'),
        ];
        $south = new SheetSide('south', 'South', [new Point(-5000.0, -9000.0), new Point(15_000.0, -9000.0)]);
        $document = [...PlanWriter::document($plan), ...SheetsWriter::parts($sheets, [$south])];
        $file = (string) tempnam(sys_get_temp_dir(), 'sheet');
        $export = static fn (string $format, string $sheet): array => self::plinth(
            ['export', 'format' => $format, '--out' => $file, '--sheet' => $sheet, '--title' => 'Weir'],
            $document,
        );
        [$code, $answer] = $export('svg', '2');
        self::assertSame(0, $code);
        self::assertEquals([['title' => 'A-02 South side', 'widthMm' => 594.0, 'heightMm' => 420.0]], $answer['sheets']);
        self::assertStringContainsString('South', (string) file_get_contents($file));
        [, $answer] = $export('pdf', 'all');
        self::assertIsArray($answer['sheets']);
        self::assertCount(2, $answer['sheets']);
        exec('pdfinfo '.escapeshellarg($file), $info);
        self::assertMatchesRegularExpression('/Title: +Weir.*Pages: +2\b/s', implode("\n", $info));
        $export('png', '1');
        $size = getimagesize($file);
        self::assertIsArray($size);
        self::assertEqualsWithDelta(420.0 / 25.4 * 300.0, $size[0], 1.0);
        unlink($file);
        foreach ([['svg', '3'], ['svg', 'all'], ['pdf', 'first']] as [$format, $sheet]) {
            self::assertSame('sheet', self::errorOf($export($format, $sheet))['at']);
        }
    }

    public function testABuildingIsToldAsBodiesAndExportedWithThem(): void
    {
        $plan = PlanWriter::document((new House())->plan());
        [$code, $answer] = self::plinth(['bodies'], $plan);
        self::assertSame(0, $code);
        self::assertIsArray($answer['bodies']);
        $volumes = [];
        foreach ($answer['bodies'] as $body) {
            self::assertIsArray($body);
            self::assertIsNumeric($body['volumeM3']);
            self::assertIsString($body['kind']);
            $volumes[$body['kind']] = ($volumes[$body['kind']] ?? 0.0) + (float) $body['volumeM3'];
        }
        // Sixteen rises between floors 2800 apart: by arithmetic.
        self::assertIsArray($answer['stairs']);
        self::assertCount(1, $answer['stairs']);
        self::assertIsArray($answer['stairs'][0]);
        self::assertEqualsWithDelta([175.0, 15], [$answer['stairs'][0]['riseMm'], $answer['stairs'][0]['treads']], 1e-9);
        // 10 × 6 m, 200 of it structure below and 250 above, less a void of 2 m², a chimney's 0.36 and a stair's 2.24 (arithmetic).
        self::assertEqualsWithDelta(0.2 * 60.0 + 0.25 * (60.0 - 2.36 - 2.24), $volumes['floor'] ?? 0.0, 1e-9);
        self::assertIsArray($answer['roofs']);
        self::assertCount(1, $answer['roofs']);
        self::assertSame([], $answer['refused']);
        $file = (string) tempnam(sys_get_temp_dir(), 'glb');
        [$code, $told] = self::plinth(['export', 'format' => 'gltf', '--out' => $file], $plan);
        self::assertSame([0, \count($answer['bodies']), filesize($file)], [$code, $told['bodies'], $told['bytes']]);
        self::assertStringStartsWith('glTF', (string) file_get_contents($file));
        unlink($file);
    }

    public function testTheWholeBuildingLeavesInEveryFormat(): void
    {
        $plan = PlanWriter::document((new House())->plan());
        $zips = ['ods' => 'PK', 'xlsx' => 'PK', 'csv' => 'PK'];
        $begins = ['ifc' => 'ISO-10303-21;', 'geojson' => '{"type":"FeatureCollection"', 'gltf' => 'glTF', ...$zips];
        foreach ($begins as $format => $begin) {
            $file = (string) tempnam(sys_get_temp_dir(), 'out');
            [$code, $told] = self::plinth(['export', 'format' => $format, '--out' => $file], $plan);
            self::assertSame([0, filesize($file)], [$code, $told['bytes']], $format);
            self::assertStringStartsWith($begin, (string) file_get_contents($file));
            unlink($file);
        }
        $refused = self::errorOf(self::plinth(['export', 'format' => 'tiff', '--out' => '/dev/null'], $plan));
        self::assertIsString($refused['message']);
        self::assertStringContainsString('dxf, ifc, gltf', $refused['message']);
    }

    public function testABuildingIsSeenFromASideAndCut(): void
    {
        $plan = PlanWriter::document((new House())->plan());
        [$code, $side] = self::plinth(['view', '--line' => '0 -1000; 10000 -1000'], $plan);
        self::assertSame([0, []], [$code, $side['faces']]);
        self::assertIsArray($side['lines']);
        self::assertContains('roof', array_column($side['lines'], 'kind'));
        self::assertNotContains('hidden', array_column($side['lines'], 'role'));
        $file = (string) tempnam(sys_get_temp_dir(), 'dxf');
        $line = '-500 3000; 6000,3000; 6000 1500; 11000 1500';
        [, $told] = self::plinth(['view', '--line' => $line, '--cut' => true, '--dxf' => $file], $plan);
        self::assertSame(filesize($file), $told['bytes']);
        self::assertGreaterThan(10, $told['faces']);
        unlink($file);
        self::assertSame('line', self::errorOf(self::plinth(['view', '--line' => '0 0'], $plan))['at']);
        self::assertSame('line', self::errorOf(self::plinth(['view', '--line' => '0 0; x 1'], $plan))['at']);
        self::assertSame('view-depth', self::errorOf(self::plinth(['view', '--line' => '0 0; 1000 0', '--depth' => '-5'], $plan))['code']);
    }

    public function testThePictureIsAskedForSkewWallsAndOneWall(): void
    {
        $map = ['pixelToMm' => DrawnWalls::map()->rows()];
        [$code, $skew] = self::plinth(['skew', 'image' => 'scan.png']);
        self::assertSame(0, $code);
        self::assertEqualsWithDelta(0.0, $skew['degrees'], 0.05);
        [, $found] = self::plinth(['walls', 'image' => 'scan.png'], $map);
        self::assertIsArray($found['walls']);
        self::assertGreaterThanOrEqual(\count(DrawnWalls::WALLS) - 1, \count($found['walls']));
        [$x1, $y1, $x2, $y2, $thickness] = DrawnWalls::WALLS[0];
        $pixel = static fn (float $x, float $y): array => [
            DrawnWalls::map()->toPixel(new Point($x, $y))->x,
            DrawnWalls::map()->toPixel(new Point($x, $y))->y,
        ];
        foreach ([
            ['from' => $pixel($x1, $y1), 'to' => $pixel($x2, $y2)],
            ['at' => $pixel($x1 + 0.35 * ($x2 - $x1), $y1 + 0.35 * ($y2 - $y1))],
        ] as $where) {
            $wall = self::plinth(['probe', 'image' => 'scan.png'], $map + $where)[1]['wall'];
            self::assertIsArray($wall, (string) json_encode($where));
            self::assertEqualsWithDelta($thickness, $wall['thickness'], 6.0);
            self::assertLessThan(20.0, $wall['plusMinus']);
        }
        self::assertNull(self::plinth(['probe', 'image' => 'scan.png'], $map + ['at' => [3, 3]])[1]['wall']);
    }

    /** @return iterable<string, array{array<array-key, mixed>, array<string, mixed>|null, string, string}> */
    public static function wrongInput(): iterable
    {
        yield 'no length' => [['length', 'text' => ['abc']], null, 'unreadable-length', '0'];
        yield 'no unit' => [['length', 'text' => ['1'], '--unit' => 'ell'], null, 'usage', 'unit'];
        yield 'another format' => [
            ['derive'],
            ['format' => 'zesty-plinth/plan', 'version' => 1, 'units' => 'ft'],
            'unreadable-document',
            'units',
        ];
        yield 'a figure at no wall' => [
            ['settle'],
            [
                'format' => 'zesty-plinth/plan',
                'version' => 1,
                'units' => 'mm',
                'storeys' => [['id' => 'g', 'figures' => [['id' => 'f', 'a' => 'x', 'b' => 'y', 'mm' => 1]]]],
            ],
            'unreadable-document',
            'storeys/0/figures/0/a',
        ];
        yield 'two picks in one' => [
            ['fit'],
            ['size' => [10, 10], 'lengths' => [['a' => [1, 1], 'b' => [1, 1], 'mm' => 3]]],
            'coincident-picks',
            'lengths/0',
        ];
        yield 'nothing known' => [['fit'], ['size' => [10, 10]], 'under-determined', ''];
        yield 'no model' => [['fit'], ['size' => [10, 10], 'model' => 'bent'], 'unreadable-document', 'model'];
        yield 'no command' => [['fly'], null, 'usage', 'fly'];
        yield 'no option' => [['derive', '--fast' => true], null, 'usage', ''];
        yield 'no file' => [['derive', '--in' => '/nowhere.json'], null, 'usage', 'in'];
        yield 'no picture' => [['skew', 'image' => 'other.png'], null, 'usage', 'image'];
        yield 'no image at all' => [['skew'], null, 'usage', ''];
        yield 'no map' => [['walls', 'image' => 'scan.png'], ['pixelToMm' => [[1, 0, 0], [0, 0, 0], [0, 0, 1]]], 'usage', 'pixelToMm'];
        yield 'no bearing' => [['traverse'], ['legs' => [['bearing' => 'up', 'length' => '1']]], 'unreadable-bearing', ''];
        $gables = [['x' => 0, 'y' => 0], ['x' => 9000, 'y' => 0], ['x' => 0, 'y' => 9000]];
        yield 'no roof' => [['roof'], ['rings' => [$gables]], 'roof-open', ''];
        yield 'no legs' => [['traverse'], ['legs' => []], 'unusable-boundary', 'legs'];
    }

    /**
     * @param array<array-key, mixed> $arguments
     * @param array<string, mixed>|null $document
     */
    #[DataProvider('wrongInput')]
    public function testWrongInputIsAnsweredWithExitTwo(array $arguments, ?array $document, string $code, string $at): void
    {
        $answer = self::plinth($arguments, $document);
        self::assertSame(2, $answer[0]);
        self::assertSame([$code, $at], [self::errorOf($answer)['code'], self::errorOf($answer)['at']]);
    }

    public function testEveryCommandSaysWhatItReadsAndAnswers(): void
    {
        $commands = ['length', 'fit', 'traverse', 'roof', 'derive', 'bodies', 'view', 'settle', 'export', 'skew', 'probe', 'walls'];
        foreach ($commands as $command) {
            $tester = new ApplicationTester(self::program());
            self::assertSame(0, $tester->run([$command, '--help' => true]));
            self::assertMatchesRegularExpression('/Usage:\s+'.$command.'/', $tester->getDisplay());
            self::assertMatchesRegularExpression('/Help:\s+Reads|Help:\s+Answers/', $tester->getDisplay());
        }
    }

    /** The program itself, in a process of its own: standard input, standard output, exit codes. */
    public function testAsScriptsRunIt(): void
    {
        foreach ([
            [['length', '3.6 m'], '', 0, 'mm'],
            [['derive'], '{', 2, 'error'],
            [['derive'], (string) json_encode(self::plan()), 0, 'storeys'],
        ] as [$arguments, $input, $exit, $key]) {
            $process = proc_open(
                [\PHP_BINARY, '-d', 'pcov.enabled=0', \dirname(__DIR__, 2).'/bin/plinth', ...$arguments],
                [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']],
                $pipes,
            );
            self::assertIsResource($process);
            fwrite($pipes[0], $input);
            fclose($pipes[0]);
            $answer = json_decode((string) stream_get_contents($pipes[1]), true, 64, \JSON_THROW_ON_ERROR);
            self::assertSame($exit, proc_close($process));
            self::assertIsArray($answer);
            self::assertArrayHasKey($key, $answer);
        }
    }

    public function testFiguresAreReadWithNothingKnownOfTheDrawing(): void
    {
        [$code, $read] = self::plinth(['read', 'image' => 'figures.png'], ['pixelToMm' => null]);
        self::assertSame(0, $code);
        self::assertSame(0, $read['turns']);
        self::assertIsArray($read['figures']);
        $mm = array_column($read['figures'], 'mm');
        sort($mm);
        self::assertEquals(DrawnFigures::millimetres()->sorted(), $mm);
        self::assertIsArray($read['rooms']);
        self::assertSame(['STORE', 'STORE'], array_column($read['rooms'], 'name'), 'Level, and written along the side.');
        self::assertIsArray($read['pixelToMm']);
        self::assertIsArray($read['scaleBar']);
        self::assertSame(5000, $read['scaleBar']['mm']);
        self::assertSame(100, $read['statedScale']);
    }

    /** What the demo encloses, and by what its ways run; a document that says nothing of fire encloses nothing. */
    public function testEnclosuresAreToldOfADocument(): void
    {
        $lodge = json_decode((string) file_get_contents(__DIR__.'/../../demo/reedmace-lodge.json'), true, 64, \JSON_THROW_ON_ERROR);
        self::assertIsArray($lodge);
        [$code, $told] = self::plinth(['enclosures'], $lodge);
        self::assertSame(0, $code);
        $told = JsonValue::of($told);
        self::assertSame([], $told->get('findings')->items());
        $totals = array_map(static fn (JsonValue $t): array => [
            $t->get('fireClass')->text(), $t->get('storey')->text(), round($t->get('areaM2')->number(), 2),
        ], $told->get('totals')->items());
        self::assertSame([['class stair', 'ground', 42.21], ['class stair', 'upper', 18.27], ['class kitchen', 'ground', 29.61]], $totals);
        $doors = array_map(
            static fn (JsonValue $d): array => [$d->get('opening')->text(), $d->get('rated')->text()],
            $told->get('doors')->items(),
        );
        self::assertContains(['D03', 'EI2 30-S'], $doors);
        [, $escape] = self::plinth(['escape'], $lodge);
        $down = JsonValue::of($escape)->get('stairs')->items()[0]->get('route');
        $runs = array_map(static fn (JsonValue $run): string => $run->get('fireClass')->text(), $down->get('enclosed')->items());
        self::assertSame(['class stair'], $runs);
        self::assertEqualsWithDelta($down->get('mm')->number(), $down->get('enclosed')->items()[0]->get('mm')->number(), 0.1);
        // Without the landing the stair goes on unprotected, and that is found.
        $lodge['fire'] = [
            'classes' => [['id' => 'c', 'name' => 'REI 90']],
            'enclosures' => [['id' => 'e', 'storey' => 'ground', 'class' => 'c', 'rooms' => ['stair']]],
        ];
        [, $alone] = self::plinth(['enclosures'], $lodge);
        $findings = JsonValue::of($alone)->get('findings')->items();
        self::assertSame(['stops'], array_map(static fn (JsonValue $f): string => $f->get('code')->text(), $findings));
        self::assertSame('landing', $findings[0]->get('room')->text());
        unset($lodge['fire']);
        self::assertSame(['areas' => [], 'totals' => [], 'findings' => [], 'doors' => []], self::plinth(['enclosures'], $lodge)[1]);
    }

    /** The lodge as a DXF, as a printed sheet and as an archive: in again it has as many walls and openings, and the DXF the same ones. */
    public function testWhatWasExportedIsImported(): void
    {
        $lodge = json_decode((string) file_get_contents(__DIR__.'/../../demo/reedmace-lodge.json'), true, 64, \JSON_THROW_ON_ERROR);
        self::assertIsArray($lodge);
        $folder = sys_get_temp_dir().'/plinth-import-'.bin2hex(random_bytes(4));
        mkdir($folder);
        try {
            $first = ['--out' => "$folder/a.dxf", '--storey' => self::idOfFirst($lodge)];
            self::assertSame(0, self::plinth(['export', 'format' => 'dxf', ...$first], $lodge)[0]);
            [$code, $fromDxf] = self::plinth(['import', 'file' => "$folder/a.dxf"]);
            self::assertSame(0, $code);
            foreach (['pdf', 'svg'] as $format) {
                $sheet = ['--out' => "$folder/a.$format", '--paper' => 'A2', '--scale' => '50'];
                self::assertSame(0, self::plinth(['export', 'format' => $format, ...$sheet], $lodge)[0]);
                [$code, $printed] = self::plinth(['import', 'file' => "$folder/a.$format", '--scale' => '50']);
                self::assertSame([0, self::measured($fromDxf)], [$code, self::measured($printed)], $format);
            }
            // A curved wall comes back as the arc that was printed, with what is in it.
            $first = array_diff_key(
                JsonValue::of($lodge)->get('storeys')->items()[0]->map(),
                array_flip(['roofs', 'chimneys', 'floors', 'ceilings', 'surfaces']),
            );
            $first['walls'] = array_map(
                static fn (JsonValue $w): array => ['rise' => 'gE' === $w->get('id')->text() ? -1500.0 : 0.0] + $w->map(),
                JsonValue::of($first)->get('walls')->items(),
            );
            $round = ['storeys' => [$first], 'fire' => []] + $lodge;
            foreach (['pdf', 'svg'] as $format) {
                $sheet = ['--out' => "$folder/a.$format", '--paper' => 'A2', '--scale' => '50'];
                self::assertSame(0, self::plinth(['export', 'format' => $format, ...$sheet], $round)[0]);
                [, $printed] = self::plinth(['import', 'file' => "$folder/a.$format", '--scale' => '50']);
                $walls = JsonValue::of($printed)->get('storeys')->items()[0]->get('walls')->items();
                $rises = array_map(static fn (JsonValue $w): float => abs($w->optional('rise')?->number() ?? 0.0), $walls);
                self::assertCount(7, $rises);
                self::assertEqualsWithDelta(1500.0, max($rises), 0.1, $format);
                self::assertCount(12, JsonValue::of($printed)->get('storeys')->items()[0]->get('openings')->items());
            }
            file_put_contents("$folder/a.zip", ZipFile::of(['plan.json' => json_encode($lodge, \JSON_THROW_ON_ERROR)]));
            [, $archived] = self::plinth(['import', 'file' => "$folder/a.zip"]);
            self::assertEquals(self::plinth(['import', 'file' => __DIR__.'/../../demo/reedmace-lodge.json'])[1], $archived);
            self::assertSame(self::measured($archived), self::measured($fromDxf));
            self::assertSame('scale', self::errorOf(self::plinth(['import', 'file' => "$folder/a.svg"]))['at']);
            self::assertSame('scale', self::errorOf(self::plinth(['import', 'file' => "$folder/a.svg", '--scale' => 'large']))['at']);
            self::assertSame('file', self::errorOf(self::plinth(['import', 'file' => __FILE__]))['at']);
            $none = ['file' => "$folder/a.pdf", '--page' => '7', '--scale' => '50'];
            self::assertSame('file', self::errorOf(self::plinth(['import', ...$none]))['at']);
        } finally {
            array_map(unlink(...), array_filter((array) glob("$folder/*"), is_string(...)));
            rmdir($folder);
        }
    }

    /** @param array<mixed> $document */
    private static function idOfFirst(array $document): string
    {
        return JsonValue::of($document)->get('storeys')->items()[0]->get('id')->text();
    }

    /**
     * @param array<mixed> $document
     *
     * @return array{list<string>, list<string>} lengths and thicknesses of the first storey's walls, and widths of openings, mm
     */
    private static function measured(array $document): array
    {
        $storey = JsonValue::of($document)->get('storeys')->items()[0];
        $walls = array_map(static fn (JsonValue $w): string => \sprintf(
            '%.0f × %.0f',
            hypot($w->get('to')->pair()[0] - $w->get('from')->pair()[0], $w->get('to')->pair()[1] - $w->get('from')->pair()[1]),
            $w->get('thickness')->number(),
        ), $storey->get('walls')->items());
        $openings = array_map(
            static fn (JsonValue $o): string => $o->get('kind')->text().\sprintf(' %.0f', $o->get('width')->number()),
            $storey->get('openings')->items(),
        );
        sort($walls);
        sort($openings);

        return [$walls, $openings];
    }

    private static function program(): Program
    {
        $sandboxed = new Sandboxed(\dirname(__DIR__, 2));

        return new Program(new class implements Pictures {
            private static ?GreyRaster $drawn = null;

            public function read(string $file): ?Picture
            {
                return match ($file) {
                    'scan.png' => new Picture(self::$drawn ??= DrawnWalls::raster('solid')),
                    'figures.png' => new Picture(DrawnFigures::millimetres()->withBar(['0', '1', '2', '3', '4', '5 m'])->raster),
                    default => null,
                };
            }
        }, new class implements Words {
            public function in(GreyRaster $picture): array
            {
                return [
                    new ReadWord('STORE', 0.9, $picture->width / 2.0, $picture->height / 2.0, 60.0, 20.0),
                    new ReadWord('1:100', 0.9, 40.0, 40.0, 60.0, 20.0),
                ];
            }
        }, new SandboxedPrinter($sandboxed), new SandboxedLineFiles($sandboxed));
    }

    /**
     * @param array<array-key, mixed> $arguments
     * @param array<mixed>|null $document what stands in the file that --in names
     *
     * @return array{int, array<mixed>} exit code and answer
     */
    private static function plinth(array $arguments, ?array $document = null): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'plinth');
        try {
            if (null !== $document) {
                file_put_contents($file, json_encode($document, \JSON_THROW_ON_ERROR));
                $arguments['--in'] = $file;
            }
            $tester = new ApplicationTester(self::program());
            $exit = $tester->run(['command' => array_shift($arguments), ...$arguments]);
            $answer = json_decode($tester->getDisplay(), true, 64, \JSON_THROW_ON_ERROR);
            self::assertIsArray($answer);

            return [$exit, $answer];
        } finally {
            unlink($file);
        }
    }

    /**
     * @param array{int, array<mixed>} $answer
     *
     * @return array<mixed>
     */
    private static function errorOf(array $answer): array
    {
        self::assertIsArray($answer[1]['error'] ?? null, (string) json_encode($answer));

        return $answer[1]['error'];
    }
}
