<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/** A drawing is trued up by all that is known of it; what looks like a slip is said first, and a locked drawing stays. */
#[Group('ink')]
final class TrueUpTest extends TestCase
{
    private const SCAN = __DIR__.'/../../demo/sallow-fen-ground.jpg';
    private static ?Desk $shared = null;

    public function testARoomACountAPlaceAndAStatedScaleAllSayTheSize(): void
    {
        $desk = $this->desk();
        $drawing = (string) $desk->drawing;
        $picks = array_map(static fn (): string => Desk::newId(), range(1, 4));
        $room = Desk::newId();
        $desk->change([
            ...array_map(
                static fn (string $id, array $at): array => self::pick($id, $drawing, $at[0], $at[1]),
                $picks,
                [[500.0, 1500.0], [1220.0, 1500.0], [1220.0, 660.0], [500.0, 660.0]],
            ),
            [
                'do' => 'add',
                'type' => 'rectangle',
                'id' => $room,
                'values' => [
                    'drawing' => $drawing,
                    'a' => $picks[0],
                    'b' => $picks[1],
                    'c' => $picks[2],
                    'd' => $picks[3],
                    'width' => '3.6 m',
                    'depth' => '4200',
                    'unit' => 'mm',
                    'standing' => 'figured',
                ],
            ],
        ]);
        $report = $this->report($desk);
        self::assertEqualsWithDelta(5.0, $report->get('mmPerPixel')->number(), 1e-6);
        self::assertEqualsWithDelta(3600.0, $report->get('rectangles')->items()[0]->get('fittedWidthMm')->number(), 1e-3);
        // A count of the building's module along the same side.
        $desk->change([['do' => 'set', 'type' => 'project', 'id' => $desk->id, 'values' => ['unitLength' => 225.0, 'joint' => 10.0]]]);
        $count = $desk->knownLength([[500.0, 1500.0], [1220.0, 1500.0]], '16u');
        $count[2] = self::with($count[2], ['standing' => 'module', 'unitLength' => 225.0, 'joint' => 10.0]);
        $desk->change($count);
        self::assertEqualsWithDelta(3600.0, $this->report($desk)->get('lengths')->items()[0]->get('fittedMm')->number(), 1e-2);
        // A corner onto the origin: place and nothing else.
        $desk->change([
            self::pick($at = Desk::newId(), $drawing, 500.0, 1500.0),
            [
                'do' => 'add',
                'type' => 'controlPoint',
                'id' => Desk::newId(),
                'values' => ['drawing' => $drawing, 'pick' => $at, 'x' => 0.0, 'y' => 0.0, 'text' => 'origin'],
            ],
        ]);
        $report = $this->report($desk);
        self::assertTrue($report->get('determined')->get('place')->boolean());
        self::assertEqualsWithDelta([0.0, 0.0], $this->map($desk)->toMm(new PixelPoint(500, 1500))->toArray(), 1e-6);
        $desk->change([[
            'do' => 'set',
            'type' => 'drawing',
            'id' => $drawing,
            'values' => ['statedScale' => 50.0, 'statedPaper' => 420.0],
        ]]);
        self::assertEqualsWithDelta(5.0 / (50 * 420 / 3308), $this->report($desk)->get('statedScale')->get('ratio')->number(), 0.01);
    }

    public function testDistancesAcrossAndAllowancesForWalls(): void
    {
        $desk = $this->desk();
        $length = $desk->knownLength([[300.0, 1500.0], [900.0, 700.0]], '4000');
        $c = Desk::newId();
        $desk->change([
            self::pick($c, (string) $desk->drawing, 2900.0, 1500.0),
            $length[0],
            $length[1],
            self::with($length[2], ['along' => 'across', 'c' => $c]),
        ]);
        self::assertEqualsWithDelta(5.0, $this->report($desk)->get('mmPerPixel')->number(), 1e-6);
        $desk->change([[
            'do' => 'set',
            'type' => 'knownLength',
            'id' => self::id($length[2]),
            'values' => ['picked' => 'inner face', 'wall' => 300.0],
        ]]);
        self::assertEqualsWithDelta(
            3400.0 / 800,
            $this->report($desk)->get('mmPerPixel')->number(),
            1e-6,
            'Figured outside, picked inside: two walls less.',
        );
        $error = $desk->refused(422, [[
            'do' => 'set',
            'type' => 'knownLength',
            'id' => self::id($length[2]),
            'values' => ['along' => 'straight'],
        ]]);
        self::assertStringContainsString('operations/0/values/c', json_encode($error, \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR));
        $error = $desk->refused(422, [[
            'do' => 'set',
            'type' => 'knownLength',
            'id' => self::id($length[2]),
            'values' => ['wall' => 2500.0],
        ]]);
        self::assertSame('length-not-positive', $error['code']);
    }

    public function testOneLengthServesAllDrawingsOfItsPage(): void
    {
        $desk = $this->desk();
        $second = Desk::newId();
        $desk->change([[
            'do' => 'add',
            'type' => 'drawing',
            'id' => $second,
            'values' => [
                'page' => $desk->page,
                'storey' => $desk->storey,
                'name' => 'detail',
                'kind' => 'detail',
                'left' => 2000,
                'top' => 200,
                'width' => 800,
                'height' => 800,
                'fade' => 1,
                'order' => 9,
            ],
        ]]);
        $length = $desk->knownLength([[300.0, 1500.0], [2300.0, 1500.0]], '10 000');
        $desk->change([$length[0], $length[1], self::with($length[2], ['wholePage' => true])]);
        $reports = JsonValue::of($desk->state()['fits'])->items();
        self::assertCount(2, $reports);
        foreach ($reports as $report) {
            self::assertSame('lengths', $report->get('basis')->text());
            self::assertEqualsWithDelta(5.0, $report->get('mmPerPixel')->number(), 1e-6);
            self::assertCount(1, $report->get('lengths')->items());
        }
    }

    public function testASlipIsSaidAndNothingOfATrialIsKept(): void
    {
        $desk = $this->desk();
        $map = self::truth();
        $ends = array_map(
            static fn (array $p): array => [$map->toPixel(new Point(...$p))->x, $map->toPixel(new Point(...$p))->y],
            [[0.0, 0.0], [13200.0, 0.0], [0.0, 8600.0]],
        );
        $try = static fn (array $operations): JsonValue => JsonValue::of(
            $desk->client->ok('POST', "/api/projects/$desk->id/try", ['base' => $desk->revision, 'operations' => $operations]),
        );
        // Alone, the walls that the figure makes tell.
        $tried = $try($desk->knownLength([$ends[0], $ends[1]], '132 000'));
        self::assertSame('factor-10', $tried->get('slips')->items()[0]->get('code')->text());
        self::assertEqualsWithDelta(13_200, $tried->get('slips')->items()[0]->get('wouldBeMm')->number(), 1);
        self::assertEqualsWithDelta(63.5, $tried->get('fits')->items()[0]->get('mmPerPixel')->number(), 0.5, 'What would be, is told.');
        self::assertSame([], Desk::rows($desk->state(), 'knownLength'));
        self::assertSame([], $try($desk->knownLength([$ends[0], $ends[1]], '13 200'))->get('slips')->items());
        // Beside another, that one tells: here by two walls.
        $desk->change($desk->knownLength([$ends[0], $ends[1]], '13 200'));
        $tried = $try($desk->knownLength([$ends[0], $ends[2]], '8 000'));
        self::assertSame('wall', $tried->get('slips')->items()[0]->get('code')->text());
        self::assertEqualsWithDelta(8_600, $tried->get('slips')->items()[0]->get('wouldBeMm')->number(), 12);
        $slip = $try($desk->knownLength([$ends[0], $ends[2]], '6 800'))->get('slips')->items()[0];
        self::assertSame(['digits', 8_600.0], [$slip->get('code')->text(), $slip->get('wouldBeMm')->number()]);
        self::assertSame(
            'length-not-positive',
            $desk->client->refused(422, 'POST', "/api/projects/$desk->id/try", [
                'base' => $desk->revision,
                'operations' => $desk->knownLength([$ends[0], $ends[2]], '0'),
            ])['code'],
        );
    }

    public function testALaterFitKeepsTheTracingOrCarriesItAndSaysHowFarFirst(): void
    {
        $desk = $this->desk();
        $desk->change($desk->knownLength([[300.0, 1500.0], [2300.0, 1500.0]], '10 000'));
        $chain = $desk->chain([[1000.0, 1000.0], [9000.0, 1000.0]]);
        $desk->change([$chain['operation'], ['do' => 'add', 'type' => 'boundary', 'id' => Desk::newId(), 'values' => [
            'storey' => $desk->storey, 'drawing' => $desk->drawing, 'name' => 'Lot', 'x' => 9000.0, 'y' => 1000.0,
        ]]]);
        $more = $desk->knownLength([[300.0, 500.0], [2300.0, 500.0]], '10 200');
        $tried = JsonValue::of(
            $desk->client->ok('POST', "/api/projects/$desk->id/try", ['base' => $desk->revision, 'operations' => $more]),
        );
        $move = $tried->get('moves')->items()[0];
        self::assertSame(3.0, $move->get('traced')->number());
        self::assertGreaterThan(20.0, $move->get('mm')->number());
        $before = $this->nodes($desk);
        $desk->change($more);
        self::assertSame($before, $this->nodes($desk), 'Never silently.');
        $desk->client->ok('POST', "/api/projects/$desk->id/undo", ['id' => Desk::newId()]);
        $desk->state();
        $desk->client->ok('POST', "/api/projects/$desk->id/changes", Desk::body($more, $desk->revision) + ['tracing' => 'carry']);
        $after = $this->nodes($desk);
        $moved = max(0.0, ...array_map(static fn (array $a, array $b): float => hypot($a[0] - $b[0], $a[1] - $b[1]), $before, $after));
        self::assertEqualsWithDelta($move->get('mm')->number(), $moved, 1e-6, 'As far as was said.');
        $begin = Desk::rows($desk->state(), 'boundary')[0]['values'];
        self::assertEqualsWithDelta($after[1], [$begin['x'], $begin['y']], 1e-6, 'A boundary goes along with the corner that it begins at.');
    }

    public function testALockedDrawingIsMovedByNothing(): void
    {
        $desk = $this->desk();
        $drawing = (string) $desk->drawing;
        $desk->change($desk->knownLength([[300.0, 1500.0], [2300.0, 1500.0]], '10 000', $length = Desk::newId()));
        $lock = static fn (bool $locked): array => [[
            'do' => 'set',
            'type' => 'drawing',
            'id' => $drawing,
            'values' => ['locked' => $locked],
        ]];
        $desk->change($lock(true));
        $desk->state();
        $before = $this->map($desk)->matrix();
        foreach ([
            $desk->knownLength([[300.0, 500.0], [2300.0, 500.0]], '10 200'),
            [['do' => 'set', 'type' => 'knownLength', 'id' => $length, 'values' => ['heldOut' => true]]],
            [['do' => 'remove', 'type' => 'knownLength', 'id' => $length]],
            [['do' => 'set', 'type' => 'drawing', 'id' => $drawing, 'values' => ['turns' => 1]]],
            [['do' => 'set', 'type' => 'drawing', 'id' => $drawing, 'values' => ['model' => 'stretched', 'ownFactor' => 1.01]]],
            [['do' => 'set', 'type' => 'drawing', 'id' => $drawing, 'values' => ['left' => 100.0]]],
        ] as $operations) {
            self::assertSame('locked', $desk->refused(409, $operations)['code']);
        }
        // How it shows is no move; and unlocked, it takes statements again.
        $desk->change([['do' => 'set', 'type' => 'drawing', 'id' => $drawing, 'values' => ['fade' => 0.5, 'inkOnly' => true]]]);
        self::assertSame($before, $this->map($desk)->matrix());
        $desk->change($lock(false));
        $desk->change($desk->knownLength([[300.0, 500.0], [2300.0, 500.0]], '10 200'));
        self::assertNotSame($before, $this->map($desk)->matrix());
    }

    public function testAnyEarlierFitCanBeGoneBackTo(): void
    {
        $desk = $this->desk();
        $drawing = (string) $desk->drawing;
        $desk->change($desk->knownLength([[300.0, 1500.0], [2300.0, 1500.0]], '10 000', $first = Desk::newId()));
        $then = $desk->revision;
        $was = $this->map($desk)->matrix();
        $desk->change($desk->knownLength([[300.0, 500.0], [2300.0, 500.0]], '10 200'));
        $desk->change([['do' => 'set', 'type' => 'knownLength', 'id' => $first, 'values' => ['text' => '10 400']]]);
        $desk->change([['do' => 'set', 'type' => 'drawing', 'id' => $drawing, 'values' => ['statedScale' => 50.0]]]);
        $fits = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/drawings/$drawing/fits"))->get('fits')->items();
        self::assertCount(5, $fits, 'The guess, and four since.');
        self::assertSame((float) $then, $fits[3]->get('revision')->number());
        self::assertEqualsWithDelta(5.0, $fits[3]->get('mmPerPixel')->number(), 1e-6);
        $desk->change([['do' => 'goBack', 'goBack' => ['drawing' => $drawing, 'revision' => $then]]]);
        self::assertEqualsWithDelta($was, $this->map($desk)->matrix(), 1e-9);
        $rows = Desk::rows($desk->state(), 'knownLength');
        self::assertSame(['10 000'], array_map(static fn (array $r): mixed => $r['values']['text'], $rows));
        // It is one change like any other: undone, all is there again.
        $desk->client->ok('POST', "/api/projects/$desk->id/undo", ['id' => Desk::newId()]);
        self::assertCount(2, Desk::rows($desk->state(), 'knownLength'));
        self::assertSame(
            'nothing-left',
            $desk->refused(409, [['do' => 'goBack', 'goBack' => ['drawing' => $drawing, 'revision' => $desk->revision]]])['code'],
        );
    }

    public function testTheInkSaysWhatAPickMeansAndHowThePageIsTurned(): void
    {
        $desk = $this->desk();
        $true = self::truth()->toPixel(new Point(13200.0, 0.0));
        $near = static fn (float $dx, float $dy, string $more = ''): JsonValue => JsonValue::of(
            $desk->client->ok(
                'GET',
                \sprintf(
                    '/api/projects/'.$desk->id.'/pages/%s/found?x=%.3F&y=%.3F&reach=12%s',
                    $desk->page,
                    $true->x + $dx,
                    $true->y + $dy,
                    $more,
                ),
            ),
        );
        $found = $near(5.0, -6.0)->get('found');
        self::assertSame('corner', $found->get('kind')->text());
        self::assertLessThan(0.4, hypot($found->get('x')->number() - $true->x, $found->get('y')->number() - $true->y));
        self::assertNull($near(70.0, 60.0)->optional('found'), 'Paper.');
        self::assertSame('wall face', $near(-200.0, 3.0, '&mmPerPixel=6.35')->get('found')->get('kind')->text());
        self::assertNull($near(-200.0, 3.0, '&only=corners')->optional('found'));
        $desk->client->refused(422, 'GET', "/api/projects/$desk->id/pages/$desk->page/found?x=here&y=1&reach=12");
        self::assertNull(
            JsonValue::of(
                $desk->client->ok('GET', "/api/projects/$desk->id/pages/$desk->page/ticks?ax=100&ay=40&bx=900&by=40"),
            )->optional('count'),
            'Blank paper has no beat.',
        );
        $skew = $desk->skew();
        $m = self::truth();
        $angle = rad2deg(
            atan2(
                $m->toPixel(new Point(0, 0))->y - $m->toPixel(new Point(10_000, 0))->y,
                $m->toPixel(new Point(10_000, 0))->x - $m->toPixel(new Point(0, 0))->x,
            ),
        );
        self::assertEqualsWithDelta($angle, $skew->get('degrees')->number(), 0.01);
        self::assertGreaterThan(0.3, $skew->get('confidence')->number());
        $leans = $skew->get('leans');
        self::assertSame([0.0, 0.0], [$leans->get('u')->number(), $leans->get('v')->number()], 'A scan lies flat.');
    }

    /** The demo's plan, and the same upside down: its own writing says how to turn it and how large it is. */
    public function testAPageIsReadByItself(): void
    {
        $plan = __DIR__.'/../../demo/sallow-fen-ground.jpg';
        $over = sys_get_temp_dir().'/'.uniqid('over', true).'.jpg';
        exec(\sprintf('vips rot %s %s d180', escapeshellarg($plan), escapeshellarg($over)), result_code: $code);
        self::assertSame(0, $code);
        try {
            foreach ([[$plan, 0], [$over, 2]] as [$file, $turns]) {
                $desk = new Desk(Client::ofStack()->signIn());
                $desk->bringIn($file);
                $desk->imported();
                self::assertSame('waiting', $desk->progress('read-figures', $desk->drawing)->get('state')->text(), 'Nobody has asked.');
                $desk->ask('read-figures', $desk->drawing);
                self::assertSame('done', $desk->ended('read-figures', $desk->drawing)->get('state')->text());
                $made = JsonValue::of(
                    $desk->client->ok('GET', "/api/projects/$desk->id/changes?since=$desk->revision"),
                )->get('pages')->items()[0]->get('made');
                $way = $made->get('wayUp');
                self::assertSame($turns, (int) $way->get('turns')->number());
                self::assertTrue($way->get('sure')->boolean());
                self::assertFalse($made->get('isScene')->boolean());
                // Its title stands at the sheet's lower right, "Ground floor 1:50 …", whichever way up the sheet lies.
                $title = $made->get('titles')->items()[0];
                self::assertSame(['plan', 'Ground', 0.0], [$title->get('kind')->text(), $title->get('storey')->text(), $title->get('level')->number()]);
                [$left, $top] = array_map(static fn (JsonValue $v): float => $v->number(), $title->get('box')->items());
                self::assertSame(0 === $turns, $left > 3307 / 2 && $top > 2339 / 2);
                self::assertGreaterThan(
                    6,
                    \count(JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/drawings/$desk->drawing/readings"))->get('figures')->items()),
                );
                self::assertSame('missing', $desk->progress('find-way-up', $desk->page)->get('state')->text(), 'Its figures have said it.');
            }
            $desk = new Desk(Client::ofStack()->signIn());
            $desk->bringIn(__DIR__.'/../../demo/station-south-side.jpg');
            $desk->imported();
            $made = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id"))->get('pages')->items()[0]->get('made');
            self::assertTrue($made->get('isScene')->boolean(), 'A photograph of a building.');
            self::assertSame('missing', $desk->progress('read-figures', $desk->drawing)->get('state')->text(), 'Nothing is written on it.');
            $desk->ask('read-figures', $desk->drawing);
            $desk->ended('read-figures', $desk->drawing);
            self::assertSame('waiting', $desk->progress('find-way-up', $desk->page)->get('state')->text(), 'Its figures have not said it.');
        } finally {
            @unlink($over);
        }
    }

    public function testPlusMinusOverThePageAndTheGridOfAxes(): void
    {
        $desk = $this->desk();
        $drawing = (string) $desk->drawing;
        self::assertSame(
            [],
            JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/drawings/$drawing/spread"))->get('plusMinusMm')->items(),
        );
        $desk->change($desk->knownLength([[1000.0, 1000.0], [2000.0, 1000.0]], '5 000'));
        $spread = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/drawings/$drawing/spread"));
        $values = array_map(static fn (JsonValue $v): float => $v->number(), $spread->get('plusMinusMm')->items());
        self::assertCount((int) ($spread->get('columns')->number() * $spread->get('rows')->number()), $values);
        sort($values);
        self::assertGreaterThan(2.0 * $values[0], $values[\count($values) - 1]);
        $axes = JsonValue::of($desk->client->ok('GET', '/api/spacings?text='.rawurlencode('2 x 6000 + 3600').'&unit=mm&first=A'));
        self::assertSame(
            [0.0, 6000.0, 12000.0, 15600.0],
            array_map(static fn (JsonValue $v): float => $v->number(), $axes->get('places')->items()),
        );
        self::assertStringContainsString(
            '5 x 6000',
            json_encode($desk->client->refused(422, 'GET', '/api/spacings?text='.rawurlencode('5 x 0').'&unit=mm'), \JSON_THROW_ON_ERROR),
            'How to write it.',
        );
        $desk->change([
            ['do' => 'add', 'type' => 'gridAxis', 'id' => Desk::newId(), 'values' => ['along' => 'x', 'at' => 6000.0, 'label' => 'B']],
            [
                'do' => 'add',
                'type' => 'column',
                'id' => Desk::newId(),
                'values' => ['storey' => $desk->storey, 'x' => 6000.0, 'y' => 0.0, 'width' => 350.0, 'depth' => 350.0, 'round' => false],
            ],
        ]);
        self::assertSame('B', Desk::rows($desk->state(), 'gridAxis')[0]['values']['label']);
        $dxf = $desk->client->send('GET', "/api/projects/$desk->id/storeys/$desk->storey/plan.dxf")[1]['text'] ?? '';
        self::assertIsString($dxf);
        self::assertSame(
            [1, 1],
            [
                preg_match_all('/\r\n8\r\ncolumns\r\n/', $dxf),
                preg_match_all('/LINE\r\n5\r\n[0-9A-F]+\r\n330\r\n1F\r\n100\r\nAcDbEntity\r\n8\r\naxes\r\n/', $dxf),
            ],
            'They go along into the DXF.',
        );
        $desk->refused(422, [[
            'do' => 'add',
            'type' => 'column',
            'id' => Desk::newId(),
            'values' => ['storey' => $desk->storey, 'x' => 0, 'y' => 0, 'width' => -1, 'depth' => 350],
        ]]);
    }

    public function testTheDistanceMetersReadingReachesItsOwnAccountOnly(): void
    {
        $client = Client::ofStack()->signIn();
        $sent = ['id' => Desk::newId(), 'text' => '3.482'];
        self::assertSame('3.482', JsonValue::of($client->ok('POST', '/api/meter', $sent))->get('reading')->get('text')->text());
        $client->ok('POST', '/api/meter', $sent); // sent again after a break: once
        self::assertSame($sent['id'], JsonValue::of($client->ok('GET', '/api/meter'))->get('reading')->get('id')->text());
        $client->refused(422, 'POST', '/api/meter', ['id' => Desk::newId(), 'text' => '-1']);
        $client->refused(422, 'POST', '/api/meter', ['id' => Desk::newId(), 'text' => 'far']);
        Client::ofStack()->refused(401, 'GET', '/api/meter');
    }

    /** A project with the demo's scan, imported; the drawing at hand is about nothing yet. */
    private function desk(): Desk
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(self::SCAN);
        if (null === self::$shared) {
            $desk->imported();
            self::$shared = $desk;
        }
        // Others wait only where they look at the ink.
        $needsInk = \in_array(
            $this->name(),
            ['testASlipIsSaidAndNothingOfATrialIsKept', 'testTheInkSaysWhatAPickMeansAndHowThePageIsTurned'],
            true,
        );
        if ($needsInk) {
            $desk->imported();
        }

        return $desk;
    }

    private function report(Desk $desk): JsonValue
    {
        return JsonValue::of($desk->state()['fits'])->items()[0];
    }

    private function map(Desk $desk): PixelToMm
    {
        $rows = array_map(
            static fn (JsonValue $row): array => array_map(static fn (JsonValue $v): float => $v->number(), $row->items()),
            $this->report($desk)->get('pixelToMm')->items(),
        );

        return PixelToMm::ofMatrix([
            $rows[0][0], $rows[0][1], $rows[0][2], $rows[1][0], $rows[1][1], $rows[1][2], $rows[2][0], $rows[2][1], $rows[2][2],
        ]);
    }

    /** @return list<array{float, float}> */
    private function nodes(Desk $desk): array
    {
        return array_map(
            static fn (array $n): array => [Desk::float($n['values']['x']), Desk::float($n['values']['y'])],
            Desk::rows($desk->state(), 'node'),
        );
    }

    private static function truth(): PixelToMm
    {
        $rows = JsonValue::parse((string) file_get_contents(__DIR__.'/../../demo/sallow-fen-ground.truth.json'))->get('pixelToMm')->items();
        $m = array_map(static fn (JsonValue $v): float => $v->number(), [...$rows[0]->items(), ...$rows[1]->items(), ...$rows[2]->items()]);

        return PixelToMm::ofMatrix([$m[0], $m[1], $m[2], $m[3], $m[4], $m[5], $m[6], $m[7], $m[8]]);
    }

    /** @return array<string, mixed> */
    private static function pick(string $id, string $drawing, float $x, float $y): array
    {
        return ['do' => 'add', 'type' => 'pick', 'id' => $id, 'values' => ['drawing' => $drawing, 'x' => $x, 'y' => $y, 'sigmaPx' => 0.5]];
    }

    /**
     * @param array<string, mixed> $operation
     * @param array<string, mixed> $values
     *
     * @return array<string, mixed>
     */
    private static function with(array $operation, array $values): array
    {
        return ['values' => $values + (\is_array($operation['values']) ? $operation['values'] : [])] + $operation;
    }

    /** @param array<string, mixed> $operation */
    private static function id(array $operation): string
    {
        return \is_string($operation['id']) ? $operation['id'] : '';
    }
}
