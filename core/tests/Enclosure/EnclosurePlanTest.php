<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Enclosure;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Enclosure\Enclosure;
use Plinth\Core\Enclosure\EnclosureDoor;
use Plinth\Core\Enclosure\EnclosureFinding;
use Plinth\Core\Enclosure\EnclosurePlan;
use Plinth\Core\Enclosure\FireClass;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Divider;
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

    /** @param list<Enclosure> $enclosures */
    private static function of(array $enclosures, Storey ...$storeys): EnclosurePlan
    {
        $derived = [];
        foreach ($storeys as $storey) {
            $derived[$storey->id] = Derivation::of($storey);
        }

        return EnclosurePlan::of(new Plan(array_values($storeys)), $derived, $enclosures);
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

    /** However it is spelled: the key names it once, as it was spelled first. */
    public function testAKeyNamesNoClassTwice(): void
    {
        mt_srand(60);
        $classes = ['REI 60', 'EI-30', 'Rauchdicht', 'ş 120 M'];
        for ($k = 0; $k < 300; ++$k) {
            $typed = [];
            for ($i = 0; $i < 12; ++$i) {
                $letters = mb_str_split($classes[mt_rand(0, 3)]);
                $spelled = '';
                foreach ($letters as $letter) {
                    $letter = '-' === $letter || ' ' === $letter ? ['', ' ', '-', '–', "\u{a0}", ' - ', '_'][mt_rand(0, 6)] : $letter;
                    $spelled .= 0 === mt_rand(0, 1) ? mb_strtoupper($letter) : mb_strtolower($letter);
                }
                $typed[] = [' ', '', "\t"][mt_rand(0, 2)].$spelled;
            }
            $names = FireClass::names($typed);
            self::assertLessThanOrEqual(4, \count($names), implode('|', $typed));
            foreach ($names as $key => $name) {
                $first = array_values(array_filter($typed, static fn (string $t): bool => FireClass::key($t) === $key))[0];
                self::assertSame(trim($first), $name);
            }
        }
        self::assertNotSame(FireClass::key('REI 60'), FireClass::key('REI 90'));
        self::assertSame([], FireClass::names([' - ', '']));
    }

    public function testRoomsGoTogetherWithTheWallBetweenThem(): void
    {
        $of = self::of([new Enclosure('a', 'g', 'REI 60', ['g0', 'g1']), new Enclosure('b', 'g', 'rei-60', ['g2'])], self::storey());
        self::assertSame(['rei60' => 'REI 60'], $of->names);
        // Two rooms of 3.8 × 3.8 m and 0.2 × 3.8 m of the wall between them.
        self::assertEqualsWithDelta(3800.0 * (3800.0 + 3800.0 + 200.0), $of->areas[0]->area(), 1.0);
        self::assertEqualsWithDelta(3800.0 * (3.0 * 3800.0 + 200.0), $of->totals()['rei60']['g'], 1.0);
        self::assertSame([], self::told($of));
        $doors = array_map(static fn (EnclosureDoor $d): array => [$d->enclosure, $d->opening->id, $d->isRated()], $of->doors());
        self::assertSame([['a', 'g-out', true], ['a', 'g-b', true], ['b', 'g-b', true]], $doors, 'The door within it bounds nothing.');
    }

    public function testTwoClassesOverOnePlaceAreFoundUnlessTheyMay(): void
    {
        $both = [new Enclosure('a', 'g', 'REI 60', ['g0', 'g1']), new Enclosure('b', 'g', 'REI 90', ['g1', 'g2']), new Enclosure('c', 'g', 'rei 60', ['g1'])];
        $of = self::of($both, self::storey());
        self::assertSame([['overlap', ['a', 'b'], 'g'], ['overlap', ['b', 'c'], 'g']], self::told($of));
        self::assertTrue($of->areas[0]->holds(...$of->findings()[0]->at) && $of->areas[1]->holds(...$of->findings()[0]->at));
        self::assertSame([], $of->findings([['rei90', 'REI-60']]));
        self::assertCount(2, $of->findings([['REI 60', 'EI 30']]));
    }

    public function testWhereNoWallStandsIsAGap(): void
    {
        // Along the inner faces of the first two rooms but for the east, where it ends in the middle of the third.
        $free = new Enclosure('a', 'g', 'REI 60', outline: self::box(100.0, 100.0, 10_000.0, 3900.0));
        $of = self::of([$free], self::storey());
        self::assertSame([['gap', ['a'], 'g']], self::told($of));
        self::assertEqualsWithDelta([10_000.0, 2000.0], $of->findings()[0]->at, 80.0);
        self::assertSame([], self::told(self::of([new Enclosure('a', 'g', 'REI 60', outline: self::box(100.0, 100.0, 7900.0, 3900.0))], self::storey())));
        // A room that a divider bounds has no wall there.
        $divided = self::storey(dividers: [new Divider('d', new Point(0.0, 2500.0), new Point(4000.0, 2500.0))]);
        $told = self::told(self::of([new Enclosure('a', 'g', 'REI 60', ['g0'])], $divided));
        self::assertSame([['gap', ['a'], 'g']], $told);
    }

    public function testAStairThatGoesOnIsEnclosedOnBothStoreys(): void
    {
        $stair = new Stair('up', [new Point(8500.0, 3000.0), new Point(11_500.0, 3000.0)], [], 1000.0, 12);
        [$below, $above] = [self::storey('g', 0.0, [$stair]), self::storey('u', 3000.0)];
        $ground = new Enclosure('a', 'g', 'REI 90', ['g2']);
        self::assertSame([['stops', ['a'], 'u']], self::told(self::of([$ground], $below, $above)));
        self::assertSame([], self::told(self::of([$ground, new Enclosure('b', 'u', 'rei90', ['u2'])], $below, $above)));
        $other = self::told(self::of([$ground, new Enclosure('b', 'u', 'REI 30', ['u2'])], $below, $above));
        self::assertSame([['stops', ['a'], 'u'], ['stops', ['b'], 'g']], $other);
        self::assertSame([], self::told(self::of([new Enclosure('a', 'g', 'REI 90', ['g0'])], $below, $above)), 'No stair runs in that one.');
    }
}
