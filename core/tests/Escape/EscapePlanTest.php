<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Escape;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Escape\EscapeLimits;
use Plinth\Core\Escape\EscapePlan;
use Plinth\Core\Escape\EscapeRoute;
use Plinth\Core\Escape\RoomEscape;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\EscapeLimit;
use Plinth\Core\Plan\Model\EscapeMeasure;
use Plinth\Core\Plan\Model\FloorVoid;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\PlacedObject;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Tests\Plan\Plans;

/** From the worst place of every room one is told the shortest way out, what is passed on it, and what is in the way. */
final class EscapePlanTest extends TestCase
{
    private static function door(string $id, string $wall, float $offset, float $width = 1000.0, DoorExit $exit = DoorExit::None, string $swing = 'left'): Opening
    {
        return new Opening($id, $wall, OpeningKind::Door, $offset, $width, swing: $swing, exit: $exit);
    }

    /**
     * Two rooms side by side, 6 × 4 m and 4 × 4 m on centre lines, walls 200 thick: the door between them, and one out of the first.
     *
     * @param list<Opening> $more
     * @param list<PlacedObject> $objects
     * @param list<Stair> $stairs
     */
    private static function storey(string $id = 'g', float $elevation = 0.0, array $more = [], array $objects = [], array $stairs = []): Storey
    {
        $walls = [
            ...Plans::rectangle(), Plans::wall('south2', 6000, 0, 10_000, 0), Plans::wall('east2', 10_000, 0, 10_000, 4000), Plans::wall('north2', 10_000, 4000, 6000, 4000),
        ];
        $openings = [self::door("$id-inner", 'east', 1500.0), ...$more];
        $rooms = [new Room("$id-hall", 'Hall', '', new Point(3000.0, 2000.0)), new Room("$id-store", 'Store', '', new Point(8000.0, 2000.0))];

        return (new Storey($id, $id, $elevation, 3000.0, $walls, $openings, $rooms))->built([], objects: $objects, stairs: $stairs);
    }

    /** @return array<string, RoomEscape> by name */
    private static function rooms(Storey ...$storeys): array
    {
        $rooms = [];
        foreach ((new EscapePlan(new Plan(array_values($storeys))))->rooms() as $room) {
            $rooms[$room->storey.'-'.($room->region->room->name ?? '')] = $room;
        }

        return $rooms;
    }

    private static function route(?EscapeRoute $route): EscapeRoute
    {
        self::assertNotNull($route);

        return $route;
    }

    /** @return float mm of a way but for its stairs */
    private static function length(EscapeRoute $route): float
    {
        $sum = 0.0;
        foreach ($route->places as $i => [$on, [$x, $y]]) {
            [$before, [$fromX, $fromY]] = $route->places[max(0, $i - 1)];
            $sum += $on === $before ? hypot($x - $fromX, $y - $fromY) : 0.0;
        }

        return $sum;
    }

    public function testTheWorstPlaceIsACornerAndTheWayPassesWhatItMust(): void
    {
        // Out through the south wall, from 600 to 1600; its middle inside is (1100, 100).
        $rooms = self::rooms(self::storey(more: [self::door('out', 'south', 600.0, 1000.0, DoorExit::Final, 'right')]));
        $hall = self::route($rooms['g-Hall']->toFinal);
        self::assertEqualsWithDelta(hypot(5900.0 - 1100.0, 3900.0 - 100.0), $hall->mm, 0.01);
        self::assertSame([['out'], 1000.0, [], 'out'], [$hall->doors, $hall->narrowestMm, $hall->against, $hall->exit]);
        // Round the jamb of the inner door, at (5900, 1500), which is seen from the far corner over (6100, 1500) or (6100, 2500).
        $store = self::route($rooms['g-Store']->toFinal);
        self::assertGreaterThanOrEqual(hypot(9900.0 - 1100.0, 3900.0 - 100.0), $store->mm);
        self::assertSame(['g-inner', 'out'], $store->doors);
        self::assertSame([], $store->against, 'Its leaf opens to the left of its wall, which runs north: with who comes from the east.');
        $against = self::rooms(self::storey(more: [self::door('out', 'south', 600.0, 1000.0, DoorExit::Final)]));
        self::assertSame(['out'], self::route($against['g-Store']->toFinal)->against);
        self::assertEqualsWithDelta($store->mm, self::length($store), 0.01);
        self::assertSame($store->mm, self::route($rooms['g-Store']->toExit)->mm);
    }

    public function testAnotherWayIsToldWithWhereBothPart(): void
    {
        // Out of the hall to the south, and to the north: from a corner of the store both go through the inner door, round one jamb each.
        $south = self::door('south', 'south', 600.0, 1000.0, DoorExit::Final);
        $north = self::door('north', 'north', 4400.0, 1000.0, DoorExit::Final);
        $rooms = self::rooms(self::storey(more: [$south, $north]));
        $hall = $rooms['g-Hall']->second;
        self::assertNotNull($hall);
        self::assertNotSame(self::route($rooms['g-Hall']->toExit)->exit, $hall->route->exit);
        self::assertSame(0.0, $hall->singleMm, 'In one room both are seen.');
        [$x, $y] = self::route($rooms['g-Hall']->toExit)->places[0][1];
        $apart = rad2deg(abs(atan2(100.0 - $y, 1100.0 - $x) - atan2(3900.0 - $y, 1100.0 - $x)));
        self::assertEqualsWithDelta(min($apart, 360.0 - $apart), $hall->degrees, 0.1);
        self::assertGreaterThanOrEqual(self::route($rooms['g-Hall']->toExit)->mm, $hall->route->mm);
        $store = $rooms['g-Store']->second;
        self::assertNotNull($store);
        self::assertSame(['g-inner'], array_values(array_intersect($store->route->doors, ['g-inner'])));
        // With one exit alone there is nothing to choose; a way both share until its end is one way all along.
        self::assertNull(self::rooms(self::storey(more: [$south]))['g-Hall']->second);
        $shelf = new PlacedObject('shelf', 'shelf', new Point(3000.0, 1300.0), 90.0, 2400.0, 400.0, 2000.0);
        $behind = self::rooms(self::storey(more: [$south, self::door('beside', 'south', 1700.0, 900.0, DoorExit::Final)], objects: [$shelf]))['g-Store']->second;
        self::assertNotNull($behind);
        self::assertGreaterThan(2000.0, $behind->singleMm);
    }

    public function testNothingIsAWayOutThatIsNotMarkedSo(): void
    {
        $rooms = self::rooms(self::storey(more: [self::door('out', 'south', 600.0), new Opening('w', 'north', OpeningKind::Window, 500.0, 2000.0, exit: DoorExit::Final)]));
        self::assertNull($rooms['g-Hall']->toExit);
        self::assertNull($rooms['g-Hall']->toFinal);
        $storey = self::rooms(self::storey(more: [self::door('out', 'south', 600.0, 900.0, DoorExit::Storey)]));
        self::assertSame(900.0, self::route($storey['g-Hall']->toExit)->narrowestMm);
        self::assertNull($storey['g-Hall']->toFinal);
    }

    public function testOneGoesRoundThingsAndNotBehindThem(): void
    {
        $exit = self::door('out', 'south', 600.0, 1000.0, DoorExit::Final);
        $free = self::route(self::rooms(self::storey(more: [$exit]))['g-Hall']->toFinal);
        // A shelf across the hall but for its last metre, and a cupboard 50 mm off the east wall.
        $shelf = new PlacedObject('shelf', 'shelf', new Point(3000.0, 1500.0), 90.0, 2800.0, 400.0, 2000.0);
        $round = self::route(self::rooms(self::storey(more: [$exit], objects: [$shelf]))['g-Hall']->toFinal);
        self::assertGreaterThan($free->mm, $round->mm);
        self::assertContainsEquals([3200.0, 2900.0], array_map(static fn (array $p): array => [round($p[1][0], 3), round($p[1][1], 3)], $round->places));
        $cupboard = new PlacedObject('cupboard', 'shelf', new Point(5650.0, 3350.0), 90.0, 1000.0, 400.0, 2000.0);
        $before = self::route(self::rooms(self::storey(more: [$exit], objects: [$cupboard]))['g-Hall']->toFinal);
        self::assertLessThan($free->mm, $before->mm, 'The corner behind the cupboard is nobody’s way.');
        $lamp = new PlacedObject('lamp', 'shelf', new Point(3000.0, 2000.0), 0.0, 3000.0, 400.0, 300.0, 2300.0);
        self::assertSame($free->mm, self::route(self::rooms(self::storey(more: [$exit], objects: [$lamp]))['g-Hall']->toFinal)->mm);
    }

    /** Twelve risers of 250 over goings of 300: eleven treads of hypot(300, 250), and the last riser. */
    public function testAStairIsWalkedAlongItsPitch(): void
    {
        $stair = new Stair('up', [new Point(1500.0, 3300.0), new Point(4800.0, 3300.0)], [], 1000.0, 12);
        $rooms = self::rooms(
            self::storey('g', 0.0, [self::door('out', 'south', 600.0, 1000.0, DoorExit::Final)], stairs: [$stair]),
            self::storey('u', 3000.0),
        );
        $upper = self::route($rooms['u-Store']->toFinal);
        self::assertSame([['u-inner', 'out'], ['up']], [$upper->doors, $upper->stairs]);
        self::assertEqualsWithDelta(11.0 * hypot(300.0, 250.0) + 250.0 + self::length($upper), $upper->mm, 0.01);
        $above = array_values(array_filter($upper->places, static fn (array $p): bool => 'u' === $p[0]));
        self::assertEqualsWithDelta([4800.0, 3300.0], $above[\count($above) - 1][1], 0.01);
        self::assertNull(self::rooms(self::storey('g'), self::storey('u', 3000.0, [self::door('high', 'south', 600.0)]))['u-Hall']->toExit);
    }

    public function testADoorInACurvedWallIsAWay(): void
    {
        $walls = [
            Plans::wall('s', 0, 0, 6000, 0), new Wall('e', new Point(6000.0, 0.0), new Point(6000.0, 4000.0), 300.0, rise: -900.0),
            Plans::wall('n', 6000, 4000, 0, 4000), Plans::wall('w', 0, 4000, 0, 0),
        ];
        $middle = $walls[1]->length() / 2.0;
        $rooms = self::rooms(Plans::storey($walls, [self::door('out', 'e', $middle - 600.0, 1200.0, DoorExit::Final)]));
        $route = self::route($rooms['s-']->toFinal);
        self::assertSame(['out'], $route->doors);
        // From a western corner to the middle of the chord between its jambs on the inner face.
        $radius = (2000.0 ** 2 + 900.0 ** 2) / 1800.0;
        self::assertEqualsWithDelta(hypot(6900.0 - $radius + ($radius - 150.0) * cos(600.0 / $radius) - 100.0, 1900.0), $route->mm, 0.1);
    }

    public function testFromTheUpperEndOfAStairOneIsToldTheWayDownItAndOut(): void
    {
        $stair = new Stair('up', [new Point(1500.0, 3300.0), new Point(4800.0, 3300.0)], [], 1000.0, 12);
        $out = self::door('out', 'south', 600.0, 1000.0, DoorExit::Final);
        $of = static fn (Opening ...$more): array => (new EscapePlan(new Plan([self::storey('g', 0.0, array_values($more), stairs: [$stair]), self::storey('u', 3000.0)])))->stairs();
        [$down] = $of($out);
        self::assertSame(['up', 'g'], [$down->stair, $down->storey]);
        $route = self::route($down->route);
        $length = 11.0 * hypot(300.0, 250.0) + 250.0;
        // From its first riser to the middle of the door inside, which is seen from there.
        self::assertEqualsWithDelta([$length, hypot(400.0, 3200.0)], $route->legs, 0.01);
        self::assertEqualsWithDelta($length + hypot(400.0, 3200.0), $route->mm, 0.01);
        self::assertSame([['out'], ['up'], 'out'], [$route->doors, $route->stairs, $route->exit]);
        self::assertSame(['u', 'g', 'g'], array_column($route->places, 0));
        self::assertNull($of()[0]->route);
    }

    public function testLimitsThatAreNotKeptAreToldAndNoneIsLaw(): void
    {
        $room = self::rooms(self::storey(more: [self::door('out', 'south', 600.0, 1000.0, DoorExit::Final)]))['g-Hall'];
        $broken = static fn (EscapeLimit ...$limits): array => array_map(
            static fn (array $b): string => $b[0]->value,
            (new EscapeLimits(array_values($limits)))->broken($room),
        );
        $far = hypot(4800.0, 3800.0);
        self::assertSame([], $broken());
        self::assertSame([], $broken(new EscapeLimit(EscapeMeasure::ToExit, $far + 0.1, 'brief'), new EscapeLimit(EscapeMeasure::Door, 1000.0, 'brief')));
        self::assertSame(['toExit', 'toFinal', 'single', 'door'], $broken(
            new EscapeLimit(EscapeMeasure::ToExit, $far - 1.0, 'brief'),
            new EscapeLimit(EscapeMeasure::ToFinal, 6000.0, 'brief'),
            new EscapeLimit(EscapeMeasure::Single, 6000.0, 'brief'),
            new EscapeLimit(EscapeMeasure::Angle, 45.0, 'brief'),
            new EscapeLimit(EscapeMeasure::Door, 1200.0, 'brief'),
        ), 'Without another way all of it has one way only, and no angle.');
        $told = (new EscapeLimits([new EscapeLimit(EscapeMeasure::Door, 1200.0, 'the brief, 3.2')]))->broken($room)[0][1];
        self::assertSame('The narrowest door is 1000 mm; at least 1200 mm is asked for (the brief, 3.2).', preg_replace('/\p{Z}/u', ' ', $told));
        // Where nobody has looked for another way, nobody says that there is none; where there is no way at all, that is said.
        $single = new EscapeLimit(EscapeMeasure::Single, 6000.0, 'brief');
        self::assertSame([], (new EscapeLimits([$single], false))->broken($room));
        $none = self::rooms(self::storey())['g-Hall'];
        $told = (new EscapeLimits([new EscapeLimit(EscapeMeasure::ToFinal, 6000.0, 'brief'), $single]))->broken($none);
        self::assertCount(1, $told);
        self::assertStringStartsWith('The way into the open air is not there; at most', $told[0][1]);
        $rooms = self::rooms(self::storey(more: [self::door('south', 'south', 600.0, 1000.0, DoorExit::Final), self::door('north', 'north', 4400.0, 1000.0, DoorExit::Final)]));
        $apart = $rooms['g-Hall']->second->degrees ?? 0.0;
        $angle = static fn (float $least): array => (new EscapeLimits([new EscapeLimit(EscapeMeasure::Angle, $least, 'brief')]))->broken($rooms['g-Hall']);
        self::assertCount(1, $angle($apart + 0.1));
        self::assertSame([], $angle($apart - 0.1));
    }

    /** Of some rooms alone, which asks for no more than they depend on, the answer is the same as of all. */
    public function testSomeRoomsAloneAreToldAsAmongAll(): void
    {
        for ($seed = 1; $seed <= 12; ++$seed) {
            $storey = Plans::standing($seed, 4, 5);
            $openings = array_map(static fn (Opening $o, int $k): Opening => new Opening($o->id, $o->wall, OpeningKind::Door, $o->offset, $o->width, exit: 0 === $k % 9 ? DoorExit::Final : DoorExit::None), $storey->openings, array_keys($storey->openings));
            $plan = new Plan([$storey->with($storey->walls, $openings)]);
            $all = (new EscapePlan($plan))->rooms();
            foreach ([0, 7, \count($all) - 1] as $k) {
                $room = $all[$k] ?? $all[0];
                $alone = (new EscapePlan($plan))->rooms([$room->region->key]);
                self::assertCount(1, $alone);
                self::assertEqualsWithDelta($room->toFinal?->mm, $alone[0]->toFinal?->mm, 0.1, "seed $seed");
                self::assertEquals(null === $room->toFinal, null === $alone[0]->toFinal);
                self::assertSame($room->toFinal?->exit, $alone[0]->toFinal?->exit);
            }
        }
    }

    public function testARoomThatIsOpenToTheStoreyAboveIsToldSo(): void
    {
        $void = new FloorVoid('v', new Contour([new Point(1000.0, 1000.0), new Point(3000.0, 1000.0), new Point(3000.0, 3000.0), new Point(1000.0, 3000.0)]));
        $out = self::door('out', 'south', 600.0, 1000.0, DoorExit::Final);
        $rooms = self::rooms(self::storey('g', 0.0, [$out]), self::storey('u', 3000.0)->built([], voids: [$void]));
        self::assertSame(
            ['g-Hall' => true, 'g-Store' => false, 'u-Hall' => false, 'u-Store' => false],
            array_map(static fn (RoomEscape $r): bool => $r->openAbove, $rooms),
        );
    }

    /** Over stairs too, whether the way leads down one or, on the storey itself, round over another: alone as among all. */
    public function testSomeRoomsAreToldAloneOverStairsAsWell(): void
    {
        $stairs = [
            new Stair('one', [new Point(1500.0, 3300.0), new Point(4800.0, 3300.0)], [], 1000.0, 12),
            new Stair('other', [new Point(9600.0, 700.0), new Point(6900.0, 700.0)], [], 900.0, 10),
        ];
        // Below, no door leads from one room to the other: from the store one goes up and round.
        $lower = self::storey('g', 0.0, [self::door('out', 'south', 600.0, 1000.0, DoorExit::Final)], stairs: $stairs);
        $apart = $lower->with($lower->walls, array_values(array_filter($lower->openings, static fn (Opening $o): bool => 'g-inner' !== $o->id)));
        $plan = new Plan([$apart, self::storey('u', 3000.0)]);
        $all = (new EscapePlan($plan))->rooms();
        self::assertCount(4, $all);
        foreach ($all as $room) {
            $alone = (new EscapePlan($plan))->rooms([$room->region->key])[0];
            self::assertSame(self::route($room->toFinal)->stairs, self::route($alone->toFinal)->stairs);
            self::assertEqualsWithDelta(self::route($room->toFinal)->mm, self::route($alone->toFinal)->mm, 0.1);
        }
        $names = array_map(static fn (RoomEscape $r): string => $r->storey.'-'.($r->region->room->name ?? ''), $all);
        self::assertSame(['other', 'one'], self::route($all[(int) array_search('g-Store', $names, true)]->toFinal)->stairs);
    }
}
