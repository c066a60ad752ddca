<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Plausibility\Doubt;
use Plinth\Core\Plan\Plausibility\Plausible;

/** What a practitioner would look at twice is said with its limit; what is usual is passed over. Limits: common practice, no source. */
final class PlausibleTest extends TestCase
{
    public function testWhatIsUsualIsPassedOver(): void
    {
        self::assertSame([], self::codes([self::door(910.0), new Opening('w', 'north', OpeningKind::Window, 500, 1200, 900, 1200)]));
    }

    /** @param list<string> $codes */
    #[TestWith([599.0, 'single', ['narrow-door']])]
    #[TestWith([600.0, 'single', []])]
    #[TestWith([1200.0, 'single', []])]
    #[TestWith([1201.0, 'single', ['wide-door']])]
    #[TestWith([1800.0, 'double', []])]
    #[TestWith([1000.0, 'double', ['narrow-door']])]
    public function testALeafIsAsWideAsLeavesAre(float $width, string $leaf, array $codes): void
    {
        self::assertSame($codes, self::codes([self::door($width, leaf: $leaf)]));
    }

    /** @param list<string> $codes */
    #[TestWith([0.0, 1890.0, ['low-head']])]
    #[TestWith([0.0, 1900.0, []])]
    #[TestWith([0.0, 2701.0, ['head-over-wall']])]
    #[TestWith([900.0, 1810.0, ['head-over-wall']])]
    public function testAHeadLiesAboveWhoeverWalksAndWithinItsWall(float $sill, float $height, array $codes): void
    {
        self::assertSame($codes, self::codes([self::door(910.0, $sill, $height)]));
    }

    public function testARoomIsEnteredByADoorThatOpensIntoIt(): void
    {
        $room = new Room('r', 'Tank room', '3', new Point(3000, 2000));
        [$doubt] = self::doubts([], [$room]);
        self::assertSame(['no-door', 'r', '3 Tank room has no door and no opening to walk through.'], [$doubt->code, $doubt->thing, $doubt->message]);
        self::assertSame(['no-door'], self::codes([new Opening('w', 'south', OpeningKind::Window, 500, 1200, 900, 1200)]), 'A window is none.');
        // A wall parts it in two: the door opens into the one at the left.
        $parted = [...Plans::rectangle(), Plans::wall('middle', 3000, 0, 3000, 4000)];
        $doubts = self::doubts([self::door(910.0)], [new Room('right', 'Store', '', new Point(4500, 2000))], $parted);
        self::assertSame([['no-door', 'right']], array_map(static fn (Doubt $d): array => [$d->code, $d->thing], $doubts));
        $divider = new Divider('d', new Point(3000, 0), new Point(3000, 4000));
        $storey = new Storey('s', 'Ground', 0.0, 2700.0, Plans::rectangle(), [self::door(910.0)], [], [$divider]);
        self::assertSame([], Plausible::of($storey, Derivation::of($storey)), 'Over a divider one walks.');
    }

    #[TestWith([49.0, 'thin-wall'])]
    #[TestWith([801.0, 'thick-wall'])]
    public function testAWallIsAsThickAsWallsAre(float $thickness, string $code): void
    {
        $walls = [...Plans::rectangle(), new Wall('odd', new Point(20_000, 0), new Point(24_000, 0), $thickness)];
        [$doubt] = self::doubts([self::door(910.0)], [], $walls);
        self::assertSame([$code, 'odd', [22_000.0, 0.0]], [$doubt->code, $doubt->thing, $doubt->at]);
        self::assertStringContainsString(\sprintf("%.0f\u{202F}mm", $thickness), $doubt->message);
    }

    public function testAStoreyIsAsHighAsStoreysAre(): void
    {
        $storey = new Storey('s', 'Loft', 0.0, 2150.0, []);
        [$doubt] = Plausible::of($storey, Derivation::of($storey));
        self::assertSame(['low-storey', 's', null], [$doubt->code, $doubt->thing, $doubt->at]);
        self::assertSame("Loft is 2150\u{202F}mm high from floor to floor; storeys are seldom under 2200\u{202F}mm.", $doubt->message);
    }

    private static function door(float $width, float $sill = 0.0, float $height = 2040.0, string $leaf = 'single'): Opening
    {
        return new Opening('door', 'south', OpeningKind::Door, 500.0, $width, $sill, $height, leaf: $leaf);
    }

    /**
     * @param list<Opening> $openings
     *
     * @return list<string>
     */
    private static function codes(array $openings): array
    {
        return array_map(static fn (Doubt $d): string => $d->code, self::doubts($openings));
    }

    /**
     * @param list<Opening> $openings
     * @param list<Room> $rooms
     * @param list<Wall>|null $walls
     *
     * @return list<Doubt>
     */
    private static function doubts(array $openings, array $rooms = [], ?array $walls = null): array
    {
        $storey = new Storey('s', 'Ground', 0.0, 2700.0, $walls ?? Plans::rectangle(), $openings, $rooms);

        return Plausible::of($storey, Derivation::of($storey));
    }
}
