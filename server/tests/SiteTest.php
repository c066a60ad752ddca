<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Units\Bearing;

/** A boundary is followed leg by leg, closes with its misfit said, and is one thing to remove and get back. */
final class SiteTest extends TestCase
{
    /** The textbook traverse of the core's test, in feet. */
    private const LEGS = [
        ["126°55'17\"", '647.25'], ["178°18'58\"", '203.03'], ["15°31'54\"", '720.35'], ["284°35'20\"", '610.24'],
        ["206°09'41\"", '285.13'],
    ];

    public function testABoundaryIsTypedClosedAndRemovedWithItsLegs(): void
    {
        [$desk, $id, $shown] = self::begun();
        self::assertStringContainsString('three legs', $shown()->get('refusal')->text());
        foreach (self::LEGS as $order => [$bearing, $length]) {
            $desk->change([self::leg($id, $order, $bearing, $length)]);
        }
        $closed = $shown()->get('closed');
        self::assertEqualsWithDelta(272_585 * 0.3048 ** 2, $closed->get('areaM2')->number(), 2.0);
        self::assertEqualsWithDelta(0.080 * 304.8, $closed->get('misclosureMm')->number(), 0.6);
        self::assertCount(6, $shown()->get('path')->items());
        self::assertNull($shown()->list('mistyped')[0] ?? null);
        [, , $third] = Desk::rows($desk->state(), 'leg');
        $set = static fn (string $length): array => [
            'do' => 'set', 'type' => 'leg', 'id' => $third['id'], 'values' => ['length' => $length],
        ];
        $desk->change([$set('702.35')]);
        $mistyped = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/boundaries/$id"))->list('mistyped')[0];
        self::assertEqualsWithDelta(720.35 * 304.8, $mistyped->get('mm')->number(), 30.0);
        self::assertSame(2.0, $mistyped->get('leg')->number());
        $desk->change([$set('720.35')]);
        $gone = $desk->change([['do' => 'remove', 'type' => 'boundary', 'id' => $id]]);
        self::assertCount(6, JsonValue::of($gone['removed'])->items(), 'Its legs go with it.');
        $desk->client->ok('POST', "/api/projects/$desk->id/undo", ['id' => Desk::newId()]);
        self::assertSame(
            array_column(self::LEGS, 1),
            array_map(static fn (array $l): mixed => $l['values']['length'], Desk::rows($desk->state(), 'leg')),
        );
        self::assertEqualsWithDelta(272_585 * 0.3048 ** 2, $shown()->get('closed')->get('areaM2')->number(), 2.0);
    }

    /** The last leg of the textbook traverse follows from the other four, as near as the traverse closes. */
    public function testTheLegThatWouldCloseItIsToldAndOneThatWasTakenFromThereTestsNothing(): void
    {
        [$desk, $id, $shown] = self::begun();
        $desk->change([self::leg($id, 0, ...self::LEGS[0])]);
        self::assertNull($shown()->optional('closing'), 'There and back encloses nothing.');
        foreach ([1, 2, 3] as $order) {
            $desk->change([self::leg($id, $order, ...self::LEGS[$order])]);
        }
        $closing = $shown()->get('closing');
        self::assertEqualsWithDelta(285.13 * 304.8, $closing->get('mm')->number(), 0.1 * 304.8);
        self::assertEqualsWithDelta(206.1614, Bearing::parse($closing->get('bearing')->text())->degrees, 0.02);

        $length = $closing->get('mm')->number() / 1000.0;
        $desk->change([self::leg($id, 4, $closing->get('bearing')->text(), "$length m", more: ['computed' => true])]);
        self::assertFalse($shown()->get('closed')->get('tested')->boolean());
        self::assertEqualsWithDelta($closing->get('mm')->number(), $shown()->get('closing')->get('mm')->number(), 1e-6);
        [, , , , $last] = Desk::rows($desk->state(), 'leg');
        $desk->change([['do' => 'set', 'type' => 'leg', 'id' => $last['id'], 'values' => ['length' => '285.13', 'computed' => false]]]);
        self::assertTrue($shown()->get('closed')->get('tested')->boolean());
        self::assertNull($shown()->optional('closing'));
    }

    /** A rectangle of 40 m by 30 m, known by two corners of a map that has it turned by 30° and 0.9996 as large. */
    public function testTheFilesLieWhereTheMapSaysOnceTwoCornersAreKnown(): void
    {
        [$desk, $id] = self::begun();
        foreach ([['0', '30 m'], ['90', '40 m'], ['180', '30 m'], ['270', '40 m']] as $order => [$bearing, $length]) {
            $desk->change([self::leg($id, $order, $bearing, $length)]);
        }
        $told = static fn (): JsonValue => JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/map-reference"));
        self::assertNull($told()->optional('lies'));
        $begin = JsonValue::of(Desk::rows($desk->state(), 'boundary')[0]['values']);
        $from = [$begin->get('x')->number(), $begin->get('y')->number()];
        $point = static fn (int $corner, float $east, float $north, array $more = []): array => ['do' => 'add', 'type' => 'mapPoint', 'id' => Desk::newId(), 'values' => $more + [
            'reference' => 'epsg:25832', 'boundary' => $id, 'corner' => $corner, 'east' => $east, 'north' => $north, 'height' => null,
        ]];
        $map = static fn (float $x, float $y): array => [431_200.5 + 0.9996 * (cos(\M_PI / 6) * $x - sin(\M_PI / 6) * $y), 5_402_117.25 + 0.9996 * (sin(\M_PI / 6) * $x + cos(\M_PI / 6) * $y)];
        $desk->change([$point(0, ...$map(0.0, 0.0))]);
        self::assertSame([0.0, 1.0], [$told()->get('lies')->get('degrees')->number() + 0.0, $told()->get('lies')->get('scale')->number()], 'With one corner by what is up.');
        $desk->change([$point(2, ...$map(40.0, 30.0))]);
        $lies = $told()->get('lies');
        self::assertSame('EPSG:25832', $lies->get('reference')->text());
        self::assertEqualsWithDelta([30.0, 0.9996], [$lies->get('degrees')->number(), $lies->get('scale')->number()], 1e-9);
        // Corners of the site in GeoJSON are those of the map; IFC says the same of the plan's zero.
        [, $body] = $desk->client->send('GET', "/api/projects/$desk->id/plan.geojson");
        $json = JsonValue::parse(isset($body['text']) ? Desk::text($body['text']) : json_encode($body, \JSON_THROW_ON_ERROR));
        $site = array_values(array_filter($json->get('features')->items(), static fn (JsonValue $f): bool => 'Polygon' === $f->get('geometry')->get('type')->text()))[0];
        $ring = array_map(static fn (JsonValue $p): array => $p->pair(), $site->get('geometry')->get('coordinates')->items()[0]->items());
        foreach ([[0.0, 0.0], [0.0, 30.0], [40.0, 30.0], [40.0, 0.0]] as [$x, $y]) {
            self::assertLessThan(0.0001, min([\INF, ...array_map(static fn (array $p): float => hypot($p[0] - $map($x, $y)[0], $p[1] - $map($x, $y)[1]), $ring)]));
        }
        $zero = $map(-$from[0] / 1e3, -$from[1] / 1e3);
        self::assertEqualsWithDelta($zero, [$lies->get('east')->number(), $lies->get('north')->number()], 1e-4);
        self::assertStringContainsString("IFCPROJECTEDCRS('EPSG:25832'", Desk::text($desk->client->send('GET', "/api/projects/$desk->id/building.ifc")[1]['text']));
        // A third that is off by 60 mm is told; one that is far off, or of another map, lets nothing be said.
        [$e, $n] = $map(40.0, 0.0);
        $desk->change([$point(3, $e + 0.06, $n)]);
        self::assertEqualsWithDelta(30.0, max([0.0, ...array_map(static fn (JsonValue $p): float => $p->get('offMm')->number(), $told()->get('lies')->get('points')->items())]), 5.0);
        $desk->change([['do' => 'set', 'type' => 'mapPoint', 'id' => Desk::rows($desk->state(), 'mapPoint')[2]['id'], 'values' => ['east' => $n, 'north' => $e]]]);
        self::assertNull($told()->optional('lies'));
        self::assertStringContainsString('taken for each other', $told()->get('refusal')->text());
        $desk->change([['do' => 'set', 'type' => 'mapPoint', 'id' => Desk::rows($desk->state(), 'mapPoint')[2]['id'], 'values' => ['reference' => 'EPSG:32632']]]);
        self::assertStringContainsString('give all in one', $told()->get('refusal')->text());
        self::assertStringEndsWith('reference', Desk::text($desk->refused(422, [$point(1, 0.0, 0.0, ['reference' => 'Gauss'])])['at']));
        $gone = $desk->change([['do' => 'remove', 'type' => 'boundary', 'id' => $id]]);
        self::assertCount(8, JsonValue::of($gone['removed'])->items(), 'Legs and points go with it.');
    }

    public function testWhatIsWrongIsSaidAtTheLegAndNothingIsLost(): void
    {
        [$desk, $id] = self::begun();
        self::assertSame('unreadable-bearing', $desk->refused(422, [self::leg($id, 0, 'north-ish', '20')])['code']);
        self::assertSame('unreadable-length', $desk->refused(422, [self::leg($id, 0, '90', 'far')])['code']);
        self::assertSame('length-not-positive', $desk->refused(422, [self::leg($id, 0, '90', '0')])['code']);
        $tooLong = $desk->refused(422, [self::leg($id, 0, '90', '18810')]);
        self::assertSame('leg-too-long', $tooLong['code']);
        self::assertStringContainsString('Write its unit too', Desk::text($tooLong['message']));
        foreach ([['0', '100'], ['90', '100'], ['180', '100'], ['270', '60']] as $order => [$bearing, $length]) {
            $desk->change([self::leg($id, $order, $bearing, $length)]);
        }
        $answer = JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/boundaries/$id"));
        self::assertNull($answer->optional('closed'));
        self::assertStringContainsString("misses its beginning by 12192\u{202F}mm", $answer->get('refusal')->text());
        self::assertCount(4, Desk::rows($desk->state(), 'leg'), 'The legs stay as typed.');
        (new Client((string) getenv('PLINTH_ADDRESS')))->refused(401, 'GET', "/api/projects/$desk->id/boundaries/$id");
    }

    /** A lot of 30 m by 30 m whose corner is cut off by a quarter of a circle that was forgotten at first. */
    public function testALegIsCorrectedAndACurveInsertedInTheMiddle(): void
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $id = Desk::newId();
        $legs = [['0', '30000'], ['90', '30000'], ['180', '25000'], ['270', '20000']];
        $ids = array_map(static fn (): string => Desk::newId(), $legs);
        $desk->change([
            ['do' => 'add', 'type' => 'boundary', 'id' => $id, 'values' => ['storey' => $desk->storey, 'name' => 'Lot', 'x' => 0, 'y' => 0]],
            ...array_map(
                static fn (int $i): array => self::leg($id, $i, ...$legs[$i], unit: 'mm', leg: $ids[$i]),
                array_keys($legs),
            ),
        ]);
        $path = "/api/projects/$desk->id/boundaries/$id";
        $shown = static fn (): JsonValue => JsonValue::of($desk->client->ok('GET', $path));
        $near = static fn (): array => array_map(
            static fn (JsonValue $c): float => round($c->get('mm')->number()),
            JsonValue::of($desk->client->ok('GET', "$path/clearances"))->list('clearances'),
        );
        self::assertNull($shown()->optional('closed'));
        self::assertSame([], $near());
        $curve = self::leg($id, 3, '225', '90', unit: 'mm', more: ['radius' => '10 m', 'turns' => 'left', 'gives' => 'angle']);
        $desk->change([
            ['do' => 'set', 'type' => 'leg', 'id' => $ids[2], 'values' => ['length' => '20 m']],
            ['do' => 'set', 'type' => 'leg', 'id' => $ids[3], 'values' => ['order' => 4]],
            $curve,
        ]);
        $closed = $shown()->get('closed');
        self::assertEqualsWithDelta(900.0 - \M_PI * 25.0, $closed->get('areaM2')->number(), 1e-6);
        self::assertEqualsWithDelta(-10_000.0 * (1.0 - \M_SQRT1_2), $closed->list('rises')[3]->number(), 1e-6, 'It dips into the lot.');
        self::assertSame([], $near(), 'Nothing is built yet.');
        $house = $desk->chain([[4000, 15_000], [16_000, 15_000], [16_000, 24_000], [4000, 24_000]], true);
        $desk->change([$house['operation']]);
        // From the faces of its walls, which stand 100 out of their centre lines.
        self::assertSame([3900.0, 5900.0, 13_900.0, round(hypot(13_900, 14_900) - 10_000), 14_900.0], $near());
        self::assertSame('length', $desk->refused(422, [
            ['do' => 'set', 'type' => 'leg', 'id' => $curve['id'], 'values' => ['gives' => 'chord', 'length' => '21 m']],
        ])['at']);
    }

    /** @return array{Desk, string, \Closure(): JsonValue} a boundary without legs, its id, and how it is told */
    private static function begun(): array
    {
        $desk = new Desk(Client::ofStack()->signIn());
        $id = Desk::newId();
        $desk->change([[
            'do' => 'add',
            'type' => 'boundary',
            'id' => $id,
            'values' => ['storey' => $desk->storey, 'name' => 'Lot', 'x' => 1000.0, 'y' => 2000.0],
        ]]);

        return [$desk, $id, static fn (): JsonValue => JsonValue::of($desk->client->ok('GET', "/api/projects/$desk->id/boundaries/$id"))];
    }

    /**
     * @param array<string, string|bool> $more
     *
     * @return array<string, mixed>
     */
    private static function leg(
        string $boundary,
        int $order,
        string $bearing,
        string $length,
        string $unit = 'ft',
        ?string $leg = null,
        array $more = [],
    ): array {
        return [
            'do' => 'add',
            'type' => 'leg',
            'id' => $leg ?? Desk::newId(),
            'values' => ['boundary' => $boundary, 'order' => $order, 'length' => $length, 'bearing' => $bearing, 'unit' => $unit] + $more,
        ];
    }
}
