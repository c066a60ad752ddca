<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Json\JsonValue;

/** From every room one is told the way out, over whatever storeys there are, as soon as a door is marked as an exit. */
final class EscapeTest extends TestCase
{
    private Desk $desk;

    protected function setUp(): void
    {
        $this->desk = new Desk(Client::ofStack()->signIn());
    }

    /** @return array<string, JsonValue> rooms by name */
    private function rooms(): array
    {
        $rooms = [];
        foreach (JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/escape"))->get('rooms')->items() as $room) {
            $rooms[$room->get('name')->text()] = $room;
        }

        return $rooms;
    }

    /** @return array<string, mixed> */
    private function room(string $name, float $x, float $y): array
    {
        return ['do' => 'add', 'type' => 'room', 'id' => Desk::newId(), 'values' => ['storey' => $this->desk->storey, 'name' => $name, 'number' => '', 'x' => $x, 'y' => $y]];
    }

    public function testTheWayFollowsWhatIsChanged(): void
    {
        $ring = $this->desk->chain([[0, 0], [9000, 0], [9000, 4000], [0, 4000]], true);
        $inner = $this->desk->chain([[6000, 0], [6000, 4000]]);
        [$out, $between] = [Desk::newId(), Desk::newId()];
        $this->desk->change([
            $ring['operation'], $inner['operation'], Desk::door($ring['walls'][0], 600, 1000, $out), Desk::door($inner['walls'][0], 1500, 900, $between),
            $this->room('Hall', 3000, 2000), $this->room('Store', 7500, 2000),
        ]);
        $rooms = $this->rooms();
        self::assertSame(['Hall', 'Store'], array_keys($rooms));
        self::assertNull($rooms['Hall']->optional('toExit'), 'Nothing is an exit yet.');
        $this->desk->change([['do' => 'set', 'type' => 'opening', 'id' => $out, 'values' => ['exit' => 'final']]]);
        $store = $this->rooms()['Store']->get('toFinal');
        self::assertSame([$between, $out], array_map(static fn (JsonValue $d): string => $d->text(), $store->get('doors')->items()));
        self::assertEqualsWithDelta(900.0, $store->get('narrowestMm')->number(), 1e-9);
        // A second door, and there are two ways from the store, which part beyond the inner door.
        $other = Desk::door($ring['walls'][2], 4000, 900, $north = Desk::newId());
        $this->desk->change([$other, ['do' => 'set', 'type' => 'opening', 'id' => $north, 'values' => ['exit' => 'final']]]);
        $second = $this->rooms()['Store']->get('second');
        self::assertContains($second->get('route')->get('exit')->text(), [$out, $north]);
        self::assertNotSame($this->rooms()['Store']->get('toExit')->get('exit')->text(), $second->get('route')->get('exit')->text());
        $this->desk->change([['do' => 'set', 'type' => 'opening', 'id' => $north, 'values' => ['exit' => 'none']]]);
        self::assertNull($this->rooms()['Store']->optional('second'));
        // Of one room alone the same is told.
        $store = $this->rooms()['Store'];
        $alone = JsonValue::of($this->desk->client->ok('GET', "/api/projects/{$this->desk->id}/escape?regions=".$store->get('key')->text()))->get('rooms')->items();
        self::assertCount(1, $alone);
        self::assertEqualsWithDelta($store->get('toFinal')->get('mm')->number(), $alone[0]->get('toFinal')->get('mm')->number(), 0.1);
        $this->desk->client->refused(422, 'GET', "/api/projects/{$this->desk->id}/escape?regions=".implode(',', range(1, 21)));
        // A shelf in the way, and the way is longer; a wall in place of the door, and there is none.
        $before = $this->rooms()['Hall']->get('toExit')->get('mm')->number();
        $this->desk->change([['do' => 'add', 'type' => 'object', 'id' => Desk::newId(), 'values' => [
            'storey' => $this->desk->storey, 'kind' => 'bed', 'x' => 3000, 'y' => 1800, 'degrees' => 0, 'width' => 1000, 'depth' => 2500, 'height' => 600, 'base' => 0,
        ]]]);
        self::assertGreaterThan($before, $this->rooms()['Hall']->get('toExit')->get('mm')->number());
        $this->desk->change([['do' => 'remove', 'type' => 'opening', 'id' => $between]]);
        self::assertNull($this->rooms()['Store']->optional('toExit'));
        self::assertNotNull($this->rooms()['Hall']->optional('toExit'));
    }
}
