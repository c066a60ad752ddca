<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;

/** A photograph of a side and a sketch of the site: straightened, levelled, placed, followed by their ink. */
final class OutsideTest extends TestCase
{
    private const DEMO = __DIR__.'/../../demo/';
    private PixelToMm $truth;

    public function testAPhotographIsStraightenedAndEveryPixelLiesWhereTheFitSays(): void
    {
        [$desk, $side] = $this->photograph();
        $path = "/api/projects/$desk->id/drawings/$desk->drawing/rectified";
        $work = "/api/projects/$desk->id/jobs/rectify-drawing/$desk->drawing";
        self::assertSame('not-slanted', $desk->client->refused(409, 'POST', $work)['code']);
        $this->straighten($desk);
        $fit = JsonValue::of(Desk::rows($desk->state(), 'fit')[0]['values']);
        self::assertNotSame(0.0, $fit->get('m21')->number());
        $desk->imported();
        $shown = $this->straightened($desk);
        $picture = $shown->get('picture');
        $map = array_map(static fn (JsonValue $v): float => $v->number(), $picture->get('pixelToMm')->items());
        // The door is green, the bricks beside it red, the render of the left window's frame light, all where truth has them beside the
        // lower left corner.
        $tile = static function (float $x, float $y) use ($desk, $shown, $map): array {
            [$a, $b, $c, $d, $e, $f] = $map;
            $det = $a * $e - $b * $d;
            [$u, $v] = [($e * ($x - $c) - $b * ($y - $f)) / $det, ($a * ($y - $f) - $d * ($x - $c)) / $det];
            $level = 0;
            while (max(
                $shown->get('picture')->get('width')->number(),
                $shown->get('picture')->get('height')->number(),
            ) / 2 ** $level > 256) {
                ++$level;
            }
            [$status, $body] = $desk->client->send(
                'GET',
                \sprintf(
                    '/api/projects/'.$desk->id.'/drawings/%s/rectified/%s/tiles/%d/%d/%d',
                    $desk->drawing,
                    $shown->get('shape')->text(),
                    $level,
                    intdiv((int) $v, 256),
                    intdiv((int) $u, 256),
                ),
            );
            self::assertSame(200, $status);
            self::assertIsString($body['text']);
            $image = imagecreatefromstring($body['text']);
            self::assertInstanceOf(\GdImage::class, $image);
            $colour = (int) imagecolorat($image, (int) $u % 256, (int) $v % 256);

            return [$colour >> 16 & 255, $colour >> 8 & 255, $colour & 255];
        };
        $corner = $this->fitted($desk)->toMm($this->truth->toPixel(new Point(0, 0)));
        [$r, $g] = $tile($corner->x + 6450, $corner->y + 1200);
        self::assertGreaterThan($r + 20, $g, 'The door.');
        [$r, $g] = $tile($corner->x + 5700, $corner->y + 1232);
        self::assertGreaterThan($g + 20, $r, 'Brick.');
        foreach ([[1430, 1500], [9930, 1500], [4730, 3400]] as [$x, $y]) {
            self::assertGreaterThan(190, min($tile($corner->x + $x, $corner->y + $y)), 'A window’s frame, 60 mm wide.');
        }
        // Moved or scaled, the same picture serves; another cut asks for another.
        $shape = $shown->get('shape')->text();
        $desk->change([[
            'do' => 'add',
            'type' => 'levelMark',
            'id' => Desk::newId(),
            'values' => [
                'drawing' => $desk->drawing,
                'pick' => $this->pick($desk, 6450, 0),
                'kind' => 'finished floor',
                'name' => 'finished floor',
                'text' => '0',
                'unit' => 'mm',
            ],
        ]]);
        $moved = $this->straightened($desk);
        self::assertSame($shape, $moved->get('shape')->text());
        self::assertNotEqualsWithDelta($map[5], $moved->get('picture')->get('pixelToMm')->items()[5]->number(), 1.0);
        $desk->change([['do' => 'set', 'type' => 'drawing', 'id' => $desk->drawing, 'values' => ['width' => 2900.0]]]);
        $again = $desk->client->ok('GET', $path);
        self::assertNull($again['picture']);
        self::assertNotSame($shape, $again['shape']);
        self::assertSame('done', $desk->stop('rectify-drawing', $desk->drawing), 'What is done cannot be stopped.');
        $desk->client->refused(404, 'GET', "$path/".str_repeat('0', 40).'/tiles/0/0/0');
        (new Client((string) getenv('PLINTH_ADDRESS')))->signIn('stranger@plinth.example')->refused(404, 'POST', $work);
        Client::ofStack()->refused(401, 'GET', $path);
        self::assertNotSame('', $side);
    }

    public function testAStraightenedPhotographLiesUnderASidesLinesOnItsSheet(): void
    {
        [$desk, $side] = $this->photograph();
        $this->straighten($desk);
        $desk->imported();
        [$sheet, $view] = [Desk::newId(), Desk::newId()];
        $desk->change([
            ['do' => 'add', 'type' => 'printSheet', 'id' => $sheet, 'values' => ['order' => 0, 'width' => 420, 'height' => 297, 'part' => '', 'number' => '', 'owner' => '', 'creator' => '', 'approved' => '', 'date' => '']],
            ['do' => 'add', 'type' => 'sheetView', 'id' => $view, 'values' => [
                'sheet' => $sheet, 'kind' => 'side', 'storey' => null, 'side' => $side, 'drawing' => null, 'x' => 120, 'y' => 160, 'scale' => 100, 'fromX' => null, 'fromY' => null, 'toX' => null, 'toY' => null, 'width' => null, 'title' => '', 'words' => '', 'shows' => 'ink', 'turn' => 0, 'tilt' => 0,
            ]],
        ]);
        $image = static function () use ($desk, $sheet): ?array {
            [$status, $body] = $desk->client->send('GET', "/api/projects/$desk->id/sheets/$sheet/sheet.svg");
            self::assertSame(200, $status);
            self::assertIsString($body['text']);
            $isThere = 1 === preg_match('#matrix\(([^)]+)\)" xlink:href="data:image/jpeg;base64,([^"]+)"#', $body['text'], $m);

            return $isThere ? [array_map(floatval(...), explode(' ', strtr($m[1], ',', ' '))), imagecreatefromstring((string) base64_decode($m[2], true))] : null;
        };
        self::assertNull($image(), 'Not while it still leans.');
        $this->straightened($desk);
        [$map, $picture] = $image() ?? [[], false];
        self::assertInstanceOf(\GdImage::class, $picture);
        self::assertCount(6, $map);
        [$a, $b, $c, $d, $e, $f] = $map;
        $corner = $this->fitted($desk)->toMm($this->truth->toPixel(new Point(0, 0)));
        $at = static function (float $x, float $y) use ($a, $b, $c, $d, $e, $f, $picture, $corner): array {
            // From mm of the side to mm of paper, and from there back through the picture's own matrix.
            [$px, $py] = [120.0 + ($corner->x + $x) / 100.0 - $e, 160.0 - ($corner->y + $y) / 100.0 - $f];
            $det = $a * $d - $b * $c;
            $colour = (int) imagecolorat(
                $picture,
                (int) (($px * $d - $py * $c) / $det * imagesx($picture)),
                (int) (($py * $a - $px * $b) / $det * imagesy($picture)),
            );

            return [$colour >> 16 & 255, $colour >> 8 & 255, $colour & 255];
        };
        [$r, $g] = $at(6450, 1200);
        self::assertGreaterThan($r + 20, $g, 'The door.');
        [$r, $g] = $at(5700, 1232);
        self::assertGreaterThan($g + 20, $r, 'Brick.');
        foreach ([[1430, 1500], [9930, 1500], [4730, 3400]] as [$x, $y]) {
            self::assertGreaterThan(180, min($at($x, $y)), 'A window’s frame, 60 mm wide: at 200 dpi and 1:100 five pixels.');
        }
        // No finer than it is printed: 200 dpi at most twice over.
        $dpi = imagesx($picture) / hypot($a, $b) * 25.4;
        self::assertTrue($dpi < 400.0, (string) $dpi);
    }

    /** What a camera writes into its pictures (Exif, FocalLengthIn35mmFilm, from memory) says how far they are foreshortened. */
    public function testAPhotographWhoseCameraTellsItsLensIsSizedBothWaysByOneLength(): void
    {
        $open = [];
        foreach ([null, 60] as $lens) {
            [$desk] = $this->photograph($lens);
            self::assertSame($lens, JsonValue::of($desk->imported()['made'])->optional('lensMm')?->count());
            $desk->skew();
            $desk->change([['do' => 'straighten', 'straighten' => ['drawing' => $desk->drawing]]]);
            $ends = array_map(fn (Point $p): array => $this->truth->toPixel($p)->toArray(), [new Point(0, -150), new Point(13_200, -150)]);
            $desk->change($desk->knownLength($ends, '13 200'));
            $open[] = $this->report($desk)->get('plusMinusAlong')->get('y')->number();
        }
        self::assertLessThan(0.3 * $open[0], $open[1]);
    }

    public function testAPhotographIsStraightenedByItsOwnLinesAndSizedByOneLength(): void
    {
        [$desk] = $this->photograph();
        // Who has asked before hears of it once its lines have been looked at.
        $heard = Desk::float($desk->state()['heard']);
        $desk->skew();
        $told = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/changes?since=$desk->revision&heard=$heard"))->get('fits');
        self::assertSame('slanted', $told->items()[0]->get('advice')->items()[0]->get('code')->text());
        $before = $this->report($desk);
        self::assertSame('slanted', $before->get('advice')->items()[0]->get('code')->text());
        self::assertNull($before->optional('untested'), 'Nothing says the size.');
        $desk->change([['do' => 'straighten', 'straighten' => ['drawing' => $desk->drawing]]]);
        $length = fn (Point $a, Point $b, string $text): array => $desk->knownLength(array_map(
            fn (Point $p): array => $this->truth->toPixel($p)->toArray(),
            [$a, $b],
        ), $text);
        $desk->change($length(new Point(0, -150), new Point(13_200, -150), '13 200'));
        $report = $this->report($desk);
        self::assertSame('perspective', $report->get('model')->text());
        self::assertCount(6, $report->get('grid')->items());
        // A wall's foot says nothing of its height: how much it is foreshortened is known as far as lenses are.
        self::assertSame('y', $report->get('untested')->text());
        $height = fn (): float => $this->fitted($desk)->toMm($this->truth->toPixel(new Point(6000, 4650)))->distanceTo(
            $this->fitted($desk)->toMm($this->truth->toPixel(new Point(6000, -150))),
        );
        $open = $report->get('plusMinusAlong')->get('y')->number();
        self::assertLessThan($open / 10_000, abs($height() / 4800 - 1));
        // Level and plumb lines are, and one height tells the rest.
        [$p, $q] = array_map(
            fn (float $x): Point => $this->fitted($desk)->toMm($this->truth->toPixel(new Point($x, 2000))),
            [1000.0, 12_000.0],
        );
        self::assertLessThan(0.15, abs(rad2deg(atan2($q->y - $p->y, $q->x - $p->x))));
        $desk->change($length(new Point(13_200, -150), new Point(13_200, 4650), '4800'));
        $report = $this->report($desk);
        self::assertNull($report->optional('untested'));
        self::assertLessThan($open / 3, $report->get('plusMinusAlong')->get('y')->number());
        self::assertLessThan($report->get('plusMinusMmPer10m')->number() / 10_000, abs($height() / 4800 - 1));
        // Said again, it takes the place of what the lines said before.
        $desk->change([['do' => 'straighten', 'straighten' => ['drawing' => $desk->drawing]]]);
        self::assertCount(6, $this->report($desk)->get('grid')->items());
    }

    public function testWhatDoesNotLeanIsNotStraightened(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(self::DEMO.'sallow-fen-ground.jpg');
        $desk->skew();
        $refusal = $desk->refused(422, [['do' => 'straighten', 'straighten' => ['drawing' => $desk->drawing]]]);
        self::assertSame('no-slant', $refusal['code']);
    }

    public function testStoppedInTheMiddleNothingIsLeftAndItCanBeWantedAfterAll(): void
    {
        [$desk] = $this->photograph();
        $desk->imported();
        $this->straighten($desk);
        $desk->ask('rectify-drawing', $desk->drawing);
        // On a fast machine it may have been done already.
        self::assertContains($desk->stop('rectify-drawing', $desk->drawing), ['stopped', 'done']);
        $this->straightened($desk);
    }

    public function testLevelMarksCountFromTheOneThatIsStated(): void
    {
        [$desk] = $this->photograph();
        $this->straighten($desk);
        $mark = fn (string $name, float $y, string $text = ''): array => [
            'do' => 'add',
            'type' => 'levelMark',
            'id' => Desk::newId(),
            'values' => [
                'drawing' => $desk->drawing,
                'pick' => $this->pick($desk, 3000.0, $y),
                'kind' => 'other',
                'name' => $name,
                'text' => $text,
                'unit' => 'mm',
            ],
        ];
        $desk->change([$mark('eaves', 4650.0)]);
        $desk->change([$mark('sill', 900.0)]);
        $desk->change([$mark('floor', 0.0, '+0')]);
        $levels = $this->report($desk)->get('levels')->items();
        self::assertEqualsWithDelta(
            [0.0, 900.0, 4650.0],
            array_map(static fn (JsonValue $l): float => $l->get('heightMm')->number(), $levels),
            4.0,
        );
        self::assertSame(0.0, $levels[0]->get('statedMm')->number());
        self::assertEqualsWithDelta(0.0, $levels[0]->get('heightMm')->number(), 1e-6);
        [$sill, $eaves] = [$levels[1]->get('plusMinusMm')->number(), $levels[2]->get('plusMinusMm')->number()];
        self::assertGreaterThan(1.0, $sill);
        self::assertGreaterThan($sill, $eaves, 'Further up, less sure.');
        self::assertSame('unreadable-length', $desk->refused(422, [$mark('ridge', 5000.0, 'high')])['code']);
    }

    public function testASideStandsOnALineOfThePlanAndShowsItsCorners(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $side = Desk::newId();
        $desk->change([['do' => 'add', 'type' => 'side', 'id' => $side, 'values' => ['name' => 'South']]]);
        self::assertSame('no-line', $desk->client->refused(409, 'GET', "/api/projects/$desk->id/sides/$side/corners")['code']);
        $set = static fn (array $line): array => ['do' => 'set', 'type' => 'side', 'id' => $side, 'values' => $line];
        self::assertSame('no-line', $desk->refused(422, [$set(['fromX' => 0.0, 'fromY' => 0.0])])['code']);
        self::assertSame('no-line', $desk->refused(422, [$set(['fromX' => 0.0, 'fromY' => 0.0, 'toX' => 20.0, 'toY' => 0.0])])['code']);
        $desk->change([$set(['fromX' => 1000.0, 'fromY' => 0.0, 'toX' => 9000.0, 'toY' => 0.0])]);
        $desk->change([$desk->chain([[2000.0, 300.0], [7000.0, 300.0]])['operation']]);
        $answer = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/sides/$side/corners"));
        self::assertSame(8000.0, $answer->get('lengthMm')->number());
        $along = array_map(
            static fn (JsonValue $c): array => [$c->get('alongMm')->number(), $c->get('behindMm')->number()],
            $answer->get('corners')->items(),
        );
        sort($along);
        self::assertEqualsWithDelta(
            [[1000.0, 200.0], [1000.0, 400.0], [6000.0, 200.0], [6000.0, 400.0]],
            $along,
            1e-6,
            'Of the wall’s faces, not of its axis.',
        );
    }

    public function testAnOutlineTellsItsAreaOrWhatIsWrongAndGoesWithItsCorners(): void
    {
        [$desk, $side] = $this->photograph();
        $outline = Desk::newId();
        $corners = [];
        foreach ([[0.0, 0.0], [13_200.0, 0.0], [13_200.0, 4800.0], [0.0, 4800.0]] as $order => [$x, $y]) {
            $corners[] = [
                'do' => 'add',
                'type' => 'outlineCorner',
                'id' => Desk::newId(),
                'values' => ['outline' => $outline, 'drawing' => $desk->drawing, 'order' => $order, 'x' => $x, 'y' => $y],
            ];
        }
        $desk->change([
            ['do' => 'add', 'type' => 'outline', 'id' => $outline, 'values' => ['side' => $side, 'name' => 'Face']],
            ...$corners,
        ]);
        $answer = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/outlines/$outline"));
        self::assertEqualsWithDelta(63.36, $answer->get('areaM2')->number(), 1e-9);
        // Its top becomes an arch.
        $bowed = static fn (float $rise): array => [
            'do' => 'set', 'type' => 'outlineCorner', 'id' => $corners[2]['id'], 'values' => ['rise' => $rise],
        ];
        $desk->change([$bowed(-6600.0)]);
        $arched = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/outlines/$outline"));
        self::assertEqualsWithDelta(
            [63.36 + \M_PI * 6.6 ** 2 / 2.0, 11_400.0],
            [$arched->get('areaM2')->number(), $arched->get('heightMm')->number()],
            1e-6,
        );
        $desk->change([$bowed(0.0)]);
        // The first fit carries it along with the picture.
        $this->straighten($desk);
        self::assertNotEqualsWithDelta(
            13_200.0,
            JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/outlines/$outline"))->get('widthMm')->number(),
            100.0,
        );
        $rows = Desk::rows($desk->state(), 'outlineCorner');
        $by = array_column($rows, null, 'id');
        $desk->change(
            array_map(
                static fn (array $r): array => [
                    'do' => 'set',
                    'type' => 'outlineCorner',
                    'id' => $r['id'],
                    'values' => ['order' => [0, 2, 1, 3][Desk::int($r['values']['order'])]],
                ],
                array_values($by),
            ),
        );
        self::assertStringContainsString(
            'crosses',
            JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/outlines/$outline"))->get('refusal')->text(),
        );
        $gone = $desk->change([['do' => 'remove', 'type' => 'outline', 'id' => $outline]]);
        self::assertCount(5, JsonValue::of($gone['removed'])->items());
    }

    public function testWhatStandsBeforeTheWallIsAllowedFor(): void
    {
        [$desk] = $this->photograph();
        $length = $desk->knownLength([[500.0, 1400.0], [1500.0, 1400.0]], '4000');
        $length[2]['values'] = ['standOff' => 500.0] + (\is_array($length[2]['values']) ? $length[2]['values'] : []);
        self::assertSame('no-distance', $desk->refused(422, $length)['code']);
        $length[2]['values']['seenFrom'] = 400.0;
        self::assertSame('unusable-stand-off', $desk->refused(422, $length)['code']);
        $length[2]['values']['seenFrom'] = 10_500.0;
        $desk->change($length);
        self::assertEqualsWithDelta(4.0 * 10.5 / 10.0, $this->report($desk)->get('mmPerPixel')->number(), 1e-9);
    }

    public function testTwoPointsPlaceAStoreyOnAnotherAndItsSizeStays(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(self::DEMO.'sallow-fen-ground.jpg');
        $desk->change($desk->knownLength([[640.0, 1845.0], [2640.0, 1845.0]], '12 000'));
        $point = static fn (string $pick, float $x, float $y): array => [
            'do' => 'add',
            'type' => 'controlPoint',
            'id' => Desk::newId(),
            'values' => ['drawing' => $desk->drawing, 'pick' => $pick, 'x' => $x, 'y' => $y, 'text' => 'stair'],
        ];
        $pick = static function (float $x, float $y) use ($desk): string {
            $desk->change([[
                'do' => 'add',
                'type' => 'pick',
                'id' => $id = Desk::newId(),
                'values' => ['drawing' => $desk->drawing, 'x' => $x, 'y' => $y, 'sigmaPx' => 0.3],
            ]]);

            return $id;
        };
        $desk->change([['do' => 'set', 'type' => 'drawing', 'id' => $desk->drawing, 'values' => ['keepsSize' => true]]]);
        $desk->change([$point($pick(700.0, 1800.0), 500.0, 500.0), $point($pick(2700.0, 1800.0), 500.0, 12_530.0)]);
        $report = $this->report($desk);
        self::assertEqualsWithDelta(6.0, $report->get('mmPerPixel')->number(), 1e-9);
        self::assertEqualsWithDelta(90.0, $report->get('rotationDegrees')->number(), 1e-6);
        self::assertEqualsWithDelta(
            15.0,
            $report->get('points')->items()[0]->get('residualMm')->number(),
            1e-6,
            'The two storeys disagree by 30 mm, half of it at either end.',
        );
        $desk->change([['do' => 'set', 'type' => 'drawing', 'id' => $desk->drawing, 'values' => ['keepsSize' => false]]]);
        self::assertGreaterThan(6.01, $this->report($desk)->get('mmPerPixel')->number());
    }

    public function testASecondDrawingIsHeldAgainstTheTracingWallByWall(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(self::DEMO.'sallow-fen-ground.jpg');
        $desk->imported();
        $this->truth = self::truthOf('sallow-fen-ground');
        $at = fn (float $x, float $y): array => [$this->truth->toPixel(new Point($x, $y))->x, $this->truth->toPixel(new Point($x, $y))->y];
        $desk->change($desk->knownLength([$at(0, 0), $at(13_200, 0)], '13 200'));
        $map = $this->fitted($desk);
        $model = fn (float $x, float $y): array => $map->toMm($this->truth->toPixel(new Point($x, $y)))->toArray();
        // The spine runs at x = 5200; it is traced 40 mm to the right of it, the store's wall where it is.
        $desk->change([$desk->chain([$model(5240, 600), $model(5240, 1900)])['operation']]);
        $desk->change([$desk->chain([$model(700, 3900), $model(4600, 3900)], thickness: 120.0)['operation']]);
        $things = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/drawings/$desk->drawing/misfit"))->get('things')->items();
        $mm = array_map(static fn (JsonValue $t): float => $t->get('mm')->number(), $things);
        sort($mm);
        self::assertEqualsWithDelta([0.0, 40.0], $mm, 1.5);
        self::assertSame(
            2.0,
            JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/drawings/$desk->drawing/misfit"))->get('of')->number(),
        );
        // Moved a little more, the one wall is looked at again, and the other is as it was.
        $wall = Desk::rows($desk->state(), 'wall')[0]['id'];
        $desk->change([['do' => 'shift', 'shift' => ['wall' => $wall, 'left' => -20.0]]]);
        $again = array_map(
            static fn (JsonValue $t): float => $t->get('mm')->number(),
            JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/drawings/$desk->drawing/misfit"))->get('things')->items(),
        );
        sort($again);
        self::assertEqualsWithDelta([$mm[0], 60.0], $again, 1.5);
        self::assertEqualsWithDelta($mm[0], $again[0], 1e-9);
        // So it is held against another storey: what stands on each other is drawn on both.
        $upper = Desk::newId();
        $desk->change([
            ['do' => 'add', 'type' => 'storey', 'id' => $upper, 'values' => ['name' => 'Upper', 'elevation' => 2700.0, 'height' => 2700.0]],
            ['do' => 'toStorey', 'toStorey' => ['from' => $desk->storey, 'storey' => $upper]],
        ]);
        $misfit = "/api/projects/$desk->id/drawings/$desk->drawing/misfit";
        self::assertSame(0.0, JsonValue::of($desk->client->ok('GET', $misfit))->get('of')->number(), 'Nothing is left on its own.');
        $above = array_map(
            static fn (JsonValue $t): float => $t->get('mm')->number(),
            JsonValue::of($desk->client->ok('GET', "$misfit?storey=$upper"))->get('things')->items(),
        );
        sort($above);
        self::assertEqualsWithDelta($again, $above, 1e-9);
        $desk->client->refused(404, 'GET', "$misfit?storey=".Desk::newId());
        $desk->change([['do' => 'toStorey', 'toStorey' => ['from' => $upper, 'storey' => $desk->storey]]]);
        // Against itself every drawing agrees.
        $self = JsonValue::of(
            $desk->client->ok('GET', "/api/projects/$desk->id/drawings/$desk->drawing/misfit?against=$desk->drawing"),
        )->get('things')->items();
        self::assertEqualsWithDelta([0.0, 0.0], array_map(static fn (JsonValue $t): float => $t->get('mm')->number(), $self), 1e-9);
        $desk->client->refused(422, 'GET', "/api/projects/$desk->id/drawings/$desk->drawing/misfit?against=this");
    }

    public function testAnOpeningIsTakenFromTheInkOfItsWall(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(self::DEMO.'sallow-fen-ground.jpg');
        $desk->imported();
        $this->truth = self::truthOf('sallow-fen-ground');
        $at = fn (float $x, float $y): array => [$this->truth->toPixel(new Point($x, $y))->x, $this->truth->toPixel(new Point($x, $y))->y];
        $desk->change($desk->knownLength([$at(0, 0), $at(13_200, 0)], '13 200'));
        $map = $this->fitted($desk);
        $model = fn (float $x, float $y): Point => $map->toMm($this->truth->toPixel(new Point($x, $y)));
        $chain = $desk->chain([$model(150, 150)->toArray(), $model(13_050, 150)->toArray()], thickness: 300.0);
        $desk->change([$chain['operation']]);
        $ask = static fn (Point $p): JsonValue => JsonValue::of(
            $desk->client->ok(
                'GET',
                "/api/projects/$desk->id/drawings/$desk->drawing/gap?".http_build_query([
                    'wall' => $chain['walls'][0],
                    'x' => $p->x,
                    'y' => $p->y,
                ]),
            ),
        );
        foreach ([[6700.0, 'door', 5950.0, 1010.0], [2300.0, 'window', 1400.0, 1800.0]] as [$x, $kind, $offset, $width]) {
            $found = $ask($model($x, 150.0))->get('found');
            self::assertSame($kind, $found->get('kind')->text());
            self::assertEqualsWithDelta([$offset, $width], [$found->get('offset')->number(), $found->get('width')->number()], 12.0);
        }
        self::assertNull($ask($model(4400.0, 150.0))->optional('found'), 'The wall runs on.');
        $desk->client->refused(404, 'GET', "/api/projects/$desk->id/drawings/$desk->drawing/gap?wall=".Desk::newId().'&x=0&y=0');
        $desk->client->refused(422, 'GET', "/api/projects/$desk->id/drawings/$desk->drawing/gap?wall={$chain['walls'][0]}&x=here&y=0");
    }

    public function testALegTakesItsDirectionFromTheInkAndASiteSquaredToABuildingKnowsItsNorth(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn(self::DEMO.'station-site-sketch.jpg', 'site.jpg');
        $desk->imported();
        $this->truth = self::truthOf('station-site-sketch');
        $px = fn (float $x, float $y): array => [$this->truth->toPixel(new Point($x, $y))->x, $this->truth->toPixel(new Point($x, $y))->y];
        $length = $desk->knownLength([$px(0, 0), $px(13_200, 0)], '13.20 m');
        $desk->change([...$length, [
            'do' => 'add',
            'type' => 'gridPick',
            'id' => Desk::newId(),
            'values' => ['drawing' => $desk->drawing, 'a' => $length[0]['id'], 'b' => $length[1]['id'], 'axis' => 'x'],
        ]]);
        $asked = static fn (float $ax, float $ay, float $bx, float $by, float $up): JsonValue => JsonValue::of(
            $desk->client->ok(
                'GET',
                "/api/projects/$desk->id/drawings/$desk->drawing/bearing?".http_build_query([
                    'ax' => $ax,
                    'ay' => $ay,
                    'bx' => $bx,
                    'by' => $by,
                    'up' => $up,
                ]),
            ),
        );
        // The leg from (12100, 17250) to (−12350, 15100), asked for from a few pixels beside it.
        [$a, $b] = [$px(12_100, 17_250), $px(-9000, 15_394)];
        $found = $asked($a[0], $a[1] + 4.0, $b[0], $b[1] - 3.0, 0.0)->get('found');
        $true = fmod(rad2deg(atan2(-24_450.0, -2150.0)) + 360.0, 360.0);
        self::assertEqualsWithDelta($true, $found->get('degrees')->number(), 0.06);
        self::assertMatchesRegularExpression('/^26[45]°\d\d\'\d\d"$/u', $found->get('bearing')->text());
        self::assertEqualsWithDelta($true + 30.0, $asked(...$a, ...$b, ...[30.0])->get('found')->get('degrees')->number(), 0.06);
        self::assertNull($asked(...$px(-20_000, 20_000), ...$px(-17_000, 24_000), ...[0.0])->optional('found'), 'Blank paper.');
        $id = Desk::newId();
        $desk->change([[
            'do' => 'add',
            'type' => 'boundary',
            'id' => $id,
            'values' => ['storey' => $desk->storey, 'name' => 'Lot', 'x' => 0.0, 'y' => 0.0, 'up' => '30°'],
        ]]);
        $desk->change([[
            'do' => 'add',
            'type' => 'leg',
            'id' => Desk::newId(),
            'values' => ['boundary' => $id, 'order' => 0, 'length' => '10 m', 'bearing' => '30', 'unit' => 'm'],
        ]]);
        $answer = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/boundaries/$id"));
        self::assertEqualsWithDelta(
            [0.0, 10_000.0],
            array_map(static fn (JsonValue $v): float => $v->number(), $answer->get('path')->items()[1]->items()),
            1e-6,
        );
        self::assertSame(
            'unreadable-bearing',
            $desk->refused(422, [['do' => 'set', 'type' => 'boundary', 'id' => $id, 'values' => ['up' => 'uphill']]])['code'],
        );
    }

    public function testLinesThatAreStraightOnThePageAreSaidToBe(): void
    {
        [$desk] = $this->photograph();
        $desk->imported();
        $this->straighten($desk);
        $answer = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/drawings/$desk->drawing/flatness"));
        self::assertNull($answer->optional('message'));
        foreach ($answer->get('lines')->items() as $line) {
            self::assertFalse($line->get('bowed')->boolean());
            self::assertLessThan(1.5, abs($line->get('bowPx')->number()));
        }
    }

    public function testALineThatBowsOnThePageTellsOfCurledPaper(): void
    {
        $image = imagecreatetruecolor(1400, 900);
        self::assertInstanceOf(\GdImage::class, $image);
        imagefill($image, 0, 0, (int) imagecolorallocate($image, 240, 240, 236));
        $ink = (int) imagecolorallocate($image, 40, 44, 46);
        for ($x = 100; $x < 1300; ++$x) {
            // 14 px off in the middle, on paper that curls.
            $y = 450 - (int) round(14 * (1 - (($x - 700) / 600) ** 2));
            imagefilledrectangle($image, $x, $y - 1, $x, $y + 1, $ink);
            imagefilledrectangle($image, $x, 719, $x, 721, $ink);
        }
        $files = new Files();
        $path = $files->write('curled.png', '');
        imagepng($image, $path);
        $desk = new Desk(Client::ofStack()->signIn());
        $desk->bringIn($path, 'curled.png');
        $desk->imported();
        foreach ([450.0, 720.5] as $y) {
            $length = $desk->knownLength([[110.0, $y], [1290.0, $y]], '11 800');
            $desk->change([$length[0], $length[1], [
                'do' => 'add',
                'type' => 'gridPick',
                'id' => Desk::newId(),
                'values' => ['drawing' => $desk->drawing, 'a' => $length[0]['id'], 'b' => $length[1]['id'], 'axis' => 'x'],
            ]]);
        }
        $answer = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/drawings/$desk->drawing/flatness"));
        self::assertStringContainsString('curled or folded', $answer->get('message')->text());
        $bows = array_map(static fn (JsonValue $l): float => $l->get('bowPx')->number(), $answer->get('lines')->items());
        self::assertEqualsWithDelta([14.0, 0.0], $bows, 1.5);
    }

    /** @return array{Desk, string} with the photograph of the south side on a side of its own */
    private function photograph(?int $lensMm = null): array
    {
        $this->truth = self::truthOf('station-south-side');
        $desk = new Desk(Client::ofStack()->signIn());
        $side = Desk::newId();
        $desk->change([['do' => 'add', 'type' => 'side', 'id' => $side, 'values' => ['name' => 'South']]]);
        $picture = self::DEMO.'station-south-side.jpg';
        if (null !== $lensMm) {
            $picture = self::takenAt($picture, $lensMm);
        }
        $desk->bringIn($picture, 'south.jpg', more: ['side' => $side, 'storey' => '']);

        return [$desk, $side];
    }

    /** The same with a camera's note of its lens: one value in a directory of the camera's, which the first directory names. */
    private static function takenAt(string $jpeg, int $lensMm): string
    {
        $note = "II*\0".pack('V', 8)
            .pack('vvvVVV', 1, 0x8769, 4, 1, 26, 0)
            .pack('vvvVvvV', 1, 0xA405, 3, 1, $lensMm, 0, 0);
        $segment = "Exif\0\0".$note;
        $bytes = (string) file_get_contents($jpeg);
        $path = sys_get_temp_dir().'/taken-'.getmypid().'.jpg';
        file_put_contents($path, substr($bytes, 0, 2)."\xFF\xE1".pack('n', \strlen($segment) + 2).$segment.substr($bytes, 2));

        return $path;
    }

    /** Says that it is a photograph, and how large the wall's face is. */
    private function straighten(Desk $desk): void
    {
        $picks = array_map(
            fn (array $p): string => $this->pick($desk, $p[0], $p[1]),
            [[0.0, -150.0], [13_200.0, -150.0], [13_200.0, 4650.0], [0.0, 4650.0]],
        );
        $line = static fn (string $a, string $b, string $axis): array => [
            'do' => 'add',
            'type' => 'gridPick',
            'id' => Desk::newId(),
            'values' => ['drawing' => $desk->drawing, 'a' => $a, 'b' => $b, 'axis' => $axis],
        ];
        $desk->change([
            ['do' => 'set', 'type' => 'drawing', 'id' => $desk->drawing, 'values' => ['model' => 'perspective']],
            [
                'do' => 'add',
                'type' => 'rectangle',
                'id' => Desk::newId(),
                'values' => [
                    'drawing' => $desk->drawing,
                    'a' => $picks[0],
                    'b' => $picks[1],
                    'c' => $picks[2],
                    'd' => $picks[3],
                    'width' => '13 200',
                    'depth' => '4800',
                    'unit' => 'mm',
                    'standing' => 'figured',
                ],
            ],
            $line($picks[0], $picks[1], 'x'), $line($picks[3], $picks[2], 'x'), $line($picks[1], $picks[2], 'y'),
        ]);
        self::assertSame('perspective', $this->report($desk)->get('model')->text());
    }

    private function straightened(Desk $desk): JsonValue
    {
        $path = "/api/projects/$desk->id/drawings/$desk->drawing/rectified";
        if (null === $desk->client->ok('GET', $path)['picture']) {
            $desk->ask('rectify-drawing', $desk->drawing);
            $ended = $desk->ended('rectify-drawing', $desk->drawing);
            self::assertSame('done', $ended->get('state')->text(), $ended->get('words')->text());
        }
        self::assertIsArray($desk->client->ok('GET', $path)['picture'], 'It is there.');

        return JsonValue::of($desk->client->ok('GET', $path));
    }

    private function pick(Desk $desk, float $x, float $y): string
    {
        $at = $this->truth->toPixel(new Point($x, $y));
        $desk->change([[
            'do' => 'add',
            'type' => 'pick',
            'id' => $id = Desk::newId(),
            'values' => ['drawing' => $desk->drawing, 'x' => $at->x, 'y' => $at->y, 'sigmaPx' => 0.3],
        ]]);

        return $id;
    }

    private function report(Desk $desk): JsonValue
    {
        return JsonValue::of($desk->state()['fits'])->items()[0];
    }

    private function fitted(Desk $desk): PixelToMm
    {
        return self::matrix($this->report($desk)->get('pixelToMm'));
    }

    private static function truthOf(string $name): PixelToMm
    {
        return self::matrix(JsonValue::parse((string) file_get_contents(self::DEMO.$name.'.truth.json'))->get('pixelToMm'));
    }

    private static function matrix(JsonValue $rows): PixelToMm
    {
        [$a, $b, $c] = $rows->items();
        $m = array_map(static fn (JsonValue $v): float => $v->number(), [...$a->items(), ...$b->items(), ...$c->items()]);

        return PixelToMm::ofMatrix([$m[0], $m[1], $m[2], $m[3], $m[4], $m[5], $m[6], $m[7], $m[8]]);
    }
}
