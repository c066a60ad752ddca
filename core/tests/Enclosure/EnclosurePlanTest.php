<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Enclosure;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Enclosure\EnclosureDoor;
use Plinth\Core\Enclosure\EnclosureFinding;
use Plinth\Core\Enclosure\EnclosurePlan;
use Plinth\Core\Exchange\FireDocument\FireWriter;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Enclosure;
use Plinth\Core\Plan\Model\FireClass;
use Plinth\Core\Plan\Model\FireSafety;
use Plinth\Core\Plan\Model\FloorVoid;
use Plinth\Core\Plan\Model\Hatch;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Tests\Plan\Plans;

/** A class has one name however it is spelled; what is drawn of it is measured, and what breaks it is found. */
final class EnclosurePlanTest extends TestCase
{
    /**
     * Three rooms in a row, each 4 × 4 m on centre lines, walls 200 thick; doors between them, and one out of the first.
     *
     * @param list<Stair> $stairs
     * @param list<Divider> $dividers
     */
    private static function storey(string $id = 'g', float $elevation = 0.0, array $stairs = [], array $dividers = []): Storey
    {
        [$walls, $rooms] = [[], []];
        foreach ([0, 1, 2] as $i) {
            $x = 4000.0 * $i;
            array_push(
                $walls,
                Plans::wall("s$i", $x, 0, $x + 4000, 0), Plans::wall("n$i", $x + 4000, 4000, $x, 4000), Plans::wall("w$i", $x, 0, $x, 4000),
            );
            $rooms[] = new Room("$id$i", "Room $i", '', new Point($x + 2000.0, 1000.0));
        }
        $walls[] = Plans::wall('e', 12_000, 0, 12_000, 4000);
        $openings = [
            new Opening("$id-out", 's0', OpeningKind::Door, 1000.0, 900.0, rated: 'FD30'), new Opening("$id-a", 'w1', OpeningKind::Door, 1000.0, 900.0),
            new Opening("$id-b", 'w2', OpeningKind::Door, 1000.0, 1200.0, rated: 'EI2 30'),
        ];

        return (new Storey($id, $id, $elevation, 3000.0, $walls, $openings, $rooms, $dividers))->built([], stairs: $stairs);
    }

    /**
     * @param list<Enclosure> $enclosures
     * @param list<array{string, string}> $together
     */
    private static function of(array $enclosures, array $together, Storey ...$storeys): EnclosurePlan
    {
        $classes = array_map(
            static fn (string $name): FireClass => new FireClass($name, $name, '#d55e00', Hatch::Rising),
            array_values(array_unique(array_map(static fn (Enclosure $e): string => $e->class, $enclosures))),
        );

        return EnclosurePlan::of(new Plan(array_values($storeys), fire: new FireSafety($classes, $enclosures, $together)));
    }

    private static function box(float $x1, float $y1, float $x2, float $y2): Contour
    {
        return new Contour([new Point($x1, $y1), new Point($x2, $y1), new Point($x2, $y2), new Point($x1, $y2)]);
    }

    /** @return list<array{string, list<string>, string}> */
    private static function told(EnclosurePlan $of): array
    {
        return array_map(static fn (EnclosureFinding $f): array => [$f->code, $f->enclosures, $f->storey], $of->findings());
    }

    /** However it is spelled, it is one class; other classes are others. */
    public function testAClassHasOneKeyHoweverItIsSpelled(): void
    {
        mt_srand(60);
        $classes = ['REI 60', 'EI-30', 'Rauchdicht', 'ş 120 M'];
        $between = ['', ' ', '-', '–', "\u{a0}", ' - ', '_', "\u{ad}"];
        for ($k = 0; $k < 1000; ++$k) {
            $class = $classes[$k % 4];
            $spelled = $between[mt_rand(0, 7)];
            foreach (mb_str_split($class) as $letter) {
                $letter = '-' === $letter || ' ' === $letter ? '' : $letter;
                $spelled .= (0 === mt_rand(0, 1) ? mb_strtoupper($letter) : mb_strtolower($letter)).$between[mt_rand(0, 7)];
            }
            self::assertSame(FireClass::key($class), FireClass::key($spelled), $spelled);
        }
        self::assertCount(5, array_unique(array_map(FireClass::key(...), [...$classes, 'REI 90'])));
        self::assertSame('', FireClass::key(' – _'));
    }

    public function testRoomsGoTogetherWithTheWallBetweenThem(): void
    {
        $of = self::of([new Enclosure('a', 'g', 'REI 60', ['g0', 'g1']), new Enclosure('b', 'g', 'REI 60', ['g2'])], [], self::storey());
        // Two rooms of 3.8 × 3.8 m and 0.2 × 3.8 m of the wall between them.
        self::assertEqualsWithDelta(3800.0 * (3800.0 + 3800.0 + 200.0), $of->areas[0]->area(), 1.0);
        self::assertEqualsWithDelta(3800.0 * (3.0 * 3800.0 + 200.0), $of->totals()['REI 60']['g'], 1.0);
        self::assertSame([], self::told($of));
        $bounding = $of->bounding();
        self::assertEqualsCanonicalizing(['s0', 'n0', 'w0', 's1', 'n1', 'w2', 's2', 'n2', 'e'], array_keys($bounding), 'The wall within one bounds nothing.');
        self::assertSame(['REI 60'], $bounding['w2']);
        $doors = array_map(static fn (EnclosureDoor $d): array => [$d->enclosure, $d->opening->id, $d->isRated()], $of->doors());
        self::assertSame([['a', 'g-out', true], ['a', 'g-b', true], ['b', 'g-b', true]], $doors, 'The door within it bounds nothing.');
    }

    public function testTwoClassesOverOnePlaceAreFoundUnlessTheyMay(): void
    {
        $both = [new Enclosure('a', 'g', 'REI 60', ['g0', 'g1']), new Enclosure('b', 'g', 'REI 90', ['g1', 'g2']), new Enclosure('c', 'g', 'REI 60', ['g1'])];
        $of = self::of($both, [], self::storey());
        self::assertSame([['overlap', ['a', 'b'], 'g'], ['overlap', ['b', 'c'], 'g']], self::told($of));
        self::assertTrue($of->areas[0]->holds(...$of->findings()[0]->at) && $of->areas[1]->holds(...$of->findings()[0]->at));
        self::assertSame([], self::told(self::of($both, [['REI 90', 'REI 60']], self::storey())));
    }

    public function testWhereNoWallStandsIsAGap(): void
    {
        // Along the inner faces of the first two rooms but for the east, where it ends in the middle of the third.
        $free = new Enclosure('a', 'g', 'REI 60', outline: self::box(100.0, 100.0, 10_000.0, 3900.0));
        $of = self::of([$free], [], self::storey());
        self::assertSame([['gap', ['a'], 'g']], self::told($of));
        self::assertEqualsWithDelta([10_000.0, 2000.0], $of->findings()[0]->at, 80.0);
        self::assertSame([], self::told(self::of([new Enclosure('a', 'g', 'REI 60', outline: self::box(100.0, 100.0, 7900.0, 3900.0))], [], self::storey())));
        // A room that a divider bounds has no wall there.
        $divided = self::storey(dividers: [new Divider('d', new Point(0.0, 2500.0), new Point(4000.0, 2500.0))]);
        $told = self::told(self::of([new Enclosure('a', 'g', 'REI 60', ['g0'])], [], $divided));
        self::assertSame([['gap', ['a'], 'g']], $told);
    }

    public function testAStairThatGoesOnIsEnclosedOnBothStoreys(): void
    {
        $stair = new Stair('up', [new Point(8500.0, 3000.0), new Point(11_500.0, 3000.0)], [], 1000.0, 12);
        [$below, $above] = [self::storey('g', 0.0, [$stair]), self::storey('u', 3000.0)];
        $ground = new Enclosure('a', 'g', 'REI 90', ['g2']);
        self::assertSame([['stops', ['a'], 'u']], self::told(self::of([$ground], [], $below, $above)));
        self::assertSame([], self::told(self::of([$ground, new Enclosure('b', 'u', 'REI 90', ['u2'])], [], $below, $above)));
        $other = self::told(self::of([$ground, new Enclosure('b', 'u', 'REI 30', ['u2'])], [], $below, $above));
        self::assertSame([['stops', ['a'], 'u'], ['stops', ['b'], 'g']], $other);
        self::assertSame([], self::told(self::of([new Enclosure('a', 'g', 'REI 90', ['g0'])], [], $below, $above)), 'No stair runs in that one.');
    }

    public function testAFindingNamesTheRoomThatWouldMendIt(): void
    {
        $divider = new Divider('d', new Point(0.0, 2500.0), new Point(4000.0, 2500.0));
        $storey = self::storey(dividers: [$divider]);
        $north = new Room('north', 'North part', '', new Point(2000.0, 3200.0));
        $divided = new Storey('g', 'g', 0.0, 3000.0, $storey->walls, $storey->openings, [...$storey->rooms, $north], [$divider]);
        $gap = self::of([new Enclosure('a', 'g', 'REI 60', ['g0'])], [], $divided)->findings();
        self::assertSame(['gap', 'north'], [$gap[0]->code, $gap[0]->room]);
        self::assertMatchesRegularExpression('/ 3800\Wmm /u', $gap[0]->message);
        self::assertSame([], self::told(self::of([new Enclosure('a', 'g', 'REI 60', ['g0', 'north'])], [], $divided)));
        $stair = new Stair('up', [new Point(8500.0, 3000.0), new Point(11_500.0, 3000.0)], [], 1000.0, 12);
        $stops = self::of([new Enclosure('a', 'g', 'REI 90', ['g2'])], [], self::storey('g', 0.0, [$stair]), self::storey('u', 3000.0))->findings();
        self::assertSame('u2', $stops[0]->room);
    }

    public function testARoomThatIsOpenIsNotCoveredAndThatIsSaid(): void
    {
        $storey = self::storey();
        $open = new Storey('g', 'g', 0.0, 3000.0, array_values(array_filter($storey->walls, static fn ($w): bool => 's1' !== $w->id)), [], $storey->rooms);
        $of = self::of([new Enclosure('a', 'g', 'REI 60', ['g1'])], [], $open);
        self::assertSame([['open', ['a'], 'g']], self::told($of));
        self::assertSame(0.0, $of->areas[0]->area());
    }

    public function testAWayIsToldByWhatItRunsIn(): void
    {
        $enclosures = [new Enclosure('a', 'g', 'REI 60', ['g0']), new Enclosure('b', 'g', 'REI 60', ['g1']), new Enclosure('c', 'u', 'REI 60', ['u0'])];
        $of = self::of($enclosures, [], self::storey(), self::storey('u', 3000.0));
        self::assertSame(['REI 60', null], [$of->classAt('g', 2000.0, 2000.0), $of->classAt('g', 10_000.0, 2000.0)]);
        // From the third room through both doors: 1900 in it, 200 of wall, and from there on enclosed, the wall between both with it.
        $along = $of->along([['g', [10_000.0, 2000.0]], ['g', [5000.0, 2000.0]], ['g', [1000.0, 2000.0]]], [5000.0, 4000.0]);
        self::assertEqualsWithDelta([[null, 2100.0], ['REI 60', 6900.0]], $along, 1e-6);
        // Down a stair that is enclosed at both ends, and out through the wall.
        $down = $of->along([['u', [2000.0, 2000.0]], ['g', [2000.0, 1000.0]], ['g', [2000.0, -100.0]]], [4200.0, 1100.0]);
        self::assertEqualsWithDelta([['REI 60', 5300.0]], $down, 1e-6);
        self::assertEqualsWithDelta([[null, 4000.0]], $of->along([['u', [6000.0, 2000.0]], ['g', [6000.0, 1000.0]]], [4000.0]), 1e-6);
    }

    /**
     * Of random plans, some rooms each: what they cover is their floors and the walls between neighbours, no wall within is said to bound it,
     * and none is open whose walls stand; a wall that is taken away is found.
     */
    public function testRandomRoomsAreCoveredWithWhatLiesBetweenThem(): void
    {
        [$found, $covered] = [0, 0];
        for ($seed = 1; $seed <= 25; ++$seed) {
            $drawn = Plans::standing($seed, 3, 4);
            $regions = Derivation::of(new Storey('s', 'S', 0.0, 3000.0, $drawn->walls, $drawn->openings))->regions;
            mt_srand($seed);
            $rooms = [];
            foreach ($regions as $k => $region) {
                $rooms[] = new Room("r$k", "Room $k", '', new Point(...$region->label));
            }
            $storey = new Storey('s', 'S', 0.0, 3000.0, $drawn->walls, $drawn->openings, $rooms);
            $chosen = array_values(array_filter(array_map(static fn (Room $r): string => $r->id, $rooms), static fn (): bool => mt_rand(0, 1) > 0));
            $of = self::of([new Enclosure('a', 's', 'REI 60', $chosen), new Enclosure('b', 's', 'EI 30', array_values(array_diff(array_column($rooms, 'id'), $chosen)))], [], $storey);
            if ([] === $chosen || \count($chosen) === \count($rooms)) {
                continue;
            }
            [$one, $other] = $of->areas;
            $floors = array_sum(array_map(static fn ($r): float => Polygon::area($r->polygon) + array_sum(array_map(Polygon::area(...), $r->holes)), array_filter(
                Derivation::of($storey)->regions,
                static fn ($r): bool => \in_array($r->room?->id, $chosen, true),
            )));
            self::assertGreaterThanOrEqual($floors - 1.0, $one->area(), "seed $seed");
            self::assertSame([], array_filter($of->findings(), static fn (EnclosureFinding $f): bool => 'overlap' === $f->code), "seed $seed: no room is of both");
            foreach ($regions as $k => $region) {
                [$x, $y] = $region->label;
                self::assertSame([\in_array("r$k", $chosen, true), !\in_array("r$k", $chosen, true)], [$one->holds($x, $y), $other->holds($x, $y)]);
                ++$covered;
            }
            // One room's wall goes: it runs into its neighbour, and what enclosed it says so.
            $bounding = array_keys($of->bounding());
            $without = $storey->with(array_values(array_filter($storey->walls, static fn ($w): bool => $w->id !== $bounding[0])), []);
            $found += [] === self::of([new Enclosure('a', 's', 'REI 60', $chosen)], [], $without)->findings() ? 0 : 1;
        }
        self::assertGreaterThan(150, $covered);
        self::assertGreaterThan(12, $found);
    }

    public function testAFloorThatIsOpenLeadsOnAsAStairDoesAndBothAreSaidOnce(): void
    {
        $void = new FloorVoid('v', self::box(8600.0, 2600.0, 11_000.0, 3400.0));
        $upper = self::storey('u', 3000.0)->built([], voids: [$void]);
        $ground = new Enclosure('a', 'g', 'REI 90', ['g2']);
        $told = self::of([$ground], [], self::storey(), $upper)->findings();
        self::assertSame([['stops', 'u', 'u2']], array_map(static fn (EnclosureFinding $f): array => [$f->code, $f->storey, $f->room], $told));
        self::assertStringStartsWith('The floor is open here, and REI 90 does not. Enclose it on u as well.', $told[0]->message);
        self::assertSame([], self::told(self::of([$ground, new Enclosure('b', 'u', 'REI 90', ['u2'])], [], self::storey(), $upper)));
        $stair = new Stair('up', [new Point(8500.0, 3000.0), new Point(11_500.0, 3000.0)], [], 1000.0, 12);
        $both = self::of([$ground], [], self::storey('g', 0.0, [$stair]), $upper);
        self::assertSame([['stops', ['a'], 'u']], self::told($both));
        self::assertSame(['REI 90', null], [$both->ofStair(self::storey(), $stair), $both->ofStair(self::storey('u'), $stair)]);
        self::assertSame([], self::told(self::of([new Enclosure('a', 'g', 'REI 90', ['g0'])], [], self::storey(), $upper)), 'It opens into another room.');
    }

    /** Ids are what a document calls things by, be it digits alone. */
    public function testThingsMayBeCalledByNumbers(): void
    {
        $plan = new Plan([self::storey('1')], fire: new FireSafety([new FireClass('60', 'REI 60', '#d55e00', Hatch::Rising)], [new Enclosure('7', '1', '60', ['10'])]));
        $of = EnclosurePlan::of($plan);
        self::assertSame('60', $of->classAt('1', 2000.0, 2000.0));
        self::assertSame(['60'], $of->bounding()['w1']);
        $told = json_encode((new FireWriter($plan))->enclosures(), \JSON_THROW_ON_ERROR);
        self::assertStringContainsString('{"fireClass":"60","storey":"1",', $told);
        self::assertSame(3, substr_count(json_encode((new FireWriter($plan))->escape(), \JSON_THROW_ON_ERROR), '"key":'));
    }
}
