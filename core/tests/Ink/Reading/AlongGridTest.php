<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Reading\AlongGrid;

final class AlongGridTest extends TestCase
{
    public function testAWingsDimensionsRunWithNoAxis(): void
    {
        foreach ([0.0, 3.5, -178.0, 92.0] as $turned) {
            $at = static fn (float $degrees, float $length): array => [
                new Point(500, 300),
                new Point(500 + $length * cos(deg2rad($degrees + $turned)), 300 + $length * sin(deg2rad($degrees + $turned))),
            ];
            $along = AlongGrid::of([$at(0, 9365), $at(90, 10_365), $at(180, 2002), $at(-33, 11_379), $at(57, 5565), $at(86, 4112)]);
            $isTurned = 92.0 === $turned;
            self::assertSame($isTurned ? ['y', 'x', 'y', null, null, 'x'] : ['x', 'y', 'x', null, null, 'y'], $along);
        }
        self::assertSame([], AlongGrid::of([]));
    }

    public function testTheTwoLongestOfEitherAxisSquareADrawing(): void
    {
        $long = static fn (float $mm): array => [new Point(0, 0), new Point($mm, 0)];
        $spans = array_map($long, [900.0, 4000.0, 3000.0, 5000.0, 2000.0, 9000.0]);
        self::assertSame([false, true, false, true, true, false], AlongGrid::squaring($spans, ['x', 'x', 'x', 'x', 'y', null]));
    }
}
