<?php

declare(strict_types=1);

namespace Plinth\Core\Tests;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Wall;

/** What every module has to stand: empty, repeated, in line, touching, crossing, nearly parallel, far out, bent to nothing, called 7. */
final class HardCases
{
    /** Survey coordinates, mm. */
    public const FAR = [650_000_000.0, 220_000_000.0];

    /** @return iterable<string, array{list<array{float, float}>, float}> corners, and the area that they go round, mm² */
    public static function rings(): iterable
    {
        $square = [[0.0, 0.0], [100.0, 0.0], [100.0, 100.0], [0.0, 100.0]];
        yield 'nothing' => [[], 0.0];
        yield 'one point' => [[[5.0, 5.0]], 0.0];
        yield 'two points' => [[[0.0, 0.0], [5.0, 5.0]], 0.0];
        yield 'one point three times' => [[[5.0, 5.0], [5.0, 5.0], [5.0, 5.0]], 0.0];
        yield 'in line' => [[[0.0, 0.0], [50.0, 0.0], [100.0, 0.0]], 0.0];
        yield 'there and back' => [[[0.0, 0.0], [100.0, 0.0], [100.0, 100.0], [100.0, 0.0]], 0.0];
        yield 'a square' => [$square, 10_000.0];
        yield 'the other way round' => [array_reverse($square), -10_000.0];
        yield 'corners twice' => [[...$square, ...[$square[3]]], 10_000.0];
        yield 'corners that are none' => [[[0.0, 0.0], [50.0, 0.0], [100.0, 0.0], [100.0, 100.0], [0.0, 100.0]], 10_000.0];
        yield 'touching itself' => [[[0.0, 0.0], [50.0, 50.0], [100.0, 0.0], [100.0, 100.0], [50.0, 50.0], [0.0, 100.0]], 5000.0];
        yield 'crossing itself' => [[[0.0, 0.0], [100.0, 100.0], [100.0, 0.0], [0.0, 100.0]], 0.0];
        yield 'a hair wide' => [[[0.0, 0.0], [10_000.0, 0.0], [10_000.0, 0.001], [0.0, 0.001]], 10.0];
        yield 'far out' => [array_map(static fn (array $p): array => [self::FAR[0] + $p[0], self::FAR[1] + $p[1]], $square), 10_000.0];
    }

    /** @return iterable<string, array{list<Wall>}> of one storey */
    public static function walls(): iterable
    {
        $wall = static fn (string $id, float $x1, float $y1, float $x2, float $y2, float $rise = 0.0): Wall => new Wall(
            $id,
            new Point($x1, $y1),
            new Point($x2, $y2),
            200.0,
            rise: $rise,
        );
        $far = static fn (string $id, float $x1, float $y1, float $x2, float $y2): Wall => $wall(
            $id,
            self::FAR[0] + $x1,
            self::FAR[1] + $y1,
            self::FAR[0] + $x2,
            self::FAR[1] + $y2,
        );
        yield 'none' => [[]];
        yield 'one' => [[$wall('a', 0, 0, 5000, 0)]];
        yield 'of no length' => [[$wall('a', 0, 0, 0, 0), $wall('b', 0, 0, 5000, 0)]];
        yield 'shorter than a join' => [[$wall('a', 0, 0, 0.5, 0), $wall('b', 0, 0, 5000, 0)]];
        yield 'the same twice' => [[$wall('a', 0, 0, 5000, 0), $wall('b', 0, 0, 5000, 0)]];
        yield 'the same there and back' => [[$wall('a', 0, 0, 5000, 0), $wall('b', 5000, 0, 0, 0)]];
        yield 'traced again a hair aside' => [[$wall('a', 0, 0, 5000, 0), $wall('b', 0, -2, 5000, 2)]];
        yield 'in line, overlapping' => [[$wall('a', 0, 0, 3000, 0), $wall('b', 2000, 0, 5000, 0)]];
        yield 'in line, touching' => [[$wall('a', 0, 0, 3000, 0), $wall('b', 3000, 0, 5000, 0)]];
        yield 'crossing at a hair' => [[$wall('a', 0, 0, 10_000, 0), $wall('b', 0, -1.5, 10_000, 1.5)]];
        yield 'nearly parallel, meeting' => [[$wall('a', 0, 0, 10_000, 0), $wall('b', 0, 0, 10_000, 40)]];
        yield 'a star' => [array_map(static fn (int $k): Wall => $wall("s$k", 0, 0, 3000 * cos($k), 3000 * sin($k)), range(0, 11))];
        yield 'a room' => [[
            $wall('a', 0, 0, 5000, 0),
            $wall('b', 5000, 0, 5000, 4000),
            $wall('c', 5000, 4000, 0, 4000),
            $wall('d', 0, 4000, 0, 0),
        ]];
        yield 'a room, the other way round' => [[
            $wall('a', 5000, 0, 0, 0),
            $wall('b', 5000, 4000, 5000, 0),
            $wall('c', 0, 4000, 5000, 4000),
            $wall('d', 0, 0, 0, 4000),
        ]];
        yield 'a room far out' => [[
            $far('a', 0, 0, 5000, 0),
            $far('b', 5000, 0, 5000, 4000),
            $far('c', 5000, 4000, 0, 4000),
            $far('d', 0, 4000, 0, 0),
        ]];
        yield 'a bow tie' => [[
            $wall('a', 0, 0, 5000, 4000),
            $wall('b', 5000, 4000, 5000, 0),
            $wall('c', 5000, 0, 0, 4000),
            $wall('d', 0, 4000, 0, 0),
        ]];
        yield 'arcs that are none' => [[
            $wall('a', 0, 0, 5000, 0, 1e-9),
            $wall('b', 0, 0, 0, 0, 500.0),
            $wall('c', 5000, 0, 5000, 3000, -0.02),
        ]];
        yield 'a full half circle' => [[$wall('a', 0, 0, 5000, 0, 2500.0), $wall('b', 5000, 0, 0, 0, 2500.0)]];
        yield 'called by numbers' => [[
            $wall('7', 0, 0, 5000, 0),
            $wall('0', 5000, 0, 5000, 4000),
            $wall('-1', 5000, 4000, 0, 4000),
            $wall('007', 0, 4000, 0, 0),
        ]];
    }
}
