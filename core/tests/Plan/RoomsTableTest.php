<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\RoomsTable;
use Plinth\Core\Plan\Derivation\TracedRoom;
use Plinth\Core\Plan\Model\ListedRoom;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Units\LengthUnit;

final class RoomsTableTest extends TestCase
{
    /** @return iterable<string, array{string}> */
    public static function waysToWriteIt(): iterable
    {
        yield 'typed' => ["3 Tank room 4.80 x 3.54 17.0 m²\n4 Hall 9 m²\nStore"];
        yield 'semicolons and decimal commas' => ["Nr;Name;Width;Depth;Area\n3;Tank room;4,80;3,54;17,0\n4;Hall;;;9\n;Store;;;"];
        yield 'tabs without a heading' => ["3\tTank room\t4800\t3540\t17.0\n4\tHall\t\t\t9\n\tStore"];
        yield 'commas under a heading in another order' => [
            "name,number,area,width,depth\n\"Tank room\",3,17.0 m²,4.80 m,3.54 m\nHall,4,9,,\nStore,,,,",
        ];
    }

    #[DataProvider('waysToWriteIt')]
    public function testATableIsReadHoweverItIsWritten(string $text): void
    {
        self::assertEqualsWithDelta(
            [new ListedRoom('3', 'Tank room', 4800.0, 3540.0, 17.0), new ListedRoom('4', 'Hall', areaM2: 9.0), new ListedRoom('', 'Store')],
            RoomsTable::read($text, LengthUnit::Millimetre),
            1e-9,
        );
    }

    public function testRoomsAreMatchedByNumberNameAndAreaAndTheLargestDifferenceComesFirst(): void
    {
        // Two rooms of 2.85 × 3.8 m clear, the second one without a name.
        $walls = [...Plans::rectangle(), Plans::wall('middle', 3000, 0, 3000, 4000, 100)];
        $traced = array_map(
            TracedRoom::of(...),
            Derivation::of(Plans::storey($walls, [], [new Room('r', 'Tank  room', '3', new Point(1000, 2000))]))->regions,
        );
        $rows = RoomsTable::compare(
            [
                new ListedRoom('3', 'Tank room', 3800.0, 2900.0, 11.0),
                new ListedRoom('4', 'Hall', areaM2: 10.8),
                new ListedRoom('5', 'Loft', areaM2: 30.0),
            ],
            $traced,
        );
        self::assertSame(['Loft', 'Tank room', 'Hall'], array_map(static fn (array $r): ?string => $r['listed']?->name, $rows));
        self::assertNull($rows[0]['traced']);
        self::assertSame(['number', 'area'], [$rows[1]['by'], $rows[2]['by']]);
        self::assertEqualsWithDelta(
            [-0.17, 0.0, -50.0],
            [$rows[1]['areaOffM2'], $rows[1]['widthOffMm'], $rows[1]['depthOffMm']],
            1e-6,
            'Its width is what the table calls depth.',
        );
        self::assertNull(RoomsTable::compare([], $traced)[0]['listed'], 'A traced room that no table lists.');
    }
}
