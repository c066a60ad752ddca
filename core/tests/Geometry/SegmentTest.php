<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Geometry;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Segment;

final class SegmentTest extends TestCase
{
    public function testTheNearestPointStaysOnTheSegment(): void
    {
        self::assertSame([3.0, 0.0, 0.3], Segment::nearest([3.0, 5.0], [0.0, 0.0], [10.0, 0.0]));
        self::assertSame([10.0, 0.0, 1.0], Segment::nearest([30.0, 5.0], [0.0, 0.0], [10.0, 0.0]));
        self::assertSame([0.0, 0.0, 0.0], Segment::nearest([-3.0, 5.0], [0.0, 0.0], [10.0, 0.0]));
        self::assertSame([2.0, 2.0, 0.0], Segment::nearest([9.0, 9.0], [2.0, 2.0], [2.0, 2.0]), 'A segment of no length is a point.');
    }

    public function testCrossingsAreFoundTouchingIncluded(): void
    {
        //   d
        // a─┼──b
        //   c
        self::assertSame([0.25, 0.5], Segment::crossing([0.0, 0.0], [4.0, 0.0], [1.0, -1.0], [1.0, 1.0]));
        self::assertSame([0.25, 0.0], Segment::crossing([0.0, 0.0], [4.0, 0.0], [1.0, 0.0], [1.0, 1.0]), 'An end on the line.');
        self::assertNull(Segment::crossing([0.0, 0.0], [4.0, 0.0], [1.0, 0.1], [1.0, 1.0]));
        self::assertNull(Segment::crossing([0.0, 0.0], [4.0, 0.0], [0.0, 1.0], [4.0, 1.0]), 'Parallel.');
        self::assertNull(Segment::crossing([0.0, 0.0], [4.0, 0.0], [1.0, 0.0], [3.0, 0.0]), 'On each other.');
    }

    public function testTheShortestWayBetweenTwoBodies(): void
    {
        $square = static fn (float $x, float $y): array => [[$x, $y], [$x + 1.0, $y], [$x + 1.0, $y + 1.0], [$x, $y + 1.0]];
        self::assertSame(2.0, Segment::shortestWay($square(0.0, 0.0), $square(3.0, 0.2))[2]);
        self::assertEqualsWithDelta(sqrt(2.0), Segment::shortestWay($square(0.0, 0.0), $square(2.0, 2.0))[2], 1e-12);
        self::assertSame(0.0, Segment::shortestWay($square(0.0, 0.0), $square(0.5, 0.5))[2], 'They overlap.');
        [$p, $q, $gap] = Segment::shortestWay($square(0.0, 0.0), [[5.0, 0.5], [9.0, -3.0], [9.0, 4.0]]);
        self::assertSame([[1.0, 0.5], [5.0, 0.5], 4.0], [$p, $q, $gap], 'From an edge to a corner.');
    }
}
