<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanReader;

/** What was traced stands: walls under their roof, floors with their voids, told again only once something has changed. */
final class BuildingTest extends TestCase
{
    private const OUTER = [[-100, -100], [6100, -100], [6100, 4100], [-100, 4100]];

    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
        $this->desk->change([$this->desk->chain([[0, 0], [6000, 0], [6000, 4000], [0, 4000]], true)['operation']]);
    }

    public function testWallsStandAsHighAsTheirStoreyAndFollowTheRoofOnceThereIsOne(): void
    {
        $before = $this->bodies();
        self::assertEqualsWithDelta(20.0 * 0.2 * 2.7, self::volume($before, 'wall'), 1e-6);
        // Who asks again is told the same version, so that nothing is drawn anew.
        self::assertSame($before->get('version')->text(), $this->bodies()->get('version')->text());
        $this->outline('roof', self::OUTER, 2500, 200, [45.0, null, 45.0, null]);
        $under = $this->bodies();
        self::assertNotSame($before->get('version')->text(), $under->get('version')->text());
        // Gables: 4.2 m wide and half as high, in walls of 0.2 m; the walls beneath the slopes lean with them.
        $gables = 2 * 0.2 * (4.2 * 4.2 / 4.0) - 2 * 0.2 * 0.2 * 0.2 / 2.0 * 2;
        $beside = 2 * 5.8 * 0.2 * 0.2 / 2.0 + 2 * 0.2 * 0.2 * 0.2;
        self::assertEqualsWithDelta(20.0 * 0.2 * 2.5 + $gables + $beside, self::volume($under, 'wall'), 0.03);
        // Told to a hundredth of a millimetre.
        self::assertEqualsWithDelta(6.2 * 4.2 * \M_SQRT2 * 0.2, self::volume($under, 'roof'), 1e-3);
        $lines = [];
        foreach ($under->get('roofs')->items()[0]->get('lines')->items() as $line) {
            $lines[$line->get('kind')->text()][] = $line->get('lengthMm')->number();
        }
        self::assertEqualsWithDelta([6200.0], $lines['ridge'] ?? [], 1e-6);
        $eaves = $under->get('roofs')->items()[0]->get('eaves')->items();
        self::assertEqualsCanonicalizing(self::OUTER, array_map(
            static fn (JsonValue $p): array => array_map(static fn (float $mm): int => (int) round($mm), $p->pair()),
            $eaves[0]->items(),
        ));
    }

    public function testAVoidAndAChimneyAreOpenInTheFloor(): void
    {
        $this->outline('slab', self::OUTER, 0, 250);
        $this->outline('void', [[1000, 1000], [2000, 1000], [2000, 3000], [1000, 3000]], null, null);
        self::assertEqualsWithDelta((6.2 * 4.2 - 2.0) * 0.25, self::volume($this->bodies(), 'floor'), 1e-9);
        $this->outline('chimney', [[4000, 1000], [4500, 1000], [4500, 1500], [4000, 1500]], 6000, 6500);
        self::assertEqualsWithDelta((6.2 * 4.2 - 2.25) * 0.25, self::volume($this->bodies(), 'floor'), 1e-9);
        self::assertEqualsWithDelta(0.25 * 6.5, self::volume($this->bodies(), 'chimney'), 1e-9);
    }

    public function testWhatCannotStandIsToldInWords(): void
    {
        $id = $this->outline('roof', [[0, 0], [6000, 4000], [6000, 0], [0, 4000]], 2500, 200, [30.0, 30.0, 30.0, 30.0]);
        $refused = $this->bodies()->get('refused')->items();
        self::assertSame($id, $refused[0]->get('id')->text());
        self::assertStringContainsString('crosses itself', $refused[0]->get('message')->text());
        $corner = Desk::rows($this->desk->state(), 'outlineCorner')[0]['id'];
        $steep = $this->desk->refused(422, [['do' => 'set', 'type' => 'outlineCorner', 'id' => $corner, 'values' => ['pitch' => 88]]]);
        self::assertStringContainsString('85°', json_encode($steep, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE));
    }

    public function testAnObjectStandsWhereItIsPutAndAsLargeAsItIs(): void
    {
        $kinds = $this->desk->client->ok('GET', '/api/objects')['kinds'];
        self::assertIsArray($kinds);
        self::assertContains('bath', array_column($kinds, 'kind'));
        $id = Desk::newId();
        $values = ['storey' => $this->desk->storey, 'kind' => 'wardrobe', 'x' => 3000, 'y' => 2000, 'degrees' => 90];
        $size = ['width' => 1200, 'depth' => 600, 'height' => 2000];
        $this->desk->change([['do' => 'add', 'type' => 'object', 'id' => $id, 'values' => $values + $size]]);
        self::assertEqualsWithDelta(1.2 * 0.6 * 2.0, self::volume($this->bodies('fills'), 'object'), 1e-9);
        $form = $this->desk->client->ok('GET', '/api/object?kind=wardrobe&width=1200&depth=600&height=2000');
        self::assertEquals([[[-600, -300], [600, -300], [600, 300], [-600, 300]]], $form['plan']);
        $wrong = $this->desk->refused(422, [['do' => 'set', 'type' => 'object', 'id' => $id, 'values' => ['width' => 0]]]);
        self::assertStringContainsString('width', json_encode($wrong, \JSON_THROW_ON_ERROR));
        self::assertSame(422, $this->desk->client->send('GET', '/api/object?kind=throne&width=1&depth=1&height=1')[0]);
    }

    public function testARoomsFinishesAreMeasuredNetAndGoOutWithIt(): void
    {
        [$room, $finish, $floor, $walls] = [Desk::newId(), Desk::newId(), Desk::newId(), Desk::newId()];
        $tiles = ['name' => '=Quarry tiles', 'colour' => '#c08a6e', 'pattern' => 'tiles', 'width' => 200, 'height' => 200, 'joint' => 8, 'bond' => 'half'];
        $laid = static fn (string $on, array $values): array => [
            ...['finish' => $finish, 'on' => $on, 'room' => $room, 'wall' => null, 'x' => 100, 'y' => 100, 'degrees' => 0], ...$values,
        ];
        $this->desk->change([
            ['do' => 'add', 'type' => 'room', 'id' => $room, 'values' => ['storey' => $this->desk->storey, 'name' => 'Log, wet', 'number' => '1', 'x' => 3000, 'y' => 2000]],
            ['do' => 'add', 'type' => 'finish', 'id' => $finish, 'values' => $tiles],
            ['do' => 'add', 'type' => 'surface', 'id' => $floor, 'values' => $laid('floor', [])],
            ['do' => 'add', 'type' => 'surface', 'id' => $walls, 'values' => $laid('walls', ['bottom' => 0, 'top' => 2000])],
        ]);
        $areas = [];
        foreach ($this->bodies()->get('surfaces')->items() as $surface) {
            $areas[$surface->get('id')->text()] = $surface->get('areaM2')->number();
            self::assertSame(2 * \count($surface->get('places')->items()), 3 * \count($surface->get('pattern')->items()));
        }
        self::assertEqualsWithDelta([$floor => 5.8 * 3.8, $walls => 2 * (5.8 + 3.8) * 2.0], $areas, 1e-6);
        $repeat = $this->desk->client->ok('GET', '/api/pattern?pattern=tiles&width=200&height=200&joint=8&bond=half');
        self::assertEquals([208, 416], $repeat['size']);
        [$status, $csv] = $this->desk->client->send('GET', "/api/projects/{$this->desk->id}/quantities.csv");
        self::assertSame(200, $status);
        self::assertStringContainsString('finish,Ground,\'=Quarry tiles,"1 Log, wet, floor",1,22.04,', Desk::text($csv['text']));
        // What is laid somewhere cannot go by itself; with its room it does.
        $this->desk->refused(409, [['do' => 'remove', 'type' => 'finish', 'id' => $finish]]);
        $this->desk->change([['do' => 'remove', 'type' => 'room', 'id' => $room]]);
        self::assertSame([], Desk::rows($this->desk->state(), 'surface'));
    }

    public function testASurfaceLiesOnOneThingAndAnUpperEdgeLiesAboveALowerOne(): void
    {
        [$room, $finish] = [Desk::newId(), Desk::newId()];
        $this->desk->change([
            ['do' => 'add', 'type' => 'room', 'id' => $room, 'values' => ['storey' => $this->desk->storey, 'name' => 'Log room', 'number' => '', 'x' => 3000, 'y' => 2000]],
            ['do' => 'add', 'type' => 'finish', 'id' => $finish, 'values' => ['name' => 'Lime', 'colour' => '#f4f0e6', 'pattern' => 'plain']],
        ]);
        $add = static fn (array $values): array => [['do' => 'add', 'type' => 'surface', 'id' => Desk::newId(), 'values' => [
            ...['finish' => $finish, 'room' => $room, 'on' => 'walls', 'x' => 0, 'y' => 0, 'degrees' => 0], ...$values,
        ]]];
        // A room has no left face, and nothing ends where it begins.
        foreach ([['on' => 'left'], ['bottom' => 900, 'top' => 900]] as $values) {
            $this->desk->refused(422, $add($values));
        }
        $this->desk->refused(422, [['do' => 'set', 'type' => 'finish', 'id' => $finish, 'values' => ['colour' => 'grey']]]);
        $this->desk->refused(422, [['do' => 'set', 'type' => 'finish', 'id' => $finish, 'values' => ['pattern' => 'tiles', 'width' => 0]]]);
        $this->desk->change($add([]));
    }

    public function testARoomUnderAVoidIsOpenToAbove(): void
    {
        $upper = Desk::newId();
        $this->desk->change([
            ['do' => 'add', 'type' => 'storey', 'id' => $upper, 'values' => ['name' => 'Upper', 'elevation' => 2700, 'height' => 2500]],
        ]);
        $this->outline('slab', self::OUTER, 0, 250, on: $upper);
        $this->outline('void', [[1000, 1000], [2000, 1000], [2000, 3000], [1000, 3000]], null, null, on: $upper);
        $heights = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/heights");
        $height = JsonValue::of($heights)->get('heights')->items()[0];
        self::assertEqualsWithDelta(2450.0, $height->get('leastMm')->number(), 1e-6);
        self::assertEqualsWithDelta(5200.0, $height->get('mostMm')->number(), 1e-6);
        self::assertEqualsWithDelta(2.0, $height->get('openM2')->number(), 1e-9);
    }

    public function testTheOuterFacesAreTheCornersOfARoof(): void
    {
        $rings = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/outer")['rings'];
        self::assertIsArray($rings);
        self::assertEqualsCanonicalizing(self::OUTER, $rings[0] ?? null);
    }

    public function testTheBuildingIsHandedOverWithAllThatStands(): void
    {
        $this->outline('slab', self::OUTER, 0, 250);
        $this->outline('roof', self::OUTER, 2500, 200, [45.0, null, 45.0, null]);
        $document = $this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/plan.json");
        $storey = PlanReader::read(json_encode($document, \JSON_THROW_ON_ERROR))->storeys[0];
        self::assertSame([45.0, null, 45.0, null], $storey->roofs[0]->pitches);
        self::assertCount(1, $storey->floors);
        [$status, $glb] = $this->desk->client->send('GET', "/api/projects/{$this->desk->id}/building.glb");
        self::assertSame(200, $status);
        self::assertStringStartsWith('glTF', Desk::text($glb['text']));
    }

    private function bodies(string $what = 'bodies'): JsonValue
    {
        return JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/storeys/{$this->desk->storey}/$what"));
    }

    /**
     * @param list<array{int, int}> $ring
     * @param list<float|null> $pitches
     */
    private function outline(string $kind, array $ring, ?int $top, ?int $thickness, array $pitches = [], ?string $on = null): string
    {
        $id = Desk::newId();
        $place = ['storey' => $on ?? $this->desk->storey, 'side' => null];
        $values = [...$place, 'kind' => $kind, 'name' => $kind, 'top' => $top, 'thickness' => $thickness];
        $this->desk->change([
            ['do' => 'add', 'type' => 'outline', 'id' => $id, 'values' => $values],
            ...array_map(static fn (int $i): array => [
                'do' => 'add',
                'type' => 'outlineCorner',
                'id' => Desk::newId(),
                'values' => ['outline' => $id, 'order' => $i, 'x' => $ring[$i][0], 'y' => $ring[$i][1], 'pitch' => $pitches[$i] ?? null],
            ], array_keys($ring)),
        ]);

        return $id;
    }

    /** m³ of all bodies of a kind: each face as a fan about its first corner, holes too, by the divergence theorem */
    private static function volume(JsonValue $bodies, string $kind): float
    {
        $forms = $bodies->get('forms')->items();
        $six = 0.0;
        foreach ($bodies->get('bodies')->items() as $body) {
            if ($kind !== $body->get('kind')->text()) {
                continue;
            }
            $form = $forms[$body->get('form')->count()];
            $at = array_chunk(array_map(static fn (JsonValue $v): float => $v->number(), $form->get('vertices')->items()), 3);
            $faces = array_map(static fn (JsonValue $v): int => $v->count(), $form->get('faces')->items());
            while ([] !== $faces) {
                for ($rings = array_shift($faces); $rings > 0; --$rings) {
                    $ring = array_splice($faces, 0, array_shift($faces));
                    for ($i = 1; $i + 1 < \count($ring); ++$i) {
                        [[$a, $b, $c], [$d, $e, $f], [$g, $h, $j]] = [$at[$ring[0]], $at[$ring[$i]], $at[$ring[$i + 1]]];
                        $six += $a * ($e * $j - $f * $h) - $b * ($d * $j - $f * $g) + $c * ($d * $h - $e * $g);
                    }
                }
            }
        }

        return $six / 6e9;
    }
}
